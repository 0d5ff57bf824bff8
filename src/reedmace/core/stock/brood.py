"""A brood: how long its fry are, what they eat and make, and until when their tank does."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Celsius, Name, NetLitres, Part, Question, Working, computation, number, whole
from reedmace.core.film import NITROGEN_PER_PROTEIN
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import DAYS_PER_YEAR
from reedmace.core.stock.compatibility import SWIM_LENGTHS
from reedmace.core.stock.flow_demand import CROWDED_MG_N_L_DAY
from reedmace.core.stock.growth import GROWTH_PER_YEAR, USUAL_PER_YEAR, length_at
from reedmace.core.stock.species import Species, body_mass_g, find_species, mass_source

EARLY_LIFE: dict[str, tuple[float, float, float]] = {
    # By group: days to hatch, days from hatching to swimming freely, length then in cm; at 25 °C (memory).
    "livebearer": (0, 0, 0.7),
    "shrimp": (28, 0, 0.2),
    "small shoaling fish": (1.5, 4, 0.4),
    "nano fish": (2, 4, 0.35),
    "barb": (1.5, 4, 0.45),
    "gourami": (1.5, 2.5, 0.35),
    "killifish": (14, 0.5, 0.5),
    "rainbowfish": (8, 1, 0.45),
    "catfish": (4, 3, 0.6),
    "goldfish": (5, 2, 0.5),
    "cichlid": (3, 5, 0.55),
    "African cichlid": (5, 16, 0.9),
    "large cichlid": (3, 5, 0.6),
    "amphibian": (17, 2, 1.1),
}
USUAL_EARLY_LIFE = (3.0, 4.0, 0.45)
WARMTH = 1.08
"""Factor by which a degree shortens the days to hatch and to swim (memory)."""
RATION_POWER = -0.2
"""Food as a share of body mass goes with mass to this power: food itself with mass to 0.8 (memory)."""
MOST_RATION_PERCENT = 15.0
"""Largest ration, % of body mass a day (memory)."""
SALE_SHARE, LEAST_SALE_CM, MOST_SALE_SHARE = 0.5, 1.5, 0.9
"""Part of the grown length at which young go to other tanks, the least, and the most for the smallest (common
practice)."""
USUAL_COUNT = 50
"""Fry of a brood nobody has counted (memory)."""
COUNT_AFTER_DAYS = 14.0
"""Days after which young that swim freely are first counted (common practice)."""
STEP_DAYS, LONGEST_DAYS = 7.0, 1100.0

FOODS: tuple[tuple[float, str, int], ...] = (
    # Up to which length in cm, what, and how often a day (common practice).
    (0.45, "infusoria or the finest powder", 5),
    (0.8, "freshly hatched brine shrimp or fine powder", 4),
    (1.5, "brine shrimp, microworms, crushed flake", 4),
    (2.5, "crushed flake and fine granules", 3),
    (math.inf, "what the grown eat, in small pieces", 2),
)

Count = Annotated[int, whole(0, 20000)]


class BroodQuestion(Question):
    """A brood, its tank, and what else lives there."""

    species_id: Name
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    count: Annotated[Count | None, Field(description="None where nobody has counted them")] = None
    age_days: Annotated[float, number("days", -400, 4000, "Since they swim freely; before that, negative")]
    length_cm: Annotated[float, number("cm", 0.1, 200, "Measured today; left out, by age")] | None = None
    net_l: NetLitres
    temperature_c: Celsius = 25
    tank_length_cm: Annotated[float, number("cm", 5, 1000)] | None = None
    carries_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "By the filters' film and the tank's own")] | None = (
        None
    )
    others_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "Of the other animals in the tank")] = 0


class BroodPoint(Part):
    """The brood on one day from now."""

    day: Annotated[float, number("days", 0, 4000)]
    length_cm: Annotated[float, number("cm", 0, 200)]
    load_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9)]


class BroodAnswer(Answer):
    """Length, food and waste of the brood today, and the days ahead."""

    count: Count
    assumed: bool = Field(description="Whether the count is a usual one, for nobody has counted")
    length_cm: Annotated[float, number("cm", 0, 200)]
    mass_g: Annotated[float, number("g", 0, 1e8, "Of all together")]
    load_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9)]
    food: str | None = Field(description="None before they swim freely")
    meals_count: Annotated[int, whole(0, 10, "Meals a day")]
    food_g_day: Annotated[float, number("g/day", 0, 1e6, "As dry food")]
    swims_in_days: Annotated[float, number("days", 0, 400)] | None = Field(description="None once they swim freely")
    sale_cm: Annotated[float, number("cm", 0, 200, "At which they go to other tanks")]
    sale_in_days: Annotated[float, number("days", 0, 4000)]
    too_small_in_days: Annotated[float, number("days", 0, 4000)] | None
    too_small_for: str | None = Field(description="What is too small then")
    raises_count: Annotated[int, whole(0, 20000, "That this tank brings to that length")]
    course: list[BroodPoint]


def early_days(species: Species, temperature_c: float) -> tuple[float, float]:
    """(days to hatch, days from hatching to swimming freely). species: whose; temperature_c: °C. Source: memory."""
    hatch, swim, _ = EARLY_LIFE.get(species.group, USUAL_EARLY_LIFE)
    factor = WARMTH ** (25 - temperature_c)
    return hatch * factor, swim * factor


def fry_length_cm(species: Species, age_days: float) -> float:
    """Length of fry, cm. species: whose; age_days: since they swim freely, 0 or more.

    Source: von Bertalanffy, K by group and the length at first from memory.
    """
    first = min(EARLY_LIFE.get(species.group, USUAL_EARLY_LIFE)[2], species.adult_length_cm)
    return length_at(species, first, max(age_days, 0.0))


def ration_percent(species: Species, length_cm: float) -> float:
    """Food a day as a share of body mass, %. species: whose; length_cm: of one, cm. Source: memory."""
    share = body_mass_g(length_cm, species.body_form) / body_mass_g(species.adult_length_cm, species.body_form)
    least = species.ration_percent_day
    return float(min(max(least * share**RATION_POWER, least), max(MOST_RATION_PERCENT, least)))


def fry_load_mg_n_day(species: Species, length_cm: float) -> float:
    """Ammonia one of the fry makes, mg N a day. species: whose; length_cm: of one, cm.

    Source: Timmons and Ebeling for ammonia from food; mass by Froese et al. 2014; ration from memory.
    """
    food_g = body_mass_g(length_cm, species.body_form) * ration_percent(species, length_cm) / 100
    return food_g * species.protein_percent / 100 * NITROGEN_PER_PROTEIN * 1000


def too_small_before_sale(answer: BroodAnswer) -> float | None:
    """Days until the tank is too small for so many; None where they leave before. answer: of the brood."""
    days = answer.too_small_in_days
    return days if days is not None and days < answer.sale_in_days else None


@computation("brood", "How long the fry are, what they eat and make, and until when their tank does")
def brood(question: BroodQuestion) -> BroodAnswer:
    """Growth, food and waste of a brood.

    question: their number and age in days since they swim freely, the tank's litres, other animals' mg N a day.
    Raises CannotAnswer for an unknown species.
    Source: von Bertalanffy with K from memory, mass by Froese et al. 2014, food by common practice, ammonia by Timmons
    and Ebeling.
    """
    q, w = question, Working()
    species = find_species(q.species_id, "species_id", q.own_species)
    count = USUAL_COUNT if q.count is None else q.count
    swims_in = -q.age_days if q.age_days < 0 else None
    eats = swims_in is None
    length, mass, feed, load = _today(q, species, count, w)
    course = _course(species, length, count, swims_in or 0.0)
    small = _too_small(q, species, course)
    grown = species.adult_length_cm
    sale = min(max(SALE_SHARE * grown, LEAST_SALE_CM), MOST_SALE_SHARE * grown)
    sale_days = _days_to(species, length, sale) + (swims_in or 0.0)
    _, food, meals = next(row for row in FOODS if length <= row[0])
    answer = BroodAnswer(
        verdict="",
        working=w.lines,
        count=count,
        assumed=q.count is None,
        length_cm=length,
        mass_g=mass,
        load_mg_n_day=load,
        food=food if eats else None,
        meals_count=meals if eats else 0,
        food_g_day=feed,
        swims_in_days=swims_in,
        sale_cm=sale,
        sale_in_days=min(sale_days, 4000),
        too_small_in_days=small[0] if small else None,
        too_small_for=small[1] if small else None,
        raises_count=_raises(q, species, sale),
        course=course,
    )
    return answer.model_copy(update={"verdict": _verdict(answer)})


def _today(q: BroodQuestion, species: Species, count: int, w: Working) -> tuple[float, float, float, float]:
    """Length in cm, mass in g, food in g a day and ammonia in mg N a day of the brood. w: gets the lines."""
    eats = q.age_days >= 0
    length = w.line(
        "L",
        "L∞ − (L∞ − L0) exp(−K t)",
        f"{species.adult_length_cm:g} cm grown, {max(q.age_days, 0):.0f} days old",
        q.length_cm or fry_length_cm(species, q.age_days),
        "cm",
        "bertalanffy",
    )
    mass = w.line(
        "m",
        "count × a L^b",
        f"{count} fry",
        count * body_mass_g(length, species.body_form),
        "g",
        mass_source(species.body_form),
    )
    feed = mass * ration_percent(species, length) / 100 if eats else 0.0
    share = f"{ration_percent(species, length):.3g} % of the mass a day" if eats else "no food before they swim"
    w.line("F", "m × ration / 100", share, feed, "g/day", "memory")
    load = w.sum(
        "P",
        "F × protein × 0.092 × 1000",
        {"F": feed, "protein": species.protein_percent / 100, "0.092": NITROGEN_PER_PROTEIN},
        "mg N/day",
        "timmons",
    )
    return length, mass, feed, load


def _course(species: Species, length_cm: float, count: int, waits_days: float) -> list[BroodPoint]:
    """Week by week until they are nearly grown. length_cm: now; waits_days: until they swim freely."""
    found = []
    for n in range(int(LONGEST_DAYS / STEP_DAYS) + 1):
        age = STEP_DAYS * n - waits_days
        length = length_at(species, length_cm, max(age, 0.0))
        made = count * fry_load_mg_n_day(species, length) if age >= 0 else 0.0
        found.append(BroodPoint(day=STEP_DAYS * n, length_cm=length, load_mg_n_day=made))
        if length >= 0.95 * species.adult_length_cm:
            break
    return found


def _too_small(q: BroodQuestion, species: Species, course: list[BroodPoint]) -> tuple[float, str] | None:
    """The first day on which the tank no longer does, and what is too small then."""
    film = math.inf if q.carries_mg_n_day is None else q.carries_mg_n_day
    found = []
    for most, words in ((film, "the filters' film"), (CROWDED_MG_N_L_DAY * q.net_l, "the water")):
        day = next((p.day for p in course if p.load_mg_n_day + q.others_mg_n_day > most), None)
        # What the others alone exceed is not the brood's doing.
        if day is not None and q.others_mg_n_day <= most:
            found.append((day, words))
    if q.tank_length_cm is not None and species.adult_length_cm * SWIM_LENGTHS > q.tank_length_cm:
        day = next((p.day for p in course if p.length_cm * SWIM_LENGTHS > q.tank_length_cm), None)
        if day is not None:
            found.append((day, "the tank's length"))
    return min(found, default=None)


def _days_to(species: Species, length_cm: float, wanted_cm: float) -> float:
    """Days until one is as long as that; 0 where it is."""
    if length_cm >= wanted_cm:
        return 0.0
    adult = species.adult_length_cm
    k = GROWTH_PER_YEAR.get(species.group, USUAL_PER_YEAR)
    return DAYS_PER_YEAR / k * math.log((adult - length_cm) / (adult - wanted_cm))


def _raises(q: BroodQuestion, species: Species, sale_cm: float) -> int:
    """How many the tank brings to the length at which they leave, beside those who live there."""
    most = min(CROWDED_MG_N_L_DAY * q.net_l, math.inf if q.carries_mg_n_day is None else q.carries_mg_n_day)
    each = fry_load_mg_n_day(species, sale_cm)
    return min(max(math.floor((most - q.others_mg_n_day) / each), 0), 20000) if each > 0 else 20000


def _verdict(a: BroodAnswer) -> str:
    if a.count == 0:
        return "No young are left."
    if a.swims_in_days is not None:
        when = "any day now" if a.swims_in_days < 1 else f"in about {in_words(a.swims_in_days)}"
        return f"Free-swimming {when}: no food before. {_ahead(a)}"
    many = f"About {a.count} (not counted)" if a.assumed else f"{a.count}"
    length = formatting.cm(a.length_cm, ".1f")
    return f"{many} young, about {length}: {a.food}, {times_in_words(a.meals_count)} a day. {_ahead(a)}"


def _ahead(a: BroodAnswer) -> str:
    sale = formatting.cm(a.sale_cm, ".1f")
    if a.too_small_in_days is None:
        return f"This tank does until they leave at {sale}."
    if a.too_small_in_days < 1:
        what = formatting.opening(a.too_small_for or "")
        return f"{what} is too small for so many by now: it raises {a.raises_count} to {sale}."
    when = in_words(a.too_small_in_days)
    return (
        f"In about {when} {a.too_small_for} is too small for so many: it raises {a.raises_count} to {sale}."
        if a.too_small_in_days < a.sale_in_days
        else f"This tank does until they leave at {sale}, in about {in_words(max(a.sale_in_days, 1))}."
    )


def times_in_words(count: int) -> str:
    """Once, twice, 3 times. count: 1 or more."""
    return {1: "once", 2: "twice"}.get(count, f"{count} times")


def in_words(days: float) -> str:
    """A time ahead in days, weeks or months. days: 0.5 or more."""
    whole_days = round(days)
    if whole_days <= 13:
        return "a day" if whole_days == 1 else f"{whole_days} days"
    return f"{round(days / 7)} weeks" if days < 90 else formatting.long_time(days)
