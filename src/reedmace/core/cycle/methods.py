"""Which way to cycle, from what the keeper has; and the plan judged before anything is dosed."""

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from reedmace.core.chemistry import AlkalinityDoseQuestion, AmmoniaProduct, alkalinity_dose
from reedmace.core.chemistry.dose import PowderProduct
from reedmace.core.cycle.course import Ahead, bottle_window
from reedmace.core.cycle.ensemble import percentiles, run_on, weigh
from reedmace.core.cycle.log import (
    FOOD_MG_N_PER_G,
    BottleWindow,
    Chlorine,
    CycleLog,
    Helper,
    LoggedDose,
    LoggedReading,
    Method,
    Plants,
    TapWater,
)
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.quantity.units import NITROGEN_SHARE, ppm_words
from reedmace.core.working import PH, Answer, Celsius, NetLitres, Part, Question, Working, number, whole

WARM_EMPTY_C, WARMING_C_DAY, COOLING_C_DAY = 28.0, 2.0, 1.5
"""27 to 29 °C while empty, a couple of degrees a day (common practice)."""
DRAWS = 200


class Means(Part):
    """What the keeper has to hand."""

    mature_media: Literal["none", "own", "trusted", "unsure"] = "none"
    media_share: Annotated[float, number("share", 0, 1, "Of a whole filter's media that can be had")] = 0.5
    old_filter_fits: bool = False
    plants: Plants = "none"
    bottle: Literal["none", "in-date", "expired"] = "none"
    bottle_label: BottleWindow = Field(default_factory=BottleWindow)
    budget: Literal["little", "some"] = "some"
    ammonia: bool = True
    test_kit: bool = True
    days_to_spare: Annotated[int, whole(0, 200)] = 60


class CycleMethodsQuestion(Question):
    """The means, the water, and whether animals are in already."""

    means: Means = Field(default_factory=Means)
    net_l: NetLitres = 100
    temperature_c: Celsius = 26
    ph: PH = 7.4
    kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    planned_load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)] = 0.3
    animals_in: bool = False


class MethodChoice(Part):
    """One way, or a combination: how well it fits here, how long it takes here, what it needs."""

    method: Method
    helpers: list[Helper]
    title: str
    fits: Literal["best", "possible", "not-here"]
    why: str
    days_low: Annotated[float, number("days", 0, 400)] | None
    days_high: Annotated[float, number("days", 0, 400)] | None
    said: str
    watch: str
    costs: Literal["nothing", "little", "some"]


class Dispute(Part):
    """Where keepers disagree: both sides, and what is followed here and why."""

    about: str
    one_side: str
    other_side: str
    followed: str


class CycleMethodsAnswer(Answer):
    """Every way, best first, and where keepers disagree about them."""

    methods: list[MethodChoice]
    disputes: list[Dispute]


_DISPUTES = (
    Dispute(
        about="The best way",
        one_side="Dosed ammonia: measurable, no animal suffers, the proof is in the test.",
        other_side="Seeded media, or plants: faster or calmer, and nobody measures bottles.",
        followed="What you have decides: seeded media first, dosed ammonia next; each is proved by tests all the same.",
    ),
    Dispute(
        about="Bottled culture",
        one_side="It helps and saves a week or two.",
        other_side="Its window is narrow and many bottles are dead.",
        followed="A helper only: counted inside 25 to 30 °C, pH 7.3 to 8.0, some KH, in date; hardly at all outside.",
    ),
    Dispute(
        about="How long a spare sponge seeds",
        one_side="Two weeks have done.",
        other_side="A month, to be sure.",
        followed="It counts from two weeks and is called ready at four; the film on it is reckoned by days.",
    ),
    Dispute(
        about="Squeezing dirty foam into the new filter",
        one_side="It carries film and dirt to feed it.",
        other_side="Little of it settles where it is wanted.",
        followed="Harmless, and counted as a twentieth of the media at most: move media whole where you can.",
    ),
    Dispute(
        about="What to test at first",
        one_side="Ammonia alone until it falls.",
        other_side="All three from day one.",
        followed="All three, and KH: without a baseline neither nitrate nor a stall can be read later.",
    ),
    Dispute(
        about="The bar for ready",
        one_side="2 ppm gone in a day.",
        other_side="That is far more than a normal tank makes.",
        followed="1.2 times what your animals make in a day, at least 0.5 mg/L of nitrogen, 0.64 ppm of ammonia.",
    ),
)


