"""Filters as columns, so that a whole catalogue is worked at once; and the flow each delivers on a tank."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, fields
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from reedmace.core.filter.catalogue import KINDS, Filter
from reedmace.core.flow.airlift import MINOR_K
from reedmace.core.flow.kernel import airlift_many, meet_many
from reedmace.core.flow.materials import (
    FITTING_K,
    MEDIA_SURFACE_M2_L,
    dirt_resistance,
    media_coefficients,
    viscosity_m2_s,
)
from reedmace.core.flow.operating import minor_coefficient

if TYPE_CHECKING:
    from reedmace.core.filter.room import Plumbing, Room

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

STEM_K = 5.0
"""Intake strainer, bends and weir of a hang-on together, on its stem (memory)."""
INSIDE_K = 3.0
"""Grate and nozzle of a pump that stands in the water (memory)."""
MOST_POINTS = 8
SERVICE_DAYS: dict[str, float] = {
    "sponge": 30,
    "sheet": 365,
    "hang-on": 21,
    "internal": 21,
    "canister": 60,
    "sump": 21,
    "box": 21,
    "under-gravel": 90,
}
"""Usual days between cleanings, by kind (common practice)."""
LEFT_SHARE, SHORTEST_DAYS, MOST_HALVINGS = 0.65, 4.0, 5
SUMP_LEVEL_CM = 20.0
"""Water level in a sump's return chamber above its foot (memory)."""


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

    def __len__(self) -> int:
        return len(self.filters)

    def is_kind(self, *names: str) -> Bools:
        """Which filters are of one of these kinds (n,). names: of KINDS."""
        return np.isin(self.kind, [KINDS.index(n) for n in names])

    def joined(self, other: "FilterTable") -> "FilterTable":
        """Both tables, this one first. other: another table."""
        columns = {
            f.name: np.concatenate([getattr(self, f.name), getattr(other, f.name)])
            for f in fields(self)
            if f.name != "filters"
        }
        return FilterTable(filters=self.filters + other.filters, **columns)


def table_of(filters: Iterable[Filter]) -> FilterTable:
    """The columns of some filters. filters: any number, in the order wanted."""
    fs = tuple(filters)
    n = len(fs)
    rows = [
        (
            KINDS.index(f.kind),
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
            f.noise,
            f.price,
            f.restarts_alone,
            f.salt_water,
            f.chemical_media,
            f.max_head_m or 0.05,
        )
        for f in fs
    ]
    c = np.array(rows, dtype=float).reshape(n, 21)
    curve_q, curve_h = np.zeros((n, MOST_POINTS)), np.zeros((n, MOST_POINTS))
    points = np.full(n, 2, dtype=np.int64)
    curve_q[:, 1], curve_h[:, 0] = c[:, 2] / 3.6e6, c[:, 20]
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
    )


def rise_m(table: FilterTable, room: "Room", plumbing: "Plumbing") -> Floats:
    """Static rise of every filter on this tank, m, shape (n,).

    table: n filters; room, plumbing: the tank's. Only where the water falls free does height count: a hang-on lifts to
    its lip above the water line, a sump's return from its chamber to the tank's water line, a canister only to an
    outlet held above the water.
    """
    above = max(plumbing.outlet_above_water_cm, 0.0)
    hang = table.lip_cm + max(room.rim_to_water_cm - 2, 0)
    sump = max(room.beneath_cm + room.water_depth_cm - SUMP_LEVEL_CM, 0.0) + above
    found = np.where(table.is_kind("hang-on"), hang, 0.0)
    found = np.where(table.is_kind("canister"), above, found)
    return np.where(table.is_kind("sump"), sump, found) / 100


