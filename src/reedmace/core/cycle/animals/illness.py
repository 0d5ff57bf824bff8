"""Animals unwell or lost: likely causes and what to check first, the water before disease."""

from typing import Annotated

from pydantic import Field

from reedmace.core.chemistry.salinity import has_salt
from reedmace.core.contract import Answer, Part, Working, computation, number
from reedmace.core.cycle.animals.illness_causes import (
    CAUSE_RULES,
    Code,
    IllnessQuestion,
    ammonia_share_of_limit,
    both_tested,
    seen,
)
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import NITROGEN_SHARE

BODY_NITROGEN_SHARE = 0.026
"""Nitrogen as a share of an animal's wet mass.

Protein is about 16 % of the body and 16 % of it is nitrogen (memory).
"""


MANY_SHARE, MANY_COUNT = 0.2, 3
"""Number of affected animals from which the tank, not one animal, is the likely cause (a stated judgement)."""


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
    reach = ammonia_share_of_limit(q)
    if reach:
        w.line(
            "reach",
            "ammonia / limit",
            f"{q.ammonia_mg_n_l:.3g} / limit at this pH and warmth",
            reach,
            "ratio",
            "practice",
        )
    found = [(r, why) for r in CAUSE_RULES if (why := r.speaks(q)) is not None]
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
        apart=None if water or not seen(q, "spots", "flicking", "fuzz", "wounds", "swollen", "thin") else APART,
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
    if not both_tested(q):
        checks.append(
            "No kit in the house? Air, a third of the water changed, treated and at the tank's warmth, and no food"
            " today; then get a kit."
        )
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
