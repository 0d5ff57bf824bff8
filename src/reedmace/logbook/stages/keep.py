"""The Keep stage: each filter's flow over time, and what all of them cost."""

from typing import Annotated

from pydantic import AwareDatetime

from reedmace.core.filter import RunningCostAnswer
from reedmace.core.upkeep import FlowFadeAnswer
from reedmace.core.working import Lph, Part, number
from reedmace.logbook.due import all_flows, cleaned_at, flow_faded
from reedmace.logbook.equipment import hang
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

    filters: list[KeptFilter]
    cost: RunningCostAnswer | None


def keep_view(state: LogbookState) -> KeepView:
    """The Keep stage of a tank. state: the tank's."""
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
    return KeepView(filters=found, cost=together(state, hung, chosen=True).cost if hung else None)
