"""Ways to cycle a tank, ranked for the keeper's resources."""

from typing import Annotated, Literal, NamedTuple

import numpy as np
from pydantic import Field

from reedmace.core.chemistry.salinity import is_marine
from reedmace.core.contract import (
    PH,
    Answer,
    Celsius,
    NetLitres,
    Part,
    Question,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.cycle.judgement.method_disputes import DISPUTES, Dispute
from reedmace.core.cycle.model.draw_weights import percentiles
from reedmace.core.cycle.model.ensemble import condition, project
from reedmace.core.cycle.model.inputs import Scenario
from reedmace.core.cycle.record.log import (
    DOSED,
    TRANSFERRED,
    BottleWindow,
    CycleLog,
    Helper,
    LoggedDose,
    Method,
    Plants,
)
from reedmace.core.film import FOOD_MG_N_PER_G, SeedDonor
from reedmace.core.quantity.units import NITROGEN_SHARE

DRAWS = 400


class Resources(Part):
    """What the keeper has available."""

    mature_media: Literal["none", "own", "trusted", "unsure"] = "none"
    media_share: Annotated[float, number("share", 0, 1, "Of a whole filter's media that can be had")] = 0.5
    donor: SeedDonor | None = None
    old_filter_fits: bool = False
    plants: Plants = "none"
    bottle: Literal["none", "in-date", "expired"] = "none"
    bottle_label: BottleWindow = Field(default_factory=BottleWindow)
    budget: Literal["little", "some"] = "some"
    ammonia: bool = True
    test_kit: bool = True
    days_to_spare: Annotated[int, whole(0, 200)] = 60


class CycleMethodsQuestion(Question):
    """The resources, the water, and whether animals are already in."""

    resources: Resources = Field(default_factory=Resources)
    net_l: NetLitres = 100
    temperature_c: Celsius = 26
    ph: PH = 7.4
    kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    planned_load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)] = 0.3
    animals_in: bool = False


class MethodChoice(Part):
    """One way or combination: how well it fits, how long it takes here, what it needs."""

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


class CycleMethodsAnswer(Answer):
    """Every way, best first, and the points keepers disagree on."""

    methods: list[MethodChoice]
    disputes: list[Dispute]


def _log(q: CycleMethodsQuestion, method: Method, helpers: list[Helper]) -> CycleLog:
    means = q.resources
    light = LoggedDose(day=0, raise_mg_n_l=2 * NITROGEN_SHARE["NH4"])
    dosed = method in DOSED
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
        food_g_day=(
            min(max(q.planned_load_mg_n_l_day * q.net_l / FOOD_MG_N_PER_G, 0.05), 100) if method == "fish-food" else 0
        ),
        seed_share=means.media_share,
        donor=means.donor,
        bottle=means.bottle_label.model_copy(update={"in_date": means.bottle != "expired"}),
        plants=means.plants,
        plants_growing_day=10 if means.plants != "none" else None,
        doses=[light] if dosed else [],
    )


class _Way(NamedTuple):
    """One way as it would be here. `open_here` says whether what it needs is at hand."""

    method: Method
    helpers: list[Helper]
    title: str
    open_here: bool
    why: str
    said: str
    watch: str


_HELPER_WORDS: dict[Helper, str] = {"bottled-culture": "a bottled culture", "plants": "plants"}


def _helpers(q: CycleMethodsQuestion) -> list[Helper]:
    """What would help any dosed way here."""
    m = q.resources
    found: list[Helper] = []
    # A bottle costs as much as a test kit and saves two weeks at best: not where money is short (common practice).
    if m.bottle == "in-date" and m.budget != "little":
        found.append("bottled-culture")
    if m.plants != "none" and not is_marine(q.salinity_g_kg):
        found.append("plants")
    return found


def _ways(q: CycleMethodsQuestion) -> list[_Way]:
    """Every way, best first; the emergency plan alone where animals are in."""
    helpers = _helpers(q)
    return [_ANIMALS_IN._replace(helpers=helpers)] if q.animals_in else [*_moved(q, helpers), *_grown(q, helpers)]


_ANIMALS_IN = _Way(
    "animals-in",
    [],
    "Animals are in: the emergency plan",
    True,
    "Nothing may be dosed now: the animals make the ammonia, and daily changes keep it harmless.",
    "until zeros hold, often five to six weeks",
    "Not a plan anyone should choose. Seeded media help if you can get them; tiny feeds, daily tests.",
)


def _is_seeded(q: CycleMethodsQuestion) -> bool:
    return q.resources.mature_media in ("own", "trusted") and q.resources.media_share > 0


