"""An unknown tap from three tests: closed forms, taps nobody chose, and tests that do not fit."""

import math

import numpy as np
import pytest

from reedmace.core.chemistry.carbonate import CO2_MG_PER_MMOL, IN_AIR_MG_L, IN_AIR_SPREAD, Carbonate
from reedmace.core.chemistry.tap_fit import TapFitAnswer, TapFitQuestion, tap_fit
from reedmace.core.errors import CannotAnswer


def fit(**tests: float) -> TapFitAnswer:
    return tap_fit(TapFitQuestion.model_validate(tests))


def test_three_fine_tests_of_one_water_are_given_back() -> None:
    # pH = pK1 + log10(HCO3 / CO2); at 25 °C pK1 is 6.35, and 5 dKH are 1.783 mmol/L.
    co2, air = 0.30, 0.022
    alkalinity = 5 * 0.3566
    fresh, stood = (6.35 + math.log10(alkalinity / c) for c in (co2, air))
    found = fit(kh_dkh=5.005, drop_dkh=0.05, step_ph=0.02, fresh_ph=fresh, stood_ph=stood, temperature_c=25)
    assert found.kh_dkh == pytest.approx(5, abs=0.1)
    assert found.co2_mg_l == pytest.approx(0.30 * 44.01, rel=0.06)
    assert found.fresh_ph == pytest.approx(fresh, abs=0.01)
    assert found.settles_ph == pytest.approx(stood, abs=0.03)
    assert found.off is None
    assert f"pH rises from {fresh:.1f} to {stood:.1f}" in found.verdict


def test_a_drop_counts_whole_so_the_water_lies_half_a_drop_lower() -> None:
    found = fit(kh_dkh=6, fresh_ph=7.4, stood_ph=8.3)
    assert found.kh_low_dkh < 5.5 < found.kh_high_dkh
    assert found.kh_dkh == pytest.approx(5.5, abs=0.3)


def test_a_finer_test_narrows_the_range() -> None:
    coarse, fine = (fit(kh_dkh=5, fresh_ph=7.2, drop_dkh=drop, step_ph=step) for drop, step in ((1, 0.4), (0.25, 0.1)))
    assert fine.kh_high_dkh - fine.kh_low_dkh < 0.75 * (coarse.kh_high_dkh - coarse.kh_low_dkh)
    assert fine.co2_high_mg_l / fine.co2_low_mg_l < coarse.co2_high_mg_l / coarse.co2_low_mg_l


def test_two_tests_do_and_one_does_not() -> None:
    without_kh = fit(fresh_ph=7.2, stood_ph=8.2)
    assert without_kh.kh_low_dkh < 5 < without_kh.kh_high_dkh
    without_pause = fit(kh_dkh=6, fresh_ph=7.2)
    assert without_pause.settles_ph == pytest.approx(8.3, abs=0.2)
    for one in ({"kh_dkh": 6}, {"fresh_ph": 7.2}, {}):
        with pytest.raises(CannotAnswer, match="one test does not tell"):
            fit(**one)


def test_a_test_that_fits_no_such_water_is_named() -> None:
    assert fit(kh_dkh=15, fresh_ph=7.4, stood_ph=6.0).off == "pH after standing"
    assert "something besides bicarbonate" in fit(kh_dkh=15, fresh_ph=7.4, stood_ph=6.0).verdict
    assert fit(kh_dkh=6, fresh_ph=7.2, stood_ph=8.2).off is None


@pytest.mark.parametrize(
    "tests",
    [
        {"kh_dkh": 0, "fresh_ph": 5.0, "stood_ph": 5.4},
        {"kh_dkh": 40, "fresh_ph": 10, "stood_ph": 10},
        {"kh_dkh": 0, "fresh_ph": 10, "stood_ph": 4},
        {"kh_dkh": 40, "fresh_ph": 4, "stood_ph": 4, "drop_dkh": 0.05, "step_ph": 0.01},
        {"kh_dkh": 3, "fresh_ph": 7, "temperature_c": 5},
    ],
)
def test_the_ends_of_what_may_be_typed_have_an_answer(tests: dict[str, float]) -> None:
    found = fit(**tests)
    assert found.kh_low_dkh <= found.kh_dkh <= found.kh_high_dkh
    assert found.settles_low_ph <= found.settles_ph <= found.settles_high_ph


def test_the_ranges_hold_nine_in_ten_of_three_hundred_taps() -> None:
    rng = np.random.default_rng(20261201)
    held = np.zeros(3)
    taps = 300
    for _ in range(taps):
        kh = float(np.exp(np.log(5) + 0.8 * rng.standard_normal()))
        co2 = float(np.exp(np.log(0.25) + 0.9 * rng.standard_normal()))
        air = float(np.exp(np.log(IN_AIR_MG_L / CO2_MG_PER_MMOL) + IN_AIR_SPREAD * rng.standard_normal()))
        water = Carbonate(kh * 0.3567, kh * 0.3567, 20)
        fresh, settles = (water.breathing(c, 1000).ph() for c in (co2, air))
        read = {
            "kh_dkh": min(math.ceil(kh * (1 + 0.05 * rng.standard_normal())), 40),
            "fresh_ph": float(np.clip(fresh + 0.2 * rng.standard_normal(), 4, 10)),
            "stood_ph": float(np.clip(settles + 0.2 * rng.standard_normal(), 4, 10)),
        }
        found = fit(**read)
        held += [
            found.kh_low_dkh <= kh <= found.kh_high_dkh,
            found.co2_low_mg_l <= co2 * 44.01 <= found.co2_high_mg_l,
            found.settles_low_ph <= settles <= found.settles_high_ph,
        ]
    assert held / taps == pytest.approx([0.9, 0.9, 0.9], abs=0.05)
