"""Doses, criteria and water changes on worked examples and edges."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.chemistry import acute_criterion_mg_n_l, chronic_criterion_mg_n_l, un_ionised_share
from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer


def test_two_ppm_of_ammonium_in_a_hundred_litres_takes_059_g_of_chloride() -> None:
    # 2 mg/L NH4 × 100 L = 200 mg NH4 = 200 × 53.49/18.04 = 593 mg NH4Cl.
    answer = compute(
        "ammonia-dose", {"net_l": 100, "target_ppm": 2, "product": {"form": "ammonium-chloride", "purity_percent": 100}}
    )
    assert answer.grams == pytest.approx(0.593, abs=0.001)
    assert answer.millilitres is None
    assert answer.drops is None


def test_the_nitrogen_basis_asks_for_more_than_the_ion_basis() -> None:
    question = {"net_l": 100, "target_ppm": 2, "product": {"form": "ammonium-chloride"}}
    ion, n = compute("ammonia-dose", question), compute("ammonia-dose", {**question, "basis": "N"})
    assert n.grams / ion.grams == pytest.approx(18.039 / 14.007, rel=1e-4)


def test_a_ten_percent_solution_is_counted_in_millilitres_and_drops() -> None:
    # 10 g NH3 in 100 mL is 100 mg/mL, 82.2 mg N/mL; 2 mg N/L in 100 L is 200 mg N.
    answer = compute(
        "ammonia-dose",
        {
            "net_l": 100,
            "target_ppm": 2,
            "basis": "N",
            "product": {"form": "ammonia-solution", "strength_percent_w_v": 10},
        },
    )
    assert answer.millilitres == pytest.approx(200 / 82.245, rel=1e-3)
    assert answer.drops == pytest.approx(answer.millilitres * 20)


@pytest.mark.parametrize(("unit", "litres"), [("L", 1.0), ("US gal", 3.785411784), ("imp gal", 4.54609)])
def test_a_label_of_drops_per_water_scales_with_the_water(unit: str, litres: float) -> None:
    product = {
        "form": "label",
        "amount": 4,
        "amount_unit": "drops",
        "water": 1,
        "water_unit": unit,
        "raises_ppm": 2,
        "basis": "ion",
    }
    answer = compute("ammonia-dose", {"net_l": 100, "target_ppm": 2, "product": product})
    assert answer.drops == pytest.approx(4 * 100 / litres)
    assert answer.grams is None


def test_only_the_gap_to_the_target_is_dosed() -> None:
    product = {"form": "ammonium-chloride"}
    half = compute("ammonia-dose", {"net_l": 100, "target_ppm": 2, "current_ppm": 1, "product": product})
    none = compute("ammonia-dose", {"net_l": 100, "target_ppm": 2, "current_ppm": 3, "product": product})
    assert half.grams == pytest.approx(
        compute("ammonia-dose", {"net_l": 100, "target_ppm": 1, "product": product}).grams
    )
    assert none.grams == 0
    assert none.verdict.startswith("Add none")


def test_a_dose_cannot_make_more_nitrate_than_its_nitrogen() -> None:
    answer = compute("ammonia-dose", {"net_l": 100, "target_ppm": 2, "product": {"form": "ammonium-chloride"}})
    assert 6.8 < answer.nitrate_made_ppm_ion < 7.0
    assert compute(
        "ammonia-dose", {"net_l": 100, "target_ppm": 2, "basis": "N", "product": {"form": "ammonium-chloride"}}
    ).nitrate_made_ppm_ion == pytest.approx(8.85, abs=0.01)


def test_three_grams_of_bicarbonate_raise_a_hundred_litres_by_one_degree() -> None:
    assert compute(
        "alkalinity-dose", {"net_l": 100, "current_dkh": 3, "target_dkh": 4}
    ).sodium_bicarbonate_g == pytest.approx(3.0, abs=0.01)


def test_twelve_mg_of_nitrogen_burn_almost_five_degrees() -> None:
    answer = compute("alkalinity-dose", {"net_l": 100, "current_dkh": 4, "target_dkh": 4, "planned_mg_n_l": 12})
    assert answer.consumed_dkh == pytest.approx(4.8, abs=0.01)
    assert answer.left_without_dkh == pytest.approx(-0.8, abs=0.01)


def test_a_rise_too_small_to_part_is_one_portion() -> None:
    asked = {"net_l": 0.5, "current_dkh": 1.5, "target_dkh": 1.5104, "ph": 5, "animals_in": True, "ammonia_mg_n_l": 202}
    answer: Any = compute("alkalinity-dose", {**asked, "planned_mg_n_l": 0.008, "salinity_g_kg": 23.6})
    assert (answer.portions_count, answer.harms) == (1, False)


def test_bicarbonate_does_not_lower_kh() -> None:
    with pytest.raises(CannotAnswer, match="only raises"):
        compute("alkalinity-dose", {"net_l": 100, "current_dkh": 5, "target_dkh": 4})


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


@given(st.floats(5, 9.5), st.floats(1, 35))
def test_the_poison_share_rises_with_ph_and_warmth(ph: float, temperature: float) -> None:
    share = un_ionised_share(ph, temperature)
    assert 0 < share < 1
    assert un_ionised_share(ph + 0.1, temperature) > share
    assert un_ionised_share(ph, temperature + 1) > share


def test_criteria_ease_with_acid_and_cold() -> None:
    assert chronic_criterion_mg_n_l(7, 20) > chronic_criterion_mg_n_l(8, 20) > chronic_criterion_mg_n_l(8, 28)
    assert acute_criterion_mg_n_l(7, 20) > chronic_criterion_mg_n_l(7, 20)


@pytest.mark.parametrize(
    ("tan", "words"), [(0.2, "within it"), (3, "harmful if it lasts"), (30, "harmful to fish now")]
)
def test_the_verdict_on_ammonia_follows_the_criteria(tan: float, words: str) -> None:
    assert words in compute("un-ionised-ammonia", {"tan_mg_n_l": tan, "ph": 7, "temperature_c": 20}).verdict


def test_salt_water_has_no_freshwater_criterion() -> None:
    answer = compute("un-ionised-ammonia", {"tan_mg_n_l": 1, "ph": 8.1, "temperature_c": 25, "salinity_g_kg": 35})
    assert answer.chronic_criterion_mg_n_l is None
    assert answer.acute_criterion_mg_n_l is None