def _log(q: CycleMethodsQuestion, method: Method, helpers: list[Helper]) -> CycleLog:
    means = q.means
    light = LoggedDose(day=0, raise_mg_n_l=2 * NITROGEN_SHARE["NH4"])
    dosed = method in ("measured-ammonia", "seeded-filter", "side-by-side", "mature-rock")
    return CycleLog(
        net_l=q.net_l,
        day_now=0,
        method=method,
        helpers=helpers,
        temperature_c=q.temperature_c,
        salinity_g_kg=q.salinity_g_kg,
        start_kh_dkh=q.kh_dkh,
        start_ph=q.ph,
        planned_load_mg_n_l_day=q.planned_load_mg_n_l_day,
        animals_in_mg_n_l_day=q.planned_load_mg_n_l_day if method == "animals-in" else 0,
        # Food that makes the planned day's ammonia: load × litres / (protein × 0.092 × 1000).
        food_g_day=min(max(q.planned_load_mg_n_l_day * q.net_l / FOOD_MG_N_PER_G, 0.05), 100)
        if method == "fish-food"
        else 0,
        seed_share=means.media_share,
        bottle=means.bottle_label.model_copy(update={"in_date": means.bottle != "expired"}),
        plants=means.plants,
        plants_growing_day=10 if means.plants != "none" else None,
        doses=[light] if dosed else [],
    )


