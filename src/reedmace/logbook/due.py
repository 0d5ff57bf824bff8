"""What comes back: leak checks, flow tests, service, spare sponges."""

from datetime import datetime, timedelta
from typing import Literal

from pydantic import AwareDatetime

from reedmace.core.cycle import CycleAdviceAnswer, CycleForecastAnswer
from reedmace.core.fit import FittingStepsQuestion, fitting_steps
from reedmace.core.upkeep import FlowFadeQuestion, flow_fade
from reedmace.core.upkeep.fade import FadeTest
from reedmace.core.working import CannotAnswer, Part
from reedmace.logbook.entries import CyclePlan, Entry, FilterPlan, FlowTest, MediaWork, TimedFlow
from reedmace.logbook.seeds import seeds
from reedmace.logbook.standing import Standing

FLOW_TEST_DAYS = 30
_FROM_POWER = {
    f"{kind}-leak-{when}": f"{kind}-power" for kind in ("canister", "hangon", "sump") for when in ("5", "60", "day")
}


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
        return body.container_l * 3600 * sum(1 / t for t in body.times_s) / len(body.times_s)
    return body.measured_lph if isinstance(body, TimedFlow) else None


def all_flows(standing: Standing) -> list[tuple[datetime, float]]:
    """Every flow measured, oldest first: (time, L/h). standing: the tank's."""
    found = [(e.at, measured_lph(e)) for e in [*standing.flow_tests, *standing.timed_flows]]
    return sorted((at, flow) for at, flow in found if flow is not None and flow >= 1)


def calibration(standing: Standing) -> float | None:
    """Measured over computed of the newest test that knew both, a ratio; None without one. standing: the tank's."""
    tests = [
        (e.at, (measured_lph(e) or 0.0) / e.body.computed_lph)
        for e in [*standing.flow_tests, *standing.timed_flows]
        if isinstance(e.body, FlowTest | TimedFlow) and e.body.computed_lph
    ]
    return max(tests)[1] if tests else None


def due(standing: Standing, now: datetime) -> list[Due]:
    """What is due or comes next, soonest first.

    standing: the tank's; now: aware time, for what depends on it.
    """
    plan = standing.filter_plan.body if standing.filter_plan else None
    chosen = plan.chosen if isinstance(plan, FilterPlan) else None
    if chosen is None:
        return _seeded(standing, now)
    found: list[Due] = []
    steps = fitting_steps(FittingStepsQuestion(kind=chosen.kind)).steps
    for s in steps:
        power = standing.steps_done.get(_FROM_POWER.get(s.id, ""))
        if power is not None and s.id not in standing.steps_done:
            at = power.at + timedelta(minutes=s.wait_minutes or 5)
            found.append(Due(key=s.id, title=s.title, detail=s.detail, at=at, stage="fit"))
    fitted = [e.at for e in standing.steps_done.values()]
    flows = all_flows(standing)
    if flows:
        at = flows[-1][0] + timedelta(days=FLOW_TEST_DAYS)
        found.append(
            Due(key="flow-test", title="Time the flow", detail="Three fills of a known container.", at=at, stage="fit")
        )
    elif fitted and all(s.id in standing.steps_done for s in steps):
        at = max(fitted) + timedelta(days=1)
        found.append(
            Due(key="flow-test", title="Prove the flow", detail="Three fills of a known container.", at=at, stage="fit")
        )
    found += _service(standing, flows)
    found += _seeded(standing, now)
    return sorted(found, key=lambda d: (d.at, d.key))


def _seeded(standing: Standing, now: datetime) -> list[Due]:
    return [
        Due(key=f"seed-{s.key}", title="A spare sponge is seeded", detail=s.note or s.name, at=s.ready_at, stage="keep")
        for s in seeds(standing, now)
        if s.where == "seeding"
    ]


def cycle_due(
    standing: Standing, now: datetime, advice: CycleAdviceAnswer, forecast: CycleForecastAnswer | None
) -> list[Due]:
    """What comes next in a cycle: the next test, what is foreseen, the days on which it is likely ready.

    standing: the tank's; now: aware time; advice, forecast: of its log.
    """
    plan = standing.cycle_plan.body if standing.cycle_plan else None
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


def _service(standing: Standing, flows: list[tuple[datetime, float]]) -> list[Due]:
    cleaned = [e.at for e in standing.events if isinstance(e.body, MediaWork) and e.body.what in ("rinsed", "replaced")]
    since = max(cleaned, default=flows[0][0] if flows else None)
    tests = [(at, flow) for at, flow in flows if since is not None and at >= since]
    if since is None or len(tests) < 2:
        return []
    try:
        fade = flow_fade(
            FlowFadeQuestion(
                tests=[FadeTest(day=(at - since).total_seconds() / 86400, flow_lph=flow) for at, flow in tests]
            )
        )
    except CannotAnswer:
        return []
    if fade.service_day is None:
        return []
    at = since + timedelta(days=min(fade.service_day, 3650))
    return [Due(key="service", title="Clean the filter", detail=fade.verdict, at=at, stage="keep")]
