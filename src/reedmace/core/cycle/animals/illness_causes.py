"""The possible causes of illness: for each, its condition, its evidence and what to do."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.tolerance import UNTESTED_PH, Tolerance, ammonia_reach, nitrite_limit_mg_n_l
from reedmace.core.contract import PH, Celsius, MgNPerL, Question, number, whole
from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.quantity import formatting

NEW_DAYS = 28.0
"""Sickness that came with new animals mostly shows within four weeks (common practice)."""
LATELY_DAYS = 3.0
"""Days for which a stop, a change or a test is still relevant (a stated judgement)."""
PH_JUMP, VERY_ACID_PH = 0.8, 5.5
"""Change of pH between two tests that is a cause by itself, and the pH under which any water is one (memory)."""
FEW_SHARE = 0.1
UNKNOWN_C = 25.0
"""pH and temperature assumed when untested: cautious for ammonia (a stated judgement)."""


Sign = Literal[
    "gasping", "red-gills", "flicking", "spots", "fuzz", "wounds", "swollen", "thin", "not-eating", "drifting", "hiding"
]
"""What a keeper sees: at the surface for air; gills red or brown; rubbing on things; white or golden spots; cotton-like
tufts; torn fins or sores; swollen, scales standing; thin or hollow; no appetite; drifting, no balance; hiding, fins
clamped.
"""


class IllnessQuestion(Question):
    """What was seen, in how many animals, and what the logbook knows of the water and recent days."""

    signs: Annotated[list[Sign], Field(max_length=11)] = Field(default_factory=list)
    ill_count: Annotated[int, whole(0, 5000, "Animals that show it")] = 0
    lost_count: Annotated[int, whole(0, 5000, "Found dead or missing within a week")] = 0
    in_count: Annotated[int, whole(0, 5000, "Animals in the tank before")] = 0
    body_left_g: Annotated[float, number("g", 0, 1e6, "Bodies not found, by their mass")] = 0
    net_l: Annotated[float, number("L", 0.5, 1e6)] = 100
    ammonia_mg_n_l: MgNPerL | None = None
    nitrite_mg_n_l: MgNPerL | None = None
    since_test_days: Annotated[float, number("days", 0, 40000, "Since both poisons were tested")] | None = None
    kit: KitSteps = Field(default_factory=KitSteps, description="Whose zero counts")
    ph: PH | None = None
    before_ph: PH | None = Field(default=None, description="At the test before")
    temperature_c: Celsius | None = None
    animals_low_c: Celsius | None = None
    animals_high_c: Celsius | None = None
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    oxygen_enough: bool | None = None
    since_stop_days: Annotated[float, number("days", 0, 40000, "Since a filter stood for hours")] | None = None
    since_untreated_days: Annotated[float, number("days", 0, 40000, "Since untreated water went in")] | None = None
    since_animals_days: (
        Annotated[float, number("days", 0, 40000, "Since animals or media came from elsewhere")] | None
    ) = None
    company_trouble: bool = Field(default=False, description="Animals that nip or hunt each other are together")
    invertebrates: bool = Field(default=False, description="Shrimp, snails or crabs, which many medicines kill")
    washes_hands: bool = Field(default=False, description="Turtles or amphibians, whose water carries Salmonella")


Code = Literal[
    "ammonia",
    "nitrite",
    "trace",
    "untested",
    "oxygen",
    "warmth",
    "cold",
    "chlorine",
    "ph",
    "parasite",
    "fungus",
    "strife",
    "inside",
    "age",
]


@dataclass(frozen=True)
class CauseRule:
    """A cause of illness.

    Its condition with evidence (None where it does not apply), the remedy, whether the water is to blame.
    """

    code: Code
    title: str
    speaks: Callable[[IllnessQuestion], str | None]
    do: str
    certain: bool = True
    kills_soon: bool = False


def _lately(days: float | None) -> bool:
    return days is not None and days <= LATELY_DAYS


def both_tested(q: IllnessQuestion) -> bool:
    """Whether ammonia and nitrite were both tested lately. q: what was asked."""
    return _lately(q.since_test_days) and q.ammonia_mg_n_l is not None and q.nitrite_mg_n_l is not None


def seen(q: IllnessQuestion, *signs: Sign) -> list[Sign]:
    """Those of the given signs that the keeper saw. q: what was asked; signs: the signs looked for."""
    return [s for s in signs if s in q.signs]


def ammonia_share_of_limit(q: IllnessQuestion) -> float:
    """Ammonia as a share of the animals' limit at this pH and temperature; 0 where not read lately.

    q: what was asked.
    """
    if q.ammonia_mg_n_l is None or not _lately(q.since_test_days):
        return 0.0
    if q.ammonia_mg_n_l <= q.kit.zero_mg_n_l("ammonia"):
        return 0.0
    warmth = UNKNOWN_C if q.temperature_c is None else min(max(q.temperature_c, 0.5), 40.0)
    return ammonia_reach(q.ammonia_mg_n_l, UNTESTED_PH if q.ph is None else q.ph, warmth, q.salinity_g_kg)


def _nitrite_share(q: IllnessQuestion) -> float:
    """Nitrite as a share of the animals' limit; 0 where not read lately."""
    if q.nitrite_mg_n_l is None or not _lately(q.since_test_days):
        return 0.0
    if q.nitrite_mg_n_l <= q.kit.zero_mg_n_l("nitrite"):
        return 0.0
    return q.nitrite_mg_n_l / nitrite_limit_mg_n_l(q.salinity_g_kg)


