"""Oxygen balance of a tank: supply, demand, and the hours that are left when the flow stops."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.chemistry.oxygen import OXYGEN_PER_N, oxygen_saturation_mg_l
from reedmace.core.contract import Answer, Celsius, Name, NetLitres, Part, Question, Working, computation, number, whole

DIFFUSION_M2_S = 2.1e-9
"""Diffusion coefficient of oxygen in water at 25 °C (memory)."""
TRANSFER_THETA = 1.024
"""Temperature factor of gas transfer per degree (memory)."""
STILL_M_DAY = 0.3
"""Transfer velocity of a still surface, m/day (memory)."""
RIPPLE = 1.2
"""Additional transfer where the outlets ripple the surface, relative to water that only moves under it.

Fitted so that ordinary tanks which live for years have enough (tests/core/flow/test_ordinary_oxygen.py; memory).
"""
BUBBLE_SHARE_M = 0.025
"""Share of a coarse bubble's oxygen absorbed per metre of rise (memory: 2 to 3 %)."""
AIR_MG_L = 279.0
"""Oxygen in a litre of air, mg."""
MMOL_MG = 31.998
Q10 = 1.83
ACTIVE = 2.0
"""Oxygen use relative to resting, for swimming and digestion (memory)."""
SHORT_MG_L, DOUBTFUL_MG_L = 3.0, 4.5
"""Concentration below which most fish suffer (the one-day minimum of US EPA 1986 for warm water), and below which the
balance leaves a doubt (memory).

What a surface takes in is known to a third at best, so between the two nothing is called short.
"""
ALARM_MG_L = 4.0
"""Concentration to which hours are counted once everything stands: cautious, for then it only falls (memory)."""
SURFACE_FILM_SHARE, SHUT_LID_SHARE = 0.5, 0.7
"""Share of the surface's exchange left under a film of fat, and under a lid closed to the edges (memory)."""
PLANTS_AT_NIGHT_MG_L_H = 0.2
"""Oxygen that a planted tank's plants take at night (memory)."""
CO2_AT_NIGHT_MG_L = 2.0
"""By how much more oxygen animals need while CO2 bubbles through the night (memory)."""
STANDING_FILM = 0.3
"""Share of the film that keeps using the tank's oxygen when the filter stands: glass, gravel and decor (memory)."""
LONGEST_H = 24.0 * 14


def resting_mg_h(mass_g: float, temperature_c: float) -> float:
    """Oxygen use of one resting fish, mg/h. mass_g: g; temperature_c: °C.

    Source: Clarke and Johnston 1999, ln R = 0.80 ln M − 5.43 (mmol/h at 15 °C), Q10 1.83.

    >>> round(resting_mg_h(10.0, 25.0), 3)
    1.619
    """
    at_15 = math.exp(0.80 * math.log(max(mass_g, 1e-3)) - 5.43)
    return at_15 * MMOL_MG * float(Q10 ** ((temperature_c - 15) / 10))


def surface_m_day(turning_cm_s: float, depth_cm: float, temperature_c: float, ripple_share: float = 0.0) -> float:
    """Transfer velocity of oxygen through a moving surface, m/day.

    turning_cm_s: speed of the water, cm/s; depth_cm: its depth, cm; temperature_c: °C; ripple_share: of the flow, that
    leaves at the surface, 0 to 1.
    Source: O'Connor and Dobbins 1958, K = √(D U / H); the rest of a still surface from memory.

    >>> round(surface_m_day(5.0, 40.0, 25.0), 3)
    1.7
    """
    moved = math.sqrt(DIFFUSION_M2_S * turning_cm_s / 100 / (depth_cm / 100)) * 86400
    return float((STILL_M_DAY + moved * (1 + RIPPLE * ripple_share)) * TRANSFER_THETA ** (temperature_c - 25))


def fall_share(fall_cm: float, temperature_c: float) -> float:
    """Share of the oxygen deficit that water takes up in one fall.

    fall_cm: cm; temperature_c: °C. Source: Gameson's weir, r = 1 + 0.38 a b h (1 − 0.11 h)(1 + 0.046 T), clean water a
    1.8, free fall b 1 (memory).

    >>> round(fall_share(30.0, 25.0), 4)
    0.299
    """
    h = fall_cm / 100
    return 1 - 1 / (1 + 0.38 * 1.8 * h * (1 - 0.11 * h) * (1 + 0.046 * temperature_c))


class OxygenConsumer(Part):
    """A number of animals of one mass."""

    name: Name
    count: Annotated[int, whole(1, 2000)]
    mass_g: Annotated[float, number("g", 0.001, 1e6, "Of one")]
    water_share: Annotated[float, number("share", 0, 1, "Of its oxygen from the water, not the air")] = 1.0


