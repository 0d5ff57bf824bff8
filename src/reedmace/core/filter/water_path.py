"""The water path through a filter, built in one place: for one filter as a question, for a whole shelf as columns.

Pump curve, hose or stem, fittings, media, dirt and outlet of every filter come from here, whoever asks: ranking, the
flow of one filter, its media, its fitting, the exported plumbing. Both forms are made of the same few functions below.
"""

from dataclasses import dataclass

import numpy as np

from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import FilterTable, Floats, Ints, table_of, usual_days
from reedmace.core.filter.kinds import KINDS, kind_of
from reedmace.core.filter.media.basket import Basket
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.flow import AirliftQuestion, OperatingPointQuestion
from reedmace.core.flow.airlift import MINOR_K
from reedmace.core.flow.airlift_kernel import airlift_many, airlift_spare_many
from reedmace.core.flow.hydraulic_kernel import operating_flows, set_threads, spare_resistances
from reedmace.core.flow.materials import (
    BED_CLOGGING,
    CLOGGING,
    dirt_resistance,
    media_coefficients,
    viscosity_m2_s,
)
from reedmace.core.flow.operating_point import minor_coefficient
from reedmace.core.flow.operating_point_schemas import Fitting, Hose, Layer, Pump
from reedmace.core.upkeep.cleaning_interval import SERVICE_SHARE, days_until, service_interval

USUAL_HOSE_MM, USUAL_TUBE_MM = 16.0, 18.0
"""Bores where a box names none (memory)."""
INSIDE_M = 0.1
"""Length of the path inside a body without hoses or stem (memory)."""
STEM_DEPTH_SHARE, STEM_HEIGHT_SHARE = 0.7, 1.3
"""Length of a stem as a share of the depth, or as a multiple of its box's height (memory)."""
ROUGHNESS_M = 1.5e-6
SUMP_LEVEL_CM = 20.0
"""Water level in a sump's return chamber above its foot, where unknown (memory)."""
LIP_SLACK_CM = 2.0
"""Depth of the water line below the rim already included in a hang-on's lip figure (memory)."""
AIR_OVER_BED_CM, TUBE_SHARE = 3.0, 0.95
"""Height of the air inlet over the bed, and its place along the tube (common practice)."""
LEAST_FEED_G = 0.2
"""Food that stands for the dirt of an empty tank, g/day (memory)."""


@dataclass(frozen=True)
class Delivered:
    """Flows of n filters on one tank, L/h, and days between cleanings here; all (n,)."""

    clean_lph: Floats
    service_lph: Floats
    service_days: Floats
    rise_m: Floats


def rise_m(table: FilterTable, site: Site, plumbing: Plumbing) -> Floats:
    """Static rise of every filter on this tank, m, shape (n,).

    table: n filters; site, plumbing: the tank's. Only where the water falls free does height count: a hang-on lifts to
    its lip above the water line, a sump's return from its chamber to the tank's water line, a canister only to an
    outlet held above the water.
    """
    above = max(plumbing.outlet_above_water_cm, 0.0)
    lip = table.lip_cm + max(site.rim_to_water_cm - LIP_SLACK_CM, 0)
    level = SUMP_LEVEL_CM if site.sump_level_cm is None else site.sump_level_cm
    up = max(site.beneath_cm + site.water_depth_cm - level, 0.0) + above
    found = np.where(table.where(lambda k: k.rise == "lip"), lip, 0.0)
    found = np.where(table.where(lambda k: k.rise == "outlet"), above, found)
    return np.where(table.where(lambda k: k.rise == "return"), up, found) / 100


def _stem_m(site: Site, height_cm: Floats) -> Floats:
    return np.minimum(site.water_depth_cm * STEM_DEPTH_SHARE, height_cm * STEM_HEIGHT_SHARE) / 100


def _layers(f: Filter, media: list[Basket]) -> list[Layer]:
    """Media the pump pushes through; none where the water falls through them instead."""
    if not kind_of(f.kind).media_in_path:
        return []
    packed = [
        Layer(media=b.media, area_cm2=f.face_cm2, depth_cm=min(max(b.litres * 1000 / f.face_cm2, 0.1), 200))
        for b in media
    ]
    return packed or [Layer(media="foam-20", area_cm2=f.face_cm2, depth_cm=f.foam_depth_cm)]


def _fittings(plumbing: Plumbing) -> list[Fitting]:
    """The keeper's fittings, with the spray bar's holes as planned."""
    return [
        (
            x.model_copy(update={"holes_count": plumbing.bar_holes_count, "hole_mm": plumbing.bar_hole_mm})
            if x.kind == "spray-bar" and x.holes_count is None
            else x
        )
        for x in plumbing.fittings
    ]


@dataclass(frozen=True)
class _Columns:
    """Resistances of n filters: linear and square of the clean path, linear per day of dirt."""

    c1: Floats
    c2: Floats
    dirt_per_day: Floats


