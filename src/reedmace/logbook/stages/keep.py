"""The Keep stage: each filter's flow over time, and what all of them cost."""

from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime

from reedmace.core.filter import RunningCostAnswer
from reedmace.core.tank import TankVolumeAnswer
from reedmace.core.upkeep import FlowFadeAnswer
from reedmace.core.working import Lph, Part, number
from reedmace.logbook.due import FLOW_TEST_DAYS, all_flows, cleaned_at, flow_faded
from reedmace.logbook.equipment import hang
from reedmace.logbook.questions import volume
from reedmace.logbook.stages.filter import together
from reedmace.logbook.state import LogbookState


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


def _days(count: int) -> str:
    return "today" if count <= 0 else "yesterday" if count == 1 else f"{count} days ago"


def _verdict(filters: list[KeptFilter], now: datetime) -> str:
    """What stands first at the sink: a stop, then a flow that has faded, then a flow test that is old."""
    standing = [f.name for f in filters if not f.runs]
    if standing:
        return f"{' and '.join(standing)} stands still: get it running, or write down that it is taken off."
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
    return KeepView(
        verdict=_verdict(found, now),
        volume=volume(state),
        filters=found,
        cost=together(state, hung, chosen=True).cost if hung else None,
    )
