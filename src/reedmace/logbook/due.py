"""What comes back: leak checks, flow tests, service, spare sponges."""

from datetime import datetime, timedelta
from typing import Literal

from pydantic import AwareDatetime

from reedmace.core.contract import Part
from reedmace.core.cycle import CycleAdviceAnswer, CycleForecastAnswer
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter.kinds import kind_of
from reedmace.core.fit.steps import leak_checks
from reedmace.core.flow.bucket import bucket_lph
from reedmace.core.upkeep import FlowFadeAnswer, FlowFadeQuestion, flow_fade
from reedmace.core.upkeep.fade import FadeTest
from reedmace.logbook.entries import Entry, FlowTest, MediaWork, TimedFlow
from reedmace.logbook.equipment import Hung, hang, steps_of
from reedmace.logbook.plans import CyclePlan
from reedmace.logbook.seeds import seeds
from reedmace.logbook.state import LogbookState

FLOW_TEST_DAYS = 30


class Due(Part):
    """One thing to do at a time."""

    key: str
    title: str
    detail: str
    at: AwareDatetime
    stage: Literal["fit", "cycle", "keep"]


def measured_lph(entry: Entry) -> float | None:
    """The flow a test found, L/h, None for another kind of entry. entry: of a tank."""
    body = entry.body
    if isinstance(body, FlowTest):
        return bucket_lph(body.container_l, body.times_s)
    return body.measured_lph if isinstance(body, TimedFlow) else None


def _tests(state: LogbookState, key: str) -> list[Entry]:
    """Flow tests of one filter by any way, oldest first."""
    found = [e for e in [*state.flow_tests, *state.timed_flows] if getattr(e.body, "filter_key", None) == key]
    return sorted(found, key=lambda e: (e.at, e.id))


def all_flows(state: LogbookState, key: str) -> list[tuple[datetime, float]]:
    """Every flow measured of one filter, oldest first: (time, L/h). state: the tank's; key: of the filter."""
    found = [(e.at, measured_lph(e)) for e in _tests(state, key)]
    return [(at, flow) for at, flow in found if flow is not None and flow >= 1]


def calibration(state: LogbookState, key: str) -> float | None:
    """Measured over computed of a filter's newest test that knew both, a ratio; None without one.

    state: the tank's; key: of the filter.
    """
    tests = [
        (e.at, (measured_lph(e) or 0.0) / e.body.computed_lph)
        for e in _tests(state, key)
        if isinstance(e.body, FlowTest | TimedFlow) and e.body.computed_lph
    ]
    return max(tests)[1] if tests else None


def cleaned_at(state: LogbookState, key: str) -> datetime | None:
    """When a filter's media were last rinsed or replaced. state: the tank's; key: of the filter."""
    return max(
        (
            e.at
            for e in state.events
            if isinstance(e.body, MediaWork)
            and e.body.what in ("rinsed", "replaced")
            and e.body.filter_key in (None, key)
        ),
        default=None,
    )


def due(state: LogbookState, now: datetime) -> list[Due]:
    """What is due or comes next, soonest first.

    state: the tank's; now: aware time, for what depends on it.
    """
    hung = hang(state)
    found = [row for one in hung for row in _of_filter(state, one, named=len(hung) > 1)]
    return sorted(found + _seeded(state, now), key=lambda d: (d.at, d.key))


def _of_filter(state: LogbookState, one: Hung, *, named: bool) -> list[Due]:
    """Leak checks, flow tests and service of one filter, named after it where there are several."""
    ticked, steps = state.ticked(one.key), steps_of(state, one).steps
    after = leak_checks(kind_of(one.filter.kind))
    found: list[Due] = []

    def add(key: str, title: str, detail: str, at: datetime, stage: Literal["fit", "keep"]) -> None:
        words = f"{title}: {one.filter.name}" if named else title
        found.append(Due(key=f"{key}-{one.key}" if named else key, title=words, detail=detail, at=at, stage=stage))

    for s in steps:
        power = ticked.get(after.get(s.id, ""))
        if power is not None and s.id not in ticked:
            add(s.id, s.title, s.detail, power.at + timedelta(minutes=s.wait_minutes or 5), "fit")
    flows = all_flows(state, one.key)
    if flows:
        at = flows[-1][0] + timedelta(days=FLOW_TEST_DAYS)
        add("flow-test", "Time the flow", "Three fills of a known container.", at, "fit")
    elif ticked and all(s.id in ticked for s in steps):
        at = max(e.at for e in ticked.values()) + timedelta(days=1)
        add("flow-test", "Prove the flow", "Three fills of a known container.", at, "fit")
    fade, since = flow_faded(state, one.key)
    if fade is not None and since is not None and fade.service_day is not None:
        add("service", "Clean the filter", fade.verdict, since + timedelta(days=min(fade.service_day, 3650)), "keep")
    return found


def flow_faded(state: LogbookState, key: str) -> tuple[FlowFadeAnswer | None, datetime | None]:
    """How a filter's flow has faded since it was last cleaned, and since when; None where too few tests tell.

    state: the tank's; key: of the filter.
    """
    flows = all_flows(state, key)
    since = cleaned_at(state, key) or (flows[0][0] if flows else None)
    tests = [(at, flow) for at, flow in flows if since is not None and at >= since]
    if since is None or len(tests) < 2:
        return None, since
    question = FlowFadeQuestion(
        tests=[FadeTest(day=(at - since).total_seconds() / 86400, flow_lph=flow) for at, flow in tests]
    )
    try:
        return flow_fade(question), since
    except CannotAnswer:
        return None, since


def _seeded(state: LogbookState, now: datetime) -> list[Due]:
    return [
        Due(key=f"seed-{s.key}", title="A spare sponge is seeded", detail=s.note or s.name, at=s.ready_at, stage="keep")
        for s in seeds(state, now)
        if s.where == "seeding"
    ]


def cycle_due(
    state: LogbookState, now: datetime, advice: CycleAdviceAnswer, forecast: CycleForecastAnswer | None
) -> list[Due]:
    """What comes next in a cycle: the next test, what is foreseen, the days on which it is likely ready.

    state: the tank's; now: aware time; advice, forecast: of its log.
    """
    plan = state.cycle_plan.body if state.cycle_plan else None
    if not isinstance(plan, CyclePlan):
        return []
    start = plan.started_at
    wait = {"now": 0.0, "tonight": 0.4, "tomorrow": 1.0, "later": 2.0}
    found = [
        Due(
            key=f"cycle-{a.do}-{(now + timedelta(days=wait[a.when])).date()}",
            title=a.title,
            detail=f"{a.detail} {a.reason}",
            at=now + timedelta(days=wait[a.when]),
            stage="cycle",
        )
        for a in (advice.first, *advice.then)
        if a.do in ("test", "dose-ammonia", "raise-kh", "change-water", "add-animals")
    ]
    found += [
        Due(key=f"cycle-{f.kind}", title=f.what, detail=f.detail, at=start + timedelta(days=f.day), stage="cycle")
        for f in advice.foreseen
    ]
    if forecast is not None and forecast.pass_day_p50 is not None and advice.first.do != "add-animals":
        for name, day in (("earliest", forecast.pass_day_p10), ("latest likely", forecast.pass_day_p90)):
            if day is not None:
                found.append(
                    Due(
                        key=f"cycle-ready-{name.split()[0]}",
                        title=f"Ready, {name} day",
                        detail=forecast.verdict,
                        at=start + timedelta(days=day),
                        stage="cycle",
                    )
                )
    return sorted(found, key=lambda d: (d.at, d.key))
