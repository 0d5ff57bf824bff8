"""What does not meet among animals, and between them and their tank."""

import pytest

from reedmace.core.stock.compatibility import (
    KeptAnimals,
    Place,
    conflicts_among,
    conflicts_with_tank,
    outgrows,
    undersized_groups,
)
from reedmace.core.stock.species import Species, find_species


def kind(**changes: object) -> Species:
    return find_species("zebra-danio", "animals", []).model_copy(update={"common_name": "A", **changes})


def among(*kinds: Species) -> list[str]:
    return [c.text for c in conflicts_among([KeptAnimals(one, 6) for one in kinds])]


def test_those_whose_ranges_meet_have_nothing_against_one_another() -> None:
    assert among(kind(), kind(common_name="B")) == []


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"temperature_low_c": 40, "temperature_high_c": 41}, "wants temperature"),
        ({"ph_low": 9.5, "ph_high": 9.9}, "wants pH"),
        ({"hardness_low_dgh": 60, "hardness_high_dgh": 70}, "wants softer water"),
        ({"water": "salt"}, "lives in"),
    ],
)
def test_ranges_that_do_not_meet_are_told_whoever_stands_first(change: dict, words: str) -> None:
    other = kind(common_name="B", **change)
    assert any(words in text for text in among(kind(), other))
    assert any(words in text for text in among(other, kind()))


def test_current_is_told_of_the_ends_only() -> None:
    gentle, middle, strong = (kind(common_name=c, current=c) for c in ("gentle", "moderate", "strong"))
    assert among(gentle, middle) == among(middle, strong) == []
    assert among(strong, gentle) == ["strong wants strong current, gentle gentle."]


def test_a_hunter_eats_what_is_a_third_of_its_length_today() -> None:
    hunter = KeptAnimals(kind(common_name="Hunter", temper="hunts", adult_length_cm=15, body_form="deep"), 1)
    small = KeptAnimals(kind(common_name="Prey", adult_length_cm=5, body_form="slender"), 6)
    large = KeptAnimals(kind(common_name="Prey", adult_length_cm=5.1, body_form="slender"), 6)
    young = KeptAnimals(large.species, 6, length_cm=3)
    shelled = KeptAnimals(kind(common_name="Prey", adult_length_cm=2, body_form="snail"), 6)
    eaten = [any("eats" in c.text for c in conflicts_among([hunter, one])) for one in (small, large, young, shelled)]
    assert eaten == [True, False, True, False]


def test_a_nipper_is_told_beside_long_fins_either_way_round() -> None:
    nipper, veil = kind(common_name="Nipper", temper="nips"), kind(common_name="Veil", long_fins=True)
    assert among(nipper, veil) == among(veil, nipper) == ["Nipper nips at long fins, and Veil has them."]


def test_groups_pairs_and_loners_are_counted() -> None:
    group, pair, alone = (kind(company=c, together=n) for c, n in (("group", 6), ("pair", 2), ("alone", 1)))
    assert undersized_groups([KeptAnimals(group, 6), KeptAnimals(pair, 2), KeptAnimals(alone, 1)]) == []
    told = undersized_groups([KeptAnimals(group, 5), KeptAnimals(pair, 1)])
    assert ["6 or more; 5 would pine" in told[0], "as a pair" in told[1]] == [True, True]
    assert conflicts_among([KeptAnimals(alone, 1)]) == []
    assert "2 are listed" in conflicts_among([KeptAnimals(alone, 2)])[0].text


def test_the_tank_is_held_against_each_and_what_is_unknown_is_not() -> None:
    one = kind(adult_length_cm=10, temperature_low_c=20, temperature_high_c=26, ph_low=6.5, ph_high=7.5)
    assert conflicts_with_tank([KeptAnimals(one, 6)], Place()) == []
    told = conflicts_with_tank([KeptAnimals(one, 6)], Place("salt", 27, 7.6, 39))
    assert len(told) == 4
    assert conflicts_with_tank([KeptAnimals(one, 6)], Place("fresh", 26, 7.5, 40)) == []
    assert (outgrows(one, 39.9), outgrows(one, 40)) == (True, False)
