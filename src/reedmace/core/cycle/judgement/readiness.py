"""Readiness of a cycle for animals, by every standard in use, with what is missing."""

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Question, Working, computation, number
from reedmace.core.cycle.judgement.standards import (
    WHY_FOLLOWED,
    Standard,
    StandardName,
    at_least,
    dose_standard,
    film_came,
    planted_standard,
    seeded_standard,
    standard_for,
)
from reedmace.core.cycle.model.ensemble import share_passing_within
from reedmace.core.cycle.record.dose_to_prove import dose_to_prove_mg_n_l, leaves_traces, write_dose_to_prove
from reedmace.core.cycle.record.kit_checks import kit_is_stuck, nitrite_never_showed
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.nitrification import nitrate_did_not_rise
from reedmace.core.cycle.record.proof import (
    NEEDED,
    falling_capacity,
    is_full,
)
from reedmace.core.cycle.record.proven_load import proven_capacity
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.stock import SPECIES, Animals, WasteLoadQuestion, waste_load

Confidence = Literal["none", "low", "fair", "good"]


STALE_DAYS = 3.0


class CycleReadinessQuestion(Question):
    """A log, and the standard that decides; null for the one its method calls for."""

    log: CycleLog
    standard: StandardName | None = None


class CycleReadinessAnswer(Answer):
    """Ready or not by the standard followed, every standard beside it, and the confidence."""

    ready: bool
    confidence: Confidence
    confidence_why: list[str]
    why_followed: str
    missing: list[str]
    standards: list[Standard]
    clears_mg_n_l_day: Annotated[
        float, number("mg N/(L day)", 0, 1e4, "Seen to be turned all the way to nitrate in a day, from the newest fall")
    ]
    clears: str = Field(description="The same in words, empty where no fall was seen")
    proven_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e4, "Largest dose seen to be gone within a day")]
    ammonia_now_mg_n_l: Annotated[float, number("mg N/L", 0, 1e5)] | None
    nitrite_now_mg_n_l: Annotated[float, number("mg N/L", 0, 1e5)] | None


def _confidence(log: CycleLog, cleared: int) -> tuple[Confidence, list[str]]:
    """Confidence from the number, spacing and resolution of the tests (memory)."""
    full = sorted(r.day for r in log.readings if is_full(r))
    if not full:
        return "none", ["no test of both ammonia and nitrite"]
    why, points = [], 0
    points += 2 if len(full) >= 8 else 1 if len(full) >= 4 else 0
    why.append(f"{len(full)} full test{'s' if len(full) > 1 else ''}")
    late = [d for d in full if d >= log.day_now - 10]
    gaps = [b - a for a, b in pairwise([*late, log.day_now])]
    widest = max(gaps, default=10.0)
    points += 2 if widest <= 2.5 else 1 if widest <= 4 else 0
    why.append(f"at most {max(widest, 1):.0f} days between them lately" if late else "none in the last ten days")
    first = log.kit.steps_mg_n_l("ammonia")[1]
    fine = first <= 0.4 * dose_to_prove_mg_n_l(log)
    points += 1 if fine else 0
    why.append(
        "a kit fine enough for this load"
        if fine
        else f"a kit whose first step ({log.ppm(first)}) is coarse for this load"
    )
    if log.kit.expired:
        return "low", [*why, "but the kit is past its date"]
    if len(full) < 4:
        return "low", why
    points += 1 if cleared >= 3 else 0
    level: Confidence = "good" if points >= 5 else "fair" if points >= 3 else "low"
    return level, why


REFERENCE_ANIMAL = "neon-tetra"
"""Species used for examples where no animals are chosen yet."""


FIRST_GROUP_MG_N_L_DAY = 0.1
"""Load of a first group where zeros prove no load, mg N/L/day: unhelped, a day of it stays under a kit's first step."""
AT_ODDS = (
    "the tests say ready while the forecast from the same log expects weeks yet: clear one more dose before any animal"
    " comes"
)


ODDS_DAYS, ODDS_SHARE = 7.0, 0.05
"""Share of draws that would clear two doses within the days given; below it tests and forecast disagree (memory)."""