def cycle_methods(question: CycleMethodsQuestion) -> CycleMethodsAnswer:
    """Ways to cycle, best first for these means, each with the time it takes in this water.

    question: means, L, °C, pH, dKH, g/kg, mg N/(L day).
    Source: which way suits whom is common practice; the days are the cycle model's own P10 to P90.
    """
    q, w, m = question, Working(), question.means
    salt = q.salinity_g_kg > 10
    seeded = m.mature_media in ("own", "trusted") and m.media_share > 0
    helpers: list[Helper] = []
    # A bottle costs as much as a test kit and saves a week or two at best: not where money is short (common practice).
    if m.bottle == "in-date" and m.budget != "little":
        helpers.append("bottled-culture")
    if m.plants != "none" and not salt:
        helpers.append("plants")
    rows: list[tuple[Method, list[Helper], str, bool, str, str, str]] = [
        (
            "side-by-side",
            [],
            "Old filter beside the new",
            m.old_filter_fits and seeded,
            "The old filter goes on working while the new one is seeded; bring its rock and wood too.",
            "until readings hold; a month is usual",
            "Do not retire the old one early.",
        ),
        (
            "seeded-filter",
            [h for h in helpers if h == "plants"],
            "A seeded filter or its media" + (", with plants" if "plants" in helpers else ""),
            seeded,
            "The film comes ready made.",
            "a week or less",
            "Light stock at first; keep it wet, aired and mild on the way; ask after disease.",
        ),
        (
            "mature-rock",
            [],
            "A piece of mature rock",
            salt and seeded,
            "Rock from a running tank carries the film of salt water.",
            "about two weeks, by test",
            "No skimmer until there are animals.",
        ),
        (
            "measured-ammonia",
            ["seed-media", *helpers] if seeded else helpers,
            "Measured ammonia"
            + (
                ", with "
                + " and ".join({"bottled-culture": "a bottled culture", "plants": "plants"}[h] for h in helpers)
                if helpers
                else ""
            )
            + (" and some seeded media" if seeded else ""),
            m.ammonia and m.test_kit,
            "It can be measured from the first day, and each dose gone in a day is the proof.",
            "4 to 6 weeks; 6 weeks to 3 months is quoted too",
            "Aquarium-grade only; know the strength of the label; test.",
        ),
        (
            "planted",
            [],
            "Planted quiet start",
            m.plants == "many" and not salt,
            "Fast stems and floaters take the ammonia while the film grows behind them.",
            "4 to 5 weeks after new growth shows",
            "Wait for growth, not for the planting day.",
        ),
        (
            "fish-food",
            helpers,
            "Feed the empty tank",
            not salt,
            "Needs nothing but food and patience.",
            "slow, six weeks and more",
            "Algae; hard to meter.",
        ),
    ]
    if q.animals_in:
        rows = [
            (
                "animals-in",
                helpers,
                "Animals are in: the emergency plan",
                True,
                "Nothing may be dosed now: the animals make the ammonia, and daily changes keep it harmless.",
                "until zeros hold, often five to six weeks",
                "Not a plan anyone should choose. Seeded media help if you can get them; tiny feeds, daily tests.",
            )
        ]
    found: list[MethodChoice] = []
    for method, with_helpers, title, open_here, why, said, watch in rows:
        if not open_here:
            found.append(
                MethodChoice(
                    method=method, helpers=with_helpers, title=title, fits="not-here", why=_lacking(method, q),
                    days_low=None, days_high=None, said=said, watch=watch, costs="nothing",
                )
            )  # fmt: skip
            continue
        log = _log(q, method, with_helpers)
        ensemble = weigh(log, DRAWS)
        low, middle, high = percentiles(run_on(log, ensemble, 150, Ahead()).late, ensemble.weights)
        if np.isfinite(middle):
            w.line(title, "P50 of the pass day", f"{DRAWS} draws, KH held", middle, "days", "cycleprior")
        late = np.isfinite(middle) and middle > m.days_to_spare
        found.append(
            MethodChoice(
                method=method,
                helpers=with_helpers,
                title=title,
                fits="possible",
                why=why + (f" Here it would likely take longer than your {m.days_to_spare} days." if late else ""),
                days_low=low if np.isfinite(low) else None,
                days_high=high if np.isfinite(high) else None,
                said=said,
                watch=watch,
                costs="nothing",
            )
        )
    found = [f.model_copy(update={"costs": _costs(f)}) for f in found]
    order = {row[0]: i for i, row in enumerate(rows)}
    found.sort(key=lambda f: (f.fits == "not-here", order[f.method]))
    found[0] = found[0].model_copy(update={"fits": "best"}) if found[0].fits == "possible" else found[0]
    verdict = f"{found[0].title}: {found[0].why}"
    if m.mature_media == "unsure":
        verdict += " Media from a tank whose health nobody knows are left out: disease comes with them."
    return CycleMethodsAnswer(verdict=verdict, working=w.lines, methods=found, disputes=list(_DISPUTES))


def _costs(choice: MethodChoice) -> Literal["nothing", "little", "some"]:
    """What it costs besides the tank and a test kit (common practice)."""
    if "bottled-culture" in choice.helpers or choice.method == "mature-rock":
        return "some"
    if choice.method in ("measured-ammonia", "fish-food"):
        return "little"
    return "some" if choice.method == "planted" else "nothing"


def _lacking(method: Method, q: CycleMethodsQuestion) -> str:
    if method in ("side-by-side", "seeded-filter"):
        return (
            "No running filter to move or run beside it."
            if q.means.mature_media == "none"
            else "The donor tank's health is not known."
            if q.means.mature_media == "unsure"
            else "The old filter does not fit beside the new one."
        )
    if method == "mature-rock":
        return "Only for salt water, with rock from a tank you trust."
    if method == "measured-ammonia":
        return "Needs aquarium-grade ammonia and a test kit."
    if method == "planted":
        return "Needs plants in plenty, in fresh water."
    return "Food rots badly in salt water; use mature rock or measured ammonia."


