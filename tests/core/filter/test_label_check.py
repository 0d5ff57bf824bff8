"""Consistency of the figures on a filter's box."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.typical import typical_box


def test_gallons_and_litres_that_agree_pass_and_imperial_ones_are_spotted() -> None:
    assert compute("label-check", {"box_lph": 800, "box_us_gal_per_hour": 211}).agrees
    wrong = compute("label-check", {"box_lph": 800, "box_us_gal_per_hour": 176})
    assert "imperial" in wrong.findings[0]
    assert wrong.lph == pytest.approx(176 * 3.785411784)


def test_a_pump_cannot_give_more_power_than_it_takes() -> None:
    assert any(
        "cannot have both" in f for f in compute("label-check", {"box_lph": 3000, "max_head_m": 3, "watts": 6}).findings
    )
    assert compute("label-check", {"box_lph": 800, "max_head_m": 1.4, "watts": 14}).agrees


def test_a_boastful_tank_range_is_cut_down() -> None:
    answer = compute("label-check", {"box_lph": 300, "tank_up_to_l": 300})
    assert "up to about 60 L" in answer.findings[0]


def test_a_box_in_hand_says_for_which_tanks_it_is_with_a_normal_and_a_heavy_stock() -> None:
    found = compute("label-check", {"box_lph": 900, "kind": "hang-on"})
    assert (found.normal.low_l, found.normal.high_l) == (150, 225)
    assert (found.heavy.low_l, found.heavy.high_l) == (75, 90)
    assert "150 to 225 L with a community, 75 to 90 L with goldfish" in found.carries_words
    sponge = compute("label-check", {"box_lph": 200, "kind": "sponge"})
    assert "up to 115 L" in sponge.carries_words
    assert "community" not in sponge.carries_words


def test_what_the_box_does_not_say_is_as_usual_for_its_kind_and_size() -> None:
    (found,) = compute("label-check", {"box_lph": 790, "kind": "canister", "watts": 9}).filters
    usual = typical_box(kind_of("canister"), 790)
    assert (found.box_lph, found.watts) == (790, 9)
    assert (found.height_cm, found.max_head_m) == (usual.height_cm, usual.max_head_m)
    answer = compute("label-check", {"box_lph": 790, "watts": 9})
    assert [m.split(":")[0] for m in answer.missing] == ["No kind", "No lift", "No tank size"]
    assert not answer.kind_known
    assert {"canister", "hang-on", "internal"} <= {f.kind for f in answer.filters}
    assert all(f.kind in answer.missing[0] for f in answer.filters)
    said = compute("label-check", {"box_lph": 790, "watts": 9, "kind": "hang-on"})
    assert [f.kind for f in said.filters] == ["hang-on"]
    assert not any(m.startswith("No kind") for m in said.missing)
    with pytest.raises(CannotAnswer, match="no flow"):
        compute("label-check", {"watts": 9})