def _moved(q: CycleMethodsQuestion, helpers: list[Helper]) -> list[_Way]:
    """Ways on film that comes from a running tank."""
    seeded = _is_seeded(q)
    return [
        _Way(
            "side-by-side",
            [],
            "Old filter beside the new",
            q.resources.old_filter_fits and seeded,
            "The old filter goes on working while the new one is seeded; bring its rock and wood too.",
            "until readings hold; a month is usual",
            "Do not retire the old one early.",
        ),
        _Way(
            "seeded-filter",
            [h for h in helpers if h == "plants"],
            "A seeded filter or its media" + (", with plants" if "plants" in helpers else ""),
            seeded,
            "The film comes ready made.",
            "a week or less",
            "Light stock at first; keep it wet, aired and mild on the way; ask after disease.",
        ),
        _Way(
            "mature-rock",
            [],
            "A piece of mature rock",
            is_marine(q.salinity_g_kg) and seeded,
            "Rock from a running tank carries the film of salt water.",
            "about two weeks, by test",
            "No skimmer until there are animals.",
        ),
    ]


def _grown(q: CycleMethodsQuestion, helpers: list[Helper]) -> list[_Way]:
    """Ways in which the film grows here."""
    m, salt, seeded = q.resources, is_marine(q.salinity_g_kg), _is_seeded(q)
    with_them = f", with {' and '.join(_HELPER_WORDS[h] for h in helpers)}" if helpers else ""
    return [
        _Way(
            "measured-ammonia",
            ["seed-media", *helpers] if seeded else helpers,
            f"Measured ammonia{with_them}" + (" and some seeded media" if seeded else ""),
            m.ammonia and m.test_kit,
            "It can be measured from the first day, and each dose gone in a day is the proof.",
            "4 to 6 weeks; 6 weeks to 3 months is quoted too",
            "Aquarium-grade only; know the strength of the label; test.",
        ),
        _Way(
            "planted",
            [],
            "Planted quiet start",
            m.plants == "many" and not salt,
            "Fast stems and floaters take the ammonia while the film grows behind them.",
            "4 to 5 weeks after new growth shows",
            "Wait for growth, not for the planting day.",
        ),
        _Way(
            "fish-food",
            helpers,
            "Feed the empty tank",
            not salt,
            "Needs nothing but food and patience.",
            "slow, six weeks and more",
            "Algae; hard to meter.",
        ),
    ]


def _choice(q: CycleMethodsQuestion, way: _Way, w: Working) -> MethodChoice:
    """One way with its days in this water; w: gets its line."""
    low = high = np.nan
    why = way.why if way.open_here else _lacking(way.method, q)
    if way.open_here:
        log = _log(q, way.method, way.helpers)
        ensemble = condition(log, DRAWS)
        low, middle, high = percentiles(project(log, ensemble, 150, Scenario()).late, ensemble.weights)
        if np.isfinite(middle):
            w.line(way.title, "P50 of the pass day", f"{DRAWS} draws, KH held", middle, "days", "cycleprior")
        if np.isfinite(middle) and middle > q.resources.days_to_spare:
            why += f" Here it would likely take longer than your {q.resources.days_to_spare} days."
    return MethodChoice(
        method=way.method,
        helpers=way.helpers,
        title=way.title,
        fits="possible" if way.open_here else "not-here",
        why=why,
        days_low=low if np.isfinite(low) else None,
        days_high=high if np.isfinite(high) else None,
        said=way.said,
        watch=way.watch,
        costs=_costs(way.method, way.helpers),
    )


@computation("cycle-methods", "Which way to cycle, from what you have")
def cycle_methods(question: CycleMethodsQuestion) -> CycleMethodsAnswer:
    """Ways to cycle, best first for these resources, each with its duration in this water.

    question: resources, L, °C, pH, dKH, g/kg, mg N/(L day).
    Source: which way suits whom is common practice; the days are the cycle model's own P10 to P90.
    """
    q, w = question, Working()
    # What can be had here before what cannot, each in the order above.
    found = sorted((_choice(q, way, w) for way in _ways(q)), key=lambda one: one.fits == "not-here")
    if found[0].fits == "possible":
        found[0] = found[0].model_copy(update={"fits": "best"})
    verdict = f"{found[0].title}: {found[0].why}"
    if q.resources.mature_media == "unsure":
        verdict += " Media from a tank whose health nobody knows are left out: disease comes with them."
    return CycleMethodsAnswer(verdict=verdict, working=w.lines, methods=found, disputes=list(DISPUTES))


def _costs(method: Method, helpers: list[Helper]) -> Literal["nothing", "little", "some"]:
    """Cost besides the tank and a test kit (common practice)."""
    if "bottled-culture" in helpers or method == "mature-rock":
        return "some"
    if method in ("measured-ammonia", "fish-food"):
        return "little"
    return "some" if method == "planted" else "nothing"


def _lacking(method: Method, q: CycleMethodsQuestion) -> str:
    if method in TRANSFERRED:
        return (
            "No running filter to move or run beside it."
            if q.resources.mature_media == "none"
            else (
                "The donor tank's health is not known."
                if q.resources.mature_media == "unsure"
                else "The old filter does not fit beside the new one."
            )
        )
    if method == "mature-rock":
        return "Only for salt water, with rock from a tank you trust."
    if method == "measured-ammonia":
        return "Needs aquarium-grade ammonia and a test kit."
    if method == "planted":
        return "Needs plants in plenty, in fresh water."
    return "Food rots badly in salt water; use mature rock or measured ammonia."
