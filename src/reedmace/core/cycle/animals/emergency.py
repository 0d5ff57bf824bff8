"""Emergency plan: animals are in a tank whose filter cannot carry them; limits, changes and baking soda for a day."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import acute_criterion_mg_n_l, un_ionised_share
from reedmace.core.chemistry.ammonia import in_criterion_range
from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.chemistry.tolerance import (
    NITRATE_LIMIT_MG_N_L,
    Tolerance,
    ammonia_limit_mg_n_l,
    nitrite_limit_mg_n_l,
)
from reedmace.core.contract import (
    Answer,
    Share,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.cycle.animals.day_plan import (
    DayPlan,
    EmergencyPlanQuestion,
    Limit,
    PlannedChange,
    short_of_oxygen,
)
from reedmace.core.cycle.animals.emergency_steps import (
    NO_FOOD,
    Acidity,
    PlanStep,
    Poison,
    Warmth,
    amount,
    poisoned,
    steps,
)
from reedmace.core.cycle.animals.emergency_words import cautions, help_words
from reedmace.core.flow.oxygen_balance import SHORT_MG_L
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import ppm_words

FALLS_SHORT = (
    " Even so it will not stay under the limit until tomorrow: feed nothing today, and get seeded media or another"
    " home."
)
FALLS_SHORT_SETTLED = (
    " Unless the filter carries them again it will not stay under the limit until tomorrow: feed nothing today, and"
    " find what stopped its film."
)


POISONS: tuple[Poison, ...] = ("ammonia", "nitrite")


class EmergencyPlanAnswer(Answer):
    """Limits, the day's steps, feeding, tests, and when to call a vet. `stands` is the verdict without the changes."""

    stands: str
    in_danger: bool = Field(
        description="A poison over its limit, too little oxygen, or heat, cold, acid or lye past what they bear"
    )
    warmth: Warmth
    acidity: Acidity
    oxygen_short: bool
    untested: list[Poison] = Field(description="Poisons nobody knows of")
    limits: list[Limit]
    steps: list[PlanStep]
    changes: list[PlannedChange]
    change_share_day: Share
    holds_until_tomorrow: bool
    feed_share: Annotated[float, number("share", 0, 1, "Of the usual food")]
    feeding: str
    tests_per_day: Annotated[int, whole(1, 4)]
    cautions: list[str] = Field(description="The worst first")
    help: list[str] = Field(description="What shortens it, the best first")
    vet: str


@computation("emergency-plan", "What to do when animals are in already")
def emergency_plan(question: EmergencyPlanQuestion) -> EmergencyPlanAnswer:
    """Today's water changes and baking soda in one order, hour by hour, sized for every poison until tomorrow.

    question: L, mg N/L, pH, dKH, °C, g/kg, g/day. No step lifts ammonia over its limit at the pH it brings, nor pH by
    more than 0.5 in an hour, on the way or in the hours after. Source: Emerson et al. 1975; US EPA 2013; carbonate
    equilibrium; dilution; nitrite, feeding and sizes common practice.
    """
    q, w = question, Working()
    limits = _limits(q, w)
    over = [one for one in limits if one.over]
    # Nitrate harms over weeks: it asks for a change, not for an alarm.
    harmed = poisoned(limits)
    feed_share = 0.25 if harmed else 0.5
    made = w.sum(
        "P", "load × food given", {"load": q.load_mg_n_l_day, "food given": feed_share}, "mg N/(L day)", "timmons"
    )
    bearing = Tolerance(q.animals_low_c, q.animals_high_c, q.animals_ph_low, q.animals_ph_high)
    warmth: Warmth = (
        "cold" if bearing.too_cold(q.temperature_c) else "hot" if bearing.too_hot(q.temperature_c) else "fine"
    )
    acidity = _acidity(q, bearing)
    untested = [one for one in POISONS if getattr(q, f"{one}_mg_n_l") is None]
    day = DayPlan(q, made, limits)
    day.plan(w)
    changes = day.changes
    whole_share = w.line(
        "x day", "1 − Π(1 − x)", f"{len(changes)} changes", 1 - _left(changes), "share", "arithmetic"
    )  # fmt: skip
    holds = day.holds()
    oxygen_short = short_of_oxygen(q.oxygen_mg_l, q.breathe_water_share)
    stands = _stands(q, over, warmth, acidity)
    no_food = oxygen_short or (harmed and not holds)
    verdict, short = stands, "" if holds or not harmed else FALLS_SHORT_SETTLED if q.settled else FALLS_SHORT
    if changes:
        first = amount(q, changes[0].share)
        rest = " and ".join(f"{amount(q, c.share)} after {c.after_hours:.0f} h" for c in changes[1:])
        verdict += f" Change {first} now{f' and {rest}' if rest else ''}."
    return EmergencyPlanAnswer(
        verdict=verdict + short,
        stands=stands + short,
        in_danger=harmed or warmth != "fine" or acidity != "fine" or oxygen_short,
        warmth=warmth,
        acidity=acidity,
        oxygen_short=oxygen_short,
        untested=untested,
        working=w.lines,
        limits=limits,
        steps=steps(q, day, warmth, acidity, untested),
        changes=changes,
        change_share_day=min(whole_share, 1.0),
        holds_until_tomorrow=holds,
        feed_share=0.0 if no_food else feed_share,
        feeding=NO_FOOD if no_food else _feeding(q, feed_share),
        tests_per_day=2 if harmed or acidity != "fine" else 1,
        cautions=cautions(q, day, over),
        help=help_words(q),
        vet=VET,
    )


