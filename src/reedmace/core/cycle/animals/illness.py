"""Animals unwell or lost: likely causes and what to check first, the water before disease."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.salinity import has_salt
from reedmace.core.chemistry.tolerance import Tolerance, ammonia_reach, nitrite_limit_mg_n_l
from reedmace.core.contract import PH, Answer, Celsius, MgNPerL, Part, Question, Working, computation, number, whole
from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import NITROGEN_SHARE

BODY_NITROGEN_SHARE = 0.026
"""Nitrogen as a share of an animal's wet mass:

protein is about 16 % of the body and 16 % of it is nitrogen (memory).
"""
NEW_DAYS = 28.0
"""Sickness that came with new animals mostly shows within four weeks (common practice)."""
LATELY_DAYS = 3.0
"""Days for which a stop, a change or a test is still relevant (a stated judgement)."""
MANY_SHARE, MANY_COUNT = 0.2, 3
"""Number of affected animals from which the tank, not one animal, is the likely cause (a stated judgement)."""
FEW_SHARE = 0.1
UNKNOWN_PH, UNKNOWN_C = 8.0, 25.0
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


class LikelyCause(Part):
    """A possible cause, the evidence for it, and what to do."""

    code: Code
    title: str
    why: str
    do: str
    certain: bool = Field(description="Measured or written down, not only suspected from signs")


class IllnessAnswer(Answer):
    """What to do first, then the causes, most certain first."""

    first: str
    urgent: bool = Field(description="Something that kills within hours, or many at once")
    causes: list[LikelyCause]
    checks: list[str] = Field(description="In order; ticked one by one")
    apart: str | None = Field(
        description="Why a sick one goes into a tank of its own; none where the water is at fault"
    )
    body_mg_n_l: Annotated[float, number("mg N/L", 0, 1e6, "What bodies left in the water turn into")]
    cautions: list[str]
    vet: str


@dataclass(frozen=True)
class _Rule:
    """A cause:

    its condition with evidence (None where it does not apply), the remedy, whether the water is to blame.
    """

    code: Code
    title: str
    speaks: Callable[[IllnessQuestion], str | None]
    do: str
    certain: bool = True
    kills_soon: bool = False


def _lately(days: float | None) -> bool:
    return days is not None and days <= LATELY_DAYS


def _tested(q: IllnessQuestion) -> bool:
    return _lately(q.since_test_days) and q.ammonia_mg_n_l is not None and q.nitrite_mg_n_l is not None


def _any(q: IllnessQuestion, *signs: Sign) -> list[Sign]:
    return [s for s in signs if s in q.signs]


def _ammonia_share(q: IllnessQuestion) -> float:
    """Ammonia as a share of the animals' limit at this pH and temperature; 0 where not read lately."""
    if q.ammonia_mg_n_l is None or not _lately(q.since_test_days):
        return 0.0
    if q.ammonia_mg_n_l <= q.kit.zero_mg_n_l("ammonia"):
        return 0.0
    warmth = UNKNOWN_C if q.temperature_c is None else min(max(q.temperature_c, 0.5), 40.0)
    return ammonia_reach(q.ammonia_mg_n_l, UNKNOWN_PH if q.ph is None else q.ph, warmth, q.salinity_g_kg)


def _nitrite_share(q: IllnessQuestion) -> float:
    """Nitrite as a share of the animals' limit; 0 where not read lately."""
    if q.nitrite_mg_n_l is None or not _lately(q.since_test_days):
        return 0.0
    if q.nitrite_mg_n_l <= q.kit.zero_mg_n_l("nitrite"):
        return 0.0
    return q.nitrite_mg_n_l / nitrite_limit_mg_n_l(q.salinity_g_kg)


def _ammonia(q: IllnessQuestion) -> str | None:
    reach = _ammonia_share(q)
    ph = "" if q.ph is not None else f", reckoned at pH {UNKNOWN_PH:g} since none was tested"
    return f"The test stands at {reach:.1f} times what animals bear from day to day{ph}." if reach > 1 else None


def _nitrite(q: IllnessQuestion) -> str | None:
    reach = _nitrite_share(q)
    return (
        f"The test stands at {reach:.1f} times their limit; it takes the oxygen out of the blood."
        if reach > 1
        else None
    )


def _trace(q: IllnessQuestion) -> str | None:
    shares = [_ammonia_share(q), _nitrite_share(q)]
    if max(shares) <= 0 or max(shares) > 1:
        return None
    return (
        "Under the limits, but more than a settled tank shows: the film was hurt, or there is more waste than it"
        " carries."
    )


