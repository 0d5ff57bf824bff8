"""Daily evaporation from a tank and its sump, and the interval of top-ups."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.chemistry.salinity import has_salt
from reedmace.core.contract import Answer, Celsius, NetLitres, Question, Share, Working, computation, number
from reedmace.core.quantity import formatting

FORM_W_M2_PA = 0.089
"""Evaporation of still water under still air, W per m² and Pa (ASHRAE's form for indoor pools, from memory)."""
QUIET = 0.5
"""Activity factor without bathers (ASHRAE's private pool, from memory)."""
LATENT_J_KG = 2.44e6
"""Latent heat of water at 25 °C, J/kg (steam tables)."""
UNDER_LID = 0.15
"""Evaporation under a lid relative to an open tank (memory)."""
DAY_S = 86400
TANK_DROP_CM, CHAMBER_DROP_CM = 2.0, 5.0
"""Largest fall of the level in a tank, and in a sump's return chamber, before a top-up (common practice)."""
SALT_DRIFT_G_KG = 0.5
"""Largest rise of salinity by evaporation in salt water (common practice)."""


def vapour_pa(temperature_c: float) -> float:
    """Saturation vapour pressure over water, Pa.

    temperature_c: 0 to 50 °C. At 25 °C: 3162 (steam tables: 3169). Source: Magnus' form with Alduchov and Eskridge
    1996's constants.

    >>> round(vapour_pa(25.0), 0)
    3162.0
    """
    return 610.94 * math.exp(17.625 * temperature_c / (temperature_c + 243.04))


class EvaporationQuestion(Question):
    """Open water, the room's air, and where the loss shows."""

    surface_m2: Annotated[float, number("m²", 0.005, 500, "Of the tank")]
    lid: bool = False
    sump_m2: Annotated[float, number("m²", 0, 100, "Open water of a sump below it")] = 0
    chamber_m2: (
        Annotated[float, number("m²", 0.001, 100, "Of the sump's last chamber, where the level falls")] | None
    ) = None
    net_l: NetLitres
    water_c: Celsius = 25
    room_c: Celsius = 20
    humidity_share: Annotated[Share, Field(description="Of what the room's air could hold")] = 0.5
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0


class EvaporationAnswer(Answer):
    """Litres a day, the fall of the level, and the interval of top-ups."""

    litres_day: Annotated[float, number("L/day", 0, 1e6)]
    falls_cm_day: Annotated[float, number("cm/day", 0, 1e4, "In the tank, or over the sump's return pump")]
    salinity_rise_g_kg_day: Annotated[float, number("g/kg/day", 0, 45)]
    top_up_days: Annotated[float, number("days", 0, 4000, "Until it wants topping up")]
    by_salt: bool = Field(description="Salinity asks for it before the level does")


@computation("evaporation", "How much water evaporates, and how soon it must be put back")
def evaporation(question: EvaporationQuestion) -> EvaporationAnswer:
    """Evaporation, where it shows, and the interval of top-ups.

    question: open water in m², temperatures in °C, L, salinity in g/kg.
    Source: ASHRAE's form for indoor pools and its activity factor (memory); vapour pressure by Magnus' form.
    """
    q, w = question, Working()
    over = w.line("p water", "saturated at its warmth", f"{q.water_c:g} °C", vapour_pa(q.water_c), "Pa", "magnus")
    air = w.line(
        "p room",
        "humidity × saturated",
        f"{q.humidity_share:g} × {vapour_pa(q.room_c):.0f}",
        q.humidity_share * vapour_pa(q.room_c),
        "Pa",
        "magnus",
    )
    open_m2 = w.sum(
        "A",
        "tank × kept + sump",
        {"tank": q.surface_m2, "kept": UNDER_LID if q.lid else 1.0, "sump": q.sump_m2},
        "m²",
        "memory",
    )
    litres = w.sum(
        "E",
        "max(p water − p room, 0) × A × form × quiet × day / latent",
        {
            "p water": over,
            "p room": air,
            "A": open_m2,
            "form": FORM_W_M2_PA,
            "quiet": QUIET,
            "day": DAY_S,
            "latent": LATENT_J_KG,
        },
        "L/day",
        "ashrae",
    )
    litres = min(litres, q.net_l)
    shows_m2 = q.chamber_m2 if q.chamber_m2 is not None else q.surface_m2
    falls = w.sum("falls", "E / shows / 10", {"E": litres, "shows": shows_m2}, "cm/day", "arithmetic")
    may_fall = TANK_DROP_CM if q.chamber_m2 is None else CHAMBER_DROP_CM
    rise = w.sum("S rise", "S × E / V", {"S": q.salinity_g_kg, "E": litres, "V": q.net_l}, "g/kg/day", "arithmetic")
    by_level = may_fall / falls if falls > 1e-6 else 4000.0
    by_salt = SALT_DRIFT_G_KG / rise if rise > 1e-9 else 4000.0
    days = min(by_level, by_salt, 4000.0)
    return EvaporationAnswer(
        verdict=_verdict(q, litres, falls, days, salt_first=by_salt < by_level),
        working=w.lines,
        litres_day=litres,
        falls_cm_day=falls,
        salinity_rise_g_kg_day=min(rise, 45.0),
        top_up_days=days,
        by_salt=by_salt < by_level,
    )


def _verdict(q: EvaporationQuestion, litres: float, falls: float, days: float, *, salt_first: bool) -> str:
    if litres * 30 < 0.01 * q.net_l:
        return "Next to nothing evaporates: the changes make up for it."
    where = "over the sump's return pump" if q.chamber_m2 is not None else "in the tank"
    if days < 1:
        often = "several times a day: a top-off that does it by itself is all but needed"
    elif days < 1.5:
        often = "every day"
    else:
        often = f"every {math.floor(days)} days"
    why = "salinity rises with it" if salt_first else f"the level {where} falls {formatting.cm(falls, '.1f')} a day"
    salt = " Always with fresh water: the salt stays." if has_salt(q.salinity_g_kg) else ""
    return f"About {formatting.litres(litres, '.1f')} a day evaporates; top up {often}, since {why}.{salt}"