def _at_odds(log: CycleLog, followed: Standard) -> bool:
    """Whether hardly any draw of the model agrees with a ready log; a third cleared dose settles it."""
    if followed.cleared > NEEDED or not log.doses_ammonia() or log.animals_are_in() or not log.doses:
        return False
    return share_passing_within(log, ODDS_DAYS) < ODDS_SHARE


def _standing(log: CycleLog) -> str | None:
    """Poisons the newest tests still read, in words; None when neither."""
    found = []
    ammonia, nitrite = log.latest("ammonia_mg_n_l"), log.latest("nitrite_mg_n_l")
    if ammonia and ammonia[1] > log.kit.zero_mg_n_l("ammonia"):
        found.append(f"ammonia still reads {log.ppm(ammonia[1])}")
    if nitrite and nitrite[1] > log.kit.zero_mg_n_l("nitrite"):
        reads = f"{log.ppm(nitrite[1], 'nitrite')}{at_least(log, nitrite[0])}"
        found.append(f"nitrite {reads}" if found else f"nitrite still reads {reads}")
    return " and ".join(found) or None


def _kit_doubt(log: CycleLog) -> str | None:
    """Why the kit proves nothing, in words; None where it may be believed."""
    if kit_is_stuck(log):
        return "the ammonia test has read the same every time: the kit is to be tested first"
    if nitrite_never_showed(log):
        return "ammonia went and nitrite never showed: read it with another kit, or test nitrate"
    return "the kit is past its date: a zero from it proves nothing" if log.kit.expired else None


def _missing(log: CycleLog, followed: Standard) -> list[str]:
    """Everything that stands between the log and ready; empty means ready."""
    found: list[str] = []
    ammonia, nitrite = log.latest("ammonia_mg_n_l"), log.latest("nitrite_mg_n_l")
    if ammonia is None:
        found.append("no ammonia test yet")
    if nitrite is None:
        found.append("no nitrite test yet; clear water and time prove nothing")
    if ammonia and nitrite:
        age = log.day_now - min(ammonia[0], nitrite[0])
        # Planted tanks without doses are tested weekly.
        if age > (8.0 if followed.standard == "planted" else STALE_DAYS):
            found.append(f"the last full test is {age:.0f} days old")
    # The newest reading counts, whatever was proved before it.
    standing = _standing(log)
    if standing:
        found.append(standing)
    if doubt := _kit_doubt(log):
        found.append(doubt)
    if not log.filter_running:
        found.append("the filter is not running")
    if not followed.passes:
        found.append(followed.missing)
    elif nitrate_did_not_rise(log):
        found.append("nitrate was read and did not rise with what was dosed: nothing shows that it was nitrified")
    return found


def _proven_words(log: CycleLog, proven_mg_n_l_day: float) -> str:
    """For how much a ready filter is proven: as ppm a day, and as a share of what the planned animals make."""
    words = f" Proven is {log.ppm(proven_mg_n_l_day)} a day"
    if not log.animals or log.animals_are_in() or log.planned_load_mg_n_l_day <= 0:
        return f"{words}."
    share = proven_mg_n_l_day / log.planned_load_mg_n_l_day
    return f"{words}, {'all' if share >= 1 else f'{share:.0%}'} of what the planned animals make."


def _clears_words(log: CycleLog, cleared_mg_n_l_day: float) -> str:
    """What the filter clears as it is: as ppm a day and as animals."""
    if cleared_mg_n_l_day <= 0:
        return ""
    one = log.animals[0] if log.animals else Animals(species_id=REFERENCE_ANIMAL, count=1)
    own = [one.model_copy(update={"count": 1})]
    try:
        each = waste_load(WasteLoadQuestion(net_l=log.net_l, animals=own, own_species=log.own_species)).ammonia_mg_n_day
    except CannotAnswer:
        return ""
    known = SPECIES | {s.id: s for s in log.own_species}
    many = int(cleared_mg_n_l_day * log.net_l / (1.2 * max(each, 1e-6)))
    name = known[one.species_id].common_name.lower()
    return (
        f"It clears about {log.ppm(cleared_mg_n_l_day)} a day as it is: what {many} × {name} make, with a fifth to"
        " spare."
    )


