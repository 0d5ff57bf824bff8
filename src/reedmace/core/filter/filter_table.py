"""Filters as columns, so that a whole shelf is computed at once."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, fields

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


def table_of(filters: Iterable[Filter]) -> FilterTable:
    """Table of some filters. filters: any number, in the order wanted."""
    fs = tuple(filters)
    n = len(fs)
    number = {name: i for i, name in enumerate(kind_traits())}
    rows = [
        (
            number[f.kind],
            f.air_l_min is not None,
            f.box_lph,
            (f.air_l_min or 0.0) / 60000,
            f.tube_bore_mm or 18.0,
            f.hose_bore_mm or 16.0,
            f.face_cm2 / 1e4,
            f.foam_depth_cm / 100,
            f.media_l,
            f.height_cm,
            f.width_cm,
            f.depth_cm,
            f.behind_cm,
            f.lip_cm,
            f.watts,
            f.noise_step,
            f.price,
            f.restarts_alone,
            f.salt_water,
            f.chemical_media,
            f.max_head_m or 0.05,
            f.wheel_m2,
            f.pump_wet,
            f.skimmer,
            f.pumps_share,
        )
        for f in fs
    ]
    c = np.array(rows, dtype=float).reshape(n, 25)
    curve_q, curve_h = np.zeros((n, MOST_POINTS)), np.zeros((n, MOST_POINTS))
    points = np.full(n, 2, dtype=np.int64)
    curve_q[:, 1], curve_h[:, 0] = c[:, 2] * c[:, 24] / 3.6e6, c[:, 20]
    for i, f in enumerate(fs):
        if f.curve:
            points[i] = len(f.curve)
            curve_q[i, : points[i]] = [p.flow_lph / 3.6e6 for p in f.curve]
            curve_h[i, : points[i]] = [p.head_m for p in f.curve]
    return FilterTable(
        filters=fs,
        kind=c[:, 0].astype(np.int64),
        air=c[:, 1] > 0,
        box_lph=c[:, 2],
        curve_m3s=curve_q,
        curve_m=curve_h,
        points=points,
        air_m3s=c[:, 3],
        tube_mm=c[:, 4],
        hose_mm=c[:, 5],
        face_m2=c[:, 6],
        depth_m=c[:, 7],
        media_l=c[:, 8],
        height_cm=c[:, 9],
        width_cm=c[:, 10],
        depth_cm=c[:, 11],
        behind_cm=c[:, 12],
        lip_cm=c[:, 13],
        watts=c[:, 14],
        noise=c[:, 15],
        price=c[:, 16],
        restarts=c[:, 17] > 0,
        salt=c[:, 18] > 0,
        chemical=c[:, 19] > 0,
        wheel_m2=c[:, 21],
        pump_wet=c[:, 22] > 0,
        skimmer=c[:, 23] > 0,
    )


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
