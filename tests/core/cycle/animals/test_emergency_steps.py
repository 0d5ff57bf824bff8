"""Steps of an emergency plan: their order, hours, litres and grams."""

from typing import Any

import pytest

from reedmace.core.chemistry.alkalinity_dose import soda_g
from reedmace.core.computations import compute
from reedmace.core.cycle.animals.emergency import EmergencyPlanAnswer

POISONED: dict[str, Any] = {
    "net_l": 100, "ammonia_mg_n_l": 4.0, "nitrite_mg_n_l": 0.0, "ph": 7.4, "kh_dkh": 5, "temperature_c": 25,
    "tap": {"ph": 7.4, "kh_dkh": 5, "chlorine": "none"},
}  # fmt: skip
SOUR = {**POISONED, "ammonia_mg_n_l": 0.1, "ph": 6.2, "before_ph": 7.4, "kh_dkh": 0.5}


def plan(**more: Any) -> EmergencyPlanAnswer:
    return compute("emergency-plan", {**POISONED, **more})


def does(answer: EmergencyPlanAnswer) -> list[str]:
    return [step.do for step in answer.steps]


def test_changes_come_hours_apart_and_a_test_an_hour_after_the_last() -> None:
    found = plan(ammonia_mg_n_l=9, ph=8.0, load_mg_n_l_day=0.5)
    changes = [step for step in found.steps if step.do == "change"]
    assert [step.after_hours for step in changes] == [4.0 * n for n in range(len(changes))]
    assert len(changes) > 1
    last = found.steps[-1]
    assert (last.title, last.how, last.after_hours) == (
        "Test again",
        "Ammonia, nitrite and pH.",
        changes[-1].after_hours + 1,
    )
    for step, change in zip(changes, found.changes, strict=True):
        assert step.litres == pytest.approx(change.litres) == pytest.approx(100 * change.share)
        assert step.title == f"Change {step.litres:.0f} L"
        assert (step.before_ph, step.after_ph) == (change.before_ph, change.after_ph)


def test_each_step_stands_by_the_limit_it_reaches() -> None:
    found = plan(ammonia_mg_n_l=6, load_mg_n_l_day=0.2)
    reaches = [step.ammonia_reach for step in found.steps if step.do == "change"]
    limit = found.limits[0].limit_mg_n_l
    assert reaches[0] == pytest.approx(found.changes[0].ammonia_after_mg_n_l / limit, rel=0.02)
    assert reaches == sorted(reaches, reverse=True)
    # Before anything is poured it stands where the tank stands.
    bound = plan(ammonia_mg_n_l=6, tap={"ph": 7.4, "kh_dkh": 5, "ammonia_mg_n_l": 5})
    assert bound.steps[0].do == "bind"
    assert bound.steps[0].ammonia_reach == pytest.approx(6 / limit, rel=0.02)
    assert bound.steps[0].litres == bound.steps[0].grams == bound.steps[0].raise_dkh == 0


def test_heat_cold_and_want_of_air_come_before_any_water() -> None:
    assert does(plan(temperature_c=37))[:2] == ["aerate", "cool"]
    assert does(plan(temperature_c=1))[0] == "warm"
    assert does(plan(gasping=True))[0] == "aerate"
    low = plan(ammonia_mg_n_l=0.0, oxygen_mg_l=2.0)
    assert does(low) == ["aerate", "test"]
    assert (low.steps[1].title, low.steps[1].after_hours) == ("Read oxygen again", 1)
    assert does(plan(ammonia_mg_n_l=0.0)) == []


def test_soda_is_weighed_for_its_rise_and_given_hours_apart() -> None:
    found = plan(**{**SOUR, "tap": {"ph": 7.6, "kh_dkh": 6, "chlorine": "none"}})
    soda = [step for step in found.steps if step.do == "soda"]
    assert [step.after_hours for step in soda] == [0, 4]
    for step in soda:
        assert step.raise_dkh > 0
        assert step.grams == pytest.approx(soda_g(step.raise_dkh, 100))
        assert step.title == f"Add {step.grams:.2g} g of baking soda"
        assert step.how == f"Dissolved in a jug of tank water: KH up by {step.raise_dkh:.1f} dKH."
        assert step.after_ph - step.before_ph == pytest.approx(0.45, abs=0.06)
        assert step.ph_words == f"pH goes from {step.before_ph:.1f} to {step.after_ph:.1f}."
        assert 0 < step.ammonia_reach < 0.2
    assert (does(found), found.steps[-1].after_hours) == (["soda", "soda", "test"], 5)


def test_binding_is_for_a_tap_that_brings_poison_or_a_day_that_does_not_hold() -> None:
    held = plan()
    assert held.holds_until_tomorrow
    assert does(held)[0] == "change"


@pytest.mark.parametrize(
    "more", [{"ph": 9.8, "kh_dkh": 5}, {"ph": 4.2, "kh_dkh": 3}, {"ph": 6.2, "before_ph": 7.4, "kh_dkh": 0.5}]
)
def test_water_too_acid_too_alkaline_or_turning_is_tested_again_with_what_nobody_read(more: dict[str, Any]) -> None:
    found = plan(**{**more, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": None})
    assert "Test nitrite too" in [step.title for step in found.steps]
    assert found.steps[-1].title == "Test again"
    assert "warm" not in does(found)


def test_without_litres_there_are_shares_and_no_grams() -> None:
    found = plan(**SOUR, litres_known=False)
    soda = next(step for step in found.steps if step.do == "soda")
    assert (soda.title, soda.grams) == ("A little baking soda", 0)
    assert soda.how.endswith("Count the tank's litres first: the grams follow from them.")
    change = next(step for step in plan(litres_known=False).steps if step.do == "change")
    assert change.title.endswith(" % of the water")
    assert float(change.title.split()[1]) == pytest.approx(change.litres, abs=0.5)


def test_a_shift_no_kit_shows_is_not_told() -> None:
    change = next(step for step in plan().steps if step.do == "change")
    assert change.ph_words == ""
    near = plan(ph=7.0, kh_dkh=3, ammonia_mg_n_l=12)
    moved = next(step for step in near.steps if step.do == "change")
    assert moved.ph_words == f"pH goes from 7.0 to {moved.after_ph:.1f}."


def test_what_nobody_read_is_to_be_tested_only_where_something_is_wrong() -> None:
    def titles(**more: Any) -> list[str]:
        return [step.title for step in plan(**more).steps]

    assert "Test nitrite too" in titles(nitrite_mg_n_l=None)
    assert "Test ammonia too" in titles(ammonia_mg_n_l=None, nitrite_mg_n_l=3)
    assert "Test ammonia and nitrite too" in titles(**{**SOUR, "ammonia_mg_n_l": None, "nitrite_mg_n_l": None})
    assert titles(ammonia_mg_n_l=0.0, nitrite_mg_n_l=None) == []


def test_a_change_is_worth_a_bucket_or_is_not_asked() -> None:
    # A little over the limit by tomorrow: a fiftieth would do, a tenth is asked.
    for ammonia in (1.0, 1.05, 1.1):
        found = plan(ammonia_mg_n_l=ammonia, nitrite_mg_n_l=0.1, load_mg_n_l_day=0.2)
        assert all(change.share >= 0.1 for change in found.changes)
