"""Biofilm capacity in one unit: mg N a day at 25 °C with nothing limiting.

A film grows to what it is fed, up to what its surface carries, so what a sponge brings depends on its donor: its load,
the time it has had, its share of the donor's film, and the way. Only then is it divided by the litres it comes into.
"""

from typing import Annotated, Literal

from reedmace.core.contract import Answer, Part, Question, Share, Working, computation, number
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import NITROGEN_SHARE

THETA_PER_DEGREE = 1.08
AREAL_RATE = 50.0
"""Largest removal of a mature film, mg N/(m² day) at 25 °C (memory;

aquaculture gives tens to hundreds at far higher ammonia).
"""
USABLE_DAYS, FULL_DAYS = 15.0, 30.0
"""Days in a running tank after which a sponge is usable, and after which it is fully seeded (common practice)."""
ROCK_MG_N_KG_DAY = 40.0
"""Removal of a kilo of mature rock, mg N/day at 25 °C (memory; equal to a square metre or less of film)."""
IDLE_HALF_DAYS = 17.0
"""Days without food, wet and aerated, that halve a film: decay of 0.04 a day (memory, as in the cycle model)."""
Travels = Literal["wet-open", "wet-closed", "damp", "dry"]
HALF_LIFE_MIN: dict[Travels, float] = {"wet-open": 720, "wet-closed": 120, "damp": 90, "dry": 15}
"""Minutes that halve a film, by mode of transport (memory)."""
WARMEST_C, COLDEST_C, SHOCKED_SHARE = 32.0, 4.0, 0.1
"""Temperature range in transport, and the share of the film left outside it (memory)."""
NITROGEN_PER_PROTEIN = 0.092
"""kg TAN per kg of protein fed (Timmons and Ebeling's mass balance)."""
FOOD_PROTEIN = 0.42
"""Share of protein in dry food, taken where the keeper states none (common practice)."""
FOOD_MG_N_PER_G = FOOD_PROTEIN * NITROGEN_PER_PROTEIN * 1000
"""Ammonia from a gram of food, mg N (Timmons and Ebeling)."""


FILM_SLOWS_PH, FILM_STOPS_PH = 6.8, 6.5
"""pH below which nitrification slows, and below which it all but stops (common practice)."""
FILM_STOPS_KH_DKH = 1.0
"""KH below which nitrification all but stops, and pH may fall fast, dKH (common practice)."""


def film_slows(ph: float) -> bool:
    """Whether a film grown in neutral water is slowed at this pH. ph: 4 to 10. Source: common practice.

    >>> film_slows(6.7), film_slows(7.0)
    (True, False)
    """
    return ph < FILM_SLOWS_PH


def film_stops(ph: float) -> bool:
    """Whether a film grown in neutral water all but stops at this pH. ph: 4 to 10. Source: common practice.

    >>> film_stops(6.4), film_stops(6.7)
    (True, False)
    """
    return ph < FILM_STOPS_PH


def lacks_alkalinity(kh_dkh: float) -> bool:
    """Whether too little alkalinity is left for a film to work. kh_dkh: dKH. Source: common practice.

    >>> lacks_alkalinity(0.5), lacks_alkalinity(2.0)
    (True, False)
    """
    return kh_dkh < FILM_STOPS_KH_DKH


def grown_share(days: float) -> float:
    """Share of its full film a medium has after days in a running tank. days: 0 or more. Source: common practice.

    >>> round(grown_share(15.0), 4)
    0.5
    """
    return min(max(days, 0.0) / FULL_DAYS, 1.0)


def alive_share(minutes_out: float, travels: Travels, temperature_c: float) -> float:
    """Share of a film alive after transport.

    minutes_out: min out of running water; travels: how; temperature_c: °C. Source: memory.
    """
    alive = float(0.5 ** (minutes_out / HALF_LIFE_MIN[travels]))
    return alive * (SHOCKED_SHARE if temperature_c > WARMEST_C or temperature_c < COLDEST_C else 1.0)


SQUEEZED_SHARE = 0.1
"""Share of the film on the media touched that a squeeze in tank water costs (memory)."""


def temperature_factor(temperature_c: float) -> float:
    """Rate relative to 25 °C, dimensionless.

    temperature_c: 0 to 40 °C. Theta 1.08 (from memory, within the 1.08 to 1.1 usually given); falls again above 33 °C.

    >>> round(temperature_factor(15.0), 4)
    0.4632
    """
    return float(THETA_PER_DEGREE ** (min(temperature_c, 33.0) - 25.0)) * (0.5 if temperature_c > 36 else 1.0)


class SeedDonor(Part):
    """The tank a film comes from: its daily food or ammonia, and how long the piece has run in it."""

    food_g_day: Annotated[float, number("g/day", 0.01, 5000, "Dry food a day")]
    age_days: Annotated[float, number("days", 0, 10000)] = 365

    def film_mg_n_day(self, share: float) -> float:
        """Removal by a share of its film, mg N/day at 25 °C. share: 0 to 1."""
        return self.food_g_day * FOOD_MG_N_PER_G * grown_share(self.age_days) * share


class FilmCapacityQuestion(Question):
    """Where the film comes from, its age, its share of the donor's, its transport, and its destination."""

    donor_mg_n_day: Annotated[float, number("mg N/day", 0, 1e6, "What the donor's animals make")] | None = None
    donor_food_g_day: Annotated[float, number("g/day", 0, 5000, "Or the dry food it is given")] | None = None
    rock_kg: Annotated[float, number("kg", 0, 2000, "Or mature rock, weighed wet")] | None = None
    age_days: Annotated[float, number("days", 0, 10000, "In the donor, running")] = 365
    share: Share = 0.5
    area_m2: Annotated[float, number("m²", 0, 1e4, "Of its media; left out, no limit by surface")] | None = None
    idle_days: Annotated[float, number("days", 0, 400, "Wet and aired, but unfed")] = 0
    minutes_out: Annotated[float, number("min", 0, 3000, "Out of running water")] = 0
    travels: Travels = "wet-open"
    temperature_c: Annotated[float, number("°C", 0, 60)] = 22
    net_l: Annotated[float, number("L", 0.5, 1e6, "Of the tank it goes into")] | None = None