def _verdict(log: CycleLog, followed: Standard, proven_mg_n_l_day: float) -> str:
    """That it is ready, by what and for how much. followed: the standard that decides."""
    proof = (
        f"{followed.cleared} doses in a row were gone within a day"
        if followed.standard.endswith(("matched", "ppm"))
        else f"{followed.cleared} days of zeros"
    )
    return (
        f"Ready, by the {followed.standard} standard: {proof}.{_proven_words(log, proven_mg_n_l_day)} One large water"
        " change, then add animals within a few days."
    )


def _clears_mg_n_l_day(log: CycleLog, w: Working) -> float:
    """What the newest fall of both poisons shows to be cleared, mg N/(L day); 0 where none was seen."""
    cleared = falling_capacity(log)
    if cleared:
        w.line(
            "clears",
            "(fall of ammonia and nitrite) / days between",
            "the newest fall with nothing done between",
            cleared,
            "mg N/(L day)",
            "arithmetic",
        )
    return cleared


def _standards(log: CycleLog, follow: StandardName, challenge: float, w: Working) -> list[Standard]:
    """Every standard judged. follow: the one that decides; challenge: the dose to prove, mg N/L."""
    matched = "Half of load-matched, since whole doses leave a trace" if leaves_traces(log) else "Load-matched"
    sized: tuple[tuple[StandardName, str, float], ...] = (
        ("load-matched", f"{matched}: {log.ppm(challenge)} gone in a day, twice running", challenge),
        ("two-ppm", f"{log.ppm(2 * NITROGEN_SHARE['NH4'])} gone in a day, twice running", 2 * NITROGEN_SHARE["NH4"]),
        ("one-ppm", f"{log.ppm(NITROGEN_SHARE['NH4'])} gone in a day, twice running", NITROGEN_SHARE["NH4"]),
    )
    found = [dose_standard(log, name, title, size, follow == name, w) for name, title, size in sized]
    found.append(planted_standard(log, follow == "planted", w))
    found.append(seeded_standard(log, follow == "seeded", w))
    return found


@computation("cycle-readiness", "May animals be added, by which standard")
def cycle_readiness(question: CycleReadinessQuestion) -> CycleReadinessAnswer:
    """Whether the tank is ready, by which standard, and what is missing.

    question: the log in days and mg N/L. One zero is never enough, nor is a log without nitrite, nor an expired kit.
    Source: the standards are common practice; load-matched is 1.2 times the planned day's load, at least 0.5 mg N/L.
    """
    q, w, log = question, Working(), question.log
    follow = q.standard or standard_for(log)
    challenge = write_dose_to_prove(log, w)
    zero_ammonia, zero_nitrite = log.kit.zero_mg_n_l("ammonia"), log.kit.zero_mg_n_l("nitrite")
    w.line("zero", "half the kit's first step", "ammonia, as N", zero_ammonia, "mg N/L", "practice")
    w.line("zero", "half the kit's first step", "nitrite, as N", zero_nitrite, "mg N/L", "practice")
    standards = _standards(log, follow, challenge, w)
    followed = next(s for s in standards if s.followed)
    held = standards[-1]
    if q.standard is None and not followed.passes and held.passes and film_came(log):
        # A filter moved in may be proved either way: by doses or by the week of zeros.
        follow = held.standard
        standards = [s.model_copy(update={"followed": s.standard == follow}) for s in standards]
        followed = standards[-1]
    missing = _missing(log, followed)
    if not missing and _at_odds(log, followed):
        missing.append(AT_ODDS)
    ready = not missing
    proven = proven_capacity(log) or (FIRST_GROUP_MG_N_L_DAY if ready else 0.0)
    confidence, why = _confidence(log, followed.cleared)
    cleared = _clears_mg_n_l_day(log, w)
    ammonia, nitrite = log.latest("ammonia_mg_n_l"), log.latest("nitrite_mg_n_l")
    return CycleReadinessAnswer(
        verdict=_verdict(log, followed, proven) if ready else f"Not yet, because {missing[0]}.",
        working=w.lines,
        ready=ready,
        confidence=confidence,
        confidence_why=why,
        why_followed=WHY_FOLLOWED[follow],
        missing=missing,
        standards=standards,
        clears_mg_n_l_day=cleared,
        clears=_clears_words(log, proven if ready else cleared),
        proven_mg_n_l_day=proven,
        ammonia_now_mg_n_l=ammonia[1] if ammonia else None,
        nitrite_now_mg_n_l=nitrite[1] if nitrite else None,
    )
