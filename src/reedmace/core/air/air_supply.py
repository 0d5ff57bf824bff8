"""One air pump feeding one or more outlets: the pressure it must give and the air it has left."""

import math
from collections.abc import Iterator
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Part, Question, Working, computation, number, whole
from reedmace.core.errors import CannotAnswer
from reedmace.core.flow.hydraulic_kernel import friction_factor
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import AIR_KG_M3, AIR_NU, WATER_KG_M3, G

VALVE_KPA = 1.0
"""Opening pressure of a check valve with its line fittings (memory)."""
STONE_KPA = 2.0
"""Pressure loss of a clean air stone (memory); an open tube has none."""
MOST_MORE = 200


class AirOutlet(Part):
    """A number of identical outlets."""

    count: Annotated[int, whole(1, 200)] = 1
    depth_cm: Annotated[float, number("cm", 0, 300, "Air let go so far under the surface")]
    air_l_min: Annotated[float, number("L/min", 0.05, 60, "Wanted at each")]
    line_bore_mm: Annotated[float, number("mm", 2, 25)] = 4
    line_length_m: Annotated[float, number("m", 0.1, 50)] = 2
    stone: bool = False


class AirSupplyQuestion(Question):
    """An air pump by its two rated figures, the main it feeds, and its outlets."""

    pump_l_min: Annotated[float, number("L/min", 0.1, 500, "Free flow on the box")]
    pump_kpa: Annotated[float, number("kPa", 1, 200, "Pressure at which it gives up")]
    outlets: Annotated[list[AirOutlet], Field(min_length=1, max_length=40)]
    main_bore_mm: Annotated[float, number("mm", 3, 60, "Ring main or manifold")] = 8
    main_length_m: Annotated[float, number("m", 0, 200)] = 0
    ring: bool = Field(default=False, description="A closed ring feeds from both sides")


class AirSupplyAnswer(Answer):
    """Required and available air, the pressure, and how many more of the most demanding outlet it could carry."""

    wanted_l_min: Annotated[float, number("L/min", 0, 1e5)]
    needed_kpa: Annotated[float, number("kPa", 0, 1e6)]
    given_l_min: Annotated[float, number("L/min", 0, 1e4, "What the pump gives at that pressure")]
    carries: bool
    more_count: Annotated[int, whole(0, MOST_MORE)]
    remedies: list[str]


def line_loss_kpa(flow_m3s: float, bore_m: float, length_m: float) -> float:
    """Pressure loss along an air line, kPa.

    flow_m3s: m³/s; bore_m, length_m: m. Source: Darcy-Weisbach with 64/Re and Colebrook-White, air as incompressible
    (it loses a few per cent of its pressure at most here).

    >>> round(line_loss_kpa(1e-4, 0.004, 2.0), 4)
    0.5773
    """
    area = math.pi / 4 * bore_m**2
    speed = flow_m3s / area
    factor = float(friction_factor(max(speed * bore_m / AIR_NU, 1e-6), 1.5e-6 / bore_m))
    return factor * length_m / bore_m * AIR_KG_M3 * speed**2 / 2 / 1000


def _outlet_kpa(o: AirOutlet) -> float:
    return (
        WATER_KG_M3 * G * o.depth_cm / 100 / 1000
        + VALVE_KPA
        + (STONE_KPA if o.stone else 0.0)
        + line_loss_kpa(o.air_l_min / 60000, o.line_bore_mm / 1000, o.line_length_m)
    )


def _main_kpa(q: AirSupplyQuestion, total_l_min: float) -> float:
    # Outlets spaced evenly along a main cost a third of what the whole flow would over its whole length; a ring halves
    # both the flow and the distance.
    share = 0.5 if q.ring else 1.0
    return line_loss_kpa(total_l_min * share / 60000, q.main_bore_mm / 1000, q.main_length_m * share) / 3


def _gives_l_min(q: AirSupplyQuestion, kpa: float) -> float:
    """Air the pump gives against a pressure, L/min."""
    return q.pump_l_min * max(1 - kpa / q.pump_kpa, 0.0)


