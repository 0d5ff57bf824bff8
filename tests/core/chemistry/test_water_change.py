"""One water change that brings every solute to its target without a shock to the animals."""

from typing import Any

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer

TANK: dict[str, Any] = {"net_l": 100}


def test_one_change_meets_every_target_and_names_what_decides() -> None:
    solutes: list[dict[str, Any]] = [
        {"what": "nitrate", "now_ppm": 80, "tap_ppm": 10, "target_ppm": 20},
        {"what": "nitrite", "now_ppm": 1, "target_ppm": 0.5},
    ]
    answer = compute("water-change", {"net_l": 200, "solutes": solutes})
    assert answer.change_share == pytest.approx(60 / 70)
    assert answer.decided_by == "nitrate"
    assert answer.change_l == pytest.approx(200 * 60 / 70)
    assert all(s.after_ppm <= t["target_ppm"] + 1e-9 for s, t in zip(answer.solutes, solutes, strict=True))


def test_hot_and_cold_mix_to_the_tank() -> None:
    answer = compute(
        "water-change",
        {
            "net_l": 100,
            "solutes": [{"what": "nitrate", "now_ppm": 40, "target_ppm": 20}],
            "tank_c": 25,
            "tap_cold_c": 10,
            "tap_hot_c": 55,
        },
    )
    assert (answer.hot_l * 55 + answer.cold_l * 10) / answer.change_l == pytest.approx(25)


def test_a_tap_over_the_target_is_said() -> None:
    with pytest.raises(CannotAnswer, match="tap carries"):
        compute(
            "water-change",
            {"net_l": 100, "solutes": [{"what": "nitrate", "now_ppm": 60, "tap_ppm": 30, "target_ppm": 20}]},
        )


def test_nothing_over_its_target_needs_no_change() -> None:
    answer = compute("water-change", {"net_l": 100, "solutes": [{"what": "nitrate", "now_ppm": 10, "target_ppm": 20}]})
    assert (answer.change_share, answer.decided_by) == (0, "none")


def test_a_change_is_split_where_ph_would_jump() -> None:
    question = {
        "net_l": 100,
        "solutes": [{"what": "nitrate", "now_ppm": 80, "target_ppm": 20}],
        "tank_ph": 6.3,
        "tank_kh_dkh": 1.5,
        "tap_ph": 8,
        "tap_kh_dkh": 8,
    }
    answer = compute("water-change", question)
    assert answer.parts_count > 1
    assert answer.ph_shift <= 0.5
    assert (1 - answer.part_l / 100) ** answer.parts_count == pytest.approx(0.25)
    assert "drip" in compute("water-change", {**question, "tank_kh_dkh": 0.1}).verdict
    plain = compute("water-change", {**question, "tap_ph": 6.4, "tap_kh_dkh": 0.6})
    assert plain.parts_count == 1


def test_a_change_from_a_tap_nobody_tested_is_split_over_ammonia() -> None:
    solute = {"what": "ammonia", "now_ppm": 2, "target_ppm": 1}
    asked = {**TANK, "solutes": [solute], "tank_ph": 6.4, "tank_kh_dkh": 2, "ammonia_mg_n_l": 1.5}
    found = compute("water-change", asked)
    assert found.parts_count > 1 or found.harms
    assert compute("water-change", {**asked, "animals_in": False}).parts_count == 1
    # Where nothing of the water is known there is nothing to reckon with.
    assert compute("water-change", {**TANK, "solutes": [{**solute, "what": "nitrate"}]}).ph_shift is None
