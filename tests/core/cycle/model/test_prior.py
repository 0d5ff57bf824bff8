"""The prior of the cycle model: what method, helpers and readings make of it."""

import numpy as np
import pytest

from reedmace.core.cycle.model.nitrogen_kernel import A0, B0, CO2, LAG, MU_A, MU_B
from reedmace.core.cycle.model.prior import (
    BOTTLE_OUTSIDE,
    BOTTLE_START,
    PRIOR_MEDIAN,
    PRIOR_SPREAD,
    ROCK_START,
    SEEDED_START,
    SLOW_TAIL,
    below_median,
    bottle_window,
    prior_median,
    prior_spread,
    spread_out,
    start_factor,
)
from reedmace.core.cycle.record.log import CycleLog


def log(**more: object) -> CycleLog:
    start = {"start_kh_dkh": 6, "start_ph": 7.6, "temperature_c": 26}
    return CycleLog.model_validate({"day_now": 10, "net_l": 100, **start, **more})


@pytest.mark.parametrize(
    ("more", "factor"),
    [
        ({}, 1.0),
        ({"method": "seeded-filter", "seed_share": 0.5}, 1 + 0.5 * SEEDED_START),
        ({"helpers": ["seed-media"], "seed_share": 0.1}, 1 + 0.1 * SEEDED_START),
        ({"helpers": ["bottled-culture"]}, BOTTLE_START),
        ({"helpers": ["bottled-culture"], "temperature_c": 18}, BOTTLE_OUTSIDE),
        ({"method": "mature-rock", "salinity_g_kg": 35}, ROCK_START),
        ({"plants": "many"}, 3.0),
        ({"method": "planted"}, 3.0),
    ],
)
def test_what_is_brought_multiplies_the_first_bacteria(more: dict, factor: float) -> None:
    assert start_factor(log(**more)) == pytest.approx(factor)
    median = prior_median(log(**more))
    assert median[A0] == pytest.approx(PRIOR_MEDIAN[A0] * factor)
    assert median[B0] == pytest.approx(PRIOR_MEDIAN[B0] * factor)
    # Film that comes awake sleeps less.
    assert (median[LAG] < PRIOR_MEDIAN[LAG]) == (factor > 1)


@pytest.mark.parametrize(
    ("more", "wants"),
    [
        ({}, None),
        ({"temperature_c": 18}, "°C"),
        ({"start_ph": 6.5}, "pH"),
        ({"start_kh_dkh": 1}, "some KH"),
        ({"bottle": {"in_date": False}}, "in date"),
        ({"readings": [{"day": 2, "phosphate_ppm": 0}]}, "phosphate"),
        ({"method": "planted"}, "ammonia source"),
    ],
)
def test_a_bottle_is_counted_inside_its_window_and_what_lacks_is_named(more: dict, wants: str | None) -> None:
    lacks = bottle_window(log(**more))
    assert (lacks == []) == (wants is None)
    assert wants is None or any(wants in one for one in lacks)


def test_what_was_brought_is_less_certain_and_a_known_donor_more() -> None:
    bare, seeded = prior_spread(log()), prior_spread(log(method="seeded-filter", seed_share=0.5))
    assert bare == pytest.approx(PRIOR_SPREAD)
    assert seeded[A0] > bare[A0]
    donor = {"food_g_day": 1, "age_days": 200}
    known = prior_spread(log(method="seeded-filter", seed_share=0.5, donor=donor))
    assert known[A0] < bare[A0]


def test_growth_has_its_tail_on_the_slow_side_only() -> None:
    below = below_median(PRIOR_SPREAD)
    assert below[MU_A] == pytest.approx(SLOW_TAIL * PRIOR_SPREAD[MU_A])
    assert below[MU_B] == pytest.approx(SLOW_TAIL * PRIOR_SPREAD[MU_B])
    others = [i for i in range(len(PRIOR_SPREAD)) if i not in (MU_A, MU_B)]
    assert below[others] == pytest.approx(PRIOR_SPREAD[others])
    normals = np.array([[-1.0] * 13, [1.0] * 13])
    slow, fast = spread_out(normals, PRIOR_SPREAD)
    assert slow == pytest.approx(-below)
    assert fast == pytest.approx(PRIOR_SPREAD)


def test_co2_is_what_explains_ph_and_kh_once_a_filter_has_run_a_day() -> None:
    def co2(*readings: dict, **more: object) -> float:
        return float(prior_median(log(readings=list(readings), **more))[CO2])

    pair = {"day": 3, "ph": 7.0, "kh_dkh": 5.6}
    expected = 5.6 * 17.848 / 50.04 / 10 ** (7.0 - 6.35)
    assert co2(pair) == pytest.approx(expected, rel=1e-3)
    # A well still loses its CO2 on the first day.
    assert co2({**pair, "day": 0.2, "ph": 6.2}) == pytest.approx(0.3)
    assert co2({**pair, "ph": 4.5, "kh_dkh": 8}) == pytest.approx(3.0)
    assert co2({**pair, "kh_dkh": 0.1}, start_ph=7.6, start_kh_dkh=6) == co2(start_ph=7.6, start_kh_dkh=6)
