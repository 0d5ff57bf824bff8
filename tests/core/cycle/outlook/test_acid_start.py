"""Forecasts begun in acid water: a running filter drives CO2 out and soda is given, so weeks are added, not months.

Source: common practice; measured ammonia with plants takes two to five weeks.
"""

import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle.model.nitrogen_kernel import CO2
from reedmace.core.cycle.model.prior import prior_median
from reedmace.core.cycle.record.log import CycleLog


def middle(ph: float, kh: float, **more: object) -> float:
    log = {"net_l": 100, "day_now": 0, "start_ph": ph, "start_kh_dkh": kh, "temperature_c": 25, **more}
    return compute("cycle-forecast", {"log": log, "draws": 400}).pass_day_p50


@pytest.mark.parametrize("plants", ["none", "many"])
def test_acid_water_adds_days_not_months_and_more_acid_is_no_shortcut(plants: str) -> None:
    neutral = middle(7.6, 5, plants=plants)
    acid = [middle(ph, kh, plants=plants) for ph, kh in ((6.8, 2.5), (6.4, 1.5), (6.0, 0.8), (5.8, 0.5))]
    assert all(neutral + 1 <= day <= neutral + 14 for day in acid)
    # Within the draws' scatter none of them is a shortcut past another.
    assert max(acid) - min(acid) <= 4


def test_planted_and_dosed_soft_water_is_a_matter_of_weeks() -> None:
    assert 21 <= middle(6.4, 1.5, plants="many") <= 35


def test_co2_that_is_given_or_seen_for_days_stays_in_the_water() -> None:
    def held(**more: object) -> float:
        log = {"net_l": 100, "day_now": 5, "start_ph": 6.4, "start_kh_dkh": 2.5, **more}
        return float(prior_median(CycleLog.model_validate(log))[CO2])

    seen = [{"day": day, "ph": 6.4, "kh_dkh": 2.5} for day in (2.0, 4.0)]
    assert held() == pytest.approx(0.3)
    assert held(co2_given=True) == held(readings=seen) == pytest.approx(0.79, abs=0.01)
    # A reading of the first hour is of water that still loses it.
    assert held(readings=[{"day": 0.1, "ph": 6.4, "kh_dkh": 2.5}]) == pytest.approx(0.3)
