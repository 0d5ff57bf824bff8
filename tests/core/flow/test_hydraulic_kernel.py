"""The compiled loops of the hydraulics, against closed forms and an independent root finder."""

import math

import numpy as np
import pytest
from scipy.optimize import brentq

from reedmace.core.flow.hydraulic_kernel import (
    colebrook,
    friction_factor,
    hose_head,
    hose_head_and_slope,
    operating_flow,
    operating_flows,
    plumbing_head,
    pump_head,
    pump_slope,
    spare_resistances,
)

NU = 1.0e-6
HOSES = np.array([[0.016, 1.5, 1.5e-6], [0.012, 0.5, 1.5e-6]])
Curve = tuple[np.ndarray, np.ndarray]
PARABOLA: Curve = (np.array([0.0, 3e-4]), np.array([1.4, 0.0]))
CURVE: Curve = (np.array([0.0, 1e-4, 3e-4]), np.array([1.4, 1.2, 0.0]))


@pytest.mark.parametrize(("reynolds", "roughness"), [(5e3, 0.0), (1e5, 0.001), (1e6, 0.01)])
def test_colebrook_solves_its_own_equation(reynolds: float, roughness: float) -> None:
    f = colebrook(reynolds, roughness)
    assert 1 / math.sqrt(f) == pytest.approx(-2 * math.log10(roughness / 3.7 + 2.51 / (reynolds * math.sqrt(f))))


def test_the_friction_factor_is_laminar_below_and_joins_without_a_leap() -> None:
    assert friction_factor(1000.0, 0.001) == pytest.approx(0.064)
    for at in (2000.0, 4000.0):
        below, above = friction_factor(at * (1 - 1e-9), 1e-4), friction_factor(at * (1 + 1e-9), 1e-4)
        assert below == pytest.approx(above, rel=1e-6)


def test_laminar_head_is_hagen_poiseuilles() -> None:
    flow, bore, length = 1e-6, 0.012, 2.0
    expected = 128 * NU * length * flow / (math.pi * 9.80665 * bore**4)
    assert hose_head(flow, bore, length, 1.5e-6, NU) == pytest.approx(expected, rel=1e-3)
    assert hose_head(0.0, bore, length, 1.5e-6, NU) == 0


@pytest.mark.parametrize("flow", [1e-6, 3e-5, 4.5e-5, 1e-4, 3e-4])
def test_the_slope_is_the_derivative_of_the_head(flow: float) -> None:
    head, slope, _ = hose_head_and_slope(flow, 0.016, 1.5, 1.5e-6, NU, 0.0)
    assert head == pytest.approx(hose_head(flow, 0.016, 1.5, 1.5e-6, NU), rel=1e-6)
    step = 1e-4 * flow
    either_side = [hose_head(flow + sign * step, 0.016, 1.5, 1.5e-6, NU) for sign in (1, -1)]
    assert slope == pytest.approx((either_side[0] - either_side[1]) / (2 * step), rel=0.01)


def test_a_pump_of_two_points_is_a_parabola_and_of_more_straight_between_them() -> None:
    assert pump_head(1.5e-4, *PARABOLA, 1.0) == pytest.approx(1.4 * 0.75)
    assert pump_head(2e-4, *CURVE, 1.0) == pytest.approx(0.6)
    # Affinity laws: flow with the speed, head with its square.
    assert pump_head(0.75e-4, *PARABOLA, 0.5) == pytest.approx(0.25 * 1.4 * 0.75)
    assert pump_slope(2e-4, *CURVE, 1.0) == pytest.approx(-6000)


@pytest.mark.parametrize("pump", [PARABOLA, CURVE])
@pytest.mark.parametrize(("static", "c1", "c2"), [(0.0, 0.0, 1e6), (0.3, 800.0, 1e6), (1.39, 0.0, 0.0)])
def test_pump_and_plumbing_meet_where_an_independent_root_finder_says(
    pump: Curve, static: float, c1: float, c2: float
) -> None:
    def spare(q: float) -> float:
        return pump_head(q, pump[0], pump[1], 1.0) - plumbing_head(q, static, c1, c2, HOSES, NU)

    expected = brentq(spare, 0.0, 3e-4, xtol=1e-12)
    assert operating_flow(pump[0], pump[1], 1.0, static, c1, c2, HOSES, NU) == pytest.approx(expected, rel=1e-4)


def test_what_a_pump_cannot_lift_does_not_flow() -> None:
    assert operating_flow(*PARABOLA, 1.0, 1.5, 0.0, 0.0, HOSES, NU) == 0


def test_many_at_once_are_the_same_as_each_alone_and_spare_holds_a_flow() -> None:
    q, h = np.array([CURVE[0], [*PARABOLA[0], 0.0]]), np.array([CURVE[1], [*PARABOLA[1], 0.0]])
    points, static = np.array([3, 2]), np.array([0.2, 0.4])
    c1, c2, hoses = np.array([100.0, 0.0]), np.array([0.0, 1e6]), np.stack([HOSES, HOSES])
    together = operating_flows(q, h, points, static, c1, c2, hoses, NU)
    alone = [
        operating_flow(pump[0], pump[1], 1.0, s, a, b, HOSES, NU)
        for pump, s, a, b in zip((CURVE, PARABOLA), static, c1, c2, strict=True)
    ]
    assert together == pytest.approx(alone)
    wanted = 0.7 * together
    added = spare_resistances(wanted, q, h, points, static, c1, c2, hoses, NU)
    assert operating_flows(q, h, points, static, c1 + added, c2, hoses, NU) == pytest.approx(wanted, rel=1e-4)
    assert spare_resistances(1.2 * together, q, h, points, static, c1, c2, hoses, NU) == pytest.approx([0, 0])
