"""Operating point: the flow a pump delivers through this lift, hose, fittings and media."""

import math
from collections.abc import Iterable
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from reedmace.core.contract import (
    Working,
    computation,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.flow.hydraulic_kernel import hose_head, operating_flow, plumbing_head, pump_head
from reedmace.core.flow.materials import (
    BED_CLOGGING,
    CLOGGING,
    dirt_resistance,
    media_coefficients,
    viscosity_m2_s,
)
from reedmace.core.flow.operating_point_schemas import (
    CurvePoint,
    HeadPart,
    Hose,
    IntervalPoint,
    OperatingPointAnswer,
    OperatingPointQuestion,
    Pump,
)
from reedmace.core.quantity import formatting, lph_to_m3s, m3s_to_lph
from reedmace.core.quantity.constants import G

MEDIA_PART = "media, clean"
PART_NAMES = {
    "strainer": "strainer",
    "entrance": "hose entrance",
    "elbow": "elbows",
    "u-bend": "U-bends",
    "tap-open": "tap",
    "tap-half": "half-shut tap",
    "quick-valve": "valves",
    "check-valve": "check valve",
    "spray-bar": "spray bar",
    "guard": "guard sponge",
    "exit": "exit",
    "nozzle": "nozzle",
    "flared-pipe": "flared pipe",
}


def _curve(
    pump: Pump,
) -> tuple["np.ndarray[tuple[int], np.dtype[np.float64]]", "np.ndarray[tuple[int], np.dtype[np.float64]]"]:
    if not pump.curve:
        return np.array([0.0, lph_to_m3s(pump.max_flow_lph)]), np.array([pump.max_head_m, 0.0])
    flows = [p.flow_lph for p in pump.curve]
    heads = [p.head_m for p in pump.curve]
    rising = all(a < b for a, b in pairwise(flows))
    falling = all(a > b for a, b in pairwise(heads))
    if len(flows) < 3 or not rising or not falling or flows[0] != 0 or heads[-1] != 0:
        raise CannotAnswer(
            "pump.curve",
            "the points do not make a pump curve.",
            "Give at least three, from no flow to no head, with flow rising and head falling, or leave it empty to use"
            " the two box figures.",
        )
    return np.array([lph_to_m3s(f) for f in flows]), np.array(heads, dtype=float)


def minor_coefficient(k: float, bore_m: float) -> float:
    """c2 in s²/m⁵ of a fitting, so that its head is c2 Q².

    k: resistance coefficient, dimensionless; bore_m: m. Source: Crane TP-410, h = K v²/2g.

    >>> round(minor_coefficient(0.9, 0.016), 0)
    1135095.0
    """
    return k / (2 * G * (0.25 * math.pi * bore_m**2) ** 2)


def hose_words(hose: Hose) -> str:
    """A length of hose in words. hose: a typical box's bore is no round figure."""
    return f"{formatting.metres(hose.length_m, '.2f')} of {formatting.mm(round(hose.bore_mm, 1))} hose"


Parts = list[tuple[str, float, float]]
"""(name, c1 in s/m², c2 in s²/m⁵) of each resistance."""


def _fittings(q: OperatingPointQuestion, w: Working) -> Parts:
    found: Parts = []
    default_bore = min((h.bore_mm for h in q.hoses), default=None)
    for index, fitting in enumerate(q.fittings):
        bore = fitting.bore_mm or default_bore
        if bore is None:
            raise CannotAnswer(
                f"fittings.{index}.bore_mm",
                "this fitting has no bore and there is no hose to take one from.",
                "Give its bore in mm.",
            )
        k = fitting.k_on(bore)
        c = minor_coefficient(k * fitting.count, bore / 1000)
        w.line(
            "c",
            f"K / (2 g A²), {fitting.count} × {PART_NAMES[fitting.kind]}",
            f"K {k * fitting.count:g}, {bore:g} mm",
            c / 1e6,
            "10⁶ s²/m⁵",
            "crane",
        )
        found.append((PART_NAMES[fitting.kind], 0.0, c))
    return found


def _media(q: OperatingPointQuestion, nu: float, w: Working) -> Parts:
    found: Parts = []
    for layer in q.media:
        area, depth = layer.area_cm2 / 1e4, layer.depth_cm / 100
        a, b = media_coefficients(layer.media, area, depth, nu)
        w.line(
            "r",
            f"clean {layer.media}: linear part",
            f"{layer.depth_cm:g} cm over {layer.area_cm2:g} cm²",
            a,
            "s/m²",
            "forchheimer" if layer.media.startswith(("foam", "floss")) else "ergun1952",
        )
        found.append((MEDIA_PART, a, b))
    return found


def _hoses(q: OperatingPointQuestion) -> NDArray[np.float64]:
    """Bore, length and roughness of each hose (n, 3), m."""
    rows = [[h.bore_mm / 1000, h.length_m, h.roughness_mm / 1000] for h in q.hoses]
    return np.array(rows, dtype=float).reshape(-1, 3)


def _points(at: Iterable[tuple[float, float]]) -> list[CurvePoint]:
    """Points of a curve. at: (m³/s, m) of each."""
    return [CurvePoint(flow_lph=m3s_to_lph(flow), head_m=head) for flow, head in at]


def path_arrays(question: OperatingPointQuestion) -> tuple[Any, ...]:
    """Arguments of `operating_flow` for a clean path. question: as for `operating_point`, which raises the same."""
    w, nu = Working(), viscosity_m2_s(question.temperature_c)
    parts = [*_fittings(question, w), *_media(question, nu, w)]
    c1, c2 = sum(linear for _, linear, _ in parts), sum(square for *_, square in parts)
    speed, static = question.pump.speed_share, question.rise_to_open_air_m
    return (*_curve(question.pump), speed, static, c1, c2, _hoses(question), nu)


@computation("operating-point", "The flow a pump really delivers through this plumbing")
def operating_point(question: OperatingPointQuestion) -> OperatingPointAnswer:
    """Intersection of the pump's curve and the plumbing's, clean and dirty.

    question: pump in L/h and m, hoses in mm and m, layers in cm.
    A pump that cannot reach the outlet is an answer (status "cannot-reach", short_by_m), not an error.
    Raises CannotAnswer for points that make no pump curve, or fittings with no bore to act on.
    Source: Darcy-Weisbach and Colebrook-White; Crane TP-410; Forchheimer; Ergun 1952; affinity laws.
    """
    q, w = question, Working()
    flows, heads = _curve(q.pump)
    mm2_s = viscosity_m2_s(q.temperature_c) * 1e6
    nu = w.line("ν", "viscosity of water", f"{q.temperature_c:g} °C", mm2_s, "mm²/s", "viscosity") / 1e6
    hoses = _hoses(q)
    squares = [*_fittings(q, w), *_media(q, nu, w)]
    c1, c2 = sum(r for _, r, _ in squares), sum(c for _, _, c in squares)
    dirt = _dirt(q, w)
    static, speed = q.rise_to_open_air_m, q.pump.speed_share
    shutoff = float(pump_head(0.0, flows, heads, speed))
    clean = float(operating_flow(flows, heads, speed, static, c1, c2, hoses, nu))
    dirty = float(operating_flow(flows, heads, speed, static, c1 + dirt, c2, hoses, nu))
    head = float(plumbing_head(clean, static, c1, c2, hoses, nu)) if clean > 0 else static
    budget = _head_budget(q, clean, squares, hoses, nu, w)
    box = q.pump.curve[-1].flow_lph if q.pump.curve else q.pump.max_flow_lph
    clean_lph, dirty_lph = m3s_to_lph(clean), m3s_to_lph(dirty)
    w.line("Q", "pump head = plumbing head", f"{head:.3f} m = {head:.3f} m", clean_lph, "L/h", "pumpcurve")
    w.line("Q dirty", "the same with the dirt's resistance", f"r dirt {dirt:.0f} s/m²", dirty_lph, "L/h", "dirtprior")
    short = max(static - shutoff, 0.0)
    turnovers = clean_lph / q.net_l if q.net_l else None
    if turnovers is not None:
        w.line("n", "Q / net litres", f"{clean_lph:.0f} / {q.net_l:.1f}", turnovers, "per hour", "arithmetic")
    samples = [float(flows[-1]) * speed * i / 24 for i in range(25)]
    top = max(shutoff * 1.25, static * 1.15)

    def points(resistance: float) -> list[CurvePoint]:
        found = [(s, float(plumbing_head(s, static, resistance, c2, hoses, nu))) for s in samples]
        return _points((s, h) for s, h in found if h <= top)

    def after(days: float) -> IntervalPoint:
        resistance = c1 + (dirt * days / q.days_since_cleaning if q.days_since_cleaning else 0.0)
        flow = float(operating_flow(flows, heads, speed, static, resistance, c2, hoses, nu))
        return IntervalPoint(day=days, flow_lph=m3s_to_lph(flow))

    return OperatingPointAnswer(
        verdict=_verdict(q, clean_lph, box, shutoff, short),
        working=w.lines,
        status="delivers" if clean > 0 else "cannot-reach",
        delivered_lph=clean_lph,
        dirty_lph=dirty_lph,
        box_lph=box,
        lost_share=min(max(1 - clean_lph / box, 0.0), 1.0),
        head_m=head,
        short_by_m=short,
        turnovers_per_hour=turnovers,
        dirty_turnovers_per_hour=dirty_lph / q.net_l if q.net_l else None,
        head_budget=budget,
        interval=[after(2 * q.days_since_cleaning * i / 12) for i in range(13)],
        pump_curve=_points((s, max(float(pump_head(s, flows, heads, speed)), 0.0)) for s in samples),
        plumbing_clean=points(c1),
        plumbing_dirty=points(c1 + dirt),
    )


def dirt_of(question: OperatingPointQuestion) -> float:
    """Resistance of the dirt in the first layer, s/m²; 0 without media. question: food in g/day, days, cm²."""
    q = question
    if not q.media:
        return 0.0
    return dirt_resistance(q.feed_g_day, q.days_since_cleaning, q.media[0].area_cm2 / 1e4, q.media[0].media)


def _dirt(q: OperatingPointQuestion, w: Working) -> float:
    """The same, with its working."""
    dirt = dirt_of(q)
    if dirt:
        w.line(
            "r dirt",
            "120 × grade × 0.25 × food × days / face²",
            f"120 × {CLOGGING.get(q.media[0].media, BED_CLOGGING):g} × 0.25 × {q.feed_g_day / 1000:g} kg/day ×"
            f" {q.days_since_cleaning:g} / ({q.media[0].area_cm2 / 1e4:g} m²)²",
            dirt,
            "s/m²",
            "dirtprior",
        )
    return dirt


def _head_budget(
    q: OperatingPointQuestion,
    clean: float,
    squares: list[tuple[str, float, float]],
    hoses: NDArray[np.float64],
    nu: float,
    w: Working,
) -> list[HeadPart]:
    """What takes up the pump's head: the rise, each hose, each fitting and the media.

    clean: flow, m³/s; squares: (name, linear, square) resistances; hoses: bore, length, roughness, m; nu: m²/s.
    """
    static = q.rise_to_open_air_m
    budget = [HeadPart(role="rise", part="rise to open air", head_m=static)] if static > 0 else []
    for h, row in zip(q.hoses, hoses, strict=True):
        loss = float(hose_head(clean, row[0], row[1], row[2], nu))
        budget.append(
            HeadPart(
                role="hose",
                part=hose_words(h),
                head_m=loss,
            )
        )
        w.line(
            "h",
            "f × L/D × v²/2g",
            f"{h.length_m:.2f} m, {h.bore_mm:g} mm at {m3s_to_lph(clean):.0f} L/h",
            loss,
            "m",
            "darcy",
        )
    grouped: dict[str, float] = {}
    for name, a, b in squares:
        grouped[name] = grouped.get(name, 0.0) + a * clean + b * clean**2
    budget += [
        HeadPart(role="media" if name == MEDIA_PART else "fitting", part=name, head_m=loss)
        for name, loss in grouped.items()
    ]
    return budget


def _verdict(q: OperatingPointQuestion, clean_lph: float, box: float, shutoff: float, short: float) -> str:
    """The flow in a sentence. clean_lph, box: L/h; shutoff, short: m."""
    if clean_lph <= 0:
        return (
            f"The pump cannot reach the outlet: it gives up at {formatting.metres(shutoff, '.2f')} and the water must"
            f" rise {formatting.metres(q.rise_to_open_air_m, '.2f')}. It would need {formatting.metres(short, '.2f')}"
            " more, or an outlet that much lower."
        )
    moves = (
        f"This moves {formatting.lph(clean_lph)} through your plumbing, not the {formatting.lph.bare(box)} on its box"
    )
    if not q.net_l:
        return f"{moves}."
    return f"{moves}: {clean_lph / q.net_l:.1f} times your {formatting.litres(q.net_l)} an hour."