def _ammonia(q: IllnessQuestion) -> str | None:
    reach = ammonia_share_of_limit(q)
    ph = "" if q.ph is not None else f", reckoned at pH {UNTESTED_PH:g} since none was tested"
    return f"The test stands at {reach:.1f} times what animals bear from day to day{ph}." if reach > 1 else None


def _nitrite(q: IllnessQuestion) -> str | None:
    reach = _nitrite_share(q)
    return (
        f"The test stands at {reach:.1f} times their limit; it takes the oxygen out of the blood."
        if reach > 1
        else None
    )


def _trace(q: IllnessQuestion) -> str | None:
    shares = [ammonia_share_of_limit(q), _nitrite_share(q)]
    if max(shares) <= 0 or max(shares) > 1:
        return None
    return (
        "Under the limits, but more than a settled tank shows: the film was hurt, or there is more waste than it"
        " carries."
    )


def _oxygen(q: IllnessQuestion) -> str | None:
    if q.oxygen_enough is False:
        return "By this load, warmth and surface the water runs short of oxygen."
    if _lately(q.since_stop_days) and seen(q, "gasping", "drifting"):
        return "A filter stood for hours within these days."
    if seen(q, "gasping"):
        return "They hang at the surface for air."
    return None


def _bearing(q: IllnessQuestion) -> Tolerance:
    return Tolerance(q.animals_low_c, q.animals_high_c, None, None)


def _warmth(q: IllnessQuestion) -> str | None:
    if q.temperature_c is None or q.animals_high_c is None or not _bearing(q).too_hot(q.temperature_c):
        return None
    return (
        f"{formatting.celsius(q.temperature_c)} is over the {formatting.celsius(q.animals_high_c)} they like; warm"
        " water holds little oxygen."
    )


def _cold(q: IllnessQuestion) -> str | None:
    if q.temperature_c is None or q.animals_low_c is None or not _bearing(q).too_cold(q.temperature_c):
        return None
    return f"{formatting.celsius(q.temperature_c)} is under the {formatting.celsius(q.animals_low_c)} they like."


def _ph(q: IllnessQuestion) -> str | None:
    # Kits read tenths, whose difference in binary falls short of itself.
    if q.ph is not None and q.before_ph is not None and abs(q.ph - q.before_ph) >= PH_JUMP - 1e-9:
        return f"pH went from {q.before_ph:.1f} to {q.ph:.1f} between two tests."
    if q.ph is not None and q.ph < VERY_ACID_PH:
        return f"pH stands at {q.ph:.1f}."
    return None


