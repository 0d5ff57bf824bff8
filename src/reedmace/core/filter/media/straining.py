"""How well a filter strains: by what is packed in it and in which order, not by its kind alone."""

from collections.abc import Sequence

from reedmace.core.filter.media.basket import Basket
from reedmace.core.flow.materials import MediaKind

STRAINS: dict[MediaKind, float] = {
    "foam-10": 0.8, "foam-20": 0.9, "foam-30": 1.0, "floss": 1.1, "cartridge": 1.05,
}  # fmt: skip
"""Straining by each medium over what its kind of filter strains as usually packed (memory)."""
BED_STRAINS = 0.25
"""The same of rings, stones and carbon: a little dirt settles in them, none is strained (common practice)."""
BED_FIRST = 0.8
"""Share left where a bed takes the coarse dirt before any foam (memory)."""


def straining(usual: float, baskets: Sequence[Basket]) -> float:
    """Straining of a filter as packed, a share.

    usual: of its kind as usually packed; baskets: in flow order, none for as usual. Source: common practice: a basket
    of rings alone strains nothing, however large.

    >>> rings, foam = (Basket(media=m, litres=2) for m in ("ceramic-rings", "foam-20"))
    >>> [round(straining(0.8, packed), 2) for packed in ([], [rings], [foam, rings], [rings, foam])]
    [0.8, 0.2, 0.72, 0.58]
    """
    if not baskets:
        return usual
    open_ones = [b for b in baskets if not b.bagged and b.seated]
    best = max((STRAINS.get(b.media, BED_STRAINS) for b in open_ones), default=BED_STRAINS)
    first = open_ones[0].media if open_ones else None
    bed_first = first is not None and first not in STRAINS and best > BED_STRAINS
    return min(usual * best * (BED_FIRST if bed_first else 1.0), 1.0)
