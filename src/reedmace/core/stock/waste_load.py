"""Daily ammonia production of a stock, by ration or by the food actually fed."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import (
    PH,
    Answer,
    Celsius,
    Name,
    NetLitres,
    Part,
    Question,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.film import NITROGEN_PER_PROTEIN
from reedmace.core.stock.compatibility import (
    Conflict,
    KeptAnimals,
    Place,
    conflicts_among,
    conflicts_with_tank,
    undersized_groups,
)
from reedmace.core.stock.flow_demand import class_weights, dominant_class
from reedmace.core.stock.species import (
    Sizing,
    Species,
    Water,
    body_mass_g,
    find_species,
    mass_source,
)


class Animals(Part):
    """A number of animals of one species, with their length today if not grown."""

    species_id: Name
    count: Annotated[int, whole(1, 2000)]
    length_cm: Annotated[float, number("cm", 0.5, 200, "Today; left out, grown")] | None = None


class WasteLoadQuestion(Question):
    """A stock list, a feed ration, or both (then the ration decides)."""

    net_l: NetLitres
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    temperature_c: Celsius | None = Field(default=None, description="Of this tank, to hold the animals against")
    ph: PH | None = None
    water: Water = "fresh"
    tank_length_cm: Annotated[float, number("cm", 5, 1000)] | None = None
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Dry food really fed, if known")] | None = None
    feed_protein_percent: Annotated[float, number("%", 1, 90)] = 42


class SpeciesLoad(Part):
    """One line of the stock list."""

    species_id: Name
    common_name: Name
    count: Annotated[int, whole(1, 2000)]
    mass_g: Annotated[float, number("g", 0, 1e8)]
    feed_g_day: Annotated[float, number("g/day", 0, 1e7)]
    ammonia_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "Grown")]
    today_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "At their length today")]
    growing: bool = Field(description="Whether they make clearly less today than grown")


class WasteLoadAnswer(Answer):
    """Daily ammonia as nitrogen, for the whole stock and per litre."""

    mass_g: Annotated[float, number("g", 0, 1e8)]
    feed_g_day: Annotated[float, number("g/day", 0, 1e7)]
    feed_today_g_day: Annotated[float, number("g/day", 0, 1e7, "At their lengths today: what dirties the foam")]
    ammonia_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "Grown: what the filter must carry in the end")]
    today_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "At their lengths today")]
    ammonia_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e9)]
    doubled_mg_n_day: Annotated[
        float, number("mg N/day", 0, 1e9, "With the trade's 'double it' for turtles, goldfish and large cichlids")
    ]
    growing: bool = Field(description="Whether all make clearly less today than grown")
    doubling_differs: bool = Field(description="Whether the doubled figure is clearly another")
    temperature_low_c: Annotated[float, number("°C", 0, 40)] | None
    temperature_high_c: Annotated[float, number("°C", 0, 40)] | None
    lines: list[SpeciesLoad]
    clashes: list[Conflict]
    advice: Annotated[list[str], Field(description="What would suit them better, nothing that bars them")]
    sizing: Sizing


_DOUBLED = {"goldfish", "turtle", "large cichlid"}


def _sum(w: Working, symbol: str, values: list[float], unit: str) -> float:
    with_numbers = " + ".join(f"{v:.4g}" for v in values) or "no animals"
    return w.line(symbol, "sum over the animals", with_numbers, sum(values), unit, "arithmetic")


CLEAR_SHARE = 0.99
"""Share of another figure below which one is shown beside it (a stated judgement)."""


def _clearly_less(one: float, other: float) -> bool:
    return one < CLEAR_SHARE * other


def _species_load(kept: KeptAnimals, w: Working) -> SpeciesLoad:
    """Mass, food and ammonia of one species, grown and at its length today. kept: its animals; w: gets the lines."""
    s, length = kept.species, kept.species.adult_length_cm
    one = body_mass_g(length, s.body_form)
    mass = w.line(
        "m",
        f"count × a L^b ({s.common_name})",
        f"{kept.how_many} × {one:.3g} g at {length:g} cm",
        kept.how_many * one,
        "g",
        mass_source(s.body_form),
    )
    feed = w.sum("F", "m × ration / 100", {"m": mass, "ration": s.ration_percent_day}, "g/day", "ration")
    tan = w.sum(
        "P",
        "F × protein × 0.092 × 1000",
        {"F": feed, "protein": s.protein_percent / 100, "0.092": NITROGEN_PER_PROTEIN},
        "mg N/day",
        "timmons",
    )
    small = min(kept.length_cm or length, length)
    now = tan
    if small < length:
        # Young animals eat by their own mass; the same share of it is a fair first guess (common practice).
        now = w.line(
            "P today",
            "P × (length today / grown)^b",
            f"{tan:.3g} × ({small:g} / {length:g})^b",
            tan * body_mass_g(small, s.body_form) / one,
            "mg N/day",
            mass_source(s.body_form),
        )
    return SpeciesLoad(
        species_id=s.id,
        common_name=s.common_name,
        count=kept.how_many,
        mass_g=mass,
        feed_g_day=feed,
        ammonia_mg_n_day=tan,
        today_mg_n_day=now,
        growing=_clearly_less(now, tan),
    )


def _verdict(q: WasteLoadQuestion, total: float, per_litre: float) -> str:
    """The load in a sentence. total: mg N/day; per_litre: mg N/(L day)."""
    if not q.animals and q.feed_g_day is None:
        return "No animals yet, so no waste. Choose some to see what the filter must carry."
    who = "These animals" if q.feed_g_day is None else "This food"
    return f"{who} would make {total:.0f} mg of ammonia nitrogen a day, {per_litre:.2g} mg in each litre."


def _feed_today_g_day(lines: list[SpeciesLoad]) -> float:
    """Food of animals of today's size, g/day."""
    fed = (line for line in lines if line.ammonia_mg_n_day > 0)
    return sum(line.feed_g_day * line.today_mg_n_day / line.ammonia_mg_n_day for line in fed)


