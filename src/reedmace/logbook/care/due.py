"""Due dates: leak checks, flow tests, service, spare sponges."""

from datetime import datetime, timedelta
from typing import Literal

from pydantic import AwareDatetime

from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.contract import Part
from reedmace.core.cycle import CycleAdviceAnswer, CycleForecastAnswer
from reedmace.core.cycle.advice.action import Do, When
from reedmace.core.filter.kinds import kind_of
from reedmace.core.fit.fitting_steps import leak_checks
from reedmace.core.memo import memoize
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import DAYS_PER_YEAR
from reedmace.core.upkeep import CarePlanAnswer
from reedmace.core.upkeep.care_plan import FLOW_TEST_DAYS
from reedmace.core.upkeep.care_schemas import CareWhat
from reedmace.logbook.care.brood_care import brood_care
from reedmace.logbook.care.change_reviews import reviews
from reedmace.logbook.care.in_quarantine import in_quarantine
from reedmace.logbook.care.plug_checks import plug_check
from reedmace.logbook.care.spare_sponges import seeds
from reedmace.logbook.care.upkeep_log import care, flow_faded
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.entries import CareDone, MediaWork
from reedmace.logbook.replay.equipment import EquippedFilter, installed_filters, steps_of
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import salinity_now


class Due(Part):
    """One thing to do at a time."""

    key: str
    title: str
    detail: str
    at: AwareDatetime
    stage: Literal["fit", "cycle", "keep"]


@memoize
def due(state: LogbookState, now: datetime, *, again: bool = False) -> list[Due]:
    """What is due or comes next, soonest first.

    state: the tank's; now: aware time, for what depends on it; again: with every time a thing of the care plan comes
    back, not the next only.
    """
    installed, plan = installed_filters(state), care(state, now)
    if plan is not None and not tops_up(state):
        plan = plan.model_copy(update={"tasks": [t for t in plan.tasks if t.what != "top-up"]})
    if plan is not None:
        # Bubbles are looked at in passing: sixty sponges are no sixty tasks.
        plan = plan.model_copy(update={"tasks": [t for t in plan.tasks if t.what != "look"]})
    found = [
        row for one in installed for row in _of_filter(state, one, named=len(installed) > 1, cared=plan is not None)
    ]
    found += _looked_after(state, now)
    return sorted([*found, *_cared(plan, now, again=again), *_seeded(state, now)], key=lambda d: (d.at, d.key))


def _looked_after(state: LogbookState, now: datetime) -> list[Due]:
    """Plugs to check after work in the tank, and changes to review."""
    asked = plug_check(state, now)
    found = [
        Due(
            key=f"review-{r.of}",
            title=f"{r.title}: was it worth it?",
            detail="A month is over: its flow, the water's clearness, its noise.",
            at=r.due_at,
            stage="keep",
        )
        for r in reviews(state, now)
        if r.said is None
    ]
    found += [*_anniversaries(state, now), *_of_broods(state, now)]
    shut_in = in_quarantine(state, now)
    if shut_in is not None:
        title = "The quarantine is over" if shut_in.answer.over else "The quarantine ends"
        detail = "Look at each animal once more, then move them; the tank and its sponge stay apart until disinfected."
        found.append(Due(key="quarantine", title=title, detail=detail, at=shut_in.until, stage="keep"))
    if asked is not None:
        named = " and ".join(asked.filters)
        detail = f"After {asked.after}: does {named} move water? A filter forgotten unplugged is a common loss."
        found.append(
            Due(key="plugs", title="Is everything plugged in again?", detail=detail, at=asked.at, stage="keep")
        )
    return found


_BROOD_STEPS = {"hatched": "should hatch", "free-swimming": "should swim freely", "counted": "are to be counted"}


def _of_broods(state: LogbookState, now: datetime) -> list[Due]:
    """The next step of each brood, and the day its tank is too small."""
    found = []
    for one in brood_care(state, now):
        name = formatting.inside(one.common_name)
        words = _BROOD_STEPS.get(one.next_step)
        if words is not None and one.next_at is not None:
            title = f"The young of {name} {words}"
            found.append(Due(key=f"brood-{one.key}", title=title, detail=one.verdict, at=one.next_at, stage="keep"))
        if one.small_at is not None:
            title = f"The tank is too small for so many young of {name}"
            found.append(
                Due(key=f"brood-small-{one.key}", title=title, detail=one.verdict, at=one.small_at, stage="keep")
            )
    return found


def tops_up(state: LogbookState) -> bool:
    """Whether to remind of top-ups: always where salt stays behind, otherwise once the keeper records them."""
    written = any(isinstance(e.body, CareDone) and e.body.what == "top-up" for e in state.events)
    return written or not is_fresh(salinity_now(state))


YEAR, AHEAD, PAST = timedelta(days=DAYS_PER_YEAR), timedelta(days=60), timedelta(days=14)
"""Days before and after a full year of the media within which it is mentioned."""