class CyclePlanQuestion(Question):
    """A cycle before it starts: method, water, tap, ammonia, heat."""

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
    hold_kh_dkh: Annotated[float, number("dKH", 0, 20)] = 4


class Judged(Part):
    """One condition: fine, to be watched, or to be put right first."""

    what: str
    level: Literal["fine", "watch", "first"]
    text: str
    remedy: str = ""


class HeatStep(Part):
    """The thermostat on one day."""

    when: str
    to_c: Celsius
    days: Annotated[float, number("days", 0, 60, "How long to take over it")]


class CyclePlanAnswer(Answer):
    """Conditions judged, the heat plan, and the alkalinity the plan will eat."""

    conditions: list[Judged]
    heat: list[HeatStep]
    nitrogen_mg_n_l: Annotated[float, number("mg N/L", 0, 1e4, "Nitrified until it passes, in the median course")]
    kh_eaten_dkh: Annotated[float, number("dKH", 0, 1e4)]
    kh_short_dkh: Annotated[float, number("dKH", 0, 1e4, "More than the water has above what is to be held")]
    bicarbonate_g: Annotated[float, number("g", 0, 1e7, "Over the whole cycle, to hold it")]
    kh_gone_day: Annotated[float, number("days", 0, 400, "Left alone")] | None
    pass_day_p10: Annotated[float, number("days", 0, 400)] | None
    pass_day_p50: Annotated[float, number("days", 0, 400)] | None
    pass_day_p90: Annotated[float, number("days", 0, 400)] | None


_CHLORINE: dict[Chlorine, str] = {
    "none": "The water carries no chlorine.",
    "chlorine": "Chlorine kills the film: treat every bucket, even a top-up.",
    "chloramine": "Chloramine kills the film and lets ammonia go when it is treated: use a conditioner that names chloramine.",
    "unknown": "Take the tap to be chlorinated until the water company says otherwise.",
}


