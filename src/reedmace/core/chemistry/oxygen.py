"""Oxygen saturation of water, and the oxygen demand of animals and filter bacteria."""

import math
from typing import Annotated

from reedmace.core.contract import Answer, Celsius, NetLitres, Question, Working, computation, number
from reedmace.core.quantity import celsius_to_kelvin, formatting

OXYGEN_PER_N = 4.57
"""mg O2 for each mg N nitrified (US EPA 1993)."""
OXYGEN_PER_FEED_G = 0.25
"""g O2 the animals breathe for each g of dry food, warm water (Timmons and Ebeling give 0.2 to 0.5; memory)."""


def oxygen_saturation_mg_l(temperature_c: float, salinity_g_kg: float = 0.0, pressure_kpa: float = 101.325) -> float:
    """Dissolved oxygen at saturation with moist air, mg/L.

    temperature_c: 0 to 40 °C; salinity_g_kg: 0 to 45 g/kg; pressure_kpa: 50 to 110 kPa.
    25 °C, fresh, 1 atm: 8.26. Source: Benson and Krause 1984 as in APHA 4500-O (coefficients from memory, confirmed
    against gsw in tests/reference); vapour pressure by Murray 1967.

    >>> round(oxygen_saturation_mg_l(25.0, 0.0, 101.325), 3)
    8.263
    """
    t = celsius_to_kelvin(temperature_c)
    fresh = -139.34411 + 1.575701e5 / t - 6.642308e7 / t**2 + 1.243800e10 / t**3 - 8.621949e11 / t**4
    salt = salinity_g_kg * (0.017674 - 10.754 / t + 2140.7 / t**2)
    vapour = 0.61078 * math.exp(17.2693882 * temperature_c / (temperature_c + 237.3))
    return math.exp(fresh - salt) * (pressure_kpa - vapour) / (101.325 - vapour)


class OxygenSaturationQuestion(Question):
    """The water, and what uses oxygen in it."""

    temperature_c: Celsius = 25
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    altitude_m: Annotated[float, number("m", -400, 4500)] = 0
    net_l: NetLitres = 100
    ammonia_mg_n_day: Annotated[float, number("mg N/day", 0, 1e7, "What the film turns to nitrate")] = 0
    feed_g_day: Annotated[float, number("g/day", 0, 1e5, "Dry food the animals eat")] = 0


class OxygenSaturationAnswer(Answer):
    """Oxygen at saturation, and the amount used in a day."""

    saturation_mg_l: Annotated[float, number("mg/L", 0, 20)]
    film_mg_l_day: Annotated[float, number("mg/(L day)", 0, 1e9)]
    animals_mg_l_day: Annotated[float, number("mg/(L day)", 0, 1e9)]
    hours_held: Annotated[float, number("h", 0, 1e9, "Until half is gone if the surface stood still")] | None


@computation("oxygen-saturation", "Oxygen the water holds, and what is taken out of it")
def oxygen_saturation(question: OxygenSaturationQuestion) -> OxygenSaturationAnswer:
    """Oxygen at saturation, and the daily demand of filter bacteria and animals.

    question: °C, g/kg, m above the sea, L, mg N/day, g/day.
    Source: Benson and Krause 1984; US EPA 1993 for the film; ration oxygen from memory.
    """
    q, w = question, Working()
    pressure = w.sum("P", "101.325 × (1 − 0.0000225577 × h)^5.25588", {"h": q.altitude_m}, "kPa", "atmosphere")
    full = w.line(
        "O2",
        "exp(polynomial in T and S) × (P − pv) / (101.325 − pv)",
        f"{q.temperature_c:g} °C, {q.salinity_g_kg:g} g/kg, {pressure:.1f} kPa",
        oxygen_saturation_mg_l(q.temperature_c, q.salinity_g_kg, pressure),
        "mg/L",
        "benson1984",
    )
    film = w.sum(
        "film",
        "4.57 × N / litres",
        {"N": q.ammonia_mg_n_day, "litres": q.net_l, "4.57": OXYGEN_PER_N},
        "mg/(L day)",
        "epa1993",
    )
    animals = w.sum(
        "animals",
        "0.25 × food × 1000 / litres",
        {"food": q.feed_g_day, "litres": q.net_l, "0.25": OXYGEN_PER_FEED_G},
        "mg/(L day)",
        "memory",
    )
    demand = film + animals
    hours = None
    verdict = f"At {formatting.celsius(q.temperature_c)} the water holds {full:.1f} mg/L of oxygen at most."
    if demand > 0:
        hours = w.sum("t", "O2 / 2 / demand × 24", {"O2": full, "demand": demand}, "h", "arithmetic")
        verdict += (
            f" Film and animals take {demand:.2g} mg/L a day; with the surface still, half would be gone in {hours:.0f}"
            " hours."
        )
    return OxygenSaturationAnswer(
        verdict=verdict,
        working=w.lines,
        saturation_mg_l=full,
        film_mg_l_day=film,
        animals_mg_l_day=animals,
        hours_held=hours,
    )
