"""Heat loss of a tank, the heater it needs, and its yearly energy."""

import math
from typing import Annotated, Literal

from reedmace.core.contract import Answer, Celsius, Question, Working, computation, number, whole
from reedmace.core.quantity import formatting

GLASS_W_M2_K = 7.0
"""Heat transfer through 6 to 12 mm of glass, dominated by the room's air (memory)."""
SURFACE_W_M2_K = {True: 7.0, False: 16.0}
"""Heat transfer of the surface, covered or open; an open one loses most by evaporation (memory)."""
SPARE = 1.5
"""Spare factor: a heater on two hours in three on a usual day holds on a cold one (memory)."""
SIZES_W = (10, 25, 50, 75, 100, 150, 200, 250, 300, 400, 500, 600, 800, 1000)
"""Sizes sold (common practice). Above the largest, two or more."""
StandsIn = Literal["tank", "sump", "filter"]
WHERE = {
    "tank": "Its head stands under the lowest water; unplug it before the level falls.",
    "sump": (
        "It stands in the sump: the chamber must keep its water when the pump stops, and a stopped pump leaves the tank"
        " cold."
    ),
    "filter": (
        "It stands in the filter: one that heats without flow or dry boils what is round it; it needs its own cut-out."
    ),
}
FOOT_CM = 4.0
"""Height of a heater's foot over the bed, cm (common practice)."""
COVER_CM = 3.0
"""Depth of a heater's head where the tank is too shallow to stand it upright, cm (memory)."""


def length_cm(watts: float) -> float:
    """Length of a glass heater, cm. watts: its own, W. Source: memory, about 23 cm at 50 W and 34 at 300.

    >>> round(length_cm(100.0), 2)
    26.0
    """
    return 15 + 1.1 * math.sqrt(watts)


def bare(level_cm: float, depth_cm: float, watts: float) -> bool:
    """Whether a heater in the tank is exposed to air.

    level_cm: water left over the bed, cm; depth_cm: the same in service, cm; watts: the heater's, W.
    """
    head = min(FOOT_CM + length_cm(watts), depth_cm - COVER_CM)
    return level_cm < head


class HeaterQuestion(Question):
    """The tank's outside, the wanted temperature, the room, and the present heater."""

    glass_m2: Annotated[float, number("m²", 0.01, 1000, "Wetted walls and bottom")]
    surface_m2: Annotated[float, number("m²", 0.005, 500)]
    water_c: Celsius
    room_c: Celsius = 20
    lid: bool = False
    watts: Annotated[float, number("W", 1, 5000)] | None = None
    stands_in: StandsIn = "tank"


class HeaterAnswer(Answer):
    """Heat loss, the heater needed, whether the present one is enough, and its energy."""

    loss_w: Annotated[float, number("W", 0, 1e6)]
    asked_w: Annotated[float, number("W", 0, 1e6, "Of one heater as sold, or of several together")]
    heaters_count: Annotated[int, whole(0, 1000)]
    enough: bool | None
    kwh_year: Annotated[float, number("kWh/year", 0, 1e7)]
    caution: str | None


def _sold(watts: float) -> tuple[float, int]:
    """Smallest sufficient size sold, and how many. watts: required."""
    largest = SIZES_W[-1]
    count = max(int(-(-watts // largest)), 1)
    each = next(size for size in SIZES_W if size * count >= watts)
    return float(each * count), count


@computation("heater-size", "What heater holds the water warm, and what it takes")
def heater_size(question: HeaterQuestion) -> HeaterAnswer:
    """Heater that keeps the water warm in this room.

    question: areas in m², temperatures in °C, watts.
    Source: Newton's law of cooling for the form; the coefficients from memory.
    """
    q, w = question, Working()
    rise = w.sum("ΔT", "water − room", {"water": q.water_c, "room": q.room_c}, "K", "arithmetic")
    if rise <= 0.5:
        return HeaterAnswer(
            verdict=(
                "No heater is asked for: the room is as warm as the water is to be."
                if rise > -1.5
                else (
                    f"No heater: the room is {formatting.degrees(-rise)} warmer than the water is to be, which takes a"
                    " chiller or a cooler room."
                )
            ),
            working=w.lines,
            loss_w=0,
            asked_w=0,
            heaters_count=0,
            enough=None,
            kwh_year=0,
            caution=None,
        )
    top = SURFACE_W_M2_K[q.lid]
    loss = w.sum(
        "P",
        "(7 × glass + k × surface) × ΔT",
        {"glass": q.glass_m2, "k": top, "surface": q.surface_m2, "ΔT": rise, "7": GLASS_W_M2_K},
        "W",
        "memory",
    )
    least = w.sum("P asked", "P × 1.5", {"P": loss, "1.5": SPARE}, "W", "memory")
    asked, count = _sold(least)
    year = w.sum("E", "P × 24 × 365.25 / 1000", {"P": loss}, "kWh/year", "arithmetic")
    several = f"{count} heaters of {asked / count:g} W" if count > 1 else f"A heater of {asked:g} W"
    verdict = f"{several} holds {formatting.celsius(q.water_c)} in a room of {formatting.celsius.bare(q.room_c)}."
    enough = None
    if q.watts is not None:
        enough = q.watts >= loss * 1.1
        verdict = (
            f"{q.watts:g} W is enough: the tank loses {loss:.0f} W to a room of {formatting.celsius(q.room_c)}."
            if enough
            else (
                f"{q.watts:g} W is too little: the tank loses {loss:.0f} W to a room of {formatting.celsius(q.room_c)}."
                f" {several} holds it."
            )
        )
    return HeaterAnswer(
        verdict=verdict,
        working=w.lines,
        loss_w=loss,
        asked_w=asked,
        heaters_count=count,
        enough=enough,
        kwh_year=year,
        caution=WHERE[q.stands_in],
    )