def _media_columns(
    table: FilterTable, packed: dict[str, list[Basket]], feed_g_day: float | Floats, nu: float
) -> _Columns:
    # The foam's coefficients are those of a unit layer, scaled: c1 with depth/area, c2 with depth/area².
    unit_c1, unit_c2 = media_coefficients("foam-20", 1.0, 1.0, nu)
    through = table.where(lambda k: k.media_in_path)
    c1 = np.where(through, unit_c1 * table.depth_m / table.face_m2, 0.0)
    c2 = np.where(through, unit_c2 * table.depth_m / table.face_m2**2, 0.0)
    fed = np.maximum(feed_g_day, LEAST_FEED_G)
    dirt = np.where(through, fed * dirt_resistance(1.0, 1.0, 1.0) / table.face_m2**2, 0.0)
    for i, f in enumerate(table.filters) if packed else ():
        layers = _layers(f, packed.get(f.id, []))
        if not packed.get(f.id) or not layers or f.air:
            continue
        pairs = [media_coefficients(x.media, x.area_cm2 / 1e4, x.depth_cm / 100, nu) for x in layers]
        c1[i], c2[i] = sum(a for a, _ in pairs), sum(b for _, b in pairs)
        dirt[i] *= CLOGGING.get(layers[0].media, BED_CLOGGING) / CLOGGING["foam-20"]
    return _Columns(c1, c2, dirt)


def deliver(
    table: FilterTable,
    site: Site,
    plumbing: Plumbing,
    feed_g_day: float | Floats,
    temperature_c: float,
    *,
    days: float | None = None,
    packed: dict[str, list[Basket]] | None = None,
    hose_m: dict[str, float] | None = None,
) -> Delivered:
    """Clean flow, flow in service and days between cleanings of every filter on this tank.

    table: n filters; site, plumbing: the tank's; feed_g_day: food in g/day, of all or of each (n,); temperature_c: °C;
    days: since cleaning, None for the interval here (the kind's usual one, or sooner where 70 % of the clean flow is
    reached before); packed: media put in, by filter id, medium foam where none; hose_m: both hoses as drawn, by filter
    id, as planned where none. Pumped filters meet their plumbing's curve, air-driven ones their lift.
    """
    n = len(table)
    set_threads(n)
    nu = viscosity_m2_s(temperature_c)
    media = _media_columns(table, packed or {}, feed_g_day, nu)
    clean, service, usual = np.zeros(n), np.zeros(n), usual_days(table)
    since = usual.copy() if days is None else np.full(n, float(days))
    static = rise_m(table, site, plumbing)
    for which, path in (
        (np.flatnonzero(~table.air), _pumped(table, site, plumbing, media, static, nu, hose_m or {})),
        (np.flatnonzero(table.air), _aired(table, site, media, nu)),
    ):
        if not len(which):
            continue
        clean[which] = path.flow(np.zeros(len(which)))
        if days is None:
            until = days_until(path.spare(SERVICE_SHARE * clean[which]), media.dirt_per_day[which])
            since[which] = service_interval(usual[which], until)
        service[which] = path.flow(media.dirt_per_day[which] * since[which])
    return Delivered(clean * 3.6e6, service * 3.6e6, since, static)


def food_shares(clean_lph: Floats) -> Floats:
    """Share of the tank's dirt each of several filters catches (n,): proportional to flow. clean_lph: (n,)."""
    total = float(np.sum(clean_lph))
    return clean_lph / total if total > 0 else np.full(len(clean_lph), 1 / max(len(clean_lph), 1))


class _Pumped:
    """Pumped filters on their plumbing: flow at an added linear resistance, and the resistance for a given flow."""

    def __init__(self, path: tuple[Floats, ...], points: Ints, nu: float) -> None:
        self.q, self.h, self.static, self.c1, self.c2, self.hoses = path
        self.points, self.nu = points, nu

    def flow(self, dirt: Floats) -> Floats:
        return np.asarray(
            operating_flows(self.q, self.h, self.points, self.static, self.c1 + dirt, self.c2, self.hoses, self.nu)
        )

    def spare(self, flow: Floats) -> Floats:
        return np.asarray(
            spare_resistances(flow, self.q, self.h, self.points, self.static, self.c1, self.c2, self.hoses, self.nu)
        )


def _pumped(
    table: FilterTable,
    site: Site,
    plumbing: Plumbing,
    media: _Columns,
    static: Floats,
    nu: float,
    hose_m: dict[str, float],
) -> _Pumped:
    which = np.flatnonzero(~table.air)
    hosed = table.where(lambda k: k.hosed)[which]
    stemmed = table.where(lambda k: k.stemmed)[which]
    own_k = np.array([kind.own_k for kind in KINDS])[table.kind[which]]
    bore = np.where(hosed, plumbing.hose_bore_mm or table.hose_mm[which], table.tube_mm[which]) / 1000
    hoses = np.zeros((len(which), 1, 3))
    hoses[:, 0, 0] = bore
    stem = np.where(stemmed, _stem_m(site, table.height_cm[which]), INSIDE_M)
    drawn = plumbing.hose_length_m
    lengths = np.array([hose_m.get(table.filters[i].id, drawn) for i in which]) if hose_m else drawn
    hoses[:, 0, 1] = np.where(hosed, lengths, stem)
    hoses[:, 0, 2] = ROUGHNESS_M
    squares = np.where(hosed, 0.0, own_k * minor_coefficient(1.0, 1.0) / (bore * bore * bore * bore))
    # A fitting's K may depend on its bore, and there are only a few bores.
    bores, at = np.unique(bore[hosed], return_inverse=True)
    fittings = _fittings(plumbing)
    totals = [
        sum(minor_coefficient(x.k_on(m * 1000) * x.count, (x.bore_mm or m * 1000) / 1000) for x in fittings)
        for m in bores
    ]
    squares[hosed] = np.array(totals)[at]
    # Affinity laws: flow with the speed, head with its square.
    speed = plumbing.speed_share
    q, h = table.curve_m3s[which] * speed, table.curve_m[which] * speed**2
    path = (q, h, static[which], media.c1[which], media.c2[which] + squares, hoses)
    return _Pumped(path, table.points[which], nu)


