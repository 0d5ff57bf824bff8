"""What a dose may come to: nine of ten random kits, tanks and bottles lie within the range told."""

from typing import Any

import numpy as np
import pytest

from reedmace.core.chemistry import AmmoniaDoseQuestion, ammonia_dose
from reedmace.core.chemistry.ammonia_dose import STRENGTH_SHARE
from reedmace.core.chemistry.doubt import DROPS_SHARE, LITRES_SHARE

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
