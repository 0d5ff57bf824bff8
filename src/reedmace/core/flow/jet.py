"""The speed an animal meets at mid-tank."""

import math
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Working, computation, number, whole
from reedmace.core.quantity import shown

COMFORT_CM_S: dict[str, float] = {"gentle": 6.0, "moderate": 18.0, "strong": 45.0}
"""Speed a kind holds against without tiring, by the current it likes (memory)."""
SPREAD = 6.2
GLASS_SHARE = 0.5
"""What is left of a jet after it has been turned against the glass (memory)."""


class Liking(Part):
    """An animal and the current it likes."""

    name: Name
    current: Literal["gentle", "moderate", "strong"]


class JetSpeedQuestion(Question):
    """An outlet and the tank it points along."""

    flow_lph: Annotated[float, number("L/h", 1, 1e5)]
    outlet_bore_mm: Annotated[float, number("mm", 1, 110, "A nozzle's bore, or one hole of a spray bar")] = 14
    holes_count: Annotated[int, whole(1, 100)] = 1
    distance_cm: Annotated[float, number("cm", 1, 1000, "To mid-tank, along the jet")] = 45
    against_glass: bool = False
    animals: Annotated[list[Liking], Field(max_length=60)] = Field(default_factory=list)


class JetSpeedAnswer(Answer):
    """Speeds in cm/s, whom it troubles, and what helps."""

    outlet_cm_s: Annotated[float, number("cm/s", 0, 1e7)]
    there_cm_s: Annotated[float, number("cm/s", 0, 1e7)]
    troubled: list[str]
    remedies: list[str]


@computation("jet-speed", "The speed an animal meets at mid-tank")
def jet_speed(question: JetSpeedQuestion) -> JetSpeedAnswer:
    """Speed of the water at a distance from the outlet.

    question: flow in L/h, bore in mm, distance in cm.
    Source: free round jet, U/U0 = 6.2 D/x beyond its core (Albertson et al. 1950); comfort by kind from memory.
    """
    q, w = question, Working()
    area = math.pi / 4 * (q.outlet_bore_mm / 10) ** 2 * q.holes_count
    out = w.sum("U0", "Q / 3.6 / A", {"Q": q.flow_lph, "A": area}, "cm/s", "geometry")
    bore_cm = q.outlet_bore_mm / 10
    there = w.sum(
        "U",
        "U0 × min(6.2 × D / x, 1)",
        {"U0": out, "6.2": SPREAD, "D": bore_cm, "x": q.distance_cm},
        "cm/s",
        "albertson1950",
    )
    if q.against_glass:
        there = w.sum("U", "U × 0.5", {"U": there, "0.5": GLASS_SHARE}, "cm/s", "memory")
    troubled = [a.name for a in q.animals if there > COMFORT_CM_S[a.current]]
    remedies = []
    if troubled:
        limit = min(COMFORT_CM_S[a.current] for a in q.animals if a.name in troubled)
        if q.holes_count == 1:
            # n holes of a bore a third as wide, with as much open area, slow the far field by the ratio of the bores.
            remedies.append("A spray bar: many small jets lose their speed sooner than one large one.")
        if not q.against_glass:
            remedies.append("Turn the outlet against the glass.")
        remedies.append(f"Throttle the outlet to about {shown.lph(q.flow_lph * limit / there)}, never the intake.")
    verdict = f"The water passes mid-tank at about {there:.0f} cm/s" + (
        f": too strong for {', '.join(dict.fromkeys(troubled))}."
        if troubled
        else (", which suits them all." if q.animals else ".")
    )
    return JetSpeedAnswer(
        verdict=verdict, working=w.lines, outlet_cm_s=out, there_cm_s=there, troubled=troubled, remedies=remedies
    )
