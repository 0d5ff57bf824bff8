"""What the kernel is given of a log: conditions by day, events in order, targets from today."""

from typing import Any

import numpy as np
import pytest

from reedmace.core.chemistry import pka_fresh
from reedmace.core.chemistry.ammonia import pka_sea
from reedmace.core.cycle.model.inputs import (
    FOOD_LAG_DAYS,
    GROWN_IN_DAYS,
    LEAST_NITRATE_MG_N_L,
    MOST_FACTOR,
    PLANT_UPTAKE_MG_N_L_DAY,
    STILL_WORK,
    ZEROS_DAYS,
    Scenario,
    acid_born_factor,
    aim_of,
    events_of,
    growth_factor,
    made_in_tank_mg_n_l_day,
    model_input_of,
    oxygen_factor,
    step_of,
    still_conditions,
    with_first_dose,
)
from reedmace.core.cycle.model.nitrogen_kernel import (
    ADD_ALKALINITY,
    ADD_FILM,
    ADD_TAN,
    CHANGE_WATER,
    CONDITIONS,
    COUNT_FROM,
    DOSE,
    GROWTH,
    HOLD_ALKALINITY,
    KA,
    KILL_FILM,
    LEAST_ALKALINITY,
    PLANTS,
    STEPS_PER_DAY,
    THETA,
    WON,
    WORK,
    ZEROS_NEEDED,
)
from reedmace.core.cycle.model.prior import MATURE_FILM_MG_N_L_DAY
from reedmace.core.cycle.record.log import HIGH_AMMONIA_MG_N_L, CycleLog
from reedmace.core.quantity import CACO3_PER_DKH
from tests.support.cycling import busy_log, proving

DAYS = 60


def a_log(**known: Any) -> CycleLog:
    return CycleLog.model_validate({"net_l": 100, "day_now": 20, "start_kh_dkh": 5, **known})


def conditions(log: CycleLog, **scenario: Any) -> np.ndarray:
    return model_input_of(log, DAYS, Scenario(**scenario)).conditions


def test_every_day_of_the_horizon_has_its_conditions() -> None:
    found = still_conditions(DAYS, 25.0)
    assert found.shape == (DAYS + 1, CONDITIONS)
    assert found[0, KA] == pytest.approx(10 ** -pka_fresh(25.0))
    assert found[0, WORK] == pytest.approx(1.0)
    warm = still_conditions(1, 30.0)
    assert warm[0, THETA] > found[0, THETA]
    # Warm and salt water hold less oxygen.
    assert warm[0, WORK] < 1.0
    assert oxygen_factor(25.0, 35.0) < 1.0
    assert still_conditions(1, 25.0, 35.0)[0, KA] == pytest.approx(10 ** -pka_sea(25.0, 35.0))


def test_a_temperature_read_counts_from_the_day_before_until_the_next() -> None:
    found = conditions(a_log(temperature_c=25, readings=[{"day": 8, "temperature_c": 20}]))
    assert found[6, THETA] == still_conditions(0, 25.0)[0, THETA]
    assert found[7, THETA] == found[DAYS, THETA] == still_conditions(0, 20.0)[0, THETA]
    turned = conditions(a_log(temperature_c=25), temperature_c=28.0)
    assert turned[19, THETA] == still_conditions(0, 25.0)[0, THETA]
    assert turned[20, THETA] == still_conditions(0, 28.0)[0, THETA]


def test_growth_wants_phosphorus() -> None:
    found = conditions(a_log(readings=[{"day": 4, "phosphate_ppm": 0.0}, {"day": 9, "phosphate_ppm": 1.0}]))
    assert found[3, GROWTH] == 1.0
    assert found[4, GROWTH] == 0.0
    assert found[9, GROWTH] == pytest.approx(growth_factor(1.0))
    assert growth_factor(1.0) > 0.95
    assert growth_factor(0.004 / 0.3261) == pytest.approx(0.5)


def test_a_filter_that_stands_leaves_a_twentieth_for_as_long_as_it_stands() -> None:
    found = conditions(a_log(outages=[{"day": 5.5, "hours": 24}]))
    usual = conditions(a_log())[:, WORK]
    left = found[:, WORK] / usual
    assert left[4] == left[7] == 1.0
    assert left[5] == left[6] == pytest.approx(1 - 0.5 * (1 - STILL_WORK))
    half = conditions(a_log(outages=[{"day": 5, "hours": 24, "share": 0.5}]))
    assert half[5, WORK] / usual[5] == pytest.approx(1 - 0.5 * (1 - STILL_WORK))


