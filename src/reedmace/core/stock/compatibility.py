"""Compatibility of animals with each other and with the water: what excludes them, and what would suit them better.

A rule looks at two kinds at once, or at one and the tank; each says in a sentence what does not meet.
"""

from collections.abc import Callable, Iterator, Sequence
from itertools import permutations
from typing import NamedTuple

from reedmace.core.contract import Part
from reedmace.core.quantity import formatting
from reedmace.core.stock.species import Species, Water

SWIM_LENGTHS = 4
"""Least tank length in grown body lengths (memory)."""
MOUTHFUL = 1 / 3
"""Prey length, as a share of the predator's, up to which it is eaten (common practice)."""
TURTLE_BITES = 1.5
"""Prey length, in lengths of its shell, that a turtle still bites (memory)."""
SHELLED = ("snail", "tall snail", "turtle")
"""Body forms that a predatory fish leaves alone."""


class Conflict(Part):
    """Two incompatible needs, in a sentence."""

    text: str


class KeptAnimals(NamedTuple):
    """A number of one species; `length_cm` today, None when grown."""

    species: Species
    how_many: int
    length_cm: float | None = None


class Place(NamedTuple):
    """The tank they are compared with: °C, pH, length in cm, each None where unknown."""

    water: Water = "fresh"
    temperature_c: float | None = None
    ph: float | None = None
    length_cm: float | None = None


def conflicts_among(kept: Sequence[KeptAnimals]) -> list[Conflict]:
    """Conflicts among these animals.

    kept: all that are to live together. Source: ranges from memory, company and temper by common practice.
    """
    texts = [text for hunter in kept for text in _eaten(hunter, kept)]
    for i, one in enumerate(kept):
        texts += _alone(one)
        for other in kept[i + 1 :]:
            texts += [text for rule in _PAIR_RULES for text in rule(one.species, other.species)]
    for one, other in permutations(kept, 2):
        texts += _nipped(one.species, other.species)
    return [Conflict(text=text) for text in texts]


def conflicts_with_tank(kept: Sequence[KeptAnimals], place: Place) -> list[Conflict]:
    """Conflicts between the animals and the tank. kept: all of them; place: the tank."""
    return [Conflict(text=text) for k in kept for rule in _PLACE_RULES for text in rule(k.species, place)]


def undersized_groups(kept: Sequence[KeptAnimals]) -> list[str]:
    """Shoaling and pairing species kept in too small a number. kept: all of them. Source: common practice."""
    return [
        (
            f"{k.species.common_name}: kept in a group of {k.species.together} or more; {k.how_many} would pine."
            if k.species.company == "group"
            else f"{k.species.common_name}: usually kept as a pair."
        )
        for k in kept
        if k.species.company in ("group", "pair") and k.how_many < k.species.together
    ]


def _alone(k: KeptAnimals) -> Iterator[str]:
    if k.species.company == "alone" and k.how_many > 1:
        yield f"{k.species.common_name}: one to a tank, since two fight; {k.how_many} are listed."


def _needs(
    what: str, low: str, high: str, words: Callable[[Species], str]
) -> Callable[[Species, Species], Iterator[str]]:
    def rule(one: Species, other: Species) -> Iterator[str]:
        if getattr(one, low) > getattr(other, high) or getattr(other, low) > getattr(one, high):
            yield (
                f"{one.common_name} wants {what} {words(one)}, {other.common_name} {words(other)}: no setting suits"
                " both."
            )

    return rule


def _current(one: Species, other: Species) -> Iterator[str]:
    if {one.current, other.current} == {"gentle", "strong"}:
        yield f"{one.common_name} wants {one.current} current, {other.common_name} {other.current}."


def _one_water(one: Species, other: Species) -> Iterator[str]:
    if one.water != other.water:
        yield f"{one.common_name} lives in {one.water} water, {other.common_name} in {other.water}."


def _hardness(one: Species, other: Species) -> Iterator[str]:
    soft, hard = (one, other) if one.hardness_high_dgh < other.hardness_high_dgh else (other, one)
    if soft.water == hard.water and soft.hardness_high_dgh < hard.hardness_low_dgh:
        yield (
            f"{soft.common_name} wants softer water (up to {soft.hardness_high_dgh:g} dGH) than {hard.common_name} "
            f"({hard.hardness_low_dgh:g} or more)."
        )


def _eaten(hunter: KeptAnimals, kept: Sequence[KeptAnimals]) -> Iterator[str]:
    h = hunter.species
    if h.temper != "hunts":
        return
    most = h.adult_length_cm * (TURTLE_BITES if h.body_form == "turtle" else MOUTHFUL)
    prey = [
        k.species.common_name
        for k in kept
        if k is not hunter
        and k.species.body_form not in SHELLED
        and min(k.length_cm or k.species.adult_length_cm, k.species.adult_length_cm) <= most
    ]
    if prey:
        yield f"{h.common_name} eats what fits its mouth, and that is: {', '.join(prey)}."


def _nipped(nipper: Species, other: Species) -> Iterator[str]:
    if nipper.temper == "nips" and other.long_fins:
        yield f"{nipper.common_name} nips at long fins, and {other.common_name} has them."


_PAIR_RULES = (
    _needs(
        "temperature",
        "temperature_low_c",
        "temperature_high_c",
        lambda s: f"{formatting.celsius.bare(s.temperature_low_c)} to {formatting.celsius(s.temperature_high_c)}",
    ),
    _needs("pH", "ph_low", "ph_high", lambda s: f"{s.ph_low:g} to {s.ph_high:g}"),
    _hardness,
    _current,
    _one_water,
)


def _its_water(s: Species, place: Place) -> Iterator[str]:
    if s.water != place.water:
        yield f"{s.common_name} lives in {s.water} water; this tank is {place.water}."


def _its_warmth(s: Species, place: Place) -> Iterator[str]:
    t = place.temperature_c
    if t is not None and not s.temperature_low_c <= t <= s.temperature_high_c:
        yield (
            f"{s.common_name} wants {formatting.celsius.bare(s.temperature_low_c)} to "
            f"{formatting.celsius(s.temperature_high_c)}; this tank is at {formatting.celsius.bare(t)}."
        )


def _its_ph(s: Species, place: Place) -> Iterator[str]:
    if place.ph is not None and not s.ph_low <= place.ph <= s.ph_high:
        yield f"{s.common_name} wants pH {s.ph_low:g} to {s.ph_high:g}; this tank reads {place.ph:g}."


def outgrows(species: Species, tank_length_cm: float) -> bool:
    """Whether an animal outgrows a tank of this length. species: its; tank_length_cm: inside, cm.

    Source: common practice.
    """
    return tank_length_cm < SWIM_LENGTHS * species.adult_length_cm


def _its_length(s: Species, place: Place) -> Iterator[str]:
    if place.length_cm is not None and outgrows(s, place.length_cm):
        yield (
            f"{s.common_name} grows to {formatting.cm(s.adult_length_cm, 'g')} and outgrows a tank"
            f" {formatting.cm(place.length_cm, 'g')} long; keepers ask for"
            f" {formatting.cm(SWIM_LENGTHS * s.adult_length_cm, 'g')} or more."
        )


_PLACE_RULES = (_its_water, _its_warmth, _its_ph, _its_length)
