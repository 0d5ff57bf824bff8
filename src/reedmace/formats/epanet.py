"""Plumbing as an EPANET 2.2 input file, to be solved by an independent program."""

from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.materials import dirt_resistance, media_coefficients, viscosity_m2_s
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


def _media_curve(q: OperatingPointQuestion, nu_m2_s: float, *, dirty: bool) -> list[str]:
    """Lines of the head-loss curve of all media together, L/s and m."""
    c1 = c2 = 0.0
    for layer in q.media:
        a, b = media_coefficients(layer.media, layer.area_cm2 / 1e4, layer.depth_cm / 100, nu_m2_s)
        c1, c2 = c1 + a, c2 + b
    if dirty:
        c1 += dirt_resistance(q.feed_g_day, q.days_since_cleaning, q.media[0].area_cm2 / 1e4, q.media[0].media)
    flows = [q.pump.max_flow_lph / 3.6e6 * step / CURVE_STEPS for step in range(CURVE_STEPS + 1)]
    return [f" mediacurve {flow * 1000:.12g} {c1 * flow + c2 * flow**2:.12g}" for flow in flows]


def plumbing_inp(
    question: OperatingPointQuestion, *, dirty: bool = False, overflow: OverflowCheckQuestion | None = None
) -> str:
    """The loop of `question` as .inp text: tank, pump, fittings, hoses, media, outlet, and a sump's drains.

    question: as for operating-point; dirty: with the dirt's resistance; overflow: of a sump, whose drains are written
    as they run full. Units: L/s and m; friction by Darcy-Weisbach; media as a general-purpose valve with their own
    head-loss curve.
    """
    q = question
    nu = viscosity_m2_s(q.temperature_c)
    lines = ["[TITLE]", "Reedmace plumbing", "", "[RESERVOIRS]", " tank 0", f" outlet {q.rise_to_open_air_m:.9g}"]
    lines += [f" overflow {overflow.drain_fall_m:.9g}"] if overflow else []
    lines += ["", "[JUNCTIONS]"]
    joints: list[str] = []
    links: list[str] = []
    valves: list[str] = []
    curves: list[str] = []

    def joint() -> str:
        joints.append(f" j{len(joints)} -100 0")
        return f"j{len(joints) - 1}"

    at = joint()
    pump = [f" pump tank {at} HEAD pumpcurve SPEED {q.pump.speed_share:.9g}"]
    curves += _pump_curve(q)
    default = min((h.bore_mm for h in q.hoses), default=None)
    for i, fitting in enumerate(q.fittings):
        bore = fitting.bore_mm or default or 16.0
        k = fitting.k_on(bore) * fitting.count
        to = joint()
        # A pipe a millionth of a metre long carries the fitting's K and no friction of its own.
        links.append(f" f{i} {at} {to} {_TINY} {bore:.9g} 0.0015 {k:.12g} OPEN")
        at = to
    for i, hose in enumerate(q.hoses):
        to = joint()
        links.append(
            f" h{i} {at} {to} {max(hose.length_m, _TINY):.9g} {hose.bore_mm:.9g} {max(hose.roughness_mm, 1e-7):.9g} 0"
            " OPEN"
        )
        at = to
    if q.media:
        to = joint()
        valves.append(f" media {at} {to} 50 GPV mediacurve 0")
        curves += _media_curve(q, nu, dirty=dirty)
        at = to
    links.append(f" last {at} outlet {_TINY} 1000 0.0015 0 OPEN")
    if overflow:
        links += _drains(overflow)
    lines += joints
    lines += ["", "[PIPES]", *links, "", "[PUMPS]", *pump, "", "[VALVES]", *valves, "", "[CURVES]", *curves]
    lines += ["", "[OPTIONS]", *_OPTIONS, f" VISCOSITY {nu / 1.022e-6:.9g}", "", "[TIMES]", " DURATION 0"]
    lines += ["", "[END]", ""]
    return "\n".join(lines)
