"""Oxygen at saturation, and what is taken out of it."""

import pytest

from reedmace.core.chemistry.oxygen import oxygen_saturation_mg_l
from reedmace.core.computations import compute


@pytest.mark.parametrize(
    ("temperature_c", "salinity", "mg_l"),
    # APHA 4500-O, table of oxygen against temperature and salinity, from memory.
    [(0.0, 0.0, 14.62), (10.0, 0.0, 11.29), (20.0, 0.0, 9.09), (30.0, 0.0, 7.56), (20.0, 36.1, 7.36)],
)
def test_saturation_is_that_of_the_tables(temperature_c: float, salinity: float, mg_l: float) -> None:
    assert oxygen_saturation_mg_l(temperature_c, salinity) == pytest.approx(mg_l, rel=0.005)


def test_two_thousand_metres_up_a_fifth_is_missing() -> None:
    low, high = (compute("oxygen-saturation", {"altitude_m": m}).saturation_mg_l for m in (0, 2000))
    assert high / low == pytest.approx(0.78, abs=0.02)


def test_film_and_animals_take_oxygen_by_nitrogen_and_by_food() -> None:
    answer = compute("oxygen-saturation", {"net_l": 200, "ammonia_mg_n_day": 400, "feed_g_day": 4})
    assert answer.film_mg_l_day == pytest.approx(4.57 * 2)
    assert answer.animals_mg_l_day == pytest.approx(0.25 * 1000 * 4 / 200)
    demand = answer.film_mg_l_day + answer.animals_mg_l_day
    assert answer.hours_held == pytest.approx(answer.saturation_mg_l / 2 / demand * 24)


def test_where_nothing_breathes_no_hours_are_told() -> None:
    answer = compute("oxygen-saturation", {"net_l": 200})
    assert answer.hours_held is None
    assert "half would be gone" not in answer.verdict