def _anniversaries(state: LogbookState, now: datetime) -> list[Due]:
    """Full years of the media in each running filter, since it was installed or all of them were replaced."""
    found = []
    for f in state.filters():
        replaced = [
            e.at
            for e in state.events
            if isinstance(e.body, MediaWork)
            and e.body.what == "replaced"
            and e.body.share >= 0.9
            and e.body.filter_key in (None, f.key)
        ]
        installed = state.hung_since.get(f.key)
        since = max([*replaced, *([installed] if installed else [])], default=None)
        if since is None or not state.runs(f.key):
            continue
        years = max(round((now - since) / YEAR), 1)
        at = since + years * YEAR
        if now - PAST <= at <= now + AHEAD:
            old = "a year" if years == 1 else f"{years} years"
            found.append(
                Due(
                    key=f"media-year-{f.key}-{years}",
                    title=f"The media of {f.filter.name} are {old} old",
                    detail=(
                        "Foam that no longer springs back and fine pads that stay grey are replaced, half at a time, a"
                        " month apart."
                    ),
                    at=at,
                    stage="keep",
                )
            )
    return found


_STAGES: dict[CareWhat, Literal["fit", "cycle", "keep"]] = {"flow-test": "fit", "test": "cycle"}


def _cared(plan: CarePlanAnswer | None, now: datetime, *, again: bool) -> list[Due]:
    """The next occurrence of each task of the care plan, or all of them."""
    found: dict[str, Due] = {}
    for n, t in enumerate(plan.tasks if plan else []):
        key = f"{t.what}-{t.filter_key}" if t.filter_key else t.what
        key = f"{key}-{n}" if again and key in found else key
        if key not in found:
            moved = f" Moved: {t.moved}." if t.moved else ""
            found[key] = Due(
                key=key,
                title=t.title,
                detail=f"{t.why}{moved}",
                at=now + timedelta(days=t.in_days),
                stage=_STAGES.get(t.what, "keep"),
            )
    return list(found.values())


def _of_filter(state: LogbookState, one: EquippedFilter, *, named: bool, cared: bool) -> list[Due]:
    """Leak checks of one filter, named where there are several; flow tests and service without a care plan."""
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
    if cared or one.filter.air:
        return found
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


def _seeded(state: LogbookState, now: datetime) -> list[Due]:
    return [
        Due(key=f"seed-{s.key}", title="A spare sponge is seeded", detail=s.note or s.name, at=s.ready_at, stage="keep")
        for s in seeds(state, now)
        if s.where == "seeding"
    ]


WAIT_DAYS: dict[When, float] = {"now": 0.0, "tonight": 0.4, "tomorrow": 1.0, "later": 2.0}
"""Days from now that advice stands in the calendar."""
IN_CALENDAR: tuple[Do, ...] = (
    "test", "dose-ammonia", "raise-kh", "change-water", "add-animals", "treat-water", "aerate", "warm", "cool",
    "bind-ammonia",
)  # fmt: skip
"""Advice that is an appointment, not only a manner of doing."""


def _advised(now: datetime, advice: CycleAdviceAnswer) -> list[Due]:
    """Today's advice as due tasks, one of a kind a day."""
    found: dict[str, Due] = {}
    for a in (advice.first, *advice.then):
        at = now + timedelta(days=WAIT_DAYS[a.when])
        key = f"cycle-{a.do}-{at.date()}"
        if a.do in IN_CALENDAR and key not in found:
            # A task due today is not described as tomorrow's.
            title = "Test" if a.do == "test" and a.when != "now" else a.title
            found[key] = Due(key=key, title=title, detail=f"{a.detail} {a.reason}", at=at, stage="cycle")
    return list(found.values())


def cycle_due(
    state: LogbookState, now: datetime, advice: CycleAdviceAnswer, forecast: CycleForecastAnswer | None
) -> list[Due]:
    """What comes next in a cycle: the next test, coming stalls, the days on which it is likely ready.

    state: the tank's; now: aware time; advice, forecast: of its log.
    """
    found = _advised(now, advice)
    plan = state.cycle_plan.body if state.cycle_plan else None
    if not isinstance(plan, CyclePlan):
        return found
    start = plan.started_at
    found += [
        Due(key=f"cycle-{f.kind}", title=f.what, detail=f.detail, at=start + timedelta(days=f.day), stage="cycle")
        for f in advice.coming_stalls
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


WEEK = timedelta(days=7)


def week_words(rows: list[Due], now: datetime) -> str:
    """What is late and what falls into the coming week, in a sentence. rows: due; now: aware time."""
    late = sum(r.at.date() < now.date() for r in rows)
    soon = sum(r.at.date() >= now.date() and r.at <= now + WEEK for r in rows)
    behind = f"{late} {'thing is' if late == 1 else 'things are'} late, " if late else ""
    coming = f"{soon} {'thing falls' if soon == 1 else 'things fall'}" if soon else "nothing falls"
    words = f"{behind}{coming} into the coming week."
    return formatting.opening(words)
