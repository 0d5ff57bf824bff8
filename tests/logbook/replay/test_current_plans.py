"""Plans of a tank, or their stated defaults."""

from datetime import timedelta

from reedmace.logbook.replay.current_plans import (
    DEFAULT_TANK,
    USUAL_WATER,
    cycle_plan,
    filter_plan,
    fit_plan,
    kit_plan,
    stock_plan,
    tank_plan,
)
from tests.support.fitting import NOW, state_of


def test_before_anything_is_saved_each_plan_is_its_default() -> None:
    state = state_of()
    assert tank_plan(state).tank == DEFAULT_TANK
    assert (stock_plan(state).animals, filter_plan(state).filters) == ([], [])
    assert (fit_plan(state).kind, kit_plan(state).kind) == ("fit-plan", "kit-plan")
    assert cycle_plan(state, NOW).started_at == NOW


def test_a_cycle_nobody_planned_begins_with_what_is_known_of_the_tank() -> None:
    began = NOW - timedelta(days=20)
    state = state_of(
        (1, {"kind": "tank-plan", "tank": DEFAULT_TANK.model_dump(), "surroundings": {"water": "salt"}}),
        (1, {"kind": "situation", "stands": "animals-in", "since": began.isoformat()}),
    )
    plan = cycle_plan(state, NOW)
    assert (plan.started_at, plan.method) == (began, "animals-in")
    assert (plan.salinity_g_kg, plan.start_ph, plan.start_kh_dkh) == USUAL_WATER["salt"]
