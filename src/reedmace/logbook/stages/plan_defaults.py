"""All plans of a tank with defaults filled in, and which of them are assumed."""

from datetime import datetime
from typing import Literal

from reedmace.core.contract import Part
from reedmace.logbook.plans.plan_kinds import CyclePlan, FilterPlan, FitPlan, KitPlan, StockPlan, TankPlan
from reedmace.logbook.replay.current_plans import cycle_plan, filter_plan, fit_plan, kit_plan, stock_plan, tank_plan
from reedmace.logbook.replay.state import LogbookState

PlanName = Literal["tank", "stock", "filter", "fit", "cycle", "kit"]


class Plans(Part):
    """The plans as saved, or the defaults of those in `assumed`."""

    tank: TankPlan
    stock: StockPlan
    filter: FilterPlan
    fit: FitPlan
    cycle: CyclePlan
    kit: KitPlan
    assumed: list[PlanName]


def plans_of(state: LogbookState, now: datetime) -> Plans:
    """All plans. state: the tank's; now: aware time, the start of a cycle not planned yet."""
    kept: dict[PlanName, object] = {
        "tank": state.tank_plan,
        "stock": state.stock_plan,
        "filter": state.filter_plan,
        "fit": state.fit_plan,
        "cycle": state.cycle_plan,
        "kit": state.kit_plan,
    }
    return Plans(
        tank=tank_plan(state),
        stock=stock_plan(state),
        filter=filter_plan(state),
        fit=fit_plan(state),
        cycle=cycle_plan(state, now),
        kit=kit_plan(state),
        assumed=[name for name, entry in kept.items() if entry is None],
    )
