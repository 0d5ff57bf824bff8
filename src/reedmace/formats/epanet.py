"""Plumbing as an EPANET 2.2 input file, to be solved by an independent program."""

from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.materials import viscosity_m2_s
from reedmace.core.flow.operating_point import dirt_of
from reedmace.core.flow.operating_point_schemas import Fitting, Hose, Layer
from reedmace.core.flow.overflow import PIPE_ROUGHNESS_MM, OverflowCheckQuestion
from reedmace.core.flow.plumbing_heads import (
    DIRT_SHARE,
    FIRST_MEDIA,
    PlumbingLink,
    PlumbingState,
    plumbing_links,
)

_TINY = 1e-6


def _drains(overflow: OverflowCheckQuestion) -> list[str]:
    """Pipes from the overflow down to the sump, each running full; the sump is the water the pump draws from."""
    # EPANET charges nothing for the velocity lost where a pipe ends in open water.
    k = 1 + overflow.drain_k
    bores = [(f"drain{i}", overflow.drain_bore_mm) for i in range(overflow.drains_count)]
    if overflow.emergency_bore_mm is not None:
        bores.append(("emergency", overflow.emergency_bore_mm))
    return [
        f" {name} overflow tank {overflow.drain_length_m:.9g} {bore:.9g} {PIPE_ROUGHNESS_MM:.9g} {k:.9g} OPEN"
        for name, bore in bores
    ]


_OPTIONS = (" UNITS LPS", " HEADLOSS D-W", " ACCURACY 0.00001", " TRIALS 500")
STATE_WORDS: dict[PlumbingState, str] = {
    "clean": "clean",
    "serviced": "with the dirt a service leaves",
    "dirty": "when due for cleaning",
}
CURVE_STEPS = 200
"""Steps of the head-loss curve of the media."""


def _pump_curve(q: OperatingPointQuestion) -> list[str]:
    """Lines of the pump's curve, L/s and m."""
    if q.pump.curve:
        return [f" pumpcurve {p.flow_lph / 3600:.12g} {p.head_m:.12g}" for p in q.pump.curve]
    # EPANET makes H = 4/3 Hd − Hd/3 (Q/Qd)² of one point, which at Qmax/2 and 3/4 Hmax is the same parabola.
    return [f" pumpcurve {q.pump.max_flow_lph / 7200:.12g} {0.75 * q.pump.max_head_m:.12g}"]


def _layer_curve(q: OperatingPointQuestion, link: PlumbingLink, name: str, dirt: float) -> list[str]:
    """Lines of one layer's head-loss curve, L/s and m. dirt: of the first layer, s/m²."""
    c1 = link.c1 + (dirt if link.node == FIRST_MEDIA else 0.0)
    flows = [q.pump.max_flow_lph / 3.6e6 * step / CURVE_STEPS for step in range(CURVE_STEPS + 1)]
    return [f" {name} {flow * 1000:.12g} {c1 * flow + link.c2 * flow**2:.12g}" for flow in flows]


class _Loop:
    """The loop from the pump to the outlet: each part a link of its own name, ending in the node behind it."""

    def __init__(self, q: OperatingPointQuestion, state: PlumbingState) -> None:
        self.at, self.before_pump = "tank", "tank"
        self.junctions, self.pipes, self.valves = [_junction("after-pump")], list[str](), list[str]()
        self.curves, dirt = _pump_curve(q), DIRT_SHARE[state] * dirt_of(q)
        for link in plumbing_links(q):
            if not link.intake and self.at == self.before_pump:
                self.at = "after-pump"
            self.junctions.append(_junction(link.node))
            ends, name = f"{self.at} {link.node}", link.node.removeprefix("after-")
            if isinstance(link.of, Layer):
                # A valve with its own head-loss curve.
                self.valves.append(f" {name} {ends} 50 GPV {name} 0")
                self.curves += _layer_curve(q, link, name, dirt)
            else:
                self.pipes.append(f" {name} {ends} {_pipe(link.of, link.bore_mm)} OPEN")
            self.at = link.node
            if link.intake:
                self.before_pump = link.node
        if self.at == self.before_pump:
            self.at = "after-pump"


def _pipe(part: Fitting | Hose, bore_mm: float) -> str:
    """Length, bore, roughness and K of a part. A fitting is a millionth of a metre long: a K and no friction."""
    if isinstance(part, Fitting):
        return f"{_TINY} {bore_mm:.9g} 0.0015 {part.k_on(bore_mm) * part.count:.12g}"
    return f"{max(part.length_m, _TINY):.9g} {bore_mm:.9g} {max(part.roughness_mm, 1e-7):.9g} 0"


def _junction(name: str) -> str:
    return f" {name} -100 0"


def plumbing_inp(
    question: OperatingPointQuestion, state: PlumbingState = "clean", overflow: OverflowCheckQuestion | None = None
) -> str:
    """The loop of `question` as .inp text: tank, pump, fittings, hoses, media, outlet, and a sump's drains.

    question: as for operating-point; state: how much of the dirt lies in the first layer; overflow: of a sump, whose
    drains are written as they run full. Units: L/s and m; friction by Darcy-Weisbach; each layer of media a
    general-purpose valve with its own head-loss curve. Every part has its name, and the head after it the node's.
    """
    q = question
    loop = _Loop(q, state)
    pipes = [
        *loop.pipes,
        f" last {loop.at} outlet {_TINY} 1000 0.0015 0 OPEN",
        *(_drains(overflow) if overflow else []),
    ]
    title = f"Reedmace plumbing, {STATE_WORDS[state]}"
    reservoirs = [" tank 0", f" outlet {q.rise_to_open_air_m:.9g}"]
    reservoirs += [f" overflow {overflow.drain_fall_m:.9g}"] if overflow else []
    sections = {
        "TITLE": [title],
        "RESERVOIRS": reservoirs,
        "JUNCTIONS": loop.junctions,
        "PIPES": pipes,
        "PUMPS": [f" pump {loop.before_pump} after-pump HEAD pumpcurve SPEED {q.pump.speed_share:.9g}"],
        "VALVES": loop.valves,
        "CURVES": loop.curves,
        "OPTIONS": [*_OPTIONS, f" VISCOSITY {viscosity_m2_s(q.temperature_c) / 1.022e-6:.9g}"],
        "TIMES": [" DURATION 0"],
        "END": [],
    }
    return "\n".join(line for name, rows in sections.items() for line in (f"[{name}]", *rows, ""))