VET = (
    "Animals that gasp, lie on their side, bleed at the gills or stop eating for two days: ask a vet who treats fish,"
    " and take the readings along."
)


def _feeding(q: EmergencyPlanQuestion, share: float) -> str:
    """How to feed. share: of the usual."""
    grams = f" That is {q.feed_g_day * share:.2g} g." if q.feed_g_day else ""
    how_much = "a quarter" if share < 0.5 else "half"
    return f"About {how_much} of the usual, once a day; take out what is left after two minutes.{grams}"


def _acidity(q: EmergencyPlanQuestion, bearing: Tolerance) -> Acidity:
    if bearing.too_acid(q.ph):
        return "acid"
    if bearing.too_alkaline(q.ph):
        return "alkaline"
    return "turning-sour" if bearing.turns_sour(q.ph, q.before_ph or q.ph, q.kh_dkh) else "fine"


def _limits(q: EmergencyPlanQuestion, w: Working) -> list[Limit]:
    w.line(
        "f", "1 / (1 + 10^(pKa − pH))", f"pH {q.ph:g}, {q.temperature_c:g} °C",
        un_ionised_share(q.ph, q.temperature_c, q.salinity_g_kg), "share", "emerson1975",
    )  # fmt: skip
    limit, rule = ammonia_limit_mg_n_l(q.ph, q.temperature_c, q.salinity_g_kg)
    w.line(
        "limit", "min(0.02 / f, 30-day criterion)", rule, limit, "mg N/L", "epa2013" if "EPA" in rule else "practice"
    )
    nitrite = w.line(
        "nitrite limit", "0.5 ppm fresh, 5 ppm salt", "as N", nitrite_limit_mg_n_l(q.salinity_g_kg), "mg N/L", "nitrite"
    )
    if q.oxygen_mg_l is not None:
        w.line("least oxygen", "the one-day minimum", "fish of warm water", SHORT_MG_L, "mg/L", "epa1986")
    rows: list[tuple[Literal["ammonia", "nitrite", "nitrate"], float | None, float, str]] = [
        ("ammonia", q.ammonia_mg_n_l, limit, rule),
        ("nitrite", q.nitrite_mg_n_l, nitrite, "common practice"),
        ("nitrate", q.nitrate_mg_n_l, NITRATE_LIMIT_MG_N_L, "common practice"),
    ]
    return [
        Limit(what=what, now_mg_n_l=now, limit_mg_n_l=most, rule=why, over=now > most)
        for what, now, most, why in rows
        if now is not None
    ]


def _stands(q: EmergencyPlanQuestion, over: list[Limit], warmth: Warmth, acidity: Acidity) -> str:
    acute = acute_criterion_mg_n_l(*in_criterion_range(q.ph, q.temperature_c))
    said = []
    if short_of_oxygen(q.oxygen_mg_l, q.breathe_water_share):
        said.append(f"Oxygen is down to {q.oxygen_mg_l:.1f} mg/L: most fish need {SHORT_MG_L:g} at the least.")
    if (q.ammonia_mg_n_l or 0.0) > acute and is_fresh(q.salinity_g_kg):
        said.append(f"Act now: ammonia is above the one-hour criterion of {ppm_words(acute, 'ammonia', q.basis)}.")
    elif [one.what for one in over] == ["nitrate"]:
        now, most = (ppm_words(mg, "nitrate", q.basis) for mg in (over[0].now_mg_n_l, over[0].limit_mg_n_l))
        said.append(f"Nitrate has piled up: {now} where {most} is the usual most.")
    elif over:
        names = " and ".join(o.what for o in over).capitalize()
        said.append(f"{names} {'are' if len(over) > 1 else 'is'} above what animals bear from day to day.")
    if warmth == "cold":
        least = "it is too cold for any fish" if q.animals_low_c is None else "it is too cold for them"
        wants = "" if q.animals_low_c is None else f": they want {formatting.celsius(q.animals_low_c)} at least"
        said.append(f"At {formatting.celsius(q.temperature_c)} {least}{wants}.")
    if warmth == "hot":
        most = "it is too hot for any fish" if q.animals_high_c is None else "it is too hot for them"
        bears = "" if q.animals_high_c is None else f": they bear {formatting.celsius(q.animals_high_c)} at most"
        said.append(f"At {formatting.celsius(q.temperature_c)} {most}{bears}.")
    if acidity == "turning-sour":
        said.append(
            f"KH is used up and pH has fallen from {q.before_ph or q.ph:.1f} to {q.ph:.1f}: the water is turning sour."
        )
    elif acidity != "fine":
        said.append(f"pH {q.ph:.1f} is {'lower' if acidity == 'acid' else 'higher'} than they bear.")
    return " ".join(said) or "Within the limits today; keep it there."


def _left(changes: list[PlannedChange]) -> float:
    left = 1.0
    for change in changes:
        left *= 1 - change.share
    return left
