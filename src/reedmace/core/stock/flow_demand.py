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
