"""Topping up, and soda before alkalinity runs out."""

import pytest

from reedmace.core.chemistry.alkalinity_dose import soda_g
from reedmace.core.upkeep.water_tasks import CaredKh, CaredTopUp, first_soda_day, soda_words, top_up_words


def kh(**changes: float | None) -> CaredKh:
    usual = {"now_dkh": 5.0, "falls_dkh_day": 0.1, "floor_dkh": 2.0, "target_dkh": 4.0, "net_l": 100.0}
    return CaredKh.model_validate({**usual, **changes})


def test_a_top_up_says_how_often_how_much_and_that_salt_stays() -> None:
    title, why = top_up_words(CaredTopUp(every_days=3.4, litres_day=0.5))
    assert (title, why.split(":")[0]) == ("Top up about 1.7 L", "Every 3 days")
    salt_title, salt_why = top_up_words(CaredTopUp(every_days=1.0, salt_water=True))
    assert salt_title == "Top up of fresh water, never salted"
    assert salt_why == "Every day: so much evaporates, and the salt stays behind."


def test_without_changes_alkalinity_falls_straight_to_its_floor() -> None:
    assert first_soda_day(kh(), 7, 7, 60) == pytest.approx(30)
    assert first_soda_day(kh(), 7, 7, 29) is None
    assert first_soda_day(kh(now_dkh=1.5), 7, 7, 60) == 0
    assert first_soda_day(kh(floor_dkh=0.0), 7, 7, 60) is None
    assert first_soda_day(kh(falls_dkh_day=0.0), 7, 7, 60) is None


def test_changes_with_hard_water_put_it_off_and_with_enough_of_it_for_ever() -> None:
    soft, hard = (first_soda_day(kh(tap_dkh=tap, falls_dkh_day=0.3), 7, 7, 365) for tap in (1.0, 6.0))
    never = first_soda_day(kh(tap_dkh=12.0, falls_dkh_day=0.3), 7, 7, 365)
    assert soft is not None
    assert hard is not None
    assert soft < 10 < hard
    assert never is None


def test_the_level_is_followed_day_by_day_to_the_same_day() -> None:
    one = kh(tap_dkh=6.0, falls_dkh_day=0.3)
    level, day = 5.0, 0.0
    while level > 2.0:
        if day and abs(day % 7) < 1e-9:
            level += 0.25 * (6.0 - level)
        level -= 0.3 * 0.001
        day = round(day + 0.001, 3)
    assert first_soda_day(one, 7, 7, 365) == pytest.approx(day, abs=0.01)


def test_a_large_rise_is_given_in_portions_and_a_small_one_not_at_all() -> None:
    found = soda_words(kh(), now=False)
    assert found is not None
    title, why = found
    assert title == f"Test KH and add {soda_g(2.0 * (10**0.3 - 1), 100.0):.2g} g of bicarbonate"
    assert "By then it falls to" in why
    low = soda_words(kh(now_dkh=0.4), now=True)
    assert low is not None
    assert "The rest half a day on" in low[1]
    assert soda_words(kh(floor_dkh=3.6), now=False) is None
    unmeasured = soda_words(kh(net_l=None), now=False)
    assert unmeasured is not None
    assert "dKH of bicarbonate" in unmeasured[0]
