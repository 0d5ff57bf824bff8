"""The day plan: changes and soda by the hour, and the water they leave."""

from itertools import pairwise
from typing import Any

import pytest

from reedmace.core.chemistry.shock_limits import PH_SHIFT_ANIMALS
from reedmace.core.chemistry.tolerance import nitrite_limit_mg_n_l
from reedmace.core.contract import Working
from reedmace.core.cycle.animals.day_plan import (
    AIR_BREATHING_SHARE,
    APART_H,
    LARGEST_CHANGE,
    LEAST_SODA_DKH,
    MOST_CHANGES,
    MOST_SODA,
    DayPlan,
    EmergencyPlanQuestion,
    short_of_oxygen,
    soda_target_dkh,
)
from reedmace.core.cycle.record.log import TapWater
from reedmace.core.cycle.record.targets import held_kh_dkh
from reedmace.core.flow.oxygen_balance import SHORT_MG_L

TAP = TapWater(kh_dkh=5, ph=7.4, chlorine="chlorine")


def planned(made: float = 0.0, **known: Any) -> DayPlan:
    plan = DayPlan(
        EmergencyPlanQuestion(**{"net_l": 100, "ph": 7.4, "kh_dkh": 5, "tap": TAP, **known}), made, limits=[]
    )
    plan.plan(Working())
    return plan


def test_water_within_its_limits_is_left_alone() -> None:
    quiet = planned(ammonia_mg_n_l=0.0, nitrite_mg_n_l=0.0)
    assert (quiet.changes, quiet.soda) == ([], [])
    assert quiet.holds()


def test_each_change_dilutes_by_its_share() -> None:
    limit = nitrite_limit_mg_n_l(0)
    plan = planned(nitrite_mg_n_l=1.5 * limit)
    left = 1.5 * limit
    for change in plan.changes:
        left *= 1 - change.share
        assert change.nitrite_after_mg_n_l == pytest.approx(left)
        assert change.litres == pytest.approx(100 * change.share)
    assert left <= limit
    assert plan.holds()


def test_changes_are_bounded_in_size_number_and_pace() -> None:
    plan = planned(nitrite_mg_n_l=50 * nitrite_limit_mg_n_l(0))
    assert len(plan.changes) == MOST_CHANGES
    assert [c.after_hours for c in plan.changes] == [n * APART_H for n in range(MOST_CHANGES)]
    assert max(c.share for c in plan.changes) <= LARGEST_CHANGE + 1e-9
    assert not plan.holds()


def test_no_change_moves_ph_further_than_animals_bear() -> None:
    plan = planned(nitrite_mg_n_l=5.0, ph=6.4, kh_dkh=0.5, tap=TapWater(kh_dkh=14, ph=8.2))
    assert plan.changes
    for change in plan.changes:
        assert abs(change.after_ph - change.before_ph) <= PH_SHIFT_ANIMALS + 0.01


def test_a_tap_as_bad_as_the_tank_is_not_poured() -> None:
    limit = nitrite_limit_mg_n_l(0)
    assert planned(nitrite_mg_n_l=2 * limit, tap=TAP.model_copy(update={"nitrite_mg_n_l": 3 * limit})).changes == []


def test_a_tap_nobody_asked_about_counts_as_bringing_some_ammonia() -> None:
    asked = planned(tap=TapWater(kh_dkh=5, ph=7.4, chlorine="none"))
    unasked = planned(tap=TapWater(kh_dkh=5, ph=7.4))
    assert asked.tap.ammonia == 0
    assert unasked.tap.ammonia > 0


def test_one_change_a_day_is_enough_for_nitrate() -> None:
    assert len(planned(nitrate_mg_n_l=90.0).changes) == 1


def test_what_the_animals_make_by_tomorrow_counts() -> None:
    assert planned(made=0.01, ammonia_mg_n_l=0.1, ph=7.6).changes == []
    assert planned(made=6.0, ammonia_mg_n_l=0.1, ph=7.6).changes


def test_soda_goes_in_by_portions_and_on_no_guess() -> None:
    low: dict[str, Any] = {"kh_dkh": 0.3, "ph": 6.2, "tap": TapWater(kh_dkh=0.3, ph=6.4)}
    plan = planned(**low)
    assert 0 < len(plan.soda) <= MOST_SODA
    hours = [hour for hour, *_ in plan.soda]
    assert all(later - earlier >= APART_H - 1e-9 for earlier, later in pairwise(hours))
    for _, raised, before, after in plan.soda:
        assert after.carbonate.kh_dkh() == pytest.approx(before.carbonate.kh_dkh() + raised, abs=0.02)
        assert raised >= LEAST_SODA_DKH
    assert planned(**low, kh_known=False).soda == []


def test_animals_of_soft_water_get_no_soda_over_what_they_bear() -> None:
    low: dict[str, Any] = {"kh_dkh": 0.5, "ph": 6.2, "tap": TapWater(kh_dkh=0.5, ph=6.4)}
    plan = planned(**low, animals_ph_high=6.2)
    assert plan.soda == []
    assert plan.stays_soft()
    assert not planned(**low, animals_ph_high=8.5).stays_soft()
    assert not planned(animals_ph_high=6.4).stays_soft()


def test_the_target_of_soda_rises_with_the_ph_they_bear() -> None:
    least, target = held_kh_dkh(0)
    q = EmergencyPlanQuestion(net_l=100)
    assert soda_target_dkh(least + 1, 0.1, q) == least + 1
    assert soda_target_dkh(0.5, 0.1, q) == target
    bears = [
        soda_target_dkh(0.5, 0.1, q.model_copy(update={"animals_ph_high": ph})) for ph in (6.0, 6.8, 7.2, 7.6, 8.6)
    ]
    assert bears == sorted(bears)
    assert bears[0] == pytest.approx(0.5, abs=0.05)
    assert bears[-1] == target


def test_salt_water_is_mixed_to_the_tanks_own_values() -> None:
    plan = planned(salinity_g_kg=35, ph=8.1, kh_dkh=8, tap=TapWater(), temperature_c=25)
    assert plan.tap.carbonate.kh_dkh() == pytest.approx(8, abs=0.05)
    assert plan.tap.carbonate.ph() == pytest.approx(8.1, abs=0.02)


def test_air_breathers_are_not_short_where_others_are() -> None:
    assert short_of_oxygen(SHORT_MG_L - 0.1, 1.0)
    assert not short_of_oxygen(SHORT_MG_L, 1.0)
    assert not short_of_oxygen(SHORT_MG_L - 0.1, AIR_BREATHING_SHARE - 0.01)
    assert not short_of_oxygen(None, 1.0)