def submerged_cm(f_height_cm: float, site: Site) -> float:
    """Depth of the air inlet in cm, near the foot of the tube or of the tank.

    f_height_cm: the filter's; site: the site.
    """
    return float(min(max(site.water_depth_cm - AIR_OVER_BED_CM, 1), f_height_cm * TUBE_SHARE, 200))


class _Aired:
    """Air lifts with their foam: flow at an added linear resistance, and the resistance for a given flow."""

    def __init__(self, lift: tuple[Floats, Floats, Floats, Floats], c1: Floats, nu: float) -> None:
        self.lift, self.c1, self.k, self.nu = lift, c1, np.full(len(c1), MINOR_K), nu

    def flow(self, dirt: Floats) -> Floats:
        air, tube, under, rise = self.lift
        return np.asarray(airlift_many(air, tube, under, rise, self.c1 + dirt, self.k, self.nu))

    def spare(self, flow: Floats) -> Floats:
        air, tube, under, rise = self.lift
        return np.asarray(airlift_spare_many(flow, air, tube, under, rise, self.c1, self.k, self.nu))


def _aired(table: FilterTable, site: Site, media: _Columns, nu: float) -> _Aired:
    which = np.flatnonzero(table.air)
    under = np.array([submerged_cm(float(h), site) for h in table.height_cm[which]]) / 100
    lift = (table.air_m3s[which], table.tube_mm[which] / 1000, under, np.zeros(len(which)))
    return _Aired(lift, media.c1[which], nu)


def path_question(
    f: Filter,
    site: Site,
    plumbing: Plumbing,
    media: list[Basket],
    feed_g_day: float,
    temperature_c: float,
    days: float | None = None,
) -> OperatingPointQuestion:
    """The path of one pumped filter, as input of the operating point.

    f: the filter; site, plumbing: the tank's; media: in flow order, none for medium foam; feed_g_day: food in g/day;
    temperature_c: °C; days: since cleaning, None for the interval here.
    """
    table, kind = table_of([f]), kind_of(f.kind)
    got = deliver(table, site, plumbing, feed_g_day, temperature_c, packed={f.id: media} if media else None)
    if kind.hosed:
        bore = plumbing.hose_bore_mm or f.hose_bore_mm or USUAL_HOSE_MM
        length, fittings = plumbing.hose_length_m, _fittings(plumbing)
    else:
        bore = f.tube_bore_mm or USUAL_TUBE_MM
        length = float(_stem_m(site, table.height_cm)[0]) if kind.stemmed else INSIDE_M
        fittings = [Fitting(kind="strainer" if kind.stemmed else "nozzle", k=kind.own_k)]
    return OperatingPointQuestion(
        pump=Pump(
            max_flow_lph=f.box_lph * f.pumps_share,
            max_head_m=f.max_head_m or 0.05,
            curve=f.curve,
            speed_share=plumbing.speed_share,
        ),
        hoses=[Hose(bore_mm=bore, length_m=length, intake_share=plumbing.intake_share if kind.hosed else 0)],
        fittings=fittings,
        media=_layers(f, media),
        rise_to_open_air_m=min(float(got.rise_m[0]), 30),
        temperature_c=temperature_c,
        feed_g_day=max(feed_g_day, LEAST_FEED_G),
        days_since_cleaning=min(float(got.service_days[0]) if days is None else days, 1000),
        net_l=site.net_l,
    )


def lift_question(
    f: Filter, site: Site, feed_g_day: float, temperature_c: float, days: float | None = None
) -> AirliftQuestion:
    """The path of one air-driven filter, as input of the air lift. Arguments as for `path_question`."""
    got = deliver(table_of([f]), site, Plumbing(), feed_g_day, temperature_c)
    return AirliftQuestion(
        air_l_min=f.air_l_min or 0.0,
        tube_bore_mm=f.tube_bore_mm or USUAL_TUBE_MM,
        submerged_cm=submerged_cm(f.height_cm, site),
        foam_face_cm2=f.face_cm2,
        foam_depth_cm=min(f.foam_depth_cm, 60),
        feed_g_day=max(feed_g_day, LEAST_FEED_G),
        days_since_cleaning=min(float(got.service_days[0]) if days is None else days, 1000),
        temperature_c=temperature_c,
    )
