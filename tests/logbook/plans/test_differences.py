"""Two versions of a plan are told apart field by field, in words, also where no form shows the field."""

from typing import Any

from reedmace.core.quantity import formatting
from reedmace.core.quantity.formatting import Units
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.plans.differences import differences
from reedmace.logbook.plans.plan_kinds import FilterPlan, FitPlan, StockPlan, TankPlan


def told(theirs: Any, mine: Any) -> dict[str, tuple[str, str]]:
    return {d.field: (d.theirs, d.mine) for d in differences(theirs, mine)}


def test_the_same_plan_differs_in_nothing() -> None:
    plan = StockPlan.model_validate({"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 4}]})
    assert differences(plan, plan.model_copy(deep=True)) == []


def test_animals_are_called_by_name_and_found_wherever_they_stand() -> None:
    one = [{"species_id": "guppy", "count": 4}, {"species_id": "oscar", "count": 1}]
    two = [{"species_id": "oscar", "count": 1}, {"species_id": "guppy", "count": 6, "length_cm": 3}]
    found = told(*(StockPlan.model_validate({"kind": "stock-plan", "animals": a}) for a in (one, two)))
    assert found == {"Guppy, count": ("4", "6"), "Guppy, length": ("not said", "3 cm")}


def test_a_field_outside_every_form_is_told_in_the_keepers_units() -> None:
    box = {"length_cm": 60, "width_cm": 30, "height_cm": 36}
    one, two = (
        TankPlan.model_validate({"kind": "tank-plan", "tank": box, "surroundings": {"lid": lid, "room_c": warm}})
        for lid, warm in ((True, 20), (False, 25))
    )
    assert told(one, two) == {"Lid": ("yes", "no"), "Room": ("20 °C", "25 °C")}
    with formatting.in_units(Units(temperature="°F")):
        assert told(one, two)["Room"] == ("68 °F", "77 °F")


def test_a_filter_and_its_place_are_told_by_name() -> None:
    filters: list[dict[str, Any]] = [{"key": "f1", "filter": SAMPLE_BOXES[0].model_dump(mode="json")}]
    more = [*filters, {"key": "f2", "filter": SAMPLE_BOXES[1].model_dump(mode="json")}]
    one, two = (FilterPlan.model_validate({"kind": "filter-plan", "filters": f}) for f in (filters, more))
    assert told(one, two) == {SAMPLE_BOXES[1].name: ("has it not", "has it")}
    quieter = [{**filters[0], "filter": {**filters[0]["filter"], "watts": 3.5}}]
    three = FilterPlan.model_validate({"kind": "filter-plan", "filters": quieter})
    assert told(one, three) == {f"{SAMPLE_BOXES[0].name}, watts": (f"{SAMPLE_BOXES[0].watts:g}", "3.5")}
    low, high = (
        FitPlan.model_validate({"kind": "fit-plan", "places": {"f1": {"outlet_depth_cm": depth}}}) for depth in (2, 5)
    )
    assert told(low, high) == {"F1, outlet depth": ("2 cm", "5 cm")}
    named = {d.field for d in differences(low, high, {"f1": "Sweetflag 800"})}
    assert named == {"Sweetflag 800, outlet depth"}
    twins = {d.field for d in differences(low, high, {"f1": "Burreed 20", "f2": "Burreed 20"})}
    assert twins == {"Burreed 20 (f1), outlet depth"}