def cycle_plan(question: CyclePlanQuestion) -> CyclePlanAnswer:
    """The plan judged before anything is dosed.

    question: L, °C, pH, dKH, ppm, g/kg, mg N/(L day).
    Source: windows are common practice; alkalinity from US EPA 1993; days and nitrogen from the cycle model.
    """
    q, w = question, Working()
    log = CycleLog(
        net_l=q.net_l, day_now=0, method=q.method, helpers=q.helpers, temperature_c=q.temperature_c,
        salinity_g_kg=q.salinity_g_kg, start_kh_dkh=q.kh_dkh, start_ph=q.ph, tap=q.tap, plants=q.plants,
        bottle=q.bottle, planned_load_mg_n_l_day=q.planned_load_mg_n_l_day,
        animals_in_mg_n_l_day=q.planned_load_mg_n_l_day if q.method == "animals-in" else 0,
        food_g_day=min(max(q.planned_load_mg_n_l_day * q.net_l / FOOD_MG_N_PER_G, 0.05), 100) if q.method == "fish-food" else 0,
        plan_target_ppm=q.target_ppm, product=q.product,
        readings=[] if q.phosphate_ppm is None else [LoggedReading(day=0, phosphate_ppm=q.phosphate_ppm)],
    )  # fmt: skip
    if log.doses_ammonia():
        log = log.model_copy(update={"doses": [LoggedDose(day=0, raise_mg_n_l=q.target_ppm * NITROGEN_SHARE["NH4"])]})
    ensemble = weigh(log, DRAWS)
    held = run_on(log, ensemble, 150, Ahead(hold_kh_dkh=q.hold_kh_dkh))
    alone = run_on(log, ensemble, 150, Ahead(hold_kh_dkh=0))
    p10, p50, p90 = percentiles(held.late, ensemble.weights)
    last = np.minimum(np.where(np.isfinite(held.late), held.late, 149), 149).astype(int)
    made = held.daily[np.arange(len(last)), last, 2] - log.tap.nitrate_mg_n_l
    nitrified = w.line(
        "N", "nitrate made until it passes", "median course", max(percentiles(made, ensemble.weights)[1], 0.0),
        "mg N/L", "cycleprior",
    )  # fmt: skip
    eaten = w.line(
        "ΔKH",
        "(7.14 − what comes with the ammonia) × N / 17.85",
        f"{log.alkalinity_eaten_per_n():.2f} × {nitrified:.2f} / 17.85",
        log.alkalinity_eaten_per_n() * nitrified / CACO3_PER_DKH,
        "dKH",
        "epa1993",
    )
    spare = q.kh_dkh - min(q.hold_kh_dkh, q.kh_dkh)
    lift = max(q.hold_kh_dkh - q.kh_dkh, 0.0)
    short = w.line(
        "short", "ΔKH + to be held − KH", f"{eaten:.2f} + {q.hold_kh_dkh:g} − {q.kh_dkh:g}",
        max(eaten - spare, 0.0) + lift, "dKH", "arithmetic",
    )  # fmt: skip
    dose = alkalinity_dose(
        AlkalinityDoseQuestion(net_l=q.net_l, current_dkh=0, target_dkh=min(short, 40), planned_mg_n_l=0)
    )
    w.lines.extend(dose.working[-2:])
    gone = np.argmax(alone.daily[:, :, 3] < CACO3_PER_DKH, axis=1).astype(float)
    gone[(alone.daily[:, :, 3] >= CACO3_PER_DKH).all(axis=1)] = np.inf
    # A course that passes before the KH is gone has not been stopped by it.
    gone[gone >= np.where(np.isfinite(alone.late), alone.late, np.inf)] = np.inf
    gone_day = percentiles(gone, ensemble.weights)[1]
    conditions = _judge(q, log)
    firsts = [c for c in conditions if c.level == "first"]
    if firsts:
        verdict = f"Put right first: {firsts[0].text}"
    elif np.isfinite(gone_day):
        verdict = f"It can start, but this water runs out of alkalinity about day {gone_day:.0f}: have {dose.sodium_bicarbonate_g:.0f} g of bicarbonate ready."
    elif np.isfinite(p50):
        verdict = (
            f"It can start: likely ready between day {p10:.0f} and {p90:.0f}."
            if np.isfinite(p90)
            else f"It can start: likely ready about day {p50:.0f}."
        )
    else:
        verdict = "As it stands no date can be given: look at the conditions below."

    def day(value: float) -> float | None:
        return value if np.isfinite(value) else None

    return CyclePlanAnswer(
        verdict=verdict, working=w.lines, conditions=conditions, heat=_heat(q), nitrogen_mg_n_l=nitrified,
        kh_eaten_dkh=eaten, kh_short_dkh=short, bicarbonate_g=dose.sodium_bicarbonate_g, kh_gone_day=day(gone_day),
        pass_day_p10=day(p10) if np.isfinite(p50) else None, pass_day_p50=day(p50), pass_day_p90=day(p90),
    )  # fmt: skip


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


