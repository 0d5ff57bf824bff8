"""Steps of an emergency plan, in the order they are taken."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.alkalinity_dose import soda_g
from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.shock_limits import (
    Water,
)
from reedmace.core.chemistry.tolerance import (
    ammonia_limit_mg_n_l,
)
from reedmace.core.chemistry.water_change import Pouring
from reedmace.core.contract import (
    Litres,
    Part,
    number,
)
from reedmace.core.cycle.animals.day_plan import (
    DAY_H,
    DayPlan,
    EmergencyPlanQuestion,
    Limit,
    short_of_oxygen,
)
from reedmace.core.quantity import formatting

Warmth = Literal["fine", "cold", "hot"]


Acidity = Literal["fine", "acid", "alkaline", "turning-sour"]


Poison = Literal["ammonia", "nitrite"]


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


NO_FOOD = "Nothing today; fish live a week without food."


def poisoned(limits: list[Limit]) -> bool:
    """Whether ammonia or nitrite is over its limit. limits: of the water now."""
    return any(one.over and one.what != "nitrate" for one in limits)


def amount(q: EmergencyPlanQuestion, share: float) -> str:
    """A change in litres where the tank was measured, otherwise as a share. q: the emergency; share: of the water."""
    return (
        formatting.litres(share * q.net_l, ".0f" if share * q.net_l >= 10 else ".1f")
        if q.litres_known
        else f"{100 * share:.0f} % of the water"
    )


def _soda_words(q: EmergencyPlanQuestion, raise_dkh: float) -> tuple[float, str, str]:
    """(g, title, how) of one portion of baking soda; no grams where the litres are not known."""
    grams = soda_g(raise_dkh, q.net_l) if q.litres_known else 0.0
    title = f"Add {grams:.2g} g of baking soda" if grams else "A little baking soda"
    first = "" if q.litres_known else " Count the tank's litres first: the grams follow from them."
    return grams, title, f"Dissolved in a jug of tank water: KH up by {raise_dkh:.1f} dKH.{first}"


def steps(
    q: EmergencyPlanQuestion, day: DayPlan, warmth: Warmth, acidity: Acidity, untested: list[Poison]
) -> list[PlanStep]:
    """All steps of the day in order: aeration, binding, changes, baking soda, tests.

    q: the emergency; day: its plan; warmth, acidity: how they stand; untested: poisons nobody read lately.
    """
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
    pouring = _pouring(q)
    for change, r in zip(day.changes, day.reaches, strict=True):
        before, ph, reach = change.before_ph, change.after_ph, r
        how = formatting.opening(pouring.words(change.litres, known=q.litres_known))
        step("change", change.after_hours, f"Change {amount(q, change.share)}", how, litres=change.litres)
    if (over and not day.changes) or (acidity != "fine" and not day.changes and not day.soda):
        how = (
            f"{amount(q, DRIP_SHARE)} of it, treated, over {DRIP_H:g} hours, testing pH as it goes; no bucket at once."
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


def _pouring(q: EmergencyPlanQuestion) -> Pouring:
    """How new water is poured here."""
    return Pouring(
        q.temperature_c,
        q.tap.cold_c,
        q.tap.hot_c,
        q.salinity_g_kg,
        q.tap.chlorine,
        measured=q.temperature_known,
    )


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
