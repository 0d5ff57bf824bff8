"""What a shopping list asks for the water."""

import pytest

from reedmace.core.contract import Working
from reedmace.core.fit.shopping_water import CYCLE_DOSES, ShoppingItem, ShoppingListQuestion, salt_water, to_begin
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.fitting import AT, ROOM

SPONGE = next(f for f in SAMPLE_BOXES if f.kind == "sponge").model_dump(mode="json")


def question(water: str = "fresh", **more: object) -> ShoppingListQuestion:
    one = {"filter": SPONGE, "site": ROOM | {"water": water}, **AT}
    return ShoppingListQuestion.model_validate({"filters": [one], "net_l": 100, **more})


def items(found: list[ShoppingItem]) -> dict[str, ShoppingItem]:
    return {one.item.split(",")[0].split(" for ")[0]: one for one in found}


def test_fresh_water_needs_no_salt() -> None:
    assert salt_water(question(), Working()) == []


def test_sea_water_is_mixed_measured_and_topped_up_fresh() -> None:
    found = items(salt_water(question("salt"), Working()))
    assert found["Sea salt mix"].amount == pytest.approx(35 * 100 * 1.1 / 1000)
    assert {"Salinity meter", "Can of purified water", "Circulation pump in the tank"} <= set(found)
    assert "Foam skimmer" in found
    assert "Foam skimmer" not in items(salt_water(question("salt", skimmer_owned=True), Working()))


def test_a_cycle_needs_eight_doses_and_a_year_of_conditioner() -> None:
    found = items(to_begin(question(target_ppm=2), Working()))
    # Ammonium chloride: 2 mg/L of NH4 in 100 L are 0.2 g, and each g of it weighs 53.49 / 18.04 as the salt.
    assert found["Ammonia source"].amount == pytest.approx(CYCLE_DOSES * 0.2 * 53.49 / 18.04, rel=0.02)
    assert found["Conditioner"].amount == pytest.approx(100 * (1 + 52 * 0.25) * 5 / 100)
    assert found["Baking soda"].need == "wise"
    assert found["Spare sponge to seed"].need == "spare"
