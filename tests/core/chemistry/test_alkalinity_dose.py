"""Baking soda: doses for alkalinity, and the alkalinity that nitrification uses."""

from typing import Any

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer

TANK: dict[str, Any] = {"net_l": 100}


def test_three_grams_of_bicarbonate_raise_a_hundred_litres_by_one_degree() -> None:
    assert compute(
        "alkalinity-dose", {"net_l": 100, "current_dkh": 3, "target_dkh": 4}
    ).sodium_bicarbonate_g == pytest.approx(3.0, abs=0.01)


def test_twelve_mg_of_nitrogen_burn_almost_five_degrees() -> None:
    answer = compute("alkalinity-dose", {"net_l": 100, "current_dkh": 4, "target_dkh": 4, "planned_mg_n_l": 12})
    assert answer.consumed_dkh == pytest.approx(4.8, abs=0.01)
    assert answer.left_without_dkh == pytest.approx(-0.8, abs=0.01)


def test_a_rise_too_small_to_part_is_one_portion() -> None:
    asked = {"net_l": 0.5, "current_dkh": 1.5, "target_dkh": 1.5104, "ph": 5, "animals_in": True, "ammonia_mg_n_l": 202}
    answer: Any = compute("alkalinity-dose", {**asked, "planned_mg_n_l": 0.008, "salinity_g_kg": 23.6})
    assert (answer.portions_count, answer.harms) == (1, False)


def test_bicarbonate_does_not_lower_kh() -> None:
    with pytest.raises(CannotAnswer, match="only raises"):
        compute("alkalinity-dose", {"net_l": 100, "current_dkh": 5, "target_dkh": 4})


def test_soda_over_ammonia_asks_for_ph_or_does_harm() -> None:
    asked = {**TANK, "current_dkh": 1, "target_dkh": 4, "animals_in": True, "ammonia_mg_n_l": 1.5}
    assert compute("alkalinity-dose", asked).harms
    assert not compute("alkalinity-dose", {**asked, "animals_in": False}).harms
    assert not compute("alkalinity-dose", {**asked, "ammonia_mg_n_l": 0}).harms


@pytest.mark.parametrize(("target", "portions"), [(2, 2), (4, 3)])
def test_without_a_ph_soda_is_given_in_more_portions_the_further_it_goes(target: float, portions: int) -> None:
    found = compute("alkalinity-dose", {**TANK, "current_dkh": 0.2, "target_dkh": target, "animals_in": True})
    assert found.portions_count == portions
