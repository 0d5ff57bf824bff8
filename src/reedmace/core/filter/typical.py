"""Typical boxes of every kind over the sizes in which they are sold: no make and no name.

Their price serves to compare kinds, as a ratio; none is shown.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import FilterTable, Ints, table_of
from reedmace.core.filter.kind_parts.traits import KindTraits, kind_traits
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.filter.learned import PUMPED_FLOW, LearnedRelation
from reedmace.core.flow.materials import FLOW_SPREAD
from reedmace.core.quantity import formatting

SIZES, MAKES = 24, 24
"""Sizes a kind, and makes a size of which the first is the median."""
BEYOND = 3.0
"""Multiple of the largest and smallest size sold up to which the relations of a kind are carried on."""
PREFIX = "typical-"
"""First part of the id of every typical box."""
LEAST_LPH, MOST_LPH = 10.0, 100_000.0
"""Range of a box's flow, L/h."""


@dataclass(frozen=True)
class TypicalTable:
    """Boxes as rows of a table, with the place of each: kind by its number, size and make."""

    table: FilterTable
    kinds: tuple[KindTraits, ...]
    boxes: tuple[Typical, ...]
    sizes_lph: tuple[tuple[float, ...], ...]
    kind: Ints
    size: Ints
    make: Ints

    def rows_of(self, kind: int, size: int) -> Ints:
        """Rows of one size of one kind, the median first. kind, size: numbers."""
        return np.flatnonzero((self.kind == kind) & (self.size == size))


def typical_box(
    kind: KindTraits, box_lph: float, z: dict[str, float] | None = None, learned: Sequence[LearnedRelation] = ()
) -> Filter:
    """A box of a kind and size as it is usually made.

    kind: with its `typical`; box_lph: L/h; z: of the make by figure, in spreads from the median; learned: relations
    moved by this installation's own boxes and flows. ValueError for a kind without typical boxes.
    """
    boxes = kind.typical
    if boxes is None:
        raise ValueError(f"nobody has said what a typical {kind.title.lower()} is")
    off = z or {}
    size = min(max(box_lph, boxes.smallest_lph / BEYOND), boxes.largest_lph * BEYOND)
    moved = {one.figure: one for one in learned if one.kind == kind.name}
    drawn = {}
    for name, (_, _, spread) in boxes.figures.items():
        usual, one, at = boxes.figure(name, size), moved.get(name), off.get(name, 0.0)
        shift = spread * at if one is None else one.shift_share + one.spread_share * at
        drawn[name] = None if usual is None else usual * float(np.exp(shift))
    figures = {
        name: _within(name, round(v, 1 if name.endswith("_cm") else 3)) for name, v in drawn.items() if v is not None
    }
    noise = int(min(max(round(figures.pop("noise", 2.0)), 1), 5))
    pumped = moved.get(PUMPED_FLOW)
    pumps = FLOW_SPREAD * off.get(PUMPED_FLOW, 0.0)
    if pumped is not None:
        pumps = pumped.shift_share + pumped.spread_share * off.get(PUMPED_FLOW, 0.0)
    return Filter.model_validate(
        {
            "id": typical_id(kind, box_lph),
            "name": f"{kind.title} of {formatting.lph(box_lph)}",
            "kind": kind.name,
            "box_lph": min(max(box_lph, LEAST_LPH), MOST_LPH),
            "pumps_share": _within("pumps_share", float(np.exp(pumps))),
            "noise": noise,
            "price_known": False,
            **figures,
        }
    )


def _within(name: str, value: float) -> float:
    """A figure within what a box may have. name: field of a box; value: of it."""
    low, high = _ranges()[name]
    return min(max(value, low), high)


@lru_cache(maxsize=1)
def _ranges() -> dict[str, tuple[float, float]]:
    """(least, most) of each figure of a box, as its schema enforces it."""
    found = {}
    for name, schema in Filter.model_json_schema()["properties"].items():
        number: dict[str, float] = next((one for one in schema.get("anyOf", [schema]) if "minimum" in one), {})
        found[name] = (float(number.get("minimum", -np.inf)), float(number.get("maximum", np.inf)))
    return found


def typical_id(kind: KindTraits, box_lph: float) -> str:
    """Id of a typical box. kind: with typical boxes; box_lph: L/h."""
    return f"{PREFIX}{kind.name}-{box_lph:.0f}"


def is_typical(filter_id: str) -> bool:
    """Whether an id is that of a typical box, which nobody has bought yet. filter_id: of any box."""
    return filter_id.startswith(PREFIX)


def typical_named(filter_id: str, learned: Sequence[LearnedRelation] = ()) -> Filter | None:
    """The typical box of an id; None for any other id. Its name is in the keeper's units.

    filter_id: as `typical_id` writes it; learned: relations moved by this installation's own boxes and flows.
    """
    name, _, lph = filter_id.removeprefix(PREFIX).rpartition("-")
    kind = kind_traits().get(name)
    if not is_typical(filter_id) or kind is None or kind.typical is None or not lph.isascii() or not lph.isdigit():
        return None
    size = float(lph[:7])
    return typical_box(kind, size, learned=learned) if LEAST_LPH <= size <= MOST_LPH else None


def sizes_of(boxes: Typical) -> tuple[float, ...]:
    """The sizes of a kind that are tried, L/h, smallest first. boxes: its typical ones."""
    return tuple(_rounded(float(q)) for q in np.geomspace(boxes.smallest_lph, boxes.largest_lph, SIZES))


def _rounded(lph: float) -> float:
    """A flow as boxes print it. lph: L/h."""
    step = next(step for below, step in _STEPS if lph < below)
    return step * round(lph / step)


_STEPS = ((100.0, 1.0), (500.0, 5.0), (1000.0, 10.0), (5000.0, 50.0), (np.inf, 100.0))
"""(below what flow, step) in which boxes are labelled, L/h (memory)."""


@lru_cache(maxsize=2)
def typical_table(learned: tuple[LearnedRelation, ...] = ()) -> TypicalTable:
    """Every kind that has typical boxes, in all sizes and makes. The makes are drawn once, from a fixed seed.

    learned: relations moved by this installation's own boxes and flows.
    """
    sold = _sold()
    found: list[Filter] = []
    # Kept for all keepers: their names are in the home units.
    token = formatting.choose(formatting.METRIC)
    place: list[tuple[int, int, int]] = []
    rng = np.random.default_rng(29)
    for n, (kind, boxes) in enumerate(sold):
        names = [*boxes.figures, PUMPED_FLOW]
        makes = [dict(zip(names, row, strict=True)) for row in rng.standard_normal((MAKES - 1, len(names)))]
        for s, lph in enumerate(sizes_of(boxes)):
            for m, z in enumerate([{}, *makes]):
                found.append(typical_box(kind, lph, z, learned))
                place.append((n, s, m))
    formatting.restore(token)
    at = np.array(place)
    return TypicalTable(
        table=table_of(found),
        kinds=tuple(kind for kind, _ in sold),
        boxes=tuple(boxes for _, boxes in sold),
        sizes_lph=tuple(sizes_of(boxes) for _, boxes in sold),
        kind=at[:, 0],
        size=at[:, 1],
        make=at[:, 2],
    )


@lru_cache(maxsize=1)
def typical_medians() -> FilterTable:
    """The median box of every size of every kind, as a table."""
    with formatting.in_units(formatting.METRIC):
        return table_of([typical_box(kind, lph) for kind, boxes in _sold() for lph in sizes_of(boxes)])


def _sold() -> list[tuple[KindTraits, Typical]]:
    return [(kind, kind.typical) for kind in kind_traits().values() if kind.typical is not None]
