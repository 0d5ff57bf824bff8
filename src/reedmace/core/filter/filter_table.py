"""Filters as columns, so that a whole shelf is computed at once."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, fields
from typing import Any

import numpy as np
from numpy.typing import NDArray

from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kind_parts.traits import KindTraits, kind_traits
from reedmace.core.flow.materials import MEDIA_SURFACE_M2_L

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

MOST_POINTS = 8


@dataclass(frozen=True)
class FilterTable:
    """n filters as columns of shape (n,), curves (n, MOST_POINTS). Lengths in cm, L/h, m, W as in their names."""

    filters: tuple[Filter, ...]
    kind: Ints
    air: Bools
    box_lph: Floats
    curve_m3s: Floats
    curve_m: Floats
    points: Ints
    air_m3s: Floats
    tube_mm: Floats
    hose_mm: Floats
    face_m2: Floats
    depth_m: Floats
    media_l: Floats
    height_cm: Floats
    width_cm: Floats
    depth_cm: Floats
    behind_cm: Floats
    lip_cm: Floats
    watts: Floats
    noise: Floats
    price: Floats
    restarts: Bools
    salt: Bools
    chemical: Bools
    wheel_m2: Floats
    pump_wet: Bools
    skimmer: Bools

    def __len__(self) -> int:
        return len(self.filters)

    def where(self, trait: Callable[[KindTraits], object]) -> Bools:
        """Which filters are of a kind with a trait (n,). trait: of the kind's record."""
        return np.array([bool(trait(kind)) for kind in kind_traits().values()])[self.kind]

    def taken(self, some: Ints) -> "FilterTable":
        """Rows by index, in the order given. some: which (m,)."""
        columns = {f.name: getattr(self, f.name)[some] for f in fields(self) if f.name != "filters"}
        return FilterTable(filters=tuple(self.filters[i] for i in some), **columns)

    def joined(self, other: "FilterTable") -> "FilterTable":
        """Both tables, this one first. other: another table."""
        columns = {
            f.name: np.concatenate([getattr(self, f.name), getattr(other, f.name)])
            for f in fields(self)
            if f.name != "filters"
        }
        return FilterTable(filters=self.filters + other.filters, **columns)


_COLUMNS = (
    "kind", "air", "box_lph", "air_m3s", "tube_mm", "hose_mm", "face_m2", "depth_m", "media_l", "height_cm", "width_cm",
    "depth_cm", "behind_cm", "lip_cm", "watts", "noise", "price", "restarts", "salt", "chemical", "wheel_m2",
    "pump_wet", "skimmer", "max_head_m", "pumps_share",
)  # fmt: skip
"""In the order of `_row`; the last two make the curve of a box without points of its own."""
_OF_CURVE = ("max_head_m", "pumps_share")
_YES_NO = frozenset({"air", "restarts", "salt", "chemical", "pump_wet", "skimmer"})


def _row(f: Filter, kind: int) -> tuple[float, ...]:
    """Figures of one filter. kind: number of its kind."""
    return (
        kind, f.air_l_min is not None, f.box_lph, (f.air_l_min or 0.0) / 60000, f.tube_bore_mm or 18.0,
        f.hose_bore_mm or 16.0, f.face_cm2 / 1e4, f.foam_depth_cm / 100, f.media_l, f.height_cm, f.width_cm,
        f.depth_cm, f.behind_cm, f.lip_cm, f.watts, f.noise_step, f.price, f.restarts_alone, f.salt_water,
        f.chemical_media, f.wheel_m2, f.pump_wet, f.skimmer, f.max_head_m or 0.05, f.pumps_share,
    )  # fmt: skip


def table_of(filters: Iterable[Filter]) -> FilterTable:
    """Table of some filters. filters: any number, in the order wanted."""
    fs = tuple(filters)
    n = len(fs)
    number = {name: i for i, name in enumerate(kind_traits())}
    figures = np.array([_row(f, number[f.kind]) for f in fs], dtype=float).reshape(n, len(_COLUMNS))
    c = dict(zip(_COLUMNS, figures.T, strict=True))
    curve_q, curve_h = np.zeros((n, MOST_POINTS)), np.zeros((n, MOST_POINTS))
    points = np.full(n, 2, dtype=np.int64)
    curve_q[:, 1], curve_h[:, 0] = c["box_lph"] * c["pumps_share"] / 3.6e6, c["max_head_m"]
    for i, f in enumerate(fs):
        if f.curve:
            points[i] = len(f.curve)
            curve_q[i, : points[i]] = [p.flow_lph / 3.6e6 for p in f.curve]
            curve_h[i, : points[i]] = [p.head_m for p in f.curve]
    columns: dict[str, Any] = {
        name: c[name] > 0 if name in _YES_NO else c[name] for name in _COLUMNS if name not in _OF_CURVE
    }
    columns["kind"] = c["kind"].astype(np.int64)
    return FilterTable(filters=fs, curve_m3s=curve_q, curve_m=curve_h, points=points, **columns)


def usual_days(table: FilterTable) -> Floats:
    """Usual days between cleanings (n,). table: n filters."""
    return np.array([kind.service_days for kind in kind_traits().values()], dtype=float)[table.kind]


def film_of_m2(f: Filter) -> float:
    """Film area of one filter, m², with its media volume full of medium foam. f: the filter. From memory."""
    return f.media_l * MEDIA_SURFACE_M2_L["foam-20"] + f.wheel_m2


def film_m2(table: FilterTable) -> Floats:
    """Film area of every filter, m², shape (n,), with media volume full of medium foam.

    table: n filters. From memory.
    """
    return table.media_l * MEDIA_SURFACE_M2_L["foam-20"] + table.wheel_m2
