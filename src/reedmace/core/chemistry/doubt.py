"""How far a figure may be off, and what most of that comes from."""

import math
from collections.abc import Mapping
from typing import Literal, NamedTuple

DoubtBy = Literal["the litres", "the product", "the test", "the drops"]
LITRES_SHARE = 0.05
"""Doubt of a tank's water from its sizes, bed and level, as a share (memory)."""
DROPS_SHARE = 0.15
"""Doubt of a dose counted in drops: their size differs with bottle and hand (memory)."""


class Doubt(NamedTuple):
    """Lower and upper end of a figure, and what most of its range comes from."""

    low: float
    high: float
    by: DoubtBy


def doubt_of(middle: float, parts: Mapping[DoubtBy, float]) -> Doubt:
    """Range of a figure whose inputs are independent: deviations add by squares.

    middle: the figure; parts: by how much each input alone may move it, either way.

    >>> doubt_of(10.0, {"the litres": 3.0, "the test": 4.0})
    Doubt(low=5.0, high=15.0, by='the test')
    """
    off = math.hypot(*parts.values())
    return Doubt(max(middle - off, 0.0), middle + off, max(parts, key=lambda part: parts[part]))


__all__ = ["DROPS_SHARE", "LITRES_SHARE", "Doubt", "DoubtBy", "doubt_of"]
