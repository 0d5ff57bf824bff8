"""One sump under several tanks: run-back of all, one water, and what that means for a sick one."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer

TANKS = [
    {"key": str(n), "name": f"Rack {n}", "net_l": 45, "surface_cm2": 1800, "lift_cm": lift, "load_mg_n_day": 20}
    for n, lift in enumerate((50, 50, 120, 120), 1)
]
BASE = {"pump_lph": 4000, "pump_head_m": 3.5, "sump_l": 60, "sump_free_l": 40, "tanks": TANKS}


def asked(**more):
    return compute("shared-sump", {**BASE, **more})


def test_all_tanks_run_back_at_once_and_the_sump_must_take_it() -> None:
    fine = asked()
    assert fine.run_back_l == pytest.approx(sum(t.run_back_l for t in fine.tanks) + 2)
    assert fine.holds
    small = asked(sump_free_l=3)
    assert not small.holds
    assert "floods" in small.verdict
    assert small.spare_l == pytest.approx(3 - small.run_back_l)
    deeper = asked(tanks=[{**t, "return_below_surface_cm": 8} for t in TANKS])
    assert deeper.run_back_l > 2 * fine.run_back_l


def test_the_water_is_one_for_doses_changes_and_load() -> None:
    answer = asked(film_mg_n_day=70)
    assert answer.water_l == pytest.approx(4 * 45 + 60)
    assert answer.load_mg_n_day == pytest.approx(80)
    assert answer.carries is False
    assert any("240 L" in words for words in answer.cautions)
    assert asked(film_mg_n_day=90).carries is True
    assert asked().carries is None


def test_the_lower_tanks_get_more_until_the_taps_are_set() -> None:
    answer = asked()
    low, high = answer.tanks[0], answer.tanks[2]
    assert low.flow_lph > 1.1 * high.flow_lph
    assert low.even_tap_share < high.even_tap_share <= 1
    assert any("Set the taps" in words for words in answer.remedies)


def test_a_tank_out_of_reach_is_named() -> None:
    answer = asked(tanks=[*TANKS, {**TANKS[0], "key": "9", "name": "Attic", "lift_cm": 400}])
    assert "Attic" in answer.verdict
    assert answer.tanks[-1].flow_lph == 0


def test_a_quarantined_tank_must_not_share_the_water() -> None:
    answer = asked(tanks=[{**TANKS[0], "quarantined": True}, *TANKS[1:]])
    assert "Rack 1 is in quarantine" in answer.cautions[0]


def test_two_tanks_of_one_key_are_refused() -> None:
    with pytest.raises(CannotAnswer, match="share a key"):
        asked(tanks=[TANKS[0], TANKS[0]])