def test_plants_take_little_until_they_grow_and_most_once_grown_in() -> None:
    first, most = PLANT_UPTAKE_MG_N_L_DAY["many"]
    found = conditions(a_log(plants="many", plants_growing_day=10))[:, PLANTS]
    assert found[9] == pytest.approx(0.1 * first)
    assert found[10] == pytest.approx(first)
    assert found[10 + int(GROWN_IN_DAYS)] == pytest.approx(most)
    assert (np.diff(found) >= 0).all()
    assert not conditions(a_log())[:, PLANTS].any()


def test_food_rots_with_a_lag_and_animals_make_theirs_from_when_they_came() -> None:
    fed = made_in_tank_mg_n_l_day(a_log(method="fish-food", food_g_day=1), DAYS)
    end = a_log(method="fish-food", food_g_day=1).food_mg_n_l_day()
    assert fed[0] == pytest.approx(end * (1 - np.exp(-0.5 / FOOD_LAG_DAYS)))
    assert fed[-1] == pytest.approx(end, rel=1e-4)
    kept = made_in_tank_mg_n_l_day(a_log(stocked_day=12, animals_in_mg_n_l_day=0.3), DAYS)
    assert (kept[:11].max(), kept[13]) == (0.0, 0.3)
    assert made_in_tank_mg_n_l_day(a_log(method="animals-in", stocked_day=12, animals_in_mg_n_l_day=0.3), 5)[0] == 0.3


def test_bacteria_born_in_acid_water_are_weeks_late_not_months() -> None:
    assert acid_born_factor(7.4, 1.0) == 1.0
    assert acid_born_factor(6.0, 5.0) == 1.0
    found = [acid_born_factor(ph, 1.0) for ph in (6.4, 6.0, 5.6, 4.5)]
    assert found == sorted(found)
    assert found[-1] == MOST_FACTOR


def test_soda_from_today_ends_what_acid_water_did() -> None:
    found = conditions(a_log(start_ph=5.8, start_kh_dkh=1.0, temperature_c=25), hold_kh_dkh=5.0)[:, WORK]
    assert found[0] == pytest.approx(acid_born_factor(5.8, 1.0))
    assert found[20] == pytest.approx(1.0)
    left = conditions(a_log(start_ph=5.8, start_kh_dkh=1.0, temperature_c=25), hold_kh_dkh=0.0)[:, WORK]
    assert left[20] == pytest.approx(acid_born_factor(5.8, 1.0))


@pytest.mark.parametrize("method", ["measured-ammonia", "seeded-filter", "fish-food", "animals-in"])
def test_events_are_in_order_with_the_share_litres_and_alkalinity_of_each(method: str) -> None:
    log = busy_log(method)
    happened, kinds, values = events_of(log)
    assert (np.diff(happened) >= 0).all()
    assert values[kinds == CHANGE_WATER].tolist() == [0.4]
    assert values[(kinds == ADD_ALKALINITY) & (happened == 15)].tolist() == pytest.approx([3 * CACO3_PER_DKH])
    written = [d.raise_mg_n_l for d in log.doses]
    assert values[kinds == ADD_TAN].tolist() == pytest.approx(written)


def test_seed_adds_film_and_a_rinse_under_the_tap_kills_some() -> None:
    _, kinds, values = events_of(busy_log("seeded-filter"))
    assert values[kinds == ADD_FILM].tolist() == pytest.approx([0.2 * MATURE_FILM_MG_N_L_DAY])
    _, kinds, values = events_of(busy_log("fish-food"))
    assert (kinds == KILL_FILM).any()
    assert ((values[kinds == KILL_FILM] > 0) & (values[kinds == KILL_FILM] <= 1)).all()


def test_ammonia_that_comes_as_a_base_brings_alkalinity() -> None:
    dose = {"doses": [{"day": 1, "raise_mg_n_l": 2.0}]}
    _, kinds, values = events_of(a_log(**dose, product={"form": "ammonia-solution", "strength_percent_w_v": 10}))
    # 50.04 g of CaCO3 per mole of charge, 14.007 g of N: 3.57 mg a milligram (atomic masses).
    assert values[kinds == ADD_ALKALINITY].tolist() == pytest.approx([2 * 50.04 / 14.007], rel=0.01)
    assert not (events_of(a_log(**dose))[1] == ADD_ALKALINITY).any()


