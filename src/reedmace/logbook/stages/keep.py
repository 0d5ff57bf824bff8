"""The Keep stage: each filter's flow over time, and what all of them cost."""

from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Lph, Part, number
from reedmace.core.cycle import CycleAdviceAnswer, CycleAdviceQuestion, FilterStopAnswer, cycle_advice, emergency_today
from reedmace.core.filter import RunningCostAnswer
from reedmace.core.tank import TankVolumeAnswer
from reedmace.core.upkeep import FlowFadeAnswer
from reedmace.logbook.due import FLOW_TEST_DAYS, all_flows, cleaned_at, flow_faded
from reedmace.logbook.equipment import hang
from reedmace.logbook.questions import care_log, volume
from reedmace.logbook.stages.filter import together
from reedmace.logbook.state import LogbookState
from reedmace.logbook.stops import stops
from reedmace.logbook.supplies import Supplies, supplies
from reedmace.logbook.takeover import Takeover, takeover


class FlowSeen(Part):
    """One flow measured."""

    at: AwareDatetime
    flow_lph: Lph


class KeptFilter(Part):
    """One filter over time."""

    key: str
    name: str
    runs: bool
    flows: list[FlowSeen]
    fade: FlowFadeAnswer | None
    since: AwareDatetime | None
    cleaned_at: AwareDatetime | None
    usual_days: Annotated[float, number("days", 0, 4000, "Between cleanings, by its kind and this food")]


class KeepView(Part):
    """All that Keep shows besides the logbook itself."""

    verdict: str
    volume: TankVolumeAnswer
    filters: list[KeptFilter]
    cost: RunningCostAnswer | None
    supplies: Supplies
    stops: list[FilterStopAnswer]
    takeover: Takeover | None
    danger: CycleAdviceAnswer | None = Field(description="What to do where animals stand over a limit")


def _days(count: int) -> str:
    return "today" if count <= 0 else "yesterday" if count == 1 else f"{count} days ago"


def in_danger(state: LogbookState, now: datetime) -> CycleAdviceAnswer | None:
    """What to do where the newest tests stand over a limit of the animals that are in; else None.

    state: the tank's, with a cycle plan or without; now: aware time.
    """
    log = care_log(state, now)
    plan = emergency_today(log) if log is not None else None
    if log is None or plan is None or not plan.in_danger:
        return None
    return cycle_advice(CycleAdviceQuestion(log=log))


def _verdict(
    filters: list[KeptFilter], stopped: list[FilterStopAnswer], danger: CycleAdviceAnswer | None, now: datetime
) -> str:
    """What stands first at the sink: poison, a stop, then a flow that has faded, then a flow test that is old."""
    if danger is not None:
        return f"{danger.verdict} {danger.first.title}."
    if stopped:
        return f"{stopped[0].verdict} {stopped[0].first}."
    for f in filters:
        if f.fade is not None and f.flows[-1].flow_lph < f.fade.limit_lph:
            share = f.flows[-1].flow_lph / f.fade.clean_lph
            return f"{f.name} has fallen to {share:.0%} of its clean flow: clean it, then time it again."
    timed = [f.flows[-1].at for f in filters if f.flows]
    if not timed:
        return "Time the flow once a month, and write down what you do."
    oldest = (now - min(timed)).days
    if oldest > FLOW_TEST_DAYS:
        return f"The flow was last timed {_days(oldest)}: time it again."
    return f"Running: the flow was timed {_days(oldest)}."


def keep_view(state: LogbookState, now: datetime) -> KeepView:
    """The Keep stage of a tank. state: the tank's; now: aware time."""
    hung = hang(state)
    found = []
    for one in hung:
        fade, since = flow_faded(state, one.key)
        found.append(
            KeptFilter(
                key=one.key,
                name=one.filter.name,
                runs=one.runs,
                flows=[FlowSeen(at=at, flow_lph=flow) for at, flow in all_flows(state, one.key)],
                fade=fade,
                since=since,
                cleaned_at=cleaned_at(state, one.key),
                usual_days=one.flow.service_days,
            )
        )
    stopped, danger = stops(state, now), in_danger(state, now)
    return KeepView(
        verdict=_verdict(found, stopped, danger, now),
        stops=stopped,
        danger=danger,
        takeover=takeover(state, now),
        volume=volume(state),
        filters=found,
        supplies=supplies(state, hung),
        cost=together(state, hung, chosen=True).cost if hung else None,
    )
