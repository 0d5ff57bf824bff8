"""The saw-tooth of nitrate between changes."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer

TANK = {"net_l": 100, "made_mg_n_day": 60, "change_share": 0.25, "every_days": 7, "tap_mg_n_l": 1}


def test_the_peak_is_what_many_changes_lead_to() -> None:
    answer = compute("nitrate-rhythm", TANK)
    level = 0.0
    for _ in range(400):
        level += answer.rise_mg_n_l_day * 7
        peak = level
        level += 0.25 * (1 - level)
    assert answer.peak_mg_n_l == pytest.approx(peak)
    assert answer.trough_mg_n_l == pytest.approx(level)
    assert answer.skipped_mg_n_l == pytest.approx(peak + answer.rise_mg_n_l_day * 7)


def test_the_rhythm_that_would_hold_it_just_does() -> None:
    high = compute("nitrate-rhythm", TANK | {"target_ppm_ion": 60})
    assert not high.holds
    for change in ({"every_days": high.holds_every_days}, {"change_share": high.holds_share}):
        peak = compute("nitrate-rhythm", TANK | {"target_ppm_ion": 60} | change).peak_mg_n_l
        assert peak == pytest.approx(high.target_mg_n_l)


def test_plants_take_some_and_the_keepers_own_tests_beat_both() -> None:
    bare, planted = (compute("nitrate-rhythm", TANK | {"planted": p}).rise_mg_n_l_day for p in (False, True))
    assert planted < bare
    assert compute("nitrate-rhythm", TANK | {"measured_rise_mg_n_l_day": 0.123}).rise_mg_n_l_day == 0.123


def test_a_tap_over_the_target_is_refused_with_a_remedy() -> None:
    with pytest.raises(CannotAnswer) as refused:
        compute("nitrate-rhythm", TANK | {"tap_mg_n_l": 12, "target_ppm_ion": 40})
    assert refused.value.where == "tap_mg_n_l"
    assert "purified water" in refused.value.remedy


def test_alkalinity_that_runs_out_between_changes_is_told() -> None:
    assert compute("nitrate-rhythm", TANK | {"tap_kh_dkh": 12}).kh_words is None
    dry = compute("nitrate-rhythm", TANK | {"tap_kh_dkh": 3})
    assert dry.kh_low_dkh is not None
    assert "runs out between changes" in (dry.kh_words or "")


def test_where_nothing_is_made_nothing_rises() -> None:
    answer = compute("nitrate-rhythm", TANK | {"made_mg_n_day": 0})
    assert (answer.peak_mg_n_l, answer.holds, answer.holds_every_days) == (1, True, None)
