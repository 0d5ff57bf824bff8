"""Weight of each stock class in a tank's flow requirement, by its waste load in this water."""

from collections.abc import Iterable

from reedmace.core.stock.species import Sizing

FULL_MG_N_L_DAY = 0.3
"""Ammonia nitrogen a day at which one demanding class fills a tank, mg N/L (memory)."""
COMMUNITY_MG_N_L_DAY = 0.03
"""The same for a community kept with fry, shrimp and other gentle stock (memory)."""
CROWDED_MG_N_L_DAY = 2.0
"""Load above which a tank is crowded whatever its filter, mg N/L (memory).

It makes some 60 ppm of nitrate between weekly changes. Sixty half-grown cichlids in 170 L, which weekly changes kept
well (common practice), make 1.5.
"""
DEMANDING: tuple[Sizing, ...] = ("messy", "cichlid", "turtle", "goldfish")
_HALF = 0.5


def _rise(x: float) -> float:
    """Smooth step from 0 to 1, flat at both ends. x: 0 or more."""
    x = min(max(x, 0.0), 1.0)
    return x * x * (3 - 2 * x)


def class_weights(made: Iterable[tuple[Sizing, float]], net_l: float) -> dict[Sizing, float]:
    """Weight of each class present, 0 to 1; "community" is that of everything that is not gentle.

    made: class and ammonia nitrogen a day of each kind of animal, mg N; net_l: L.
    More animals never lower a pull.
    Source: design of this project; the loads at which a tank counts as full are from memory.
    """
    by_class: dict[Sizing, float] = {}
    for sizing, mg in made:
        by_class[sizing] = by_class.get(sizing, 0.0) + mg
    found: dict[Sizing, float] = {
        c: _rise(by_class[c] / net_l / FULL_MG_N_L_DAY) for c in DEMANDING if by_class.get(c, 0) > 0
    }
    common = sum(mg for c, mg in by_class.items() if c != "gentle")
    if common > 0:
        found["community"] = _rise(common / net_l / COMMUNITY_MG_N_L_DAY)
    if "gentle" in by_class:
        found["gentle"] = 1.0
    return found


TURNOVER_AT_1, TURNOVER_POWER = 4.8, 0.27
"""Turnover per hour in service at a dirt of 1 mg N/(L day), and how it rises with dirt (memory).

Fitted so that a full community of small fish is asked three to four volumes an hour, large messy fish six, and shrimp
two; the power keeps every animal's part in what is asked under its part in the load.
"""
DIRT_FACTOR: dict[Sizing, float] = {"messy": 3.0, "cichlid": 3.0, "goldfish": 3.2}
"""Dirt of a class over what its ammonia tells (memory; the trade's "double it" for goldfish and large cichlids)."""
CLASS_FACTOR: dict[Sizing, float] = {"gentle": 0.92, "community": 1.0, **dict.fromkeys(DEMANDING, 1.03)}
"""What a class asks beyond its dirt (a stated judgement)."""
PLANTED_DIRT = 0.15
"""Share of the dirt that a planted tank leaves to the filter: plants take ammonia first (memory)."""
SLOWEST_PER_HOUR, MOST_PER_HOUR, USUAL_PER_HOUR = 1.0, 10.0, 3.2
"""Turnover below which water is stagnant, the most ever asked, and the one before animals are chosen (memory)."""
LARGE_FROM_L, LARGE_L, LARGE_PER_HOUR = 500.0, 1200.0, 2.0
"""Volumes over which the turnover asked falls to two an hour (common practice for large tanks and ponds)."""


def required_turnover(made: Iterable[tuple[Sizing, float]], net_l: float, *, planted: bool = False) -> float:
    """Turnover per hour in service that this stock asks of its filter, whatever its kind.

    made: class and ammonia nitrogen a day of each kind of animal, mg N; net_l: L; planted: whether plants are many.
    It rises smoothly with the load: one more animal never raises it by more than its share of the load, nor lowers it.
    Source: design of this project, fitted to common practice.

    >>> round(required_turnover([("community", 15.0)], 131), 2), round(required_turnover([("messy", 194.0)], 300), 2)
    (2.67, 5.91)
    """
    by_class: dict[Sizing, float] = {}
    for sizing, mg in made:
        by_class[sizing] = by_class.get(sizing, 0.0) + mg * DIRT_FACTOR.get(sizing, 1.0)
    share = PLANTED_DIRT if planted else 1.0
    asked, dirt = 0.0, 0.0
    # From the most demanding down: each class is asked for together with all that are more demanding.
    for sizing in sorted(by_class, key=lambda c: -CLASS_FACTOR[c]):
        dirt += by_class[sizing] * share / net_l
        asked = max(asked, CLASS_FACTOR[sizing] * TURNOVER_AT_1 * dirt**TURNOVER_POWER)
    if dirt <= 0:
        asked = USUAL_PER_HOUR
    return _in_large_tanks(min(max(asked, SLOWEST_PER_HOUR), MOST_PER_HOUR), net_l)


def _in_large_tanks(turnover: float, net_l: float) -> float:
    """The same as large tanks and ponds are kept. turnover: per hour; net_l: L."""
    if turnover <= LARGE_PER_HOUR:
        return turnover
    large = _rise((net_l - LARGE_FROM_L) / (LARGE_L - LARGE_FROM_L))
    return turnover / (1 + (turnover / LARGE_PER_HOUR - 1) * large)


def dominant_class(pull: dict[Sizing, float]) -> Sizing:
    """The class a tank is kept as: the most demanding with a weight of half or more; "community" for an empty tank.

    pull: as from `pulls`.
    """
    for c in reversed(DEMANDING):
        if pull.get(c, 0.0) >= _HALF:
            return c
    if "gentle" in pull and pull.get("community", 0.0) < _HALF:
        return "gentle"
    return "community"


def blended_requirement(pull: dict[Sizing, float], ask: dict[Sizing, float]) -> float:
    """Requirement of the whole tank from what each class alone would require.

    pull: as from `pulls`; ask: by class, any unit, the gentle class least. The gentle class lays the floor, everything
    else lifts it towards the community's, and each demanding class on from there; never over the most that any class
    present asks.
    """
    if not pull:
        return ask["community"]
    total = ask["gentle"] + (ask["community"] - ask["gentle"]) * pull.get("community", 0.0)
    total += sum(max(ask[c] - ask["community"], 0.0) * pull.get(c, 0.0) for c in DEMANDING)
    return min(total, max(ask[c] for c in pull))
