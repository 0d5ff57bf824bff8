"""CO2 from KH and pH, its loss through the surface, its night, and what is said of it."""

from datetime import timedelta

import pytest

from reedmace.core.computations import compute
from reedmace.logbook.stages import keep_view, today_view
from tests.support.lives import NOW, SIZES, Row, lived, read


@pytest.mark.parametrize(("kh", "ph"), [(4, 6.6), (4, 7.0), (8, 7.2), (2, 6.4)])
def test_it_is_near_the_common_rule_of_thumb(kh: float, ph: float) -> None:
    # Three times KH times 10^(7 - pH), near 25 °C (common practice); equilibrium stands a sixth over it.
    answer = compute("dissolved-co2", {"kh_dkh": kh, "ph": ph})
    assert answer.co2_mg_l == pytest.approx(3.5 * kh * 10 ** (7 - ph), rel=0.03)


def test_marks_and_a_moved_surface() -> None:
    over = compute("dissolved-co2", {"kh_dkh": 4, "ph": 6.4, "net_l": 200, "surface_per_hour": 0.2})
    still = compute("dissolved-co2", {"kh_dkh": 4, "ph": 6.4, "net_l": 200, "surface_per_hour": 0.05})
    assert over.mark == "over"
    assert "over the usual upper mark" in over.verdict
    assert over.lost_g_day == pytest.approx(4 * still.lost_g_day)
    assert over.morning_mg_l < still.morning_mg_l < over.co2_mg_l
    assert over.morning_ph > 6.4
    assert compute("dissolved-co2", {"kh_dkh": 4, "ph": 7.8}).mark == "little"


@pytest.mark.parametrize(("co2", "ph", "says"), [("by-day", 6.3, True), ("by-day", 6.8, False), ("none", 6.3, False)])
def test_a_planted_tank_over_the_mark_is_told_so(co2: str, ph: float, says: bool) -> None:
    rows: list[Row] = [
        (200, SIZES | {"surroundings": {"planted": True, "co2": co2}}),
        (200, {"kind": "stock-plan", "animals": [{"species_id": "neon-tetra", "count": 12}]}),
        (200, {"kind": "stocking", "species_id": "neon-tetra", "count": 12}),
        read(ph=ph, kh_dkh=4),
    ]
    view, _ = today_view(lived(*rows), NOW)
    assert ("mg/L of CO2" in view.verdict) is says
    assert not view.urgent
    kept = keep_view(lived(*rows), NOW)
    assert (kept.co2 is not None) == (co2 != "none")
    assert keep_view(lived(*rows), NOW + timedelta(days=8)).co2 is None
