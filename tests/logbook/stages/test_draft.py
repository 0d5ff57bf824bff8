"""What is typed on screen, as if it were saved."""

from reedmace.logbook.plans.plan_kinds import StockPlan, TankPlan
from reedmace.logbook.replay.current_plans import DEFAULT_TANK, stock_plan, tank_plan
from reedmace.logbook.stages.draft import Draft, with_draft, with_plan
from tests.support.fitting import state_of

SAVED = state_of((9, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 4}]}))
TYPED = StockPlan.model_validate({"kind": "stock-plan", "animals": [{"species_id": "platy", "count": 2}]})


def test_a_typed_plan_takes_the_place_of_the_saved_one_and_the_rest_stays() -> None:
    shown = with_draft(SAVED, Draft(stock_plan=TYPED))
    assert stock_plan(shown) == TYPED
    assert stock_plan(SAVED).animals[0].species_id == "guppy"
    assert shown.tank_plan is None
    assert stock_plan(with_draft(SAVED, Draft())) == stock_plan(SAVED)


def test_one_more_plan_of_any_kind_stands_at_once() -> None:
    box = TankPlan(kind="tank-plan", tank=DEFAULT_TANK.model_copy(update={"length_cm": 120}))
    assert tank_plan(with_plan(SAVED, box)).tank.length_cm == 120
