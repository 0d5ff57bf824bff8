"""Resistance of fittings, media and dirt."""

import pytest

from reedmace.core.flow.materials import (
    CLOGGING,
    MEDIA_KG_L,
    MEDIA_NAMES,
    MEDIA_SURFACE_M2_L,
    bar_holes,
    dirt_resistance,
    media_coefficients,
    viscosity_m2_s,
)


@pytest.mark.parametrize(("temperature_c", "nu"), [(10, 1.306e-6), (20, 1.004e-6), (25, 0.893e-6), (30, 0.801e-6)])
def test_viscosity_is_that_of_the_tables(temperature_c: float, nu: float) -> None:
    assert viscosity_m2_s(temperature_c) == pytest.approx(nu, rel=0.02)


def test_every_medium_has_a_name_a_mass_and_a_surface() -> None:
    assert set(MEDIA_NAMES) == set(MEDIA_SURFACE_M2_L) == set(MEDIA_KG_L)


@pytest.mark.parametrize("media", list(MEDIA_NAMES))
def test_a_medium_resists_by_depth_over_face(media) -> None:
    one = media_coefficients(media, 0.02, 0.05, 9e-7)
    deep = media_coefficients(media, 0.02, 0.10, 9e-7)
    wide = media_coefficients(media, 0.04, 0.05, 9e-7)
    thick = media_coefficients(media, 0.02, 0.05, 18e-7)
    assert deep == pytest.approx([2 * c for c in one])
    assert wide[0] == pytest.approx(one[0] / 2)
    assert wide[1] == pytest.approx(one[1] / 4)
    assert thick[0] == pytest.approx(2 * one[0])


def test_dirt_grows_with_food_and_days_and_blocks_fine_foam_sooner() -> None:
    base = dirt_resistance(2, 30, 0.02)
    assert dirt_resistance(4, 30, 0.02) == pytest.approx(dirt_resistance(2, 60, 0.02)) == pytest.approx(2 * base)
    assert dirt_resistance(0, 30, 0.02) == dirt_resistance(2, 0, 0.02) == 0
    assert dirt_resistance(2, 30, 0.02, "foam-30") == pytest.approx(CLOGGING["foam-30"] * base)
    assert dirt_resistance(2, 30, 0.04) == pytest.approx(base / 4)


def test_a_spray_bar_has_more_holes_on_a_wider_hose() -> None:
    assert bar_holes(12) < bar_holes(16) < bar_holes(22)