class OxygenBalanceQuestion(Question):
    """The water, the animals, and what moves the surface."""

    net_l: NetLitres
    surface_cm2: Annotated[float, number("cm²", 10, 1e6)]
    depth_cm: Annotated[float, number("cm", 1, 300)]
    temperature_c: Celsius = 25
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    animals: Annotated[list[OxygenConsumer], Field(max_length=60)] = Field(default_factory=list)
    film_mg_n_day: Annotated[float, number("mg N/day", 0, 1e7, "Ammonia the film turns to nitrate")] = 0
    turning_cm_s: Annotated[float, number("cm/s", 0, 1000, "Speed of the water, as `currents` finds it")] = 0
    air_l_min: Annotated[float, number("L/min", 0, 500, "Bubbling through the water")] = 0
    ripple_share: Annotated[float, number("share", 0, 1, "Of the flow, that leaves at the surface")] = 0.0
    fall_cm: Annotated[float, number("cm", 0, 200, "From a lip, through an overflow, or a bar above the water")] = 0
    fall_lph: Annotated[float, number("L/h", 0, 1e5)] = 0
    surface_film: bool = Field(default=False, description="A film like oil on the surface")
    lid_shut: bool = Field(default=False, description="A lid closed to the edges")
    planted: bool = Field(default=False, description="Plants that breathe at night")
    co2_at_night: bool = Field(default=False, description="CO2 that bubbles through the night")


class OxygenBalanceAnswer(Answer):
    """Oxygen with everything running and with everything off, and the time between."""

    saturation_mg_l: Annotated[float, number("mg/L", 0, 20)]
    taken_mg_l_day: Annotated[float, number("mg/(L day)", 0, 1e7)]
    running_mg_l: Annotated[float, number("mg/L", 0, 20)]
    standing_mg_l: Annotated[float, number("mg/L", 0, 20, "Where it would come to rest with everything off")]
    short_after_h: Annotated[float, number("h", 0, LONGEST_H, "From running to short once everything stands")] | None
    enough: bool
    surface_per_hour: Annotated[float, number("1/h", 0, 1e6, "Transfer through the surface while it runs")]


@computation(
    "oxygen-balance", "Oxygen in, oxygen used, and the hours until the animals are short of it when all stands still"
)
def oxygen_balance(question: OxygenBalanceQuestion) -> OxygenBalanceAnswer:
    """Oxygen supply and demand, running and stopped, and the hours until it runs short.

    question: L, cm², cm, °C, g of one animal, mg N/day, cm/s, L/min, L/h. Source: O'Connor and Dobbins 1958, Gameson's
    weir, Clarke and Johnston 1999, US EPA 1993 for the film; the rest memory.
    """
    q, w = question, Working()
    full = w.line(
        "Cs",
        "saturation",
        f"{q.temperature_c:g} °C, {q.salinity_g_kg:g} g/kg",
        oxygen_saturation_mg_l(q.temperature_c, q.salinity_g_kg),
        "mg/L",
        "benson1984",
    )
    fish, film = _draw(q, w)
    plants = PLANTS_AT_NIGHT_MG_L_H if q.planted else 0.0
    least = SHORT_MG_L + (CO2_AT_NIGHT_MG_L if q.co2_at_night else 0.0)
    still, surface, entering = _supply(q, full, w)
    taken = w.sum(
        "taken", "animals + film + plants", {"animals": fish, "film": film, "plants": plants}, "mg/(L h)", "arithmetic"
    )
    running = w.sum(
        "O2 running", "max(Cs − taken / k, 0)", {"Cs": full, "taken": taken, "k": entering}, "mg/L", "arithmetic"
    )
    idle = fish + STANDING_FILM * film + plants
    rest = full - idle / still
    standing = w.sum(
        "O2 standing",
        "max(Cs − taken standing / k still, 0)",
        {"Cs": full, "taken standing": idle, "k still": still},
        "mg/L",
        "arithmetic",
    )
    hours = _hours_to_alarm(running, rest, still, w)
    return OxygenBalanceAnswer(
        verdict=_verdict(q, running, full, hours),
        working=w.lines,
        saturation_mg_l=full,
        taken_mg_l_day=taken * 24,
        running_mg_l=running,
        standing_mg_l=standing,
        short_after_h=hours,
        enough=running > least,
        surface_per_hour=surface,
    )


def _draw(q: OxygenBalanceQuestion, w: Working) -> tuple[float, float]:
    """Oxygen used by the animals and by the film, mg/(L h)."""
    fish = sum(a.count * a.water_share * resting_mg_h(a.mass_g, q.temperature_c) for a in q.animals) * ACTIVE
    fish = w.line(
        "animals",
        "Σ count × share × 2 × exp(0.80 ln M − 5.43) × 1.83^((T − 15) / 10)",
        f"{sum(a.count for a in q.animals)} animals",
        fish / q.net_l,
        "mg/(L h)",
        "clarke1999",
    )
    film = w.sum(
        "film",
        "4.57 × N / litres / 24",
        {"4.57": OXYGEN_PER_N, "N": q.film_mg_n_day, "litres": q.net_l},
        "mg/(L h)",
        "epa1993",
    )
    return fish, film


