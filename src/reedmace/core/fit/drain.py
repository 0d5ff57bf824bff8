"""What could go wrong, in litres: how much reaches the floor, where the level stops, and the cheapest prevention."""

import math
from typing import Annotated

from reedmace.core.filter.catalogue import Filter
from reedmace.core.flow.kernel import friction_factor
from reedmace.core.flow.materials import viscosity_m2_s
from reedmace.core.working import Answer, Litres, Part, Question, Working, number

G = 9.80665
ENTRANCE_AND_EXIT_K = 3.0
PIPE_L = 2.0


class DrainDownQuestion(Question):
    """The filter, the water over each opening, and what guards it."""

    filter: Filter
    water_cm2: Annotated[float, number("cm²", 10, 1e6, "Surface of the water, stone and wood left out")]
    water_depth_cm: Annotated[float, number("cm", 1, 300)]
    rim_to_water_cm: Annotated[float, number("cm", 0, 100)] = 3
    intake_depth_cm: Annotated[float, number("cm", 0, 300)] = 25
    outlet_depth_cm: Annotated[float, number("cm", -100, 300)] = 2
    stone_depth_cm: Annotated[float, number("cm", 0, 300, "Air let go so far under the surface")] = 30
    air_pump_above_water_cm: Annotated[float, number("cm", -200, 200)] = 10
    check_valve: bool = True
    siphon_break: bool = False
    stand_height_cm: Annotated[float, number("cm", 0, 200)] = 70
    hose_bore_mm: Annotated[float, number("mm", 3, 110)] = 16
    hose_length_m: Annotated[float, number("m", 0.2, 50)] = 1.4
    sump_free_l: Annotated[float, number("L", 0, 5000)] = 25


class Mishap(Part):
    """One thing that can happen."""

    what: str
    litres: Litres
    stops_below_rim_cm: Annotated[float, number("cm", 0, 400, "Where the level stops on the section")]
    minutes: Annotated[float, number("min", 0, 1e6, "Until it has run out")] | None
    why: str
    prevention: str


class PowerCut(Part):
    """What a power cut does to this kind of filter."""

    minute: str
    hour: str
    night: str
    on_return: str


class DrainDownAnswer(Answer):
    """Every mishap of this kind, worst first, and the power cut."""

    mishaps: list[Mishap]
    worst_l: Litres
    power_cut: PowerCut


_AIR_CUT = PowerCut(
    minute="Bubbles stop; nothing leaks while the check valve holds.",
    hour="The film sits in the tank's own water and is well; watch the animals at the surface.",
    night="Oxygen runs low in a full tank: a battery air pump on the same line carries it.",
    on_return="It starts by itself. Look for bubbles.",
)
_IN_WATER_CUT = PowerCut(
    minute="The water stands still.",
    hour="The film sits in the tank's own water and is well.",
    night="Oxygen runs low; a battery air pump carries the tank.",
    on_return="It starts by itself. See that water moves.",
)
POWER_CUTS: dict[str, PowerCut] = {
    "sponge": _AIR_CUT,
    "sheet": _AIR_CUT,
    "box": _AIR_CUT,
    "under-gravel": _AIR_CUT,
    "internal": _IN_WATER_CUT,
    "hang-on": PowerCut(
        minute="The box drains back to its sill.",
        hour="Media above the sill stand wet but still.",
        night="What has drained dries and dies; a motor outside the water must not start dry.",
        on_return="Refill the box with tank water before power, unless its pump stands in the water.",
    ),
    "canister": PowerCut(
        minute="Nothing leaks: it stands full and closed.",
        hour="The film uses up the oxygen shut in with it.",
        night="It turns airless within hours and dies; what comes out first is foul.",
        on_return="After more than an hour or two: unplug, open, rinse in tank water, refill, then start.",
    ),
    "sump": PowerCut(
        minute="The tank runs back to its overflow edge: the sump must take it.",
        hour="Media in still water keep for hours; socks and trays above it dry.",
        night="Oxygen runs low in tank and sump: an air stone in each.",
        on_return="It starts by itself; watch the drain find its level.",
    ),
}


def empty_minutes(
    area_m2: float, top_m: float, stop_m: float, bore_m: float, length_m: float, temperature_c: float = 25.0
) -> float:
    """Minutes a siphon takes from one level to another, stepping the level down in a hundred parts.

    area_m2: water surface, m²; top_m, stop_m: level at start and end over the hose's low end, m; bore_m, length_m: of the hose;
    temperature_c: °C. Source: Bernoulli with losses, level by level.
    """
    nu, area = viscosity_m2_s(temperature_c), math.pi / 4 * bore_m**2
    seconds, steps = 0.0, 100
    drop = (top_m - stop_m) / steps
    speed = 1.0
    for i in range(steps):
        head = max(top_m - (i + 0.5) * drop, 1e-4)
        for _ in range(20):
            factor = float(friction_factor(max(speed * bore_m / nu, 1e-6), 1.5e-6 / bore_m))
            speed = math.sqrt(2 * G * head / (1 + ENTRANCE_AND_EXIT_K + factor * length_m / bore_m))
        seconds += area_m2 * drop / (speed * area)
    return seconds / 60


