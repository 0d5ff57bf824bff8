"""Plumbing as an EPANET 2.2 input file, to be solved by an independent program."""

from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.materials import dirt_resistance, media_coefficients, viscosity_m2_s
from reedmace.core.flow.operating_point_schemas import Fitting, Hose
from reedmace.core.flow.overflow import PIPE_ROUGHNESS_MM, OverflowCheckQuestion

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
CURVE_STEPS = 200
"""Steps of the head-loss curve of the media."""


def _pump_curve(q: OperatingPointQuestion) -> list[str]:
    """Lines of the pump's curve, L/s and m."""
    if q.pump.curve:
        return [f" pumpcurve {p.flow_lph / 3600:.12g} {p.head_m:.12g}" for p in q.pump.curve]
    # EPANET makes H = 4/3 Hd − Hd/3 (Q/Qd)² of one point, which at Qmax/2 and 3/4 Hmax is the same parabola.
    return [f" pumpcurve {q.pump.max_flow_lph / 7200:.12g} {0.75 * q.pump.max_head_m:.12g}"]


def _layer_curve(q: OperatingPointQuestion, number: int, nu_m2_s: float, *, dirty: bool) -> list[str]:
    """Lines of one layer's head-loss curve, L/s and m. number: from 0; the dirt lies in the first."""
    layer = q.media[number]
    c1, c2 = media_coefficients(layer.media, layer.area_cm2 / 1e4, layer.depth_cm / 100, nu_m2_s)
    if dirty and number == 0:
        c1 += dirt_resistance(q.feed_g_day, q.days_since_cleaning, layer.area_cm2 / 1e4, layer.media)
    flows = [q.pump.max_flow_lph / 3.6e6 * step / CURVE_STEPS for step in range(CURVE_STEPS + 1)]
    return [f" media-{number + 1} {flow * 1000:.12g} {c1 * flow + c2 * flow**2:.12g}" for flow in flows]


class _Loop:
    """The loop from the pump to the outlet: each part a link of its own name, ending in a node of the same name."""

    def __init__(self, q: OperatingPointQuestion, nu_m2_s: float) -> None:
        self.at = "after-pump"
        self.junctions, self.pipes, self.valves = [_junction(self.at)], list[str](), list[str]()
        self.curves = _pump_curve(q)
        self._q, self._nu = q, nu_m2_s

    def _to(self, name: str) -> str:
        """The next node, called after the part that ends in it; told apart where there are several of a name."""
        several = sum(line.split()[0].rpartition("-")[0] == f"after-{name}" for line in self.junctions)
        node = f"after-{name}-{several + 1}"
        self.junctions.append(_junction(node))
        return node

    def fitting(self, fitting: Fitting, bore_mm: float) -> None:
        """One kind of fitting. A pipe a millionth of a metre long carries its K and no friction of its own."""
        to = self._to(fitting.kind)
        link, k = to.removeprefix("after-"), fitting.k_on(bore_mm) * fitting.count
        self.pipes.append(f" {link} {self.at} {to} {_TINY} {bore_mm:.9g} 0.0015 {k:.12g} OPEN")
        self.at = to

    def hose(self, hose: Hose) -> None:
        """One length of hose."""
        to = self._to("hose")
        length, rough = max(hose.length_m, _TINY), max(hose.roughness_mm, 1e-7)
        link = to.removeprefix("after-")
        self.pipes.append(f" {link} {self.at} {to} {length:.9g} {hose.bore_mm:.9g} {rough:.9g} 0 OPEN")
        self.at = to

    def layer(self, number: int, *, dirty: bool) -> None:
        """One layer of media, as a valve with its own head-loss curve. number: from 0."""
        to = self._to("media")
        self.valves.append(f" media-{number + 1} {self.at} {to} 50 GPV media-{number + 1} 0")
        self.curves += _layer_curve(self._q, number, self._nu, dirty=dirty)
        self.at = to


def _junction(name: str) -> str:
    return f" {name} -100 0"


def plumbing_inp(
    question: OperatingPointQuestion, *, dirty: bool = False, overflow: OverflowCheckQuestion | None = None
) -> str:
    """The loop of `question` as .inp text: tank, pump, fittings, hoses, media, outlet, and a sump's drains.

    question: as for operating-point; dirty: with the dirt's resistance, in the first layer; overflow: of a sump, whose
    drains are written as they run full. Units: L/s and m; friction by Darcy-Weisbach; each layer of media a
    general-purpose valve with its own head-loss curve. Every part has its name, and the head after it the node's.
    """
    q = question
    nu = viscosity_m2_s(q.temperature_c)
    loop = _Loop(q, nu)
    default = min((h.bore_mm for h in q.hoses), default=None)
    for fitting in q.fittings:
        loop.fitting(fitting, fitting.bore_mm or default or 16.0)
    for hose in q.hoses:
        loop.hose(hose)
    for number in range(len(q.media)):
        loop.layer(number, dirty=dirty)
    pipes = [
        *loop.pipes,
        f" last {loop.at} outlet {_TINY} 1000 0.0015 0 OPEN",
        *(_drains(overflow) if overflow else []),
    ]
    title = f"Reedmace plumbing, {'with the dirt of its days' if dirty else 'clean'}"
    reservoirs = [" tank 0", f" outlet {q.rise_to_open_air_m:.9g}"]
    reservoirs += [f" overflow {overflow.drain_fall_m:.9g}"] if overflow else []
    sections = {
        "TITLE": [title],
        "RESERVOIRS": reservoirs,
        "JUNCTIONS": loop.junctions,
        "PIPES": pipes,
        "PUMPS": [f" pump tank after-pump HEAD pumpcurve SPEED {q.pump.speed_share:.9g}"],
        "VALVES": loop.valves,
        "CURVES": loop.curves,
        "OPTIONS": [*_OPTIONS, f" VISCOSITY {nu / 1.022e-6:.9g}"],
        "TIMES": [" DURATION 0"],
        "END": [],
    }
    return "\n".join(line for name, rows in sections.items() for line in (f"[{name}]", *rows, ""))
