"""Emergency plan: animals are in a tank whose filter cannot carry them; limits, changes and baking soda for a day."""

from typing import Any

import pytest

from reedmace.core.chemistry import acute_criterion_mg_n_l, chronic_criterion_mg_n_l, un_ionised_share
from reedmace.core.chemistry.tolerance import UNTESTED_PH, ammonia_limit_mg_n_l
from reedmace.core.computations import compute
from reedmace.core.cycle.record.log import CHLORAMINE_MG_N_L, UNASKED_TAP_MG_N_L

TANK: dict[str, Any] = {"net_l": 100}


def emergency(**more):
    return compute("emergency-plan", {"net_l": 60, "ammonia_mg_n_l": 1.0, "nitrite_mg_n_l": 0.1, **more})


def test_the_daily_limit_is_the_stricter_of_free_ammonia_and_the_criterion() -> None:
    for ph, t in ((6.8, 24), (7.4, 25), (8.2, 26), (8.8, 28)):
        limit, rule = ammonia_limit_mg_n_l(ph, t, 0)
        free, published = 0.02 / un_ionised_share(ph, t), chronic_criterion_mg_n_l(ph, t)
        assert limit == pytest.approx(min(free, published))
        assert ("EPA" in rule) == (published < free)


def test_one_set_of_changes_brings_every_poison_under_its_limit_until_tomorrow() -> None:
    answer = emergency(ph=7.8, nitrite_mg_n_l=0.6, nitrate_mg_n_l=20, load_mg_n_l_day=0.1)
    ammonia, nitrite, nitrate = (one.limit_mg_n_l for one in answer.limits)
    last = answer.changes[-1]
    assert last.ammonia_after_mg_n_l + 0.1 * answer.feed_share <= ammonia + 1e-6
    assert last.nitrite_after_mg_n_l <= nitrite
    left = 1.0
    for c in answer.changes:
        assert 0 < c.share <= 0.5
        left *= 1 - c.share
    assert 20 * left <= nitrate + 1e-6
    assert answer.change_share_day == pytest.approx(1 - left)
    assert answer.holds_until_tomorrow


def test_the_taps_own_ammonia_is_counted_and_said() -> None:
    clean, dirty = emergency(ph=7.8), emergency(ph=7.8, tap={"ammonia_mg_n_l": 0.3})
    assert len(dirty.changes) > len(clean.changes) or dirty.change_share_day > clean.change_share_day
    hopeless = emergency(ph=8.2, tap={"ammonia_mg_n_l": 2.0})
    assert not hopeless.holds_until_tomorrow
    assert any("tap itself brings" in c for c in hopeless.cautions)
    assert "Nothing today" in hopeless.feeding


def test_an_old_acid_tank_is_changed_in_small_portions() -> None:
    answer = emergency(ph=6.2, kh_dkh=0.5, ammonia_mg_n_l=9, tap={"ph": 8.0, "kh_dkh": 8})
    before = 6.2
    for change in answer.changes:
        assert abs(change.after_ph - before) <= 0.5 + 1e-6
        before = change.after_ph
    assert any("frees ammonia" in c for c in answer.cautions)


def test_over_the_acute_criterion_it_says_now_and_gasping_comes_first() -> None:
    high = acute_criterion_mg_n_l(8.2, 25) + 1
    answer = emergency(ph=8.2, temperature_c=25, ammonia_mg_n_l=high, gasping=True)
    assert answer.verdict.startswith("Act now")
    assert answer.cautions[0].startswith("Gasping")
    assert answer.tests_per_day == 2
    assert "vet" in answer.vet


def test_salt_water_bears_more_nitrite() -> None:
    fresh, salt = emergency(), emergency(salinity_g_kg=35, ph=8.1)
    assert salt.limits[1].limit_mg_n_l == pytest.approx(10 * fresh.limits[1].limit_mg_n_l)


def test_within_the_limits_nothing_is_changed() -> None:
    answer = emergency(ammonia_mg_n_l=0.05, ph=7.0)
    assert answer.changes == []
    assert answer.verdict.startswith("Within the limits")


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
