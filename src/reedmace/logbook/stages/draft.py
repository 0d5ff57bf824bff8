"""Plans typed on screen, applied to a state without being stored."""

from datetime import UTC, datetime
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Name, Part
from reedmace.core.cycle.judgement.methods import Resources
from reedmace.logbook.plans.plan_kinds import CyclePlan, FilterPlan, FitPlan, StockPlan, TankPlan
from reedmace.logbook.replay.entries import Body, Entry
from reedmace.logbook.replay.state import LogbookState


class Draft(Part):
    """Plans as typed; fields left out are as saved. `seen`: filters considered, by id."""

    tank_plan: TankPlan | None = None
    stock_plan: StockPlan | None = None
    filter_plan: FilterPlan | None = None
    fit_plan: FitPlan | None = None
    cycle_plan: CyclePlan | None = None
    resources: Resources | None = Field(default=None, description="What is to hand, while ways to cycle are compared")
    animals_in: bool = Field(default=False, description="With `resources`: whether animals are in already")
    seen: Annotated[list[Name], Field(max_length=12)] = Field(default_factory=list)


def _entry(body: Body) -> Entry:
    never = datetime(2000, 1, 1, tzinfo=UTC)
    return Entry(id=2**53, key="on-screen", at=never, written_at=never, body=body)


def with_plan(state: LogbookState, body: Body) -> LogbookState:
    """The state with one more plan. state: the tank's; body: a plan of any kind."""
    return state.model_copy(update={body.kind.replace("-", "_"): _entry(body)})


def with_draft(state: LogbookState, draft: Draft) -> LogbookState:
    """The state as if the draft were saved. state: the tank's; draft: what is typed."""
    plans = {
        name: _entry(body)
        for name in ("tank_plan", "stock_plan", "filter_plan", "fit_plan", "cycle_plan")
        if (body := getattr(draft, name)) is not None
    }
    return state.model_copy(update=plans)