def _oxygen(q: IllnessQuestion) -> str | None:
    if q.oxygen_enough is False:
        return "By this load, warmth and surface the water runs short of oxygen."
    if _lately(q.since_stop_days) and _any(q, "gasping", "drifting"):
        return "A filter stood for hours within these days."
    if _any(q, "gasping"):
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
    if q.ph is not None and q.before_ph is not None and abs(q.ph - q.before_ph) >= 0.8:
        return f"pH went from {q.before_ph:.1f} to {q.ph:.1f} between two tests."
    if q.ph is not None and q.ph < 5.5:
        return f"pH stands at {q.ph:.1f}."
    return None


def _parasite(q: IllnessQuestion) -> str | None:
    found = _any(q, "spots", "flicking")
    if not found:
        return None
    new = q.since_animals_days is not None and q.since_animals_days <= NEW_DAYS
    seen = " and ".join({"spots": "spots", "flicking": "rubbing on things"}[s] for s in found)
    return f"Seen: {seen}" + (
        f", {q.since_animals_days:.0f} days after something came in from elsewhere." if new else "."
    )


def _fungus(q: IllnessQuestion) -> str | None:
    return "Tufts or sores: wounds and weak animals catch it in dirty water." if _any(q, "fuzz", "wounds") else None


def _strife(q: IllnessQuestion) -> str | None:
    if _any(q, "wounds", "hiding") and q.company_trouble:
        return "Animals that nip or hunt are kept with others."
    return None


def _inside(q: IllnessQuestion) -> str | None:
    return (
        "Swollen, thin or without balance: what is wrong lies inside."
        if _any(q, "swollen", "thin", "drifting")
        else None
    )


def _age(q: IllnessQuestion) -> str | None:
    touched = q.lost_count + q.ill_count
    if not 0 < touched <= max(1, FEW_SHARE * q.in_count) or not _tested(q):
        return None
    clean = (q.ammonia_mg_n_l or 0) <= q.kit.zero_mg_n_l("ammonia") and (q.nitrite_mg_n_l or 0) <= q.kit.zero_mg_n_l(
        "nitrite"
    )
    return "A single one, the others well, both tests at zero: age or an old harm is likeliest." if clean else None


_RULES = (
    _Rule(
        "ammonia",
        "Ammonia",
        _ammonia,
        "Follow the plan for poison: changes in parts, little food, tests every day.",
        kills_soon=True,
    ),
    _Rule(
        "nitrite",
        "Nitrite",
        _nitrite,
        "Follow the plan for poison; air helps at once, in fresh water a little salt does too (a vet or shop for the"
        " amount).",
        kills_soon=True,
    ),
    _Rule(
        "chlorine",
        "Chlorine or chloramine",
        lambda q: "Untreated water went in within these days." if _lately(q.since_untreated_days) else None,
        "Conditioner to the whole tank's litres now.",
        kills_soon=True,
    ),
    _Rule(
        "oxygen",
        "Too little oxygen",
        _oxygen,
        "Air now: an air stone, the outlet raised so that it breaks the surface, no food today.",
        kills_soon=True,
    ),
    _Rule(
        "warmth",
        "Too warm",
        _warmth,
        "Lights and heater off, lid open, a fan over the water, air; no more than a few degrees a day.",
        kills_soon=True,
    ),
    _Rule(
        "cold",
        "Too cold",
        _cold,
        "Look at the heater, unplugged before hands go in; a degree an hour at most.",
        kills_soon=True,
    ),
    _Rule(
        "ph",
        "A jump or a fall of pH",
        _ph,
        "Test KH; bring it back slowly, by changes with water of its own pH; free ammonia rises with pH.",
        kills_soon=True,
    ),
    _Rule("trace", "A trace of poison", _trace, "Half the food, no cleaning, a test every day until it is gone."),
    _Rule(
        "untested",
        "Not tested",
        lambda q: None if _tested(q) else "Ammonia and nitrite were not both tested within three days.",
        "Test both before anything is given.",
        certain=False,
    ),
    _Rule(
        "parasite",
        "A parasite",
        _parasite,
        "A tank of its own; a vet or an experienced shop names it before anything is dosed.",
        certain=False,
    ),
    _Rule(
        "fungus",
        "Fungus or bacteria on a wound",
        _fungus,
        "Clean water first: a change today and in two days; a tank of its own for the one that has it.",
        certain=False,
    ),
    _Rule("strife", "The company", _strife, "Part them: a divider, more cover, or another home.", certain=False),
    _Rule(
        "inside",
        "Something inside",
        _inside,
        "No food for two days, then little; a vet where it goes on.",
        certain=False,
    ),
    _Rule("age", "A single animal's own end", _age, "Watch the others for a week and test twice.", certain=False),
)
"""The most certain and the fastest killers first. All common practice."""