def test_the_start_is_the_tap_with_the_tanks_own_kh() -> None:
    log = a_log(tap={"ammonia_mg_n_l": 0.2, "nitrate_mg_n_l": 3, "kh_dkh": 9, "chlorine": "none"})
    found = model_input_of(log, DAYS)
    assert found.start.tolist() == pytest.approx([0.2, 0, 3, 5 * CACO3_PER_DKH])
    assert found.tap.tolist() == pytest.approx([0.2, 0, 3, 9 * CACO3_PER_DKH])
    assert model_input_of(a_log(), DAYS).start[2] == LEAST_NITRATE_MG_N_L


def test_seed_put_in_today_comes_after_what_was_done_today() -> None:
    log = a_log(doses=[{"day": 20, "raise_mg_n_l": 1}, {"day": 3, "raise_mg_n_l": 1}])
    found = model_input_of(log, DAYS, Scenario(seed_share=0.5))
    assert found.kinds.tolist() == [ADD_TAN, ADD_TAN, ADD_FILM]
    assert found.values[-1] == pytest.approx(0.5 * MATURE_FILM_MG_N_L_DAY)
    assert found.sample_steps([3.0, 20.0])[:, 1].tolist() == [1, 3]
    assert found.steps.tolist() == [step_of(3), step_of(20), step_of(20)]
    assert step_of(1.0) == STEPS_PER_DAY


def test_a_first_dose_is_assumed_only_where_none_was_needed_yet() -> None:
    assert with_first_dose(a_log(day_now=0)).doses[0].day == 0
    assert with_first_dose(a_log(day_now=0, plan_target_ppm=8)).doses[0].raise_mg_n_l == HIGH_AMMONIA_MG_N_L
    moved = a_log(method="seeded-filter", planned_load_mg_n_l_day=1.0)
    assert with_first_dose(moved).doses[0].raise_mg_n_l == pytest.approx(moved.challenge_mg_n_l())
    for log in (
        a_log(method="planted"),
        a_log(method="animals-in"),
        a_log(doses=[{"day": 3, "raise_mg_n_l": 1}]),
        a_log(readings=[{"day": 15, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 1, "nitrate_mg_n_l": 5}]),
    ):
        assert with_first_dose(log) is log


def test_targets_hold_kh_as_asked_and_dose_only_where_nothing_lives() -> None:
    log = a_log()
    assert aim_of(log, Scenario(hold_kh_dkh=4))[HOLD_ALKALINITY] == pytest.approx(4 * CACO3_PER_DKH)
    assert aim_of(log, Scenario(hold_kh_dkh=0))[HOLD_ALKALINITY] == 0
    assert aim_of(log, Scenario())[HOLD_ALKALINITY] > 0
    assert aim_of(log, Scenario())[LEAST_ALKALINITY] == 0
    assert aim_of(log, Scenario(until_kh_gone=True))[LEAST_ALKALINITY] == CACO3_PER_DKH
    whole, half = (aim_of(log, Scenario(dose_factor=f))[DOSE] for f in (1.0, 0.5))
    assert half == pytest.approx(whole / 2)
    assert aim_of(a_log(animals_in_mg_n_l_day=0.2), Scenario())[DOSE] == 0


def test_doses_cleared_count_but_for_the_last_that_must_still_be_seen() -> None:
    proved = a_log(**proving(30, 32, 34, 36, 38), day_now=40)
    assert aim_of(proved, Scenario())[WON] >= 1
    assert aim_of(proved, Scenario(counts_past=False))[WON] == 0


@pytest.mark.parametrize("method", sorted(ZEROS_DAYS))
def test_methods_without_doses_are_proved_by_days_of_zeros(method: str) -> None:
    aim = aim_of(a_log(method=method), Scenario())
    assert aim[ZEROS_NEEDED] == ZEROS_DAYS[method]
    if method != "planted":
        assert aim_of(a_log(method=method, stocked_day=9), Scenario())[COUNT_FROM] == 9
    else:
        later, sooner = (aim_of(a_log(method=method, plants_growing_day=d), Scenario())[COUNT_FROM] for d in (18, 8))
        assert later - sooner == pytest.approx(10)
