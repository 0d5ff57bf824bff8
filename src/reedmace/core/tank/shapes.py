"""Plan areas of tanks, inside and outside. Sizes in cm, areas in cm²."""

import math
from dataclasses import dataclass
from typing import Literal

Shape = Literal["box", "bow-front", "cylinder", "prism", "corner"]


@dataclass(frozen=True)
class Plan:
    """A tank from above, inside its glass and outside it. Lengths in cm, areas in cm²."""

    inside_length_cm: float
    inside_width_cm: float
    inside_cm2: float
    outside_cm2: float
    inside_rim_cm: float
    """Perimeter of the inner wall, cm."""
    formula: str
    with_numbers: str


def _arc_cm2(radius: float, half: float) -> float:
    """Integral of sqrt(R² − x²) from −half to half. radius, half: cm, half at most the radius."""
    ratio = min(half / radius, 1.0)
    return half * math.sqrt(max(radius**2 - half**2, 0.0)) + radius**2 * math.asin(ratio)


def _box(length: float, width: float, glass: float) -> Plan:
    a, b = length - 2 * glass, width - 2 * glass
    return Plan(a, b, a * b, length * width, 2 * (a + b), "a × b", f"{a:g} × {b:g}")


def _bow(length: float, width: float, bow: float, glass: float) -> Plan:
    # The front pane is an arc through both front corners; its inner face has the same centre and a radius one pane
    # less.
    radius = (length**2 / 4 + bow**2) / (2 * bow)
    middle = width - (radius - bow)
    half, inner = length / 2 - glass, radius - glass
    inside = 2 * half * (middle - glass) + _arc_cm2(inner, half)
    outside = length * middle + _arc_cm2(radius, length / 2)
    deepest = middle + inner - glass
    sides = middle + math.sqrt(max(inner**2 - half**2, 0.0)) - glass
    rim = 2 * half + 2 * sides + 2 * inner * math.asin(min(half / inner, 1.0))
    return Plan(
        2 * half,
        deepest,
        inside,
        outside,
        rim,
        "box to the front corners + circular segment",
        f"chord {2 * half:g}, radius {inner:.1f}",
    )


def _cylinder(diameter: float, glass: float) -> Plan:
    d = diameter - 2 * glass
    return Plan(d, d, math.pi * d**2 / 4, math.pi * diameter**2 / 4, math.pi * d, "π d² / 4", f"π × {d:g}² / 4")


def _prism(across: float, sides: int, glass: float) -> Plan:
    # `across` is twice the distance from the centre to a side, as measured between opposite sides.
    apothem = across / 2 - glass
    tangent = sides * math.tan(math.pi / sides)
    return Plan(
        2 * apothem,
        2 * apothem,
        tangent * apothem**2,
        tangent * (across / 2) ** 2,
        2 * tangent * apothem,
        "n × tan(π/n) × (across/2)²",
        f"{sides} × tan(π/{sides}) × {apothem:g}²",
    )


def _corner(leg: float, glass: float) -> Plan:
    # Inside: the part of the quarter circle behind both straight panes and within the curved one.
    radius = leg - glass
    reach = math.sqrt(max(radius**2 - glass**2, 0.0))
    inside = (_arc_cm2(radius, reach) - _arc_cm2(radius, glass)) / 2 - glass * (reach - glass)
    arc = radius * (math.asin(min(reach / radius, 1.0)) - math.asin(glass / radius))
    side = reach - glass
    return Plan(
        side,
        side,
        inside,
        math.pi * leg**2 / 4,
        2 * side + arc,
        "quarter circle inside the panes",
        f"radius {radius:g}",
    )


def plan_of(shape: Shape, length_cm: float, width_cm: float, bow_cm: float, sides: int, glass_cm: float) -> Plan:
    """Plan of a tank from its outside sizes.

    shape: which; length_cm: left to right, a cylinder's diameter, a prism's width across its flats or a corner tank's
    leg along the wall; width_cm: front to back at the ends (box, bow front); bow_cm: how far the front bulges beyond
    its corners, at most half the length; sides: of a prism, 3 or more; glass_cm: one pane, 0 when the sizes are inside.
    Source: plane geometry.
    """
    if shape == "bow-front":
        return _bow(length_cm, width_cm, bow_cm, glass_cm)
    if shape == "cylinder":
        return _cylinder(length_cm, glass_cm)
    if shape == "prism":
        return _prism(length_cm, sides, glass_cm)
    if shape == "corner":
        return _corner(length_cm, glass_cm)
    return _box(length_cm, width_cm, glass_cm)
