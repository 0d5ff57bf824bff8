"""Today's view of one tank: one verdict, one first action, what is due."""

from datetime import datetime, timedelta
from typing import Annotated

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Part, number
from reedmace.core.cycle import (
    CycleAdviceAnswer,
    CycleAdviceQuestion,
    FilterStopAnswer,
    IllnessAnswer,
    cycle_advice,
    needs_watching,
    water_note,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.memo import memoize
from reedmace.logbook.care.due import Due, due
from reedmace.logbook.care.filter_stops import stops
from reedmace.logbook.care.sick_animals import illness
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.arrival import came_at, since, situation
from reedmace.logbook.replay.cycle_log import care_log, cycle_log
from reedmace.logbook.replay.salinity_drift import salinity_drift
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.stages.keep import in_danger
from reedmace.logbook.stages.stage_rows import Stage, StageName, next_step, rows_or_fault

SOON = timedelta(days=2)
_WAITING: dict[StageName, str] = {
    "tank": "Measure the tank: three figures give its litres.",
    "stock": "Choose the animals, so that the filter can be sized for them.",
    "filter": "Choose its filter: the flow is computed through your own hoses.",
    "fit": "Go on fitting: {words}.",
    "cycle": "Begin its cycle: nothing lives in the filter yet.",
}


_ARRIVED: dict[str, tuple[str, StageName]] = {
    "cycling": ("Say how it is being cycled, and write down the tests made so far.", "cycle"),
    "filter-in-hand": ("A filter in hand: type what is on its box, and see what it does here.", "filter"),
}
"""Next action by the situation a tank was added in."""


def _gone_on(state: LogbookState, stands: str) -> bool:
    return bool(state.cycle_plan) if stands == "cycling" else bool(state.filters())


class TodayView(Part):
    """One tank on Today. `cycle_started_at` turns the days of the advice into dates."""

    verdict: str
    stage: StageName
    advice: CycleAdviceAnswer | None = None
    cycle_started_at: AwareDatetime | None = None
    net_l: Annotated[float, number("L", 0, 1e6)] | None = None
    growth_seen: bool = False
    urgent: bool = Field(default=False, description="Animals or the cycle cannot wait")
    harm: bool = Field(default=False, description="Living animals are in danger now")
    stop: FilterStopAnswer | None = None
    illness: IllnessAnswer | None = None
    way: str = Field(default="", description="What is left until the first animals; empty where some may live there")
    due: list[Due] = Field(default_factory=list)


@memoize
def today_view(state: LogbookState, now: datetime) -> tuple[TodayView, list[Stage]]:
    """What to do in one tank now, and the state of its stages. state: the tank's; now: aware time."""
    stages, fault = rows_or_fault(state, now)
    if fault is not None:
        return _at_odds(fault), stages
    try:
        view = _view(state, stages, now)
    except CannotAnswer as error:
        return _at_odds(str(error)), stages
    return view.model_copy(
        update={"way": _way(state, stages, view), "due": [d for d in due(state, now) if d.at <= now + SOON]}
    ), stages


def _at_odds(fault: str) -> TodayView:
    return TodayView(verdict=f"Its figures do not agree: {fault}", stage="tank")


def _view(state: LogbookState, stages: list[Stage], now: datetime) -> TodayView:
    log = care_log(state, now) or cycle_log(state, now)
    stopped, danger = stops(state, now), in_danger(state, now) is not None
    # A settled tank's cycle is not evaluated until a test calls for it.
    asks = log is not None and (needs_watching(log) or water_note(log) is not None)
    advice = cycle_advice(CycleAdviceQuestion(log=log)) if log is not None and asks else None
    urgent = danger or any(s.urgent for s in stopped) or (advice is not None and advice.stalled)
    # Poison before a stop, a stop before the rest: the first action is one. A stop that is not urgent
    # gives way to the cycle advice, which takes it into account.
    if stopped and not danger and (stopped[0].urgent or advice is None):
        return TodayView(verdict=stopped[0].verdict, stage="keep", stop=stopped[0], urgent=urgent, harm=urgent)
    ill = illness(state, now) if not danger else None
    # Deadly conditions come before the cycle's own next step, in a new tank as well.
    if ill is not None and (log is None or log.settled() or ill.urgent):
        return TodayView(
            verdict=ill.verdict, stage="keep", illness=ill, urgent=urgent or ill.urgent, harm=urgent or ill.urgent
        )
    lived_in = log is not None and log.method == "animals-in"
    if not urgent and not lived_in and _fits_first(state, stages):
        return _waits_for(state, next(s for s in stages if s.stage == "fit"))
    if log is not None and advice is not None:
        return TodayView(
            verdict=advice.verdict,
            stage="cycle",
            advice=advice,
            cycle_started_at=now - timedelta(days=log.day_now),
            net_l=log.net_l,
            growth_seen=log.plants_growing_day is not None,
            urgent=urgent,
            harm=danger,
        )
    if log is not None:
        return TodayView(verdict=salinity_drift(state, now) or _running(state), stage="keep")
    said = situation(state)
    if said is not None and said.stands in _ARRIVED and not _gone_on(state, said.stands):
        words, stage = _ARRIVED[said.stands]
        return TodayView(verdict=words, stage=stage)
    return _waits_for(state, next((s for s in stages if s.state != "done"), stages[-1]))


def _way(state: LogbookState, stages: list[Stage], view: TodayView) -> str:
    """What is left until the first animals; empty beside what presses.

    stages: of the tank; view: what is said first.
    """
    step = next_step(stages)
    if step is None or came_at(state) or since(state) is not None or view.advice or view.stop or view.illness:
        return ""
    plan = state.cycle_plan.body if state.cycle_plan else None
    if isinstance(plan, CyclePlan) and plan.method == "animals-in":
        return ""
    return f"To the first animals: {', '.join([step.words, *step.left])}."


def _fits_first(state: LogbookState, stages: list[Stage]) -> bool:
    """Whether a filter is to be fitted before its cycle can begin: nothing lives there, was dosed or tested."""
    by_stage = {s.stage: s.state for s in stages}
    begun = state.readings or state.doses or state.seeds
    waits = by_stage["filter"] == "done" and by_stage["fit"] != "done"
    return waits and not begun and since(state) is None and not came_at(state)


def _waits_for(state: LogbookState, waiting: Stage) -> TodayView:
    """The tank's first stage that is not done. waiting: the stage."""
    words = _running(state) if waiting.stage == "keep" else _WAITING[waiting.stage].format(words=waiting.words)
    return TodayView(verdict=words, stage=waiting.stage)


def _running(state: LogbookState) -> str:
    """The verdict of a tank that is well: a flow is timed, bubbles are looked at."""
    fitted = state.filters()
    by_air = bool(fitted) and all(f.filter.air for f in fitted)
    return f"Running. Test, feed, and {'look at its bubbles' if by_air else 'time its flow once a month'}."