def deliver(
    table: FilterTable,
    room: "Room",
    plumbing: "Plumbing",
    feed_g_day: float,
    days: float | None,
    temperature_c: float,
) -> tuple[Floats, Floats, Floats]:
    """Clean flow and flow in service, L/h, and days between cleanings, each of shape (n,).

    table: n filters; room, plumbing: the tank's; feed_g_day: food in g/day; days: since cleaning, None for each
    kind's usual interval, halved until 65 % of the clean flow is left (common practice); temperature_c: °C.
    Pumped filters meet their plumbing's curve, air-driven ones their air lift.
    """
    n = len(table)
    nu = viscosity_m2_s(temperature_c)
    clean, dirty = np.zeros(n), np.zeros(n)
    # The foam's coefficients are those of a unit layer, scaled: c1 with depth/area, c2 with depth/area².
    unit_c1, unit_c2 = media_coefficients("foam-20", 1.0, 1.0, nu)
    c1, c2 = unit_c1 * table.depth_m / table.face_m2, unit_c2 * table.depth_m / table.face_m2**2
    since = usual_days(table) if days is None else np.full(n, float(days))
    dirt = dirt_resistance(feed_g_day, 1.0, 1.0) / table.face_m2**2
    pumped, aired = np.flatnonzero(~table.air), np.flatnonzero(table.air)
    if len(pumped):
        hosed = table.is_kind("canister", "sump")[pumped]
        hang = table.is_kind("hang-on")[pumped]
        bore = np.where(hosed, plumbing.hose_bore_mm or table.hose_mm[pumped], table.tube_mm[pumped]) / 1000
        stem = np.where(hang, np.minimum(room.water_depth_cm * 0.7, table.height_cm[pumped] * 1.3) / 100, 0.1)
        hoses = np.zeros((len(pumped), 1, 3))
        hoses[:, 0, 0] = bore
        hoses[:, 0, 1] = np.where(hosed, plumbing.hose_length_m, stem)
        hoses[:, 0, 2] = 1.5e-6
        k_of = [(FITTING_K[f.kind] if f.k is None else f.k, f) for f in plumbing.fittings]
        k_all = sum(k * f.count for k, f in k_of if f.bore_mm is None)
        fixed = sum(minor_coefficient(k * f.count, f.bore_mm / 1000) for k, f in k_of if f.bore_mm)
        k_own = np.where(hosed, k_all, np.where(hang, STEM_K, INSIDE_K))
        squares = c2[pumped] + k_own * minor_coefficient(1.0, 1.0) / bore**4 + np.where(hosed, fixed, 0.0)
        static = rise_m(table, room, plumbing)[pumped]
        # Affinity laws: flow with the speed, head with its square.
        speed = plumbing.speed_share
        q, h = table.curve_m3s[pumped] * speed, table.curve_m[pumped] * speed**2
        points = table.points[pumped]
        clean[pumped] = meet_many(q, h, points, static, c1[pumped], squares, hoses, nu)

        def pumped_flow(some: Ints) -> Floats:
            r = c1[pumped][some] + (dirt * since)[pumped][some]
            return np.asarray(
                meet_many(q[some], h[some], points[some], static[some], r, squares[some], hoses[some], nu)
            )

        dirty[pumped] = _in_service(pumped_flow, clean, since, pumped, days is None)
    if len(aired):
        under = np.minimum(max(room.water_depth_cm - 3, 1), table.height_cm[aired] * 0.95) / 100
        zero, k = np.zeros(len(aired)), np.full(len(aired), MINOR_K)
        lift = (table.air_m3s[aired], table.tube_mm[aired] / 1000, under, zero)
        clean[aired] = airlift_many(*lift, c1[aired], k, nu)

        def aired_flow(some: Ints) -> Floats:
            r = c1[aired][some] + (dirt * since)[aired][some]
            air, tube, depth, rise = (column[some] for column in lift)
            return np.asarray(airlift_many(air, tube, depth, rise, r, k[some], nu))

        dirty[aired] = _in_service(aired_flow, clean, since, aired, days is None)
    return clean * 3.6e6, dirty * 3.6e6, since


def usual_days(table: FilterTable) -> Floats:
    """Usual days between cleanings (n,). table: n filters."""
    return np.array([SERVICE_DAYS[k] for k in KINDS], dtype=float)[table.kind]


def _in_service(flow: Callable[[Ints], Floats], clean: Floats, since: Floats, which: Ints, shorten: bool) -> Floats:
    """Flow in service of the filters `which`; `since` is halved in place where too little is left and that is wanted."""
    found = flow(np.arange(len(which)))
    for _ in range(MOST_HALVINGS if shorten else 0):
        weak = np.flatnonzero((found < LEFT_SHARE * clean[which]) & (since[which] > SHORTEST_DAYS))
        if len(weak) == 0:
            break
        since[which[weak]] /= 2
        found[weak] = flow(weak)
    return found


def film_m2(table: FilterTable) -> Floats:
    """Film area of every filter, m², shape (n,), its media room filled with medium foam. table: n filters. From memory."""
    return table.media_l * MEDIA_SURFACE_M2_L["foam-20"]