def _supply(q: OxygenBalanceQuestion, full_mg_l: float, w: Working) -> tuple[float, float, float]:
    """Transfer of the still and the moved surface, and of everything that runs, 1/h. full_mg_l: at saturation."""
    still, moved = (
        surface_m_day(speed, q.depth_cm, q.temperature_c, ripple) / 24 * q.surface_cm2 / 10 / q.net_l
        for speed, ripple in ((0.0, 0.0), (q.turning_cm_s, q.ripple_share))
    )
    open_share = (SURFACE_FILM_SHARE if q.surface_film else 1.0) * (SHUT_LID_SHARE if q.lid_shut else 1.0)
    still, moved = still * open_share, moved * open_share
    w.line(
        "k surface",
        "(√(D U / H) (1 + 1.2 ripple) + still) A / V" + (f" × {open_share:.2g}" if open_share < 1 else ""),
        f"U {q.turning_cm_s:.1f} cm/s, H {q.depth_cm:g} cm, ripple {q.ripple_share:.2f}",
        moved,
        "1/h",
        "oconnor1958",
    )
    bubbles = w.sum(
        "k bubbles",
        "air × 60 × 279 × 0.025 × depth / 100 / (Cs × litres)",
        {
            "air": q.air_l_min,
            "279": AIR_MG_L,
            "0.025": BUBBLE_SHARE_M,
            "depth": q.depth_cm,
            "Cs": full_mg_l,
            "litres": q.net_l,
        },
        "1/h",
        "memory",
    )
    weir = w.line(
        "k fall",
        "(1 − 1 / r) Q / V",
        f"{q.fall_cm:g} cm, {q.fall_lph:.0f} L/h",
        fall_share(q.fall_cm, q.temperature_c) * q.fall_lph / q.net_l,
        "1/h",
        "gameson1957",
    )
    return still, moved, moved + bubbles + weir


def _hours_to_alarm(running: float, rest: float, still: float, w: Working) -> float | None:
    """Hours from running to short once everything stands; None where it never gets there.

    running, rest: mg/L, running and at rest; still: transfer of the still surface, 1/h.
    """
    hours = None
    if running <= ALARM_MG_L:
        hours = 0.0
    elif rest < ALARM_MG_L:
        hours = min(math.log((running - rest) / (ALARM_MG_L - rest)) / still, LONGEST_H)
        w.line(
            "t",
            "ln((O2 − rest) / (4 − rest)) / k",
            f"from {running:.1f} to {ALARM_MG_L:g} mg/L",
            hours,
            "h",
            "arithmetic",
        )
    return hours


def _verdict(q: OxygenBalanceQuestion, running: float, full: float, hours: float | None) -> str:
    """Oxygen in a sentence or two. mg/L and hours."""
    night = CO2_AT_NIGHT_MG_L if q.co2_at_night else 0.0
    kept = f"about {running:.1f}" if running >= 1 else "less than 1"
    holds = f"The water keeps {kept} mg/L of oxygen{' at night' if q.planted else ''}, of {full:.1f} it can hold"
    if running <= SHORT_MG_L + night:
        return f"{holds}: too little. {_remedy(q)}"
    if running <= DOUBTFUL_MG_L + night:
        return f"{holds}: enough by day, little to spare on a warm night. An outlet at the surface settles it."
    if hours is None:
        return f"{holds}; with everything off the still surface lets in enough for these animals."
    return f"{holds}; with everything off they are short of it in about {words_of_hours(hours)}."


def _remedy(q: OxygenBalanceQuestion) -> str:
    """What helps first where oxygen is short, the cheapest of what holds it back."""
    if q.co2_at_night:
        return "Turn the CO2 off with the light; an air stone at night, or the outlet at the surface."
    if q.surface_film:
        return "Draw the film off the surface: paper laid on it, then an outlet that breaks it."
    if q.lid_shut:
        return "Open the lid by a hand's breadth; raise the outlet, add an air stone, or keep fewer animals."
    return "Break the surface: raise the outlet, add an air stone, or keep fewer animals."


def words_of_hours(hours: float) -> str:
    """Hours in words: quarters when few, days when many. hours: h.

    >>> words_of_hours(30.0)
    '30 hours'
    """
    if hours < 1:
        return f"{max(round(hours * 4) * 15, 15):.0f} minutes"
    return f"{hours:.0f} hours" if hours < 48 else f"{hours / 24:.0f} days"
