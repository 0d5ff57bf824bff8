"""Species data, read once from the table beside this file."""

import pytest

from reedmace.core.stock import SPECIES, body_mass_g


def test_species_are_real_enough_to_use() -> None:
    assert len(SPECIES) >= 20
    for s in SPECIES.values():
        assert s.temperature_low_c < s.temperature_high_c
        assert s.ph_low < s.ph_high
        assert 0 < body_mass_g(s.adult_length_cm, s.body_form) < 5000
        assert "memory" in s.figures or "common practice" in s.figures
    for needed in (
        "harlequin-rasbora",
        "zebra-danio",
        "pearl-gourami",
        "cherry-shrimp",
        "ricefish",
        "rosy-barb",
        "weather-loach",
        "axolotl",
    ):
        assert needed in SPECIES


def test_body_mass_follows_length_cubed_or_so() -> None:
    assert body_mass_g(10, "fusiform") == pytest.approx(0.0112 * 10**3.04)
    assert body_mass_g(20, "fusiform") / body_mass_g(10, "fusiform") == pytest.approx(2**3.04)
