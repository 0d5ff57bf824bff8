"""Running cost of a filter: energy and money."""

import pytest

from reedmace.core.computations import compute


def test_watts_are_a_rate() -> None:
    answer = compute("running-cost", {"watts": 10, "price_per_kwh": 0.5, "purchase_price": 50})
    assert answer.kwh_year == pytest.approx(87.66)
    assert answer.money_three_years == pytest.approx(50 + 3 * 43.83)