def drain_down(question: DrainDownQuestion) -> DrainDownAnswer:
    """How many litres reach the floor in each mishap of this kind of filter.

    question: surface in cm², depths in cm below the water line, hose in mm and m.
    Source: volumes by geometry (surface × depth to where air gets in); times by Bernoulli with losses.
    """
    q, w, f = question, Working(), question.filter
    found: list[Mishap] = []

    def falls(
        what: str, depth_cm: float, why: str, prevention: str, *, bore_mm: float | None = None, keeps_l: float = 0.0
    ) -> None:
        depth = min(max(depth_cm, 0.0), q.water_depth_cm)
        litres = max(
            w.line(
                what,
                "surface × depth / 1000",
                f"{q.water_cm2:.0f} × {depth:g} / 1000",
                q.water_cm2 * depth / 1000,
                "L",
                "geometry",
            )
            - keeps_l,
            0.0,
        )
        minutes = None
        if bore_mm and depth > 0 and litres > 0:
            top = (q.stand_height_cm + q.water_depth_cm) / 100
            minutes = w.line(
                "time",
                "level by level, √(2 g h / (1 + ΣK + f L/D))",
                f"{bore_mm:g} mm",
                empty_minutes(q.water_cm2 / 1e4, top, top - depth / 100, bore_mm / 1000, q.hose_length_m),
                "min",
                "bernoulli",
            )
        found.append(
            Mishap(
                what=what,
                litres=litres,
                stops_below_rim_cm=q.rim_to_water_cm + depth,
                minutes=minutes,
                why=why,
                prevention=prevention,
            )
        )

    if f.kind == "canister":
        falls(
            "Intake hose off at the body",
            q.intake_depth_cm,
            "It siphons until the strainer draws air.",
            f"Raise the strainer: every centimetre saves {q.water_cm2 / 1000:.1f} L. Clamps on both ends.",
            bore_mm=q.hose_bore_mm,
        )
        falls(
            "Return hose off while it runs",
            q.intake_depth_cm,
            "The pump empties the tank down to its strainer.",
            "Clamps past all the ridges; a tray with a leak alarm under the body.",
        )
        back = 1.0 if q.siphon_break else max(q.outlet_depth_cm, 0.0)
        falls(
            "Return hose off while it stands",
            back,
            "It siphons back until the outlet draws air.",
            "A siphon break just under the surface."
            if not q.siphon_break
            else "The siphon break already holds it to a centimetre.",
            bore_mm=q.hose_bore_mm,
        )
        falls(
            "Lid opened with a valve left open",
            q.intake_depth_cm,
            "Both hoses stand full above the open body.",
            "Shut both valves, unplug, then open; never the other way round.",
            bore_mm=q.hose_bore_mm,
        )
    elif f.kind == "hang-on":
        falls(
            "Box tilted, cracked or clogged: it spills behind",
            q.intake_depth_cm,
            "The pump goes on lifting until its stem draws air.",
            f"Level it, underfill the basket, and shorten the stem: each centimetre saves {q.water_cm2 / 1000:.1f} L.",
        )
    elif f.kind == "sump":
        back = 1.0 if q.siphon_break else max(q.outlet_depth_cm, 0.0)
        falls(
            "Power cut: the return runs back",
            back,
            f"Until the return draws air; the sump has room for {q.sump_free_l:g} L.",
            "Raise the return or drill a siphon break; lower the sump's level.",
            keeps_l=max(q.sump_free_l - PIPE_L, 0.0),
        )
        falls(
            "Siphon break clogged at a power cut",
            max(q.outlet_depth_cm, 0.0) + 5,
            "The return runs back past the clogged hole.",
            "Clean the hole monthly; leave that much more room.",
            keeps_l=max(q.sump_free_l - PIPE_L, 0.0),
        )
        falls(
            "Drain blocked while it runs",
            0.0,
            f"The return lifts the sump's {q.sump_free_l:g} L and its chamber into the tank until its pump draws air.",
            "A second, dry drain; a return chamber too small to overfill the tank.",
        )
    if f.air:
        guarded = q.check_valve or q.air_pump_above_water_cm >= 0
        falls(
            "Air line siphons when the pump stops",
            0.0 if guarded else q.stone_depth_cm,
            "The check valve or the pump's height holds it."
            if guarded
            else "The pump stands below the water and nothing holds the water back.",
            "Try the check valve once a year: stop the pump and see that no water climbs the line."
            if guarded
            else "A check valve, the cheapest part of all.",
            bore_mm=4,
        )
    if not found:
        falls(
            "Nothing leaves the tank", 0.0, "The whole filter stands in its own water.", "Mind the cable: a drip loop."
        )
    found.sort(key=lambda m: -m.litres)
    worst = found[0]
    if worst.litres > 0.5:
        times = f" within {worst.minutes:.0f} minutes" if worst.minutes else ""
        verdict = f"At worst {worst.litres:.0f} L reach the floor{times}: {worst.what[0].lower()}{worst.what[1:]}. {worst.prevention}"
    else:
        verdict = "Nothing to speak of reaches the floor in any mishap of this plan."
    return DrainDownAnswer(
        verdict=verdict, working=w.lines, mishaps=found, worst_l=worst.litres, power_cut=POWER_CUTS[f.kind]
    )
