"""Check of a cycle plan before anything is dosed: conditions, temperature steps, alkalinity."""

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from reedmace.core.chemistry import AlkalinityDoseQuestion, AmmoniaProduct, alkalinity_dose
from reedmace.core.chemistry.ammonia_dose import PowderProduct
from reedmace.core.contract import PH, Answer, Celsius, NetLitres, Part, Question, Share, Working, computation, number
from reedmace.core.cycle.judgement.conditions import ConditionCheck, judge
from reedmace.core.cycle.model.draw_weights import percentiles
from reedmace.core.cycle.model.ensemble import USUAL_DRAWS, Ensemble, Future, condition, fewer_draws, project
from reedmace.core.cycle.model.inputs import Scenario
from reedmace.core.cycle.record.log import (
    BottleWindow,
    CycleLog,
    Helper,
    LoggedReading,
    Method,
    Plants,
    TapWater,
)
from reedmace.core.film import FOOD_MG_N_PER_G, SeedDonor
from reedmace.core.quantity import CACO3_PER_DKH

WARM_EMPTY_C, WARMING_C_DAY, COOLING_C_DAY = 28.0, 2.0, 1.5
"""27 to 29 °C while empty, a couple of degrees a day (common practice)."""
ALONE_DRAWS = 250
"""Draws of the course in which nothing is added to the water."""


class CyclePlanQuestion(Question):
    """A cycle before it starts: method, water, tap, ammonia source, temperature."""

    net_l: NetLitres
    method: Method = "measured-ammonia"
    helpers: Annotated[list[Helper], Field(max_length=3)] = Field(default_factory=list)
    temperature_c: Celsius = 26
    ph: PH = 7.4
    kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    phosphate_ppm: Annotated[float, number("ppm", 0, 100, "As PO4")] | None = None
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    tap: TapWater = Field(default_factory=TapWater)
    bottle: BottleWindow = Field(default_factory=BottleWindow)
    plants: Plants = "none"
    planned_load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)] = 0.3
    target_ppm: Annotated[float, number("ppm", 0.1, 8, "Of the first dose, as the ion")] = 2
    animals_low_c: Annotated[float, number("°C", 0, 40)] | None = None
    animals_high_c: Annotated[float, number("°C", 0, 40)] | None = None
    product: AmmoniaProduct = Field(default_factory=lambda: PowderProduct(form="ammonium-chloride"))
    ammonia_source: Literal["aquarium-grade", "plain", "household-cleaner", "unknown"] = "aquarium-grade"
    seed_share: Share = 1
    rock_kg: Annotated[float, number("kg", 0.01, 2000, "Mature rock put in, weighed wet")] | None = None
    donor: SeedDonor | None = None
    hold_kh_dkh: Annotated[float, number("dKH", 0, 20)] = 4


class HeatStep(Part):
    """The thermostat setting of one day."""

    when: str
    to_c: Celsius
    days: Annotated[float, number("days", 0, 60, "How long to take over it")]


class CyclePlanAnswer(Answer):
    """Conditions with verdicts, the temperature steps, and the alkalinity the plan will use."""

    conditions: list[ConditionCheck]
    heat: list[HeatStep]
    nitrogen_mg_n_l: Annotated[float, number("mg N/L", 0, 1e4, "Nitrified until it passes, in the median course")]
    kh_eaten_dkh: Annotated[float, number("dKH", 0, 1e4)]
    kh_short_dkh: Annotated[float, number("dKH", 0, 1e4, "More than the water has above what is to be held")]
    bicarbonate_g: Annotated[float, number("g", 0, 1e7, "Over the whole cycle, to hold it")]
    kh_gone_day: Annotated[float, number("days", 0, 400, "Left alone")] | None
    pass_day_p10: Annotated[float, number("days", 0, 400)] | None
    pass_day_p50: Annotated[float, number("days", 0, 400)] | None
    pass_day_p90: Annotated[float, number("days", 0, 400)] | None


def _log_of(q: CyclePlanQuestion) -> CycleLog:
    """The log of a cycle on its first day by this plan."""
    fed = min(max(q.planned_load_mg_n_l_day * q.net_l / FOOD_MG_N_PER_G, 0.05), 100)
    return CycleLog(
        net_l=q.net_l,
        day_now=0,
        method=q.method,
        helpers=q.helpers,
        temperature_c=q.temperature_c,
        salinity_g_kg=q.salinity_g_kg,
        start_kh_dkh=q.kh_dkh,
        start_ph=q.ph,
        tap=q.tap,
        plants=q.plants,
        bottle=q.bottle,
        seed_share=q.seed_share,
        rock_kg=q.rock_kg,
        donor=q.donor,
        planned_load_mg_n_l_day=q.planned_load_mg_n_l_day,
        animals_in_mg_n_l_day=q.planned_load_mg_n_l_day if q.method == "animals-in" else 0,
        food_g_day=fed if q.method == "fish-food" else 0,
        plan_target_ppm=q.target_ppm,
        product=q.product,
        readings=[] if q.phosphate_ppm is None else [LoggedReading(day=0, phosphate_ppm=q.phosphate_ppm)],
    )


def _kh_gone_day(alone: Future, ensemble: Ensemble) -> float:
    """Median day on which KH is used up if nothing is added; infinite where it lasts."""
    left = alone.daily[:, :, 3]
    gone = np.argmax(left < CACO3_PER_DKH, axis=1).astype(float)
    gone[(left >= CACO3_PER_DKH).all(axis=1)] = np.inf
    # A draw that passes before the KH is used up was not stopped by it.
    gone[gone >= np.where(np.isfinite(alone.late), alone.late, np.inf)] = np.inf
    return percentiles(gone, ensemble.weights)[1]


