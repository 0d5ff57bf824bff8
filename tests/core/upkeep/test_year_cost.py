"""What a tank costs in a year."""

import pytest

from reedmace.core.computations import compute


def test_each_row_is_its_own_sum_and_the_dearest_stands_first() -> None:
    answer = compute(
        "year-cost",
        {
            "devices": [
                {"name": "Filter", "watts": 10},
                {"name": "Lamp", "watts": 30, "hours_per_day": 8},
            ],
            "used_up": [{"name": "Floss", "every_days": 30, "price": 3}],
            "price_per_kwh": 0.4,
            "changed_year": 2000,
            "salt_g_kg": 35,
            "water_price": 5,
            "salt_price": 2,
        },
    )
    rows = {r.name: r.money_year for r in answer.rows}
    assert rows == {
        "Filter": pytest.approx(10 * 24 * 365.25 / 1000 * 0.4),
        "Lamp": pytest.approx(30 * 8 * 365.25 / 1000 * 0.4),
        "Floss": pytest.approx(3 * 365.25 / 30),
        "Water changed": pytest.approx(10),
        "Salt": pytest.approx(140),
    }
    assert [r.money_year for r in answer.rows] == sorted(rows.values(), reverse=True)
    assert answer.money_year == pytest.approx(sum(rows.values()))
    assert answer.kwh_year == pytest.approx((10 * 24 + 240) * 365.25 / 1000)
    assert "Salt the most of it" in answer.verdict


def test_fresh_water_has_no_salt_and_an_empty_year_costs_nothing() -> None:
    assert [r.name for r in compute("year-cost", {"changed_year": 1000}).rows] == ["Water changed"]
    assert compute("year-cost", {}).money_year == 0
