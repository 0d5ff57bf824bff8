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


def test_the_species_table_is_broad_and_each_figure_says_where_it_is_from() -> None:
    assert len(SPECIES) >= 150
    groups = {s.group for s in SPECIES.values()}
    assert {"goldfish", "cichlid", "catfish", "loach", "livebearer", "nano fish", "shrimp", "snail", "turtle"} <= groups
    assert sum(s.water == "salt" for s in SPECIES.values()) >= 8
    assert all("memory" in s.figures or "practice" in s.figures for s in SPECIES.values())


@pytest.mark.parametrize(
    ("species", "length", "low", "high"),
    [
        ("common-goldfish", 20, 90, 200),
        ("zebra-danio", 3.5, 0.15, 0.7),
        ("oscar", 25, 200, 420),
        ("guppy", 3, 0.2, 0.6),
    ],
)
def test_weights_at_length_are_those_anglers_and_breeders_weigh(species, length, low, high) -> None:
    # Ranges as published length-weight tables give them (FishBase, species pages; from memory).
    from reedmace.core.stock import body_mass_g

    assert low < body_mass_g(length, SPECIES[species].body_form) < high
