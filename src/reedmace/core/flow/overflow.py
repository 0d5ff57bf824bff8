"""Overflow of a sump: capacity of its weir and drain, and the run-back when power fails."""

import math
from collections.abc import Iterator
from typing import Annotated, NamedTuple

from reedmace.core.contract import Answer, Litres, Lph, Question, Working, computation, number, whole
from reedmace.core.flow.hydraulic_kernel import friction_factor
from reedmace.core.flow.materials import viscosity_m2_s
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import G

PIPE_L = 2.0
"""Water in the pipes while a sump runs, where not measured (memory)."""
DRAIN_SHARE = 0.75
"""Share of its full siphon a drain is rated at, so that a snail or a leaf is no flood (memory)."""

PIPE_ROUGHNESS_MM = 0.0015
"""Roughness of a smooth plastic drain (published tables; rounded)."""


class OverflowCheckQuestion(Question):
    """An overflow, its drain, the return flow, and the free volume of the sump."""

    return_lph: Annotated[float, number("L/h", 10, 1e5)]
    weir_cm: Annotated[float, number("cm", 2, 500, "Length of edge the water falls over")] = 30
    weir_head_mm: Annotated[float, number("mm", 1, 100, "How high the water may stand over the edge")] = 15
    drain_bore_mm: Annotated[float, number("mm", 8, 110)] = 28
    drains_count: Annotated[int, whole(1, 6, "Alike, besides an emergency drain")] = 1
    emergency_bore_mm: (
        Annotated[float, number("mm", 8, 110, "Of a drain that stands dry until the others fail")] | None
    ) = None
    drain_length_m: Annotated[float, number("m", 0.2, 20)] = 1.2
    drain_fall_m: Annotated[float, number("m", 0.1, 10, "From overflow to sump level")] = 0.8
    drain_k: Annotated[float, number("K", 0, 100, "Entrance, bends, gate and exit")] = 4
    tank_surface_cm2: Annotated[float, number("cm²", 100, 1e6)]
    return_below_surface_cm: Annotated[
        float, number("cm", 0, 100, "How deep the return or its siphon break lies: it runs back until air gets in")
    ] = 2
    pipe_l: Annotated[float, number("L", 0, 500, "Held in the pipes while running")] = PIPE_L
    sump_free_l: Annotated[float, number("L", 0, 5000, "Room above the running level")]


class OverflowCheckAnswer(Answer):
    """Capacities in L/h and the run-back in L."""

    weir_lph: Lph
    drain_lph: Lph
    emergency_lph: Lph | None
    run_back_l: Litres
    spare_l: Annotated[float, number("L", -1e6, 1e6, "Free room less run-back; under 0 it floods")]
    drains: bool
    holds: bool
    remedies: list[str]


def edge_cm(return_lph: float, weir_cm: float) -> float:
    """Height of the water over the edge while it runs, cm. return_lph: L/h; weir_cm: cm. Source: Francis.

    >>> round(edge_cm(2000.0, 20.0), 3)
    1.316
    """
    return float((return_lph / 3.6e6 / (1.84 * weir_cm / 100)) ** (2 / 3) * 100)


def run_back_l(
    surface_cm2: float, return_lph: float, weir_cm: float, below_surface_cm: float, pipe_l: float = PIPE_L
) -> float:
    """Litres that run back into a sump when its pump stops.

    surface_cm2: of the tank, cm²; return_lph: L/h; weir_cm: edge, cm; below_surface_cm: depth at which the return or
    its siphon break draws air, cm; pipe_l: held in the pipes, L. Source: geometry and Francis.

    >>> round(run_back_l(4000.0, 2000.0, 20.0, 2.0, 0.5), 3)
    8.5
    """
    return surface_cm2 * max(edge_cm(return_lph, weir_cm), below_surface_cm) / 1000 + pipe_l


def weir_m3s(length_m: float, head_m: float) -> float:
    """Flow over a straight edge, m³/s.

    length_m, head_m: m. Source: Francis, Q = 1.84 L H^1.5.

    >>> round(weir_m3s(0.2, 0.01), 7)
    0.000368
    """
    return float(1.84 * length_m * head_m**1.5)


def siphon_m3s(bore_m: float, length_m: float, fall_m: float, k: float, temperature_c: float = 25.0) -> float:
    """Flow of a pipe running full from one level to another, m³/s.

    bore_m, length_m, fall_m: m; k: sum of loss coefficients, dimensionless; temperature_c: °C.
    Source: Bernoulli with losses, v = sqrt(2 g h / (1 + ΣK + f L/D)).

    >>> round(siphon_m3s(0.025, 1.0, 0.5, 2.0, 25.0), 7)
    0.0007819
    """
    nu = viscosity_m2_s(temperature_c)
    speed = math.sqrt(2 * G * fall_m / (1 + k + 0.02 * length_m / bore_m))
    for _ in range(30):
        factor = float(friction_factor(max(speed * bore_m / nu, 1e-9), PIPE_ROUGHNESS_MM / 1000 / bore_m))
        speed = 0.5 * (speed + math.sqrt(2 * G * fall_m / (1 + k + factor * length_m / bore_m)))
    return speed * math.pi / 4 * bore_m**2


