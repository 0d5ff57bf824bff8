"""The current plans of a tank, with defaults until they are made."""

from datetime import datetime

from reedmace.core.cycle.record.log import (
    TapWater,
)
from reedmace.core.stock.species import Water
from reedmace.core.tank import TankVolumeQuestion
from reedmace.logbook.plans.plan_kinds import CyclePlan, FilterPlan, FitPlan, KitPlan, StockPlan, TankPlan
from reedmace.logbook.replay.arrival import came_with_animals, since
from reedmace.logbook.replay.state import LogbookState

DEFAULT_TANK = TankVolumeQuestion(length_cm=60, width_cm=30, height_cm=36, substrate_depth_cm=3)
"""The tank assumed until it has been measured; every screen that uses it says so."""


def tank_plan(state: LogbookState) -> TankPlan:
    """The tank as measured, or the stated default. state: the tank's."""
    body = state.tank_plan.body if state.tank_plan else None
    return body if isinstance(body, TankPlan) else TankPlan(kind="tank-plan", tank=DEFAULT_TANK)


def stock_plan(state: LogbookState) -> StockPlan:
    """The animals planned or kept, empty until chosen. state: the tank's."""
    body = state.stock_plan.body if state.stock_plan else None
    return body if isinstance(body, StockPlan) else StockPlan(kind="stock-plan", animals=[])


def filter_plan(state: LogbookState) -> FilterPlan:
    """The tank's equipment, empty until chosen. state: the tank's."""
    body = state.filter_plan.body if state.filter_plan else None
    return body if isinstance(body, FilterPlan) else FilterPlan(kind="filter-plan")


def fit_plan(state: LogbookState) -> FitPlan:
    """Positions of the parts, defaults until placed. state: the tank's."""
    body = state.fit_plan.body if state.fit_plan else None
    return body if isinstance(body, FitPlan) else FitPlan(kind="fit-plan")


USUAL_WATER: dict[Water, tuple[float, float, float]] = {
    "fresh": (0, 7.4, 4),
    "brackish": (10, 7.8, 6),
    "salt": (35, 8.1, 8),
}
"""Salinity in g/kg, pH and KH in dKH by kind of water until measured (common practice)."""


def cycle_plan(state: LogbookState, now: datetime) -> CyclePlan:
    """The cycle as planned, or a default one starting now. state: the tank's; now: aware time."""
    body = state.cycle_plan.body if state.cycle_plan else None
    if isinstance(body, CyclePlan):
        return body
    place = tank_plan(state).surroundings
    salinity, ph, kh = USUAL_WATER[place.water]
    return CyclePlan(
        kind="cycle-plan",
        started_at=since(state) or now,
        method="animals-in" if came_with_animals(state) else "measured-ammonia",
        salinity_g_kg=salinity,
        start_ph=place.ph or ph,
        start_kh_dkh=kh,
        tap=TapWater(chlorine="unknown"),
    )


def kit_plan(state: LogbookState) -> KitPlan:
    """The keeper's test kit, usual steps until entered. state: the tank's."""
    body = state.kit_plan.body if state.kit_plan else None
    return body if isinstance(body, KitPlan) else KitPlan(kind="kit-plan")
