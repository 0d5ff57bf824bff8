"""Typical boxes of a kind: what a box of a given size usually has, and how makes differ."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

AT_LPH = 500.0
"""Box flow at which the relations of `Typical` are written, L/h."""
Relation = tuple[float, float, float]
"""Median at 500 L/h, power of the box flow, and log spread from make to make."""


@dataclass(frozen=True, kw_only=True)
class Typical:
    """Sizes in which a kind is sold, L/h, and each figure of a box as a relation in its size (memory).

    `figures` names fields of a box; what a kind does not have is left out. `counted`: sold by the tank it is for and by
    number, not by flow.
    """

    smallest_lph: float
    largest_lph: float
    figures: Mapping[str, Relation]
    counted: bool = False

    def figure(self, name: str, box_lph: float, z: float = 0.0) -> float | None:
        """A figure of a box; None where the kind has none.

        name: field of a box; box_lph: L/h; z: of the make, in spreads from the median.
        """
        relation = self.figures.get(name)
        if relation is None:
            return None
        median, power, spread = relation
        return float(median * (box_lph / AT_LPH) ** power * math.exp(spread * z))

    def size_of(self, name: str, value: float) -> float:
        """Size sold whose median figure is nearest, L/h; KeyError for a figure the kind has not.

        name: field of a box; value: of it, above 0.
        """
        median, power, _ = self.figures[name]
        found = AT_LPH * (value / median) ** (1 / power) if power else AT_LPH
        return float(min(max(found, self.smallest_lph), self.largest_lph))

    def spreads_off(self, name: str, box_lph: float, value: float) -> float:
        """How far a figure is from the median of its size, in spreads from make to make; 0 where the kind has none.

        name: field of a box; box_lph: L/h; value: of it, above 0.
        """
        relation = self.figures.get(name)
        usual = self.figure(name, box_lph)
        return 0.0 if relation is None or usual is None else math.log(value / usual) / relation[2]
