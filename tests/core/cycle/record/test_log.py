"""The log of a cycling tank: what follows from its entries alone."""

from typing import Any

import pytest

from reedmace.core.cycle.record.log import (
    BASELINE_DAYS,
    CHLORAMINE_MG_N_L,
    DOSED,
    HIGH_AMMONIA_MG_N_L,
    SETTLED_DAYS,
    UNASKED_TAP_MG_N_L,
    CycleLog,
    KitSteps,
    LoggedReading,
    TapWater,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity.units import NITROGEN_SHARE


def a_log(**known: Any) -> CycleLog:
    return CycleLog.model_validate({"net_l": 100, "day_now": 30, **known})


@pytest.mark.parametrize(
    ("tap", "treated", "cautious"),
    [
        ({}, 0.0, UNASKED_TAP_MG_N_L),
        ({"chlorine": "none"}, 0.0, 0.0),
        ({"chlorine": "chloramine"}, CHLORAMINE_MG_N_L, CHLORAMINE_MG_N_L),
        ({"chlorine": "chloramine", "ammonia_mg_n_l": 1.0}, 1.0, 1.0),
        ({"ammonia_mg_n_l": 0.1}, 0.1, 0.1),
    ],
)
def test_what_the_tap_brings_bound_or_free(tap: dict[str, Any], treated: float, cautious: float) -> None:
    assert TapWater(**tap).released_mg_n_l() == treated
    assert TapWater(**tap).cautious_mg_n_l() == cautious


def test_steps_are_in_nitrogen_whatever_the_kit_prints() -> None:
    as_ion, as_n = KitSteps(nitrite_ppm=[1, 0, 2]), KitSteps(nitrite_ppm=[1, 0, 2], basis="N")
    assert as_ion.steps_mg_n_l("nitrite") == pytest.approx([0, NITROGEN_SHARE["NO2"], 2 * NITROGEN_SHARE["NO2"]])
    assert as_n.steps_mg_n_l("nitrite") == [0, 1, 2]


def test_a_zero_means_half_the_first_step_and_never_more_than_a_usual_kits() -> None:
    usual = KitSteps().zero_mg_n_l("ammonia")
    assert usual == pytest.approx(0.125 * NITROGEN_SHARE["NH4"], rel=0.01)
    assert KitSteps(ammonia_ppm=[0, 0.1, 1]).zero_mg_n_l("ammonia") == pytest.approx(
        0.05 * NITROGEN_SHARE["NH4"], rel=0.01
    )
    assert KitSteps(ammonia_ppm=[0, 5, 10]).zero_mg_n_l("ammonia") == pytest.approx(usual, rel=0.01)


def test_a_kit_with_one_step_is_refused_with_the_remedy() -> None:
    with pytest.raises(CannotAnswer, match="fewer than two different steps"):
        KitSteps(nitrate_ppm=[5, 5]).check()
    KitSteps().check()


def test_the_most_a_vial_may_be_is_the_end_of_its_range() -> None:
    between = [{"what": "nitrite", "low_mg_n_l": 0.1, "high_mg_n_l": 0.4}]
    reading = LoggedReading.model_validate({"day": 1, "nitrite_mg_n_l": 0.2, "ammonia_mg_n_l": 0.3, "between": between})
    assert reading.at_most_mg_n_l("nitrite") == 0.4
    assert reading.at_most_mg_n_l("ammonia") == 0.3
    assert reading.at_most_mg_n_l("nitrate") is None


@pytest.mark.parametrize(("load", "dose"), [(0.1, 0.5), (1.0, 1.2), (50.0, HIGH_AMMONIA_MG_N_L)])
def test_the_dose_that_proves_is_a_fifth_over_a_days_load(load: float, dose: float) -> None:
    assert a_log(planned_load_mg_n_l_day=load).challenge_mg_n_l() == pytest.approx(dose)


def test_only_some_methods_dose_and_only_fish_food_rots() -> None:
    assert {m for m in (*DOSED, "planted", "fish-food", "animals-in") if a_log(method=m).doses_ammonia()} == set(DOSED)
    fed = {"food_g_day": 1.0, "net_l": 50}
    assert a_log(method="planted", **fed).food_mg_n_l_day() == 0
    half, whole = (a_log(method="fish-food", food_g_day=1, net_l=litres).food_mg_n_l_day() for litres in (100, 50))
    assert whole == pytest.approx(2 * half)


def test_nitrogen_that_comes_as_a_base_eats_less_alkalinity() -> None:
    salt = a_log().alkalinity_eaten_per_n()
    base = a_log(product={"form": "ammonia-solution", "strength_percent_w_v": 10}).alkalinity_eaten_per_n()
    # US EPA 1993: 7.14 mg CaCO3 per mg N, half of it (3.57) given back where ammonia comes as a base.
    assert salt == pytest.approx(7.14, abs=0.02)
    assert base == pytest.approx(3.57, abs=0.02)


def test_a_tank_is_settled_six_weeks_after_its_last_animals() -> None:
    assert not a_log().settled()
    assert not a_log(day_now=SETTLED_DAYS + 5, stocked_day=5).settled()
    assert a_log(day_now=SETTLED_DAYS + 5.1, stocked_day=5).settled()


def test_the_first_nitrate_is_a_baseline_test_or_the_taps() -> None:
    tap = {"tap": TapWater(nitrate_mg_n_l=3)}
    assert a_log(**tap).first_nitrate_mg_n_l() == 3
    early = [LoggedReading(day=1, nitrate_mg_n_l=1.0), LoggedReading(day=0.5, nitrate_mg_n_l=2.0)]
    assert a_log(**tap, readings=early).first_nitrate_mg_n_l() == 2
    late = [LoggedReading(day=BASELINE_DAYS + 1, nitrate_mg_n_l=9)]
    assert a_log(**tap, readings=late).first_nitrate_mg_n_l() == 3


def test_the_newest_figure_counts_in_whatever_order_tests_are_written() -> None:
    log = a_log(readings=[LoggedReading(day=9, temperature_c=24), LoggedReading(day=3, temperature_c=28, ph=7)])
    assert log.latest("temperature_c") == (9, 24)
    assert log.latest("ph") == (3, 7)
    assert log.latest("nitrite_mg_n_l") is None
    assert log.temperature_now_c() == 24
    assert a_log(temperature_known=False).warmth_measured() is False
    assert log.model_copy(update={"temperature_known": False}).warmth_measured()


def test_an_earlier_day_knows_nothing_of_what_came_after() -> None:
    log = a_log(
        readings=[LoggedReading(day=2), LoggedReading(day=20)],
        doses=[{"day": 1, "raise_mg_n_l": 1}, {"day": 15, "raise_mg_n_l": 1}],
        plants_growing_day=12,
        filter_running=False,
    )
    then = log.as_of(10)
    assert ([r.day for r in then.readings], [d.day for d in then.doses]) == ([2], [1])
    assert (then.plants_growing_day, then.filter_running, then.day_now) == (None, True, 10)
    assert log.as_of(12).plants_growing_day == 12


def test_animals_are_in_by_method_or_by_what_they_make() -> None:
    assert not a_log().animals_are_in()
    assert a_log(method="animals-in").animals_are_in()
    assert a_log(animals_in_mg_n_l_day=0.1).animals_are_in()


def test_the_taps_kh_is_the_starts_until_it_is_read() -> None:
    assert a_log(start_kh_dkh=6).tap_kh_dkh() == 6
    assert a_log(start_kh_dkh=6, tap=TapWater(kh_dkh=0)).tap_kh_dkh() == 0
