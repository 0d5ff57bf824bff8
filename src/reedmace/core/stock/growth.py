"""Growth of animals: until when a filter and a tank are enough."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, NetLitres, Part, Question, Working, computation, number
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import DAYS_PER_YEAR
from reedmace.core.stock.compatibility import SWIM_LENGTHS
from reedmace.core.stock.flow_demand import CROWDED_MG_N_L_DAY
from reedmace.core.stock.species import Species, find_species
from reedmace.core.stock.waste_load import Animals, WasteLoadQuestion, waste_load

GROWTH_PER_YEAR: dict[str, float] = {
    # K of von Bertalanffy, by group (memory: small fish are grown in a year or two, turtles take a decade and more).
    "small shoaling fish": 2.5,
    "nano fish": 3.0,
    "killifish": 3.0,
    "livebearer": 2.2,
    "shrimp": 3.0,
    "gourami": 1.5,
    "barb": 1.4,
    "rainbowfish": 1.2,
    "catfish": 0.9,
    "loach": 0.8,
    "cichlid": 1.1,
    "African cichlid": 0.9,
    "large cichlid": 0.7,
    "large predator": 0.6,
    "goldfish": 0.5,
    "turtle": 0.18,
    "amphibian": 1.3,
}
USUAL_PER_YEAR = 0.9
STEP_DAYS, LONGEST_DAYS = 15.0, 3650.0


class OutgrowQuestion(Question):
    """Animals at their lengths today, the tank, and the capacity of its film."""

    net_l: NetLitres
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    tank_length_cm: Annotated[float, number("cm", 5, 1000)] | None = None
    carries_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "By the filters' film and the tank's own")] | None = (
        None
    )


class GrowthPoint(Part):
    """Waste load on one day."""

    day: Annotated[float, number("days", 0, 40000)]
    load_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9)]


class OutgrowAnswer(Answer):
    """Days until the filter, the water and the length are no longer enough; None where they always are."""

    filter_does_days: Annotated[float, number("days", 0, 40000)] | None
    water_does_days: Annotated[float, number("days", 0, 40000)] | None
    length_does_days: Annotated[float, number("days", 0, 40000)] | None
    course: list[GrowthPoint]


def length_at(species: Species, length_cm: float, days: float) -> float:
    """Length after a number of days, cm.

    species: whose; length_cm: today, cm; days: from today, 0 or more.
    L = L∞ (1 − exp(−K t)), begun where today's length lies on the curve.
    Source: von Bertalanffy; K by group from memory.
    """
    grown = species.adult_length_cm
    if length_cm >= grown:
        return length_cm
    k = GROWTH_PER_YEAR.get(species.group, USUAL_PER_YEAR)
    return grown - (grown - length_cm) * math.exp(-k * days / DAYS_PER_YEAR)


@computation("outgrow", "Until when this filter and this tank do")
def outgrow(question: OutgrowQuestion) -> OutgrowAnswer:
    """Until when film, water and length are enough for growing animals.

    question: lengths in cm, water in L, film in mg N a day.
    Raises CannotAnswer for an unknown species.
    Source: von Bertalanffy, K by group from memory; a tank four body lengths long, and crowded water, from memory.
    """
    q, w = question, Working()
    kept = [(a, find_species(a.species_id, f"animals.{i}.species_id", q.own_species)) for i, a in enumerate(q.animals)]
    days = [STEP_DAYS * i for i in range(int(LONGEST_DAYS / STEP_DAYS) + 1)]
    loads: list[float] = []
    for day in days:
        grown = [
            a.model_copy(update={"length_cm": max(length_at(s, a.length_cm or s.adult_length_cm, day), 0.5)})
            for a, s in kept
        ]
        asked = WasteLoadQuestion(net_l=q.net_l, animals=grown, own_species=q.own_species)
        loads.append(waste_load(asked).today_mg_n_day)
        if all((g.length_cm or 0) >= 0.995 * s.adult_length_cm for g, (_, s) in zip(grown, kept, strict=True)):
            break
    days = days[: len(loads)]
    filter_days = None if q.carries_mg_n_day is None else _first(days, loads, q.carries_mg_n_day)
    water_days = _first(days, loads, CROWDED_MG_N_L_DAY * q.net_l)
    length_days = _too_long(q, kept)
    for symbol, found in (("film", filter_days), ("water", water_days), ("length", length_days)):
        if found is not None:
            w.line(
                f"{symbol} does",
                "L = L∞ (1 − exp(−K t)), mass by its length",
                f"{len(kept)} kinds",
                found,
                "days",
                "bertalanffy",
            )
    return OutgrowAnswer(
        verdict=_words(filter_days, water_days, length_days),
        working=w.lines,
        filter_does_days=filter_days,
        water_does_days=water_days,
        length_does_days=length_days,
        course=[GrowthPoint(day=d, load_mg_n_day=mg) for d, mg in zip(days, loads, strict=True)],
    )


def _first(days: list[float], loads: list[float], most: float) -> float | None:
    return next((d for d, mg in zip(days, loads, strict=True) if mg > most), None)


def _too_long(q: OutgrowQuestion, kept: list[tuple[Animals, Species]]) -> float | None:
    """Day on which the first animal needs a longer tank."""
    if q.tank_length_cm is None:
        return None
    most = q.tank_length_cm / SWIM_LENGTHS
    found = []
    for a, s in kept:
        now = a.length_cm or s.adult_length_cm
        if now > most:
            found.append(0.0)
        elif s.adult_length_cm > most:
            k = GROWTH_PER_YEAR.get(s.group, USUAL_PER_YEAR)
            found.append(-DAYS_PER_YEAR / k * math.log((s.adult_length_cm - most) / (s.adult_length_cm - now)))
    return min(found, default=None)


def _when(days: float) -> str:
    if days < 1:
        return "by now"
    return f"in about {formatting.long_time(days)}"


def _words(filter_days: float | None, water_days: float | None, length_days: float | None) -> str:
    found = [
        (days, words)
        for days, words in (
            (filter_days, "this filter's film no longer carries them"),
            (water_days, "they are too many for this water"),
            (length_days, "the first of them wants a longer tank"),
        )
        if days is not None
    ]
    if not found:
        return "This filter and this tank do for them grown as well."
    days, words = min(found)
    return f"{_when(days).capitalize()} {words}."