def _nitrogen(log: CycleLog, held: Future, ensemble: Ensemble, w: Working) -> float:
    """Nitrogen nitrified until the median course passes, mg N/L."""
    last = np.minimum(np.where(np.isfinite(held.late), held.late, 149), 149).astype(int)
    made = held.daily[np.arange(len(last)), last, 2] - log.tap.nitrate_mg_n_l
    median = max(percentiles(made, ensemble.weights)[1], 0.0)
    return w.line("N", "nitrate made until it passes", "median course", median, "mg N/L", "cycleprior")


def _short_of_kh(q: CyclePlanQuestion, eaten: float, w: Working) -> float:
    """KH to be added in all, dKH: what is eaten beyond the spare, and the lift to what is held."""
    spare = q.kh_dkh - min(q.hold_kh_dkh, q.kh_dkh)
    lift = max(q.hold_kh_dkh - q.kh_dkh, 0.0)
    return w.sum(
        "short", "max(ΔKH − spare, 0) + lift", {"ΔKH": eaten, "spare": spare, "lift": lift}, "dKH", "arithmetic"
    )


def _verdict(firsts: list[ConditionCheck], gone_day: float, days: tuple[float, float, float], soda: float) -> str:
    """The plan in a sentence. gone_day: KH used up; days: P10, P50 and P90 of the pass day; soda: g at hand."""
    p10, p50, p90 = days
    if firsts:
        return f"Put right first: {firsts[0].text}"
    if np.isfinite(gone_day):
        return (
            f"It can start, but this water runs out of alkalinity about day {gone_day:.0f}: have {soda:.0f} g of"
            " bicarbonate ready."
        )
    if not np.isfinite(p50):
        return "As it stands no date can be given: look at the conditions below."
    if np.isfinite(p90):
        return f"It can start: likely ready between day {p10:.0f} and {p90:.0f}."
    return f"It can start: likely ready about day {p50:.0f}."


def _day(value: float) -> float | None:
    return value if np.isfinite(value) else None


@computation("cycle-plan", "The plan judged: conditions, heat, alkalinity")
def cycle_plan(question: CyclePlanQuestion) -> CyclePlanAnswer:
    """Check of a cycle plan before anything is dosed.

    question: L, °C, pH, dKH, ppm, g/kg, mg N/(L day).
    Source: windows are common practice; alkalinity from US EPA 1993; days and nitrogen from the cycle model.
    """
    q, w, log = question, Working(), _log_of(question)
    ensemble = condition(log, USUAL_DRAWS)
    held = project(log, ensemble, 150, Scenario(hold_kh_dkh=q.hold_kh_dkh))
    # The day KH is gone is told as a median only, which fewer draws tell as well.
    some = fewer_draws(ensemble, ALONE_DRAWS)
    alone = project(log, some, 150, Scenario(hold_kh_dkh=0, until_kh_gone=True))
    days = percentiles(held.late, ensemble.weights)
    nitrified = _nitrogen(log, held, ensemble, w)
    eaten = w.sum(
        "ΔKH",
        "KH eaten by each mg N × N / 17.85",
        {"KH eaten by each mg N": log.alkalinity_eaten_per_n(), "N": nitrified, "17.85": CACO3_PER_DKH},
        "dKH",
        "epa1993",
    )
    short = _short_of_kh(q, eaten, w)
    dose = alkalinity_dose(
        AlkalinityDoseQuestion(net_l=q.net_l, current_dkh=0, target_dkh=min(short, 40), planned_mg_n_l=0)
    )
    w.lines.extend(dose.working[-2:])
    gone_day = _kh_gone_day(alone, some)
    conditions = judge(q, log)
    firsts = [c for c in conditions if c.level == "first"]
    return CyclePlanAnswer(
        verdict=_verdict(firsts, gone_day, days, dose.sodium_bicarbonate_g),
        working=w.lines,
        conditions=conditions,
        heat=_heat(q),
        nitrogen_mg_n_l=nitrified,
        kh_eaten_dkh=eaten,
        kh_short_dkh=short,
        bicarbonate_g=dose.sodium_bicarbonate_g,
        kh_gone_day=_day(gone_day),
        pass_day_p10=_day(days[0]) if np.isfinite(days[1]) else None,
        pass_day_p50=_day(days[1]),
        pass_day_p90=_day(days[2]),
    )


def _heat(q: CyclePlanQuestion) -> list[HeatStep]:
    if q.method == "animals-in":
        return []
    found = []
    top = max(q.temperature_c, WARM_EMPTY_C)
    if q.temperature_c < 27:
        found.append(HeatStep(when="Now, while it is empty", to_c=top, days=(top - q.temperature_c) / WARMING_C_DAY))
    else:
        top = q.temperature_c
    if q.animals_low_c is not None and q.animals_high_c is not None:
        wanted = (q.animals_low_c + q.animals_high_c) / 2
        if not q.animals_low_c <= top <= q.animals_high_c or top - wanted > 2:
            found.append(
                HeatStep(
                    when="Once it has passed, before the animals",
                    to_c=min(max(wanted, 0.5), 40),
                    days=abs(top - wanted) / COOLING_C_DAY,
                )
            )
    elif top > 26:
        found.append(HeatStep(when="Once it has passed, before the animals", to_c=25, days=(top - 25) / COOLING_C_DAY))
    return found