def _parasite(q: IllnessQuestion) -> str | None:
    found = seen(q, "spots", "flicking")
    if not found:
        return None
    new = q.since_animals_days is not None and q.since_animals_days <= NEW_DAYS
    signs = " and ".join({"spots": "spots", "flicking": "rubbing on things"}[s] for s in found)
    return f"Seen: {signs}" + (
        f", {q.since_animals_days:.0f} days after something came in from elsewhere." if new else "."
    )


def _fungus(q: IllnessQuestion) -> str | None:
    return "Tufts or sores: wounds and weak animals catch it in dirty water." if seen(q, "fuzz", "wounds") else None


def _strife(q: IllnessQuestion) -> str | None:
    if seen(q, "wounds", "hiding") and q.company_trouble:
        return "Animals that nip or hunt are kept with others."
    return None


def _inside(q: IllnessQuestion) -> str | None:
    return (
        "Swollen, thin or without balance: what is wrong lies inside."
        if seen(q, "swollen", "thin", "drifting")
        else None
    )


def _age(q: IllnessQuestion) -> str | None:
    touched = q.lost_count + q.ill_count
    if not 0 < touched <= max(1, FEW_SHARE * q.in_count) or not both_tested(q):
        return None
    clean = (q.ammonia_mg_n_l or 0) <= q.kit.zero_mg_n_l("ammonia") and (q.nitrite_mg_n_l or 0) <= q.kit.zero_mg_n_l(
        "nitrite"
    )
    return "A single one, the others well, both tests at zero: age or an old harm is likeliest." if clean else None


CAUSE_RULES = (
    CauseRule(
        "ammonia",
        "Ammonia",
        _ammonia,
        "Follow the plan for poison: changes in parts, little food, tests every day.",
        kills_soon=True,
    ),
    CauseRule(
        "nitrite",
        "Nitrite",
        _nitrite,
        "Follow the plan for poison; air helps at once, in fresh water a little salt does too (a vet or shop for the"
        " amount).",
        kills_soon=True,
    ),
    CauseRule(
        "chlorine",
        "Chlorine or chloramine",
        lambda q: "Untreated water went in within these days." if _lately(q.since_untreated_days) else None,
        "Conditioner to the whole tank's litres now.",
        kills_soon=True,
    ),
    CauseRule(
        "oxygen",
        "Too little oxygen",
        _oxygen,
        "Air now: an air stone, the outlet raised so that it breaks the surface, no food today.",
        kills_soon=True,
    ),
    CauseRule(
        "warmth",
        "Too warm",
        _warmth,
        "Lights and heater off, lid open, a fan over the water, air; no more than a few degrees a day.",
        kills_soon=True,
    ),
    CauseRule(
        "cold",
        "Too cold",
        _cold,
        "Look at the heater, unplugged before hands go in; a degree an hour at most.",
        kills_soon=True,
    ),
    CauseRule(
        "ph",
        "A jump or a fall of pH",
        _ph,
        "Test KH; bring it back slowly, by changes with water of its own pH; free ammonia rises with pH.",
        kills_soon=True,
    ),
    CauseRule("trace", "A trace of poison", _trace, "Half the food, no cleaning, a test every day until it is gone."),
    CauseRule(
        "untested",
        "Not tested",
        lambda q: None if both_tested(q) else "Ammonia and nitrite were not both tested within three days.",
        "Test both before anything is given.",
        certain=False,
    ),
    CauseRule(
        "parasite",
        "A parasite",
        _parasite,
        "A tank of its own; a vet or an experienced shop names it before anything is dosed.",
        certain=False,
    ),
    CauseRule(
        "fungus",
        "Fungus or bacteria on a wound",
        _fungus,
        "Clean water first: a change today and in two days; a tank of its own for the one that has it.",
        certain=False,
    ),
    CauseRule("strife", "The company", _strife, "Part them: a divider, more cover, or another home.", certain=False),
    CauseRule(
        "inside",
        "Something inside",
        _inside,
        "No food for two days, then little; a vet where it goes on.",
        certain=False,
    ),
    CauseRule("age", "A single animal's own end", _age, "Watch the others for a week and test twice.", certain=False),
)
"""The most certain and the fastest killers first. All common practice."""
