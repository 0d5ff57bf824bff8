"""Limits of animals: ammonia by pH, nitrite by salt, warmth and pH by their own ranges or those of any animal."""

import pytest

from reedmace.core.chemistry.ammonia import un_ionised_share
from reedmace.core.chemistry.tolerance import (
    NH3_LIMIT_MG_N_L,
    Tolerance,
    ammonia_limit_mg_n_l,
    ammonia_reach,
    nitrite_limit_mg_n_l,
)


@pytest.mark.parametrize("ph", [6.6, 7.4, 8.2, 8.9])
@pytest.mark.parametrize("temperature_c", [18.0, 25.0, 29.0])
def test_the_stricter_of_two_rules_limits_ammonia_in_fresh_water(ph: float, temperature_c: float) -> None:
    limit, rule = ammonia_limit_mg_n_l(ph, temperature_c, 0.0)
    by_share = NH3_LIMIT_MG_N_L / un_ionised_share(ph, temperature_c, 0.0)
    assert limit <= by_share
    assert ("EPA" in rule) == (limit < by_share)


def test_in_salt_water_only_free_ammonia_counts() -> None:
    limit, rule = ammonia_limit_mg_n_l(8.1, 25.0, 35.0)
    assert limit == pytest.approx(NH3_LIMIT_MG_N_L / un_ionised_share(8.1, 25.0, 35.0))
    assert "EPA" not in rule


def test_reach_is_one_at_the_limit_and_any_ph_has_one() -> None:
    limit, _ = ammonia_limit_mg_n_l(7.8, 26.0, 0.0)
    assert ammonia_reach(limit, 7.8, 26.0, 0.0) == pytest.approx(1.0)
    assert ammonia_reach(1.0, 12.0, 26.0, 0.0) == ammonia_reach(1.0, 10.0, 26.0, 0.0)
    assert ammonia_reach(1.0, 2.0, 26.0, 0.0) == ammonia_reach(1.0, 4.0, 26.0, 0.0)


def test_chloride_makes_nitrite_ten_times_less_harmful() -> None:
    assert nitrite_limit_mg_n_l(30.0) == pytest.approx(10 * nitrite_limit_mg_n_l(0.0))
    assert nitrite_limit_mg_n_l(0.0) == pytest.approx(0.5 * 14.007 / 46.006, rel=1e-3)


def test_animals_of_unknown_kind_have_the_bounds_of_any() -> None:
    anyone = Tolerance()
    assert (anyone.too_cold(9.9), anyone.too_cold(10.0)) == (True, False)
    assert (anyone.too_hot(33.1), anyone.too_hot(33.0)) == (True, False)
    assert (anyone.too_acid(4.9), anyone.too_acid(5.0)) == (True, False)
    assert (anyone.too_alkaline(9.1), anyone.too_alkaline(9.0)) == (True, False)


def test_a_known_range_counts_with_a_margin_and_never_widens_into_harm_for_any() -> None:
    tropical = Tolerance(low_c=22, high_c=28, ph_low=6.0, ph_high=7.5)
    assert (tropical.too_cold(18.9), tropical.too_cold(19.0)) == (True, False)
    assert (tropical.too_hot(31.1), tropical.too_hot(31.0)) == (True, False)
    # Their own range is narrower than what is dangerous at once.
    assert (tropical.too_acid(5.1), tropical.too_acid(4.9)) == (False, True)
    assert (tropical.too_alkaline(8.9), tropical.too_alkaline(9.1)) == (False, True)
    rift = Tolerance(ph_low=7.8, ph_high=9.2)
    assert (rift.too_alkaline(9.6), rift.too_alkaline(9.8)) == (False, True)
    blackwater = Tolerance(ph_low=4.0, ph_high=6.5)
    assert (blackwater.too_acid(3.6), blackwater.too_acid(3.4)) == (False, True)


def test_water_turns_sour_by_a_fall_without_alkalinity_but_not_for_animals_of_soft_water() -> None:
    anyone, soft = Tolerance(), Tolerance(ph_high=6.8)
    assert anyone.turns_sour(6.4, 7.2, 0.5)
    assert not anyone.turns_sour(6.4, 7.2, 1.0)
    assert not anyone.turns_sour(6.9, 7.2, 0.5)
    assert not soft.turns_sour(5.6, 6.8, 0.0)