def _more(q: AirSupplyQuestion, wanted_l_min: float, hardest: AirOutlet) -> int:
    """Outlets like the deepest that it would carry besides."""
    more = 0
    while more < MOST_MORE:
        total = wanted_l_min + (more + 1) * hardest.air_l_min
        if _gives_l_min(q, _outlet_kpa(hardest) + _main_kpa(q, total)) < total:
            break
        more += 1
    return more


MUCH_SHARE = 0.3
"""Share of the pressure that goes into the main from which a wider one is worth it (a stated judgement)."""


def _remedies(main_kpa: float, needed_kpa: float) -> Iterator[str]:
    if main_kpa > MUCH_SHARE * needed_kpa:
        yield f"The main costs {main_kpa:.1f} kPa: a wider one, or one closed to a ring."
    yield "Take a pump with more pressure, or hang the outlets higher."
    yield "Fewer outlets on one pump."


def _verdict(q: AirSupplyQuestion, given: float, wanted: float, needed_kpa: float, more: int) -> str:
    """Whether it carries them, in a sentence. given, wanted: L/min; more: outlets it would carry besides."""
    count = sum(o.count for o in q.outlets)
    if given < wanted:
        return f"It gives {given:.1f} L/min at the {needed_kpa:.1f} kPa they need, where {wanted:.1f} is wanted."
    return (
        f"It carries {count} outlet{'s' if count != 1 else ''} ({wanted:.1f} L/min at {needed_kpa:.1f} kPa) and {more}"
        " more like the deepest."
    )


@computation("air-supply", "Whether one air pump carries its outlets, and how many more")
def air_supply(question: AirSupplyQuestion) -> AirSupplyAnswer:
    """Whether one air pump carries its outlets, and how many more.

    question: air in L/min, pressure in kPa, depths in cm, lines in mm and m. The pump's curve is taken straight
    between its two figures.
    Raises CannotAnswer when an outlet lies deeper than the pump can ever reach.
    Source: hydrostatics; Darcy-Weisbach; valve and stone from memory.
    """
    q, w = question, Working()
    hardest = max(q.outlets, key=_outlet_kpa)
    if WATER_KG_M3 * G * hardest.depth_cm / 1e5 >= q.pump_kpa:
        raise CannotAnswer(
            "outlets",
            f"{formatting.cm(hardest.depth_cm, 'g')} of water alone presses back with"
            f" {WATER_KG_M3 * G * hardest.depth_cm / 1e5:.1f} kPa, and the pump gives up at {q.pump_kpa:g}.",
            "Hang the outlet higher or take a stronger pump.",
        )
    wanted = w.line(
        "Q",
        "sum",
        f"{sum(o.count for o in q.outlets)} outlets",
        sum(o.count * o.air_l_min for o in q.outlets),
        "L/min",
        "arithmetic",
    )
    depth = w.sum(
        "p depth", "ρ × g × h / 1000", {"ρ": WATER_KG_M3, "g": G, "h": hardest.depth_cm / 100}, "kPa", "geometry"
    )
    w.line("p outlet", "depth + line + valve + stone", f"{depth:.2f} + …", _outlet_kpa(hardest), "kPa", "darcy")
    main = w.line(
        "p main",
        "a third of f L/D ρ v²/2",
        f"{q.main_length_m:g} m of {q.main_bore_mm:g} mm",
        _main_kpa(q, wanted),
        "kPa",
        "darcy",
    )
    needed = w.sum("p", "outlet + main", {"outlet": _outlet_kpa(hardest), "main": main}, "kPa", "arithmetic")
    given = w.line(
        "Q pump",
        "free flow × (1 − p / p max)",
        f"{q.pump_l_min:g} × (1 − {needed:.2f} / {q.pump_kpa:g})",
        _gives_l_min(q, needed),
        "L/min",
        "pumpcurve",
    )
    more = _more(q, wanted, hardest)
    carries = given >= wanted
    return AirSupplyAnswer(
        verdict=_verdict(q, given, wanted, needed, more),
        working=w.lines,
        wanted_l_min=wanted,
        needed_kpa=needed,
        given_l_min=given,
        carries=carries,
        more_count=more if carries else 0,
        remedies=[] if carries else list(_remedies(main, needed)),
    )
