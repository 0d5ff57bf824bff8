"""Emergency plan: animals are in a tank whose filter cannot carry them; limits, changes and baking soda for a day."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import acute_criterion_mg_n_l, un_ionised_share
from reedmace.core.chemistry.alkalinity_dose import soda_g
from reedmace.core.chemistry.ammonia import in_criterion_range
from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.chemistry.shock_limits import (
    Water,
)
from reedmace.core.chemistry.tolerance import (
    NITRATE_LIMIT_MG_N_L,
    Tolerance,
    ammonia_limit_mg_n_l,
    nitrite_limit_mg_n_l,
)
from reedmace.core.chemistry.water_change import Pouring
from reedmace.core.contract import (
    Answer,
    Litres,
    Part,
    Share,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.cycle.animals.day_plan import (
    DAY_H,
    DayPlan,
    EmergencyPlanQuestion,
    Limit,
    PlannedChange,
    short_of_oxygen,
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


Warmth = Literal["fine", "cold", "hot"]


Acidity = Literal["fine", "acid", "alkaline", "turning-sour"]


Poison = Literal["ammonia", "nitrite"]


POISONS: tuple[Poison, ...] = ("ammonia", "nitrite")


DRIP_SHARE, DRIP_H = 1 / 3, 6.0
"""Share of the water renewed by drops where no bucket may go in at once, and hours it takes (common practice)."""

StepKind = Literal["aerate", "bind", "change", "drip", "soda", "warm", "cool", "test"]


SHOWN_PH_SHIFT = 0.05
"""A smaller shift of pH is not mentioned: no kit shows it (a stated judgement)."""


class PlanStep(Part):
    """One step of the day, in order, computed after all steps before it."""

    after_hours: Annotated[float, number("h", 0, 24)]
    do: StepKind
    title: str = Field(description="What, with the amount")
    how: str
    litres: Litres = 0
    grams: Annotated[float, number("g", 0, 1e6)] = 0
    raise_dkh: Annotated[float, number("dKH", 0, 40)] = 0
    before_ph: Annotated[float, number("pH", 0, 14)]
    after_ph: Annotated[float, number("pH", 0, 14)]
    ammonia_reach: Annotated[float, number("ratio", 0, 1e5, "Of its limit, right after")]
    ph_words: str = Field(default="", description="What it does to pH, where that shows")


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
        first = _amount(q, changes[0].share)
        rest = " and ".join(f"{_amount(q, c.share)} after {c.after_hours:.0f} h" for c in changes[1:])
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
        steps=_steps(q, day, warmth, acidity, untested),
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


NO_FOOD = "Nothing today; fish live a week without food."
VET = (
    "Animals that gasp, lie on their side, bleed at the gills or stop eating for two days: ask a vet who treats fish,"
    " and take the readings along."
)


def _feeding(q: EmergencyPlanQuestion, share: float) -> str:
    """How to feed. share: of the usual."""
    grams = f" That is {q.feed_g_day * share:.2g} g." if q.feed_g_day else ""
    how_much = "a quarter" if share < 0.5 else "half"
    return f"About {how_much} of the usual, once a day; take out what is left after two minutes.{grams}"


def poisoned(limits: list[Limit]) -> bool:
    """Whether ammonia or nitrite is over its limit. limits: of the water now."""
    return any(one.over and one.what != "nitrate" for one in limits)


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


def _amount(q: EmergencyPlanQuestion, share: float) -> str:
    """Litres where the tank was measured, otherwise the share."""
    return (
        formatting.litres(share * q.net_l, ".0f" if share * q.net_l >= 10 else ".1f")
        if q.litres_known
        else f"{100 * share:.0f} % of the water"
    )


def _left(changes: list[PlannedChange]) -> float:
    left = 1.0
    for change in changes:
        left *= 1 - change.share
    return left


def _soda_words(q: EmergencyPlanQuestion, raise_dkh: float) -> tuple[float, str, str]:
    """(g, title, how) of one portion of baking soda; no grams where the litres are not known."""
    grams = soda_g(raise_dkh, q.net_l) if q.litres_known else 0.0
    title = f"Add {grams:.2g} g of baking soda" if grams else "A little baking soda"
    first = "" if q.litres_known else " Count the tank's litres first: the grams follow from them."
    return grams, title, f"Dissolved in a jug of tank water: KH up by {raise_dkh:.1f} dKH.{first}"


def _steps(
    q: EmergencyPlanQuestion, day: DayPlan, warmth: Warmth, acidity: Acidity, untested: list[Poison]
) -> list[PlanStep]:
    """All steps of the day in order: aeration, binding, changes, baking soda, tests."""
    start = Water(Carbonate.of(q.ph, q.kh_dkh, q.temperature_c, q.salinity_g_kg), q.ammonia_mg_n_l or 0.0)
    before, ph, reach = q.ph, q.ph, start.reach()
    found: list[PlanStep] = []

    def step(
        do: StepKind, at: float, title: str, how: str, litres: float = 0.0, grams: float = 0.0, raise_dkh: float = 0.0
    ) -> None:
        found.append(
            PlanStep(
                after_hours=min(at, DAY_H),
                do=do,
                title=title,
                how=how,
                litres=litres,
                grams=grams,
                raise_dkh=raise_dkh,
                before_ph=before,
                after_ph=ph,
                ammonia_reach=reach,
                ph_words=(f"pH goes from {before:.1f} to {ph:.1f}." if abs(ph - before) > SHOWN_PH_SHIFT else ""),
            )
        )

    over = any(one.over for one in day.limits)
    for do, title, how in _before_changes(q, day, warmth):
        step(do, 0, title, how)
    pouring = Pouring(
        q.temperature_c,
        q.tap.cold_c,
        q.tap.hot_c,
        q.salinity_g_kg,
        q.tap.chlorine,
        measured=q.temperature_known,
    )
    for change, r in zip(day.changes, day.reaches, strict=True):
        before, ph, reach = change.before_ph, change.after_ph, r
        how = formatting.opening(pouring.words(change.litres, known=q.litres_known))
        step("change", change.after_hours, f"Change {_amount(q, change.share)}", how, litres=change.litres)
    if (over and not day.changes) or (acidity != "fine" and not day.changes and not day.soda):
        how = (
            f"{_amount(q, DRIP_SHARE)} of it, treated, over {DRIP_H:g} hours, testing pH as it goes; no bucket at once."
        )
        step("drip", 0, "Let new water drip in", how, litres=DRIP_SHARE * q.net_l)
    for at, raise_dkh, was, water in day.soda:
        before, ph, reach = was.carbonate.ph(), water.carbonate.ph(), water.reach()
        grams, title, how = _soda_words(q, raise_dkh)
        step("soda", at, title, how, grams=grams, raise_dkh=raise_dkh)
    if untested and (poisoned(day.limits) or acidity != "fine"):
        names = " and ".join(untested)
        step("test", 0, f"Test {names} too", "Nobody has read it lately, and what is not known cannot be counted out.")
    if short_of_oxygen(q.oxygen_mg_l, q.breathe_water_share):
        step("test", 1, "Read oxygen again", "And at dawn, when it is lowest; look that the filter runs.")
    if poisoned(day.limits) or acidity != "fine":
        last = max([c.after_hours for c in day.changes] + [at for at, *_ in day.soda], default=0.0)
        before = ph
        step("test", min(last + 1, DAY_H), "Test again", "Ammonia, nitrite and pH.")
    return found


def _before_changes(q: EmergencyPlanQuestion, day: DayPlan, warmth: Warmth) -> Iterator[tuple[StepKind, str, str]]:
    """What is done before water is poured: (kind, title, how)."""
    if q.gasping or warmth == "hot" or short_of_oxygen(q.oxygen_mg_l, q.breathe_water_share):
        yield (
            "aerate",
            "Give them air",
            "An air stone, or the outlet turned to the surface, before anything else.",
        )
    if warmth == "hot":
        yield (
            "cool",
            "Cool the water",
            "Lid off, lights off, a fan over the water; a degree or two in an hour at most, no ice in the tank.",
        )
    if warmth == "cold":
        yield (
            "warm",
            "Warm the water",
            "Heater on, under water; a degree in an hour at most. Look whether it is plugged in.",
        )
    limit, _ = ammonia_limit_mg_n_l(q.ph, q.temperature_c, q.salinity_g_kg)
    if any(one.over and one.what != "nitrate" for one in day.limits) and (
        not day.holds() or q.tap.released_mg_n_l() >= limit
    ):
        yield (
            "bind",
            "Bind the ammonia",
            "Conditioner that binds ammonia, by its label, for the whole tank: it buys a day, and kits may go on"
            " reading the ammonia.",
        )
