"""Plan areas against closed forms and against a fine grid."""

import math

import numpy as np
import pytest

from reedmace.core.tank.shapes import Shape, plan_of


def test_a_box_loses_two_panes_each_way() -> None:
    plan = plan_of("box", 60, 30, 0, 0, 0.5)
    assert (plan.inside_cm2, plan.outside_cm2, plan.inside_rim_cm) == (59 * 29, 1800, 2 * (59 + 29))


def test_a_cylinder_is_a_circle() -> None:
    plan = plan_of("cylinder", 40, 0, 0, 0, 1)
    assert plan.inside_cm2 == pytest.approx(math.pi * 19**2)
    assert plan.inside_rim_cm == pytest.approx(math.pi * 38)


def test_a_square_prism_is_a_square_and_one_of_many_sides_a_circle() -> None:
    assert plan_of("prism", 50, 0, 0, 4, 0).inside_cm2 == pytest.approx(2500)
    many = plan_of("prism", 50, 0, 0, 500, 0)
    assert many.inside_cm2 == pytest.approx(math.pi * 625, rel=1e-4)


@pytest.mark.parametrize("glass", [0.0, 0.8])
def test_a_bow_front_is_what_a_grid_counts(glass: float) -> None:
    length, width, bow = 80.0, 35.0, 8.0
    radius = (length**2 / 4 + bow**2) / (2 * bow)
    centre = width - (radius - bow)
    x, y = np.meshgrid(np.arange(-40, 40, 0.05) + 0.025, np.arange(0, 45, 0.05) + 0.025)
    within = (abs(x) < length / 2 - glass) & (y > glass)
    within &= x**2 + (y - (width + bow - radius)) ** 2 < (radius - glass) ** 2
    assert centre == pytest.approx(width + bow - radius)
    plan = plan_of("bow-front", length, width, bow, 0, glass)
    assert plan.inside_cm2 == pytest.approx(within.sum() * 0.05**2, rel=1e-3)


@pytest.mark.parametrize("glass", [0.0, 0.6])
def test_a_corner_tank_is_what_a_grid_counts(glass: float) -> None:
    x, y = np.meshgrid(np.arange(0, 60, 0.05) + 0.025, np.arange(0, 60, 0.05) + 0.025)
    within = (x > glass) & (y > glass) & (np.hypot(x, y) < 50 - glass)
    assert plan_of("corner", 50, 0, 0, 0, glass).inside_cm2 == pytest.approx(within.sum() * 0.05**2, rel=1e-3)


@pytest.mark.parametrize("shape", ["box", "bow-front", "cylinder", "prism", "corner"])
def test_without_glass_inside_is_outside(shape: Shape) -> None:
    plan = plan_of(shape, 60, 40, 6, 6, 0.0)
    assert plan.inside_cm2 == pytest.approx(plan.outside_cm2)
    thinner, thicker = (plan_of(shape, 60, 40, 6, 6, g) for g in (0.5, 1.0))
    assert plan.inside_cm2 > thinner.inside_cm2 > thicker.inside_cm2
    assert thinner.inside_rim_cm > thicker.inside_rim_cm
