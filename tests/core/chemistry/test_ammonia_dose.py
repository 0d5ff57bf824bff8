"""What a dose may come to: nine of ten random kits, tanks and bottles lie within the range told."""

from typing import Any

import numpy as np
import pytest

from reedmace.core.chemistry import AmmoniaDoseQuestion, ammonia_dose
from reedmace.core.chemistry.ammonia_dose import STRENGTH_SHARE
from reedmace.core.chemistry.doubt import DROPS_SHARE, LITRES_SHARE
from reedmace.core.computations import compute

PRODUCTS: dict[str, dict[str, Any]] = {
    "powder": {"form": "ammonium-chloride"},
    "bottle": {"form": "ammonia-solution", "strength_percent_w_v": 10},
    "label": {"form": "label", "amount": 4, "amount_unit": "mL", "water": 100, "water_unit": "L", "raises_ppm": 1,
              "basis": "ion"},
}  # fmt: skip


def asked(product: str, now: float, half: float = 0.125):
    body = {"net_l": 130, "target_ppm": 2, "current_ppm": now, "half_ppm": half, "product": PRODUCTS[product]}
    return ammonia_dose(AmmoniaDoseQuestion.model_validate(body))


@pytest.mark.parametrize("product", PRODUCTS)
@pytest.mark.parametrize("now", [0.0, 1.0])
def test_nine_of_ten_doses_come_to_what_was_told(product: str, now: float) -> None:
    rng, held = np.random.default_rng(5), 0
    answer = asked(product, now)
    for _ in range(1000):
        truly = now + (rng.uniform(-0.125, 0.125) if now else 0.0)
        added = (2 - now) * (1 + rng.normal(0, STRENGTH_SHARE[PRODUCTS[product]["form"]] / 2))
        added /= 1 + rng.normal(0, LITRES_SHARE / 2)
        added *= 1 + (rng.normal(0, DROPS_SHARE / 2) if product == "bottle" else 0.0)
        held += answer.low_ppm <= truly + added <= answer.high_ppm
    assert held >= 900


def test_the_largest_doubt_is_named() -> None:
    assert asked("bottle", 0, half=0.01).doubt_by == "the drops"
    assert asked("powder", 0, half=0.01).doubt_by == "the litres"
    assert asked("powder", 1.9, half=0.25).doubt_by == "the test"
    assert "It comes to 1.9 to 2.1 ppm, mostly by the litres." in asked("powder", 0).verdict


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