def _judge(q: CyclePlanQuestion, log: CycleLog) -> list[Judged]:
    found = [_source(q)] if log.doses_ammonia() and q.method != "seeded-filter" else []
    level: Literal["fine", "watch", "first"] = (
        "first" if q.temperature_c < 18 else "watch" if q.temperature_c < 25 or q.temperature_c > 30 else "fine"
    )
    found.append(
        Judged(
            what="Warmth",
            level=level,
            text=f"{q.temperature_c:g} °C "
            + (
                "is cold: the film works at a crawl."
                if level == "first"
                else "is not the best pace."
                if level == "watch"
                else "suits the film."
            ),
            remedy="27 to 29 °C while the tank is empty, if the heater and your animals' coming range allow."
            if level != "fine"
            else "",
        )
    )
    level = "first" if q.ph < 6.5 else "watch" if q.ph < 7 or q.ph > 8.4 else "fine"
    found.append(
        Judged(
            what="pH",
            level=level,
            text=f"pH {q.ph:g} "
            + (
                "all but stops the film."
                if level == "first"
                else "slows the film."
                if q.ph < 7
                else "turns much of the ammonia into its free form, which holds the nitrite step back."
                if level == "watch"
                else "suits the film."
            ),
            remedy="Raise KH and pH follows." if q.ph < 7 else "Dose small." if level == "watch" else "",
        )
    )
    level = "first" if q.kh_dkh < 1 else "watch" if q.kh_dkh < 4 else "fine"
    found.append(
        Judged(
            what="KH",
            level=level,
            text=f"KH {q.kh_dkh:g} dKH "
            + (
                "is next to nothing."
                if level == "first"
                else "is little: test it twice a week."
                if level == "watch"
                else "is enough to begin with."
            ),
            remedy="Bicarbonate, by the figures here." if level != "fine" else "",
        )
    )
    if q.phosphate_ppm is not None:
        bare = q.phosphate_ppm < 0.02
        found.append(
            Judged(
                what="Phosphate",
                level="watch" if bare else "fine",
                text="No phosphate: nothing grows without it."
                if bare
                else f"Phosphate {q.phosphate_ppm:g} ppm is enough.",
                remedy="A small pinch of fish food a week, or a plant fertiliser that has phosphate." if bare else "",
            )
        )
    found.append(
        Judged(
            what="Tap: chlorine",
            level="fine" if q.tap.chlorine == "none" else "watch",
            text=_CHLORINE[q.tap.chlorine],
            remedy=""
            if q.tap.chlorine == "none"
            else "Conditioner to the litres of the change, before it meets the filter.",
        )
    )
    if q.tap.ammonia_mg_n_l >= 0.1:
        found.append(
            Judged(
                what="Tap: ammonia", level="watch", text=f"The tap brings {ppm_words(q.tap.ammonia_mg_n_l, 'ammonia', 'ion')} of ammonia.",
                remedy="Count it in the doses; with animals in, change less at a time.",
            )
        )  # fmt: skip
    if q.tap.nitrate_mg_n_l >= 4:
        found.append(
            Judged(
                what="Tap: nitrate",
                level="watch",
                text=f"The tap brings {ppm_words(q.tap.nitrate_mg_n_l, 'nitrate', 'ion')} of nitrate: no change gets below it.",
                remedy="Aim the final change at what the tap allows, or mix in purified water.",
            )
        )
    if "bottled-culture" in q.helpers:
        wanting = bottle_window(log)
        found.append(
            Judged(
                what="Bottled culture",
                level="watch" if wanting else "fine",
                text="Inside its window." if not wanting else f"Outside its window: it wants {', '.join(wanting)}.",
                remedy="Count on little from it until that is so." if wanting else "",
            )
        )
    return found


def _source(q: CyclePlanQuestion) -> Judged:
    if q.ammonia_source == "household-cleaner":
        return Judged(
            what="Ammonia",
            level="first",
            text="Never a household cleaner: scent, dye and soap kill what you are growing.",
            remedy="Aquarium-grade ammonium chloride or ammonia. Never near bleach: the gas is poison.",
        )
    if q.ammonia_source == "aquarium-grade":
        return Judged(
            what="Ammonia", level="fine", text="Aquarium grade. Gloves; away from children; never together with bleach."
        )
    return Judged(
        what="Ammonia",
        level="watch",
        text="Shake it: if it foams and the foam stays, or if it smells of anything but ammonia, do not use it.",
        remedy="Aquarium-grade, with its strength on the label, is the safe choice. Never together with bleach.",
    )