class _Carries(NamedTuple):
    """What weir, drain and emergency drain carry, L/h; None without an emergency drain."""

    weir: float
    drain: float
    emergency: float | None

    def enough_for(self, return_lph: float) -> bool:
        """Whether weir and drain take the return's flow, the drain with its reserve."""
        return min(self.weir, DRAIN_SHARE * self.drain) >= return_lph


def _emergency_lph(q: OverflowCheckQuestion, w: Working) -> float | None:
    """What the emergency drain carries, L/h; None without one."""
    if q.emergency_bore_mm is None:
        return None
    return w.line(
        "Q emergency",
        "A √(2 g h / (1 + ΣK + f L/D))",
        f"{q.emergency_bore_mm:g} mm",
        siphon_m3s(q.emergency_bore_mm / 1000, q.drain_length_m, q.drain_fall_m, q.drain_k) * 3.6e6,
        "L/h",
        "bernoulli",
    )


def _remedies(q: OverflowCheckQuestion, carries: _Carries, spare_l: float) -> Iterator[str]:
    """What would mend each shortfall. spare_l: room left in the sump after a power cut, L."""
    if carries.weir < q.return_lph:
        yield "A longer weir, or the return turned down."
    if DRAIN_SHARE * carries.drain < q.return_lph:
        yield "A wider drain or a second one, or the return turned down."
    if carries.emergency is None:
        yield "An emergency drain, standing dry a finger above the first, takes over when that one clogs."
    elif carries.emergency < q.return_lph:
        most = formatting.lph(carries.emergency)
        yield f"The emergency drain carries only {most}: wider, or the return turned down to that."
    if spare_l < 0:
        yield (
            "Raise the return or drill a siphon break nearer the surface; lower the sump's running level by"
            f" {formatting.litres(-spare_l)}."
        )


def _verdict(q: OverflowCheckQuestion, carries: _Carries, back_l: float, spare_l: float) -> str:
    """Whether it holds, in a sentence. back_l: run back at a power cut, L; spare_l: room left then, L."""
    asked, drain = formatting.lph.bare(q.return_lph), carries.drain
    if spare_l < 0:
        return (
            f"It floods at a power cut: {formatting.litres(back_l)} run back and the sump has room for"
            f" {formatting.litres.bare(q.sump_free_l)}."
        )
    if carries.enough_for(q.return_lph):
        return (
            f"It holds: the drain takes {formatting.lph(drain)} against {asked}, and a power cut sends"
            f" {formatting.litres(back_l)} back into {formatting.litres(q.sump_free_l)} of room."
        )
    return (
        f"The overflow cannot take {formatting.lph(q.return_lph)}: weir {formatting.lph.bare(carries.weir)}, drain"
        f" {formatting.lph.bare(drain)} running full."
    )


@computation("overflow-check", "Whether a sump's drain and room take the flow and the run-back")
def overflow_check(question: OverflowCheckQuestion) -> OverflowCheckAnswer:
    """Whether overflow and drain take the return flow, and whether the sump takes the run-back.

    question: flow in L/h, sizes in cm, mm and m, volumes in L.
    Source: Francis weir; Bernoulli with losses; volumes by geometry.
    """
    q, w = question, Working()
    weir = w.line(
        "Q weir",
        "1.84 L H^1.5, in an hour",
        f"1.84 × {q.weir_cm / 100:g} × {q.weir_head_mm / 1000:g}^1.5 × 3.6e6",
        weir_m3s(q.weir_cm / 100, q.weir_head_mm / 1000) * 3.6e6,
        "L/h",
        "francis",
    )
    drain = w.line(
        "Q drain",
        "n A √(2 g h / (1 + ΣK + f L/D))",
        f"{q.drains_count} × {q.drain_bore_mm:g} mm, fall {q.drain_fall_m:g} m",
        q.drains_count * siphon_m3s(q.drain_bore_mm / 1000, q.drain_length_m, q.drain_fall_m, q.drain_k) * 3.6e6,
        "L/h",
        "bernoulli",
    )
    stands = w.line(
        "h",
        "(Q / 1.84 L)^(2/3)",
        f"{q.return_lph:g} L/h over {q.weir_cm:g} cm",
        edge_cm(q.return_lph, q.weir_cm),
        "cm over the edge",
        "francis",
    )
    falls = max(stands, q.return_below_surface_cm)
    back = w.line(
        "V",
        "surface × fall / 1000 + pipes",
        f"{q.tank_surface_cm2:g} × {falls:.2f} / 1000 + {q.pipe_l:g}",
        run_back_l(q.tank_surface_cm2, q.return_lph, q.weir_cm, q.return_below_surface_cm, q.pipe_l),
        "L",
        "geometry",
    )
    spare = w.sum("left", "free room − V", {"free room": q.sump_free_l, "V": back}, "L", "arithmetic")
    emergency = _emergency_lph(q, w)
    carries = _Carries(weir, drain, emergency)
    return OverflowCheckAnswer(
        verdict=_verdict(q, carries, back, spare),
        working=w.lines,
        weir_lph=weir,
        drain_lph=drain,
        emergency_lph=emergency,
        run_back_l=back,
        spare_l=spare,
        drains=carries.enough_for(q.return_lph),
        holds=spare >= 0,
        remedies=list(_remedies(q, carries, spare)),
    )
