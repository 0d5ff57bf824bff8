"""The compiled air lift against its own balance of heads."""

import math

import numpy as np
import pytest

from reedmace.core.flow.airlift_kernel import (
    airlift,
    airlift_many,
    airlift_spare,
    airlift_spare_many,
    bubble_speed,
    lift_driving,
    lift_losses,
)

NU = 9e-7
AIR, BORE, DEEP = 2.5e-5, 0.02, 0.3


def balance(flow: float, c1: float, lift: float = 0.0) -> float:
    area = math.pi / 4 * BORE**2
    jl, jg = flow / area, AIR / area
    gas = jg / (1.2 * (jg + jl) + bubble_speed(BORE))
    losses = lift_losses(jl, jg, gas, DEEP + lift, BORE, 2.5, NU) + c1 * flow
    return lift_driving(DEEP, lift, BORE, gas) - losses


@pytest.mark.parametrize("c1", [0.0, 300.0, 3000.0])
@pytest.mark.parametrize("lift", [0.0, 0.02])
def test_at_its_flow_driving_head_and_losses_are_equal(c1: float, lift: float) -> None:
    flow = airlift(AIR, BORE, DEEP, lift, c1, 2.5, NU)
    assert flow > 0
    assert balance(flow, c1, lift) == pytest.approx(0, abs=1e-9)


def test_bubbles_stick_in_a_narrow_tube() -> None:
    assert bubble_speed(0.004) == 0
    assert bubble_speed(0.1) == pytest.approx(0.352 * math.sqrt(9.80665 * 0.1), rel=0.01)


def test_the_spare_resistance_brings_it_to_just_that_flow() -> None:
    full = airlift(AIR, BORE, DEEP, 0.0, 300.0, 2.5, NU)
    spare = airlift_spare(0.7 * full, AIR, BORE, DEEP, 0.0, 300.0, 2.5, NU)
    assert airlift(AIR, BORE, DEEP, 0.0, 300.0 + spare, 2.5, NU) == pytest.approx(0.7 * full, rel=1e-6)
    assert airlift_spare(0.0, AIR, BORE, DEEP, 0.0, 300.0, 2.5, NU) == 0
    assert airlift_spare(full, 0.0, BORE, DEEP, 0.0, 300.0, 2.5, NU) == 0


def test_many_at_once_are_each_as_alone() -> None:
    rng = np.random.default_rng(4)
    n = 50
    ends = ((0, 6e-5), (0.01, 0.04), (0.05, 0.6), (0, 0.05), (0, 2e3))
    air, bore, deep, lift, c1 = (rng.uniform(low, high, n) for low, high in ends)
    k = np.full(n, 2.5)
    many = airlift_many(air, bore, deep, lift, c1, k, NU)
    assert many == pytest.approx([airlift(*row, 2.5, NU) for row in zip(air, bore, deep, lift, c1, strict=True)])
    spare = airlift_spare_many(many, air, bore, deep, lift, c1, k, NU)
    # Already at that flow, nothing more may be added.
    assert (spare[many > 0] < 1e-3 * (c1[many > 0] + 1)).all()