def _from_food(feed_g_day: float, protein_percent: float, w: Working) -> float:
    """Ammonia from the food given, mg N/day. w: gets the line."""
    return w.sum(
        "P",
        "food fed × protein × 0.092 × 1000",
        {"food fed": feed_g_day, "protein": protein_percent / 100, "0.092": NITROGEN_PER_PROTEIN},
        "mg N/day",
        "timmons",
    )


@computation("waste-load", "How much ammonia the animals make in a day")
def waste_load(question: WasteLoadQuestion) -> WasteLoadAnswer:
    """Daily ammonia production of a stock.

    question: water in L, animals, and the food fed in g/day if known.
    Raises CannotAnswer for a species nobody has listed.
    Source: Froese et al. 2014 for mass; ration by common practice; Timmons and Ebeling for ammonia.
    """
    q, w = question, Working()
    kept = [
        KeptAnimals(find_species(a.species_id, f"animals.{i}.species_id", q.own_species), a.count, a.length_cm)
        for i, a in enumerate(q.animals)
    ]
    lines = [_species_load(one, w) for one in kept]
    doubled = sum(
        line.ammonia_mg_n_day * (2 if one.species.group in _DOUBLED else 1)
        for one, line in zip(kept, lines, strict=True)
    )
    mass_total = _sum(w, "m all", [line.mass_g for line in lines], "g")
    feed_total = (
        q.feed_g_day if q.feed_g_day is not None else _sum(w, "F all", [line.feed_g_day for line in lines], "g/day")
    )
    total = sum(line.ammonia_mg_n_day for line in lines)
    today = sum(line.today_mg_n_day for line in lines)
    if q.feed_g_day is not None:
        total = _from_food(q.feed_g_day, q.feed_protein_percent, w)
        doubled, today = max(doubled, total), total
    if total > 1e9:
        raise CannotAnswer("animals", "the stock is heavier than any tank could hold.", "Check counts and lengths.")
    if q.feed_g_day is None:
        total = _sum(w, "P all", [line.ammonia_mg_n_day for line in lines], "mg N/day")
    per_litre = w.sum("p", "P / net litres", {"P": total, "net litres": q.net_l}, "mg N/(L day)", "arithmetic")
    water_here = Place(water=q.water, temperature_c=q.temperature_c, ph=q.ph, length_cm=q.tank_length_cm)
    low = max((k.species.temperature_low_c for k in kept), default=None)
    high = min((k.species.temperature_high_c for k in kept), default=None)
    return WasteLoadAnswer(
        verdict=_verdict(q, total, per_litre),
        working=w.lines,
        mass_g=mass_total,
        feed_g_day=feed_total,
        feed_today_g_day=feed_total if q.feed_g_day is not None else _feed_today_g_day(lines),
        ammonia_mg_n_day=total,
        today_mg_n_day=today,
        ammonia_mg_n_l_day=per_litre,
        doubled_mg_n_day=doubled,
        growing=_clearly_less(today, total),
        doubling_differs=_clearly_less(total, doubled),
        temperature_low_c=low,
        temperature_high_c=high,
        lines=lines,
        clashes=[*conflicts_among(kept), *conflicts_with_tank(kept, water_here)],
        advice=undersized_groups(kept),
        sizing=dominant_class(
            class_weights(
                ((k.species.sizing, line.ammonia_mg_n_day) for k, line in zip(kept, lines, strict=True)), q.net_l
            )
        ),
    )