@computation("illness-check", "Animals unwell or lost: what to look at first")
def illness_check(question: IllnessQuestion) -> IllnessAnswer:
    """Likely causes from the signs and the logbook, and what to do first.

    question: counts, g, L, mg N/L, pH, °C, days since. Names no disease: a vet does.
    Source: signs and order common practice; limits as for the emergency plan; nitrogen of a body from memory.
    """
    q, w = question, Working()
    body = w.sum(
        "body",
        "m × 1000 × share / V",
        {"m": q.body_left_g, "1000": 1000, "share": BODY_NITROGEN_SHARE, "V": q.net_l},
        "mg N/L",
        "memory",
    )
    reach = _ammonia_share(q)
    if reach:
        w.line(
            "reach",
            "ammonia / limit",
            f"{q.ammonia_mg_n_l:.3g} / limit at this pH and warmth",
            reach,
            "ratio",
            "practice",
        )
    found = [(r, why) for r in _RULES if (why := r.speaks(q)) is not None]
    causes = [LikelyCause(code=r.code, title=r.title, why=why, do=r.do, certain=r.certain) for r, why in found]
    many = _many(q)
    urgent = many or any(r.kills_soon for r, _ in found)
    water = [c for c in causes if c.certain]
    return IllnessAnswer(
        verdict=_verdict(q, causes, many),
        working=w.lines,
        first=causes[0].do if causes else "Watch them daily for a week, and test twice.",
        urgent=urgent,
        causes=causes,
        checks=_checks(q, body),
        apart=None if water or not _any(q, "spots", "flicking", "fuzz", "wounds", "swollen", "thin") else APART,
        body_mg_n_l=body,
        cautions=_cautions(q),
        vet=(
            "Several at once, signs that spread, or no better within two days with clean water: a vet who knows these"
            " animals."
        ),
    )


APART = (
    "A sick one goes into a tank of its own, with a seeded sponge or daily changes: medicine then meets neither the"
    " film nor the others."
)


def _many(q: IllnessQuestion) -> bool:
    touched = q.lost_count + q.ill_count
    return touched >= MANY_COUNT and touched >= MANY_SHARE * max(q.in_count, 1)


def _verdict(q: IllnessQuestion, causes: list[LikelyCause], many: bool) -> str:
    if not (q.signs or q.lost_count or q.ill_count):
        return "Nothing unwell was written down."
    what = f"{q.lost_count} lost" if q.lost_count else "Unwell"
    if many:
        what = (
            f"{q.lost_count + q.ill_count} of {max(q.in_count, q.lost_count + q.ill_count)} at once: the water, until"
            " tests say otherwise"
        )
    if q.lost_count >= max(q.in_count, 1):
        what = "All of them are lost" if q.lost_count > 1 else "The only one is lost"
    lead = next((c for c in causes if c.certain), causes[0] if causes else None)
    if lead is None:
        return f"{what}; nothing in the logbook explains it."
    if lead.code == "untested":
        return f"{what}. Test ammonia and nitrite before anything else."
    return f"{what}: {formatting.inside(lead.title)} first. {lead.why}"


def _checks(q: IllnessQuestion, body: float) -> list[str]:
    checks = [
        "Is every filter running, and does the surface move?",
        "Read the thermometer.",
        "Test ammonia, nitrite and pH.",
    ]
    if has_salt(q.salinity_g_kg):
        checks.insert(2, "Measure the salinity.")
    if q.body_left_g > 0:
        ppm = body / NITROGEN_SHARE["NH4"]
        checks.append(
            f"Find the bodies, behind the filter and in its intake too: left in the water they give up to {ppm:.2g} ppm"
            " of ammonia."
        )
    if q.lost_count >= max(q.in_count, 1):
        checks.append(
            "Nothing new goes in until the cause is known, and until the film has cleared a dose again, twice."
        )
    else:
        checks.append("Look at each animal for five minutes: breath, fins, skin, who chases whom.")
    checks.append("What changed within two weeks: animals, food, a spray in the room, new stone or wood?")
    return checks


def _cautions(q: IllnessQuestion) -> list[str]:
    found = [
        "Take carbon out before medicine, or it takes the medicine out; many medicines cost the film, so test daily"
        " while they last."
    ]
    if q.invertebrates:
        found.insert(0, "Many medicines, copper above all, kill shrimp, snails and crabs: never in this tank.")
    if q.washes_hands:
        found.append("Wash hands after: this water carries Salmonella.")
    found.append("Nets and hands go from the well to the sick, never back undisinfected. Never release an animal.")
    return found
