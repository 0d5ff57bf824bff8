"""What is not tested stands at the cautious end, in every computation that needs it."""

from typing import Any

import pytest

from reedmace.core.chemistry.tolerance import UNTESTED_PH
from reedmace.core.computations import compute
from reedmace.core.cycle.record.log import CHLORAMINE_MG_N_L, UNASKED_TAP_MG_N_L

TANK: dict[str, Any] = {"net_l": 100}


def test_soda_over_ammonia_asks_for_ph_or_does_harm() -> None:
    asked = {**TANK, "current_dkh": 1, "target_dkh": 4, "animals_in": True, "ammonia_mg_n_l": 1.5}
    assert compute("alkalinity-dose", asked).harms
    assert not compute("alkalinity-dose", {**asked, "animals_in": False}).harms
    assert not compute("alkalinity-dose", {**asked, "ammonia_mg_n_l": 0}).harms


@pytest.mark.parametrize(("target", "portions"), [(2, 2), (4, 3)])
def test_without_a_ph_soda_is_given_in_more_portions_the_further_it_goes(target: float, portions: int) -> None:
    found = compute("alkalinity-dose", {**TANK, "current_dkh": 0.2, "target_dkh": target, "animals_in": True})
    assert found.portions_count == portions


def test_an_emergency_without_a_ph_is_reckoned_at_the_harmful_end() -> None:
    unknown, known = (
        compute("emergency-plan", {**TANK, "ammonia_mg_n_l": 0.5, "nitrite_mg_n_l": 0, **more})
        for more in ({}, {"ph": UNTESTED_PH})
    )
    assert unknown.limits[0].limit_mg_n_l == known.limits[0].limit_mg_n_l
    assert unknown.in_danger


def test_a_poison_nobody_read_is_no_limit_kept() -> None:
    found = compute("emergency-plan", {**TANK, "ammonia_mg_n_l": 4, "ph": 7})
    assert [one.what for one in found.limits] == ["ammonia"]
    assert found.untested == ["nitrite"]
    assert "Test nitrite too" in [step.title for step in found.steps]


@pytest.mark.parametrize(
    ("tap", "brings"),
    [
        ({"chlorine": "none"}, 0),
        ({"chlorine": "chlorine"}, 0),
        ({"chlorine": "chloramine"}, CHLORAMINE_MG_N_L),
        ({"chlorine": "unknown"}, UNASKED_TAP_MG_N_L),
        ({"chlorine": "unknown", "ammonia_mg_n_l": 0.1}, 0.1),
    ],
)
def test_what_the_tap_brings_goes_into_the_days_changes(tap: dict[str, Any], brings: float) -> None:
    asked = {**TANK, "ammonia_mg_n_l": 4, "nitrite_mg_n_l": 0, "ph": 6.8, "tap": {"ph": 6.8, "kh_dkh": 4, **tap}}
    change = compute("emergency-plan", asked).changes[0]
    assert change.ammonia_after_mg_n_l == pytest.approx(4 * (1 - change.share) + brings * change.share)


def test_chloramine_over_the_limit_is_bound_first() -> None:
    asked = {**TANK, "ammonia_mg_n_l": 0.6, "nitrite_mg_n_l": 0, "ph": 8.2, "tap": {"chlorine": "chloramine"}}
    found = compute("emergency-plan", asked)
    assert found.steps[0].do == "bind"
    assert any("The tap itself brings" in caution for caution in found.cautions)
    assert all(change.ammonia_after_mg_n_l <= 0.6 for change in found.changes)


def test_a_change_from_a_tap_nobody_tested_is_split_over_ammonia() -> None:
    solute = {"what": "ammonia", "now_ppm": 2, "target_ppm": 1}
    asked = {**TANK, "solutes": [solute], "tank_ph": 6.4, "tank_kh_dkh": 2, "ammonia_mg_n_l": 1.5}
    found = compute("water-change", asked)
    assert found.parts_count > 1 or found.harms
    assert compute("water-change", {**asked, "animals_in": False}).parts_count == 1
    # Where nothing of the water is known there is nothing to reckon with.
    assert compute("water-change", {**TANK, "solutes": [{**solute, "what": "nitrate"}]}).ph_shift is None