class FilmCapacityAnswer(Answer):
    """Removal in a day at 25 °C, in total and per litre."""

    film_mg_n_day: Annotated[float, number("mg N/day", 0, 1e6)]
    film_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e6)] | None
    alive_share: Share
    grown_share: Share


USUAL_DONOR_MG_N_DAY = 12.0
"""Daily ammonia of a donor tank when unknown: a small community's, a third of a gram of food a day (memory)."""


def _verdict(q: FilmCapacityQuestion, film: float, per_l: float | None) -> str:
    """What it removes, in a sentence. film: mg N/day; per_l: the same in each litre, where litres are known."""
    verdict = f"It removes about {film:.3g} mg of ammonia nitrogen a day"
    if per_l is not None and q.net_l:
        verdict += f": {per_l / NITROGEN_SHARE['NH4']:.2g} ppm a day in {formatting.litres(q.net_l, 'g')}"
    if q.age_days < USABLE_DAYS:
        verdict += f"; at {q.age_days:.0f} days it is young, in {USABLE_DAYS - q.age_days:.0f} more it is of use"
    return f"{verdict}."


def _donor_mg_n_day(q: FilmCapacityQuestion, w: Working) -> float:
    """What the film's donor lived on, mg N/day."""
    if q.rock_kg is not None:
        return w.sum("L", "rock × 40", {"rock": q.rock_kg, "40": ROCK_MG_N_KG_DAY}, "mg N/day", "memory")
    if q.donor_mg_n_day is not None:
        return w.line("L", "as given", "the donor's animals", q.donor_mg_n_day, "mg N/day", "arithmetic")
    if q.donor_food_g_day is not None:
        return w.sum(
            "L",
            "food × ammonia per gram",
            {"food": q.donor_food_g_day, "ammonia per gram": FOOD_MG_N_PER_G},
            "mg N/day",
            "timmons",
        )
    return w.line("L", "a small community tank's", "nothing known", USUAL_DONOR_MG_N_DAY, "mg N/day", "memory")


@computation("film-capacity", "What a filter, sponge, rock or gravel removes in a day")
def film_capacity(question: FilmCapacityQuestion) -> FilmCapacityAnswer:
    """Removal of a film in a day, from its donor and its transport.

    question: mg N/day or g/day of food, days, share, m², minutes, °C, L. Source: Timmons and Ebeling for food; seeding
    times common practice; survival and areal rate memory.
    """
    q, w = question, Working()
    load = _donor_mg_n_day(q, w)
    grown = w.line(
        "grown", "days / 30, at most 1", f"min({q.age_days:g} / 30, 1)", grown_share(q.age_days), "share", "practice"
    )
    film = w.sum("film", "L × grown × share", {"L": load, "grown": grown, "share": q.share}, "mg N/day", "practice")
    if q.area_m2 is not None:
        film = w.sum(
            "film", "min(film, area × 50)", {"film": film, "area": q.area_m2, "50": AREAL_RATE}, "mg N/day", "memory"
        )
    if q.idle_days:
        film = w.sum(
            "film",
            "film × ½^(idle days / 17)",
            {"film": film, "idle days": q.idle_days, "17": IDLE_HALF_DAYS},
            "mg N/day",
            "memory",
        )
    alive = w.line(
        "alive",
        "½^(minutes / half life)",
        f"½^({q.minutes_out:g} / {HALF_LIFE_MIN[q.travels]:g}), {q.temperature_c:g} °C",
        alive_share(q.minutes_out, q.travels, q.temperature_c),
        "share",
        "memory",
    )
    film = w.sum("film", "film × alive", {"film": film, "alive": alive}, "mg N/day", "arithmetic")
    per_l = (
        w.sum("film / V", "film / litres", {"film": film, "litres": q.net_l}, "mg N/(L day)", "arithmetic")
        if q.net_l
        else None
    )
    return FilmCapacityAnswer(
        verdict=_verdict(q, film, per_l),
        working=w.lines,
        film_mg_n_day=film,
        film_mg_n_l_day=per_l,
        alive_share=alive,
        grown_share=grown,
    )


def film_needed_m2(load_mg_n_day: float, temperature_c: float) -> float:
    """Film area that carries a load at this temperature, m².

    load_mg_n_day: mg N; temperature_c: °C. Source: memory, as above.

    >>> round(film_needed_m2(100.0, 25.0), 3)
    2.0
    """
    return load_mg_n_day / (AREAL_RATE * max(temperature_factor(temperature_c), 0.05))


def carried_times(media_m2: float, tank_m2: float, needed_m2: float) -> float:
    """How many times filter media carry a load; glass and gravel only make up what media lack.

    media_m2: film on filter media; tank_m2: film on glass and gravel; needed_m2: film the load needs, all m². Water is
    driven through media and only passes over gravel, so gravel is a reserve and no surplus. Source: common practice.

    >>> carried_times(1.1, 7.0, 1.0), carried_times(0.6, 7.0, 1.0), round(carried_times(0.2, 0.3, 1.0), 2)
    (1.1, 1.0, 0.5)
    """
    needed = max(needed_m2, 1e-6)
    return max(media_m2 / needed, min((media_m2 + tank_m2) / needed, 1.0))
