"""Readiness of a cycle for animals, by every standard in use, with what is missing."""

import math
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Part, Question, Working, computation, number, whole
from reedmace.core.cycle.model.ensemble import share_passing_within
from reedmace.core.cycle.record.film_losses import Loss
from reedmace.core.cycle.record.log import TRANSFERRED, CycleLog
from reedmace.core.cycle.record.proof import (
    NEEDED,
    SIZE_SLACK,
    STANDS_DAYS,
    CheckedDose,
    Outcome,
    checked_doses,
    falling_capacity,
    is_full,
    is_zero,
    poison_since,
    proven_capacity,
    standing_proof,
    voiding_loss,
)
from reedmace.core.cycle.record.suspect_readings import interval_of
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.stock import SPECIES, Animals, WasteLoadQuestion, waste_load

StandardName = Literal["load-matched", "two-ppm", "one-ppm", "planted", "seeded"]
Confidence = Literal["none", "low", "fair", "good"]
PLANTED_DAYS, SEEDED_DAYS = 28, 7
LONGEST_GAP_DAYS = {"seeded": 4.0, "planted": 9.0}
"""Longest gap between zeros that still counts as unbroken, days (memory)."""
FEWEST_ZEROS = 3
STALE_DAYS = 3.0


class CycleReadinessQuestion(Question):
    """A log, and the standard that decides; null for the one its method calls for."""

    log: CycleLog
    standard: StandardName | None = None


class Standard(Part):
    """One standard's requirement and result."""

    standard: StandardName
    title: str
    passes: bool
    cleared: Annotated[int, whole(0, 400, "Doses cleared so far, or days of zeros for seeded and planted")]
    needed: Annotated[int, whole(1, 400)]
    missing: str
    followed: bool


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


def standard_for(log: CycleLog) -> StandardName:
    """The standard the log's method calls for. log: the cycle's."""
    if log.method == "planted" and not log.animals_are_in():
        return "planted"
    if log.animals_are_in() or not log.doses_ammonia():
        return "seeded"
    # Transferred bacteria are proved by doses as any other; without doses, by a week of zeros.
    return "load-matched" if log.doses or not _film_came(log) else "seeded"


def _film_came(log: CycleLog) -> bool:
    """Whether bacteria came with a filter or are fed by food or animals, so that a week of zeros is evidence."""
    fed = log.method == "fish-food" and log.food_g_day > 0
    return fed or log.method in (*TRANSFERRED, "animals-in") or log.animals_are_in()


_WHY: dict[StandardName, str] = {
    "load-matched": "it asks for the bacteria your animals will need, no more and no less",
    "two-ppm": "you chose it: more than most tanks make in a day",
    "one-ppm": "you chose it: a light stock's day",
    "planted": "growing plants take the ammonia, so growth and zeros are the proof",
    "seeded": "the film is there or is being fed already; a week of zeros shows that it holds",
}


def _or_more(log: CycleLog, day: float) -> str:
    return " or more" if any(r.day == day and "nitrite" in r.off_scale for r in log.readings) else ""


def zeros_run(log: CycleLog, since_day: float, longest_gap_days: float) -> tuple[float, int]:
    """(days, tests) of the unbroken run of zeros that ends at the newest full test.

    log: the cycle's; since_day: tests before it do not count; longest_gap_days: days two zeros may lie apart.
    """
    run: list[float] = []
    for r in sorted(log.readings, key=lambda r: r.day):
        if not is_full(r) or r.day < since_day:
            continue
        if not is_zero(log, r):
            run = []
            continue
        if run and r.day - run[-1] > longest_gap_days:
            run = []
        run.append(r.day)
    return (run[-1] - run[0], len(run)) if run else (0.0, 0)


_SHORT_OF: dict[Outcome, str] = {
    "not-seen": (
        "the last dose was never seen in the water, so its zeros prove nothing: dose again, test ammonia an hour later,"
        " and both the day after"
    ),
    "changed": "water was changed between the last dose and its test: dose again and leave the water alone for a day",
    "dosed-again": "another dose went in before the last one's test: one dose, one day, one test",
    "failed": "the test a day after the last dose still found some",
    "no-test": "the last dose had no test of both 20 to 28 hours after it",
    "doubtful": "the test after the last dose does not fit its neighbours: test again",
    "too-soon": "the last dose is to be tested 20 to 28 hours after it",
    "cleared": "",
}


def _dose_missing(log: CycleLog, size: float, kept: list[CheckedDose], loss: Loss | None, held: bool) -> str:
    dose = log.ppm(size)
    wanted = f"one more dose of {dose}" if kept else f"two doses of {dose} on two days"
    asked = f"{wanted}, seen in the water and with both at zero 20 to 28 hours later"
    if not held:
        return "a later test found ammonia or nitrite again: dose and test afresh"
    if loss is not None and len(kept) < NEEDED:
        return f"the film has to be proved again, since {loss.what} on day {loss.day:.0f}: {asked}"
    sized = [t for t in checked_doses(log) if t.raise_mg_n_l >= SIZE_SLACK * size]
    why = _SHORT_OF[sized[-1].outcome] if sized and log.day_now - sized[-1].day <= STANDS_DAYS else ""
    return f"{asked} ({why})" if why else asked


def _dose_standard(log: CycleLog, name: StandardName, title: str, size: float, followed: bool, w: Working) -> Standard:
    kept, loss = standing_proof(log, size)
    held = not kept or not poison_since(log, kept[-1].tested_day or 0.0)
    cleared = len(kept) if held else 0
    passes = cleared >= NEEDED
    lacks = "nothing" if passes else _dose_missing(log, size, kept, loss, held)
    w.line(name, "doses cleared within a day", f"of {size:.2f} mg N/L", cleared, "doses", "practice")
    return Standard(
        standard=name, title=title, passes=passes, cleared=cleared, needed=NEEDED, missing=lacks, followed=followed
    )


def _more_days(days: float) -> str:
    whole_days = max(math.ceil(days), 1)
    return f"{whole_days} more day{'s' if whole_days > 1 else ''}"


def _planted_standard(log: CycleLog, followed: bool, w: Working) -> Standard:
    grows = log.plants_growing_day
    loss = voiding_loss(log, grows or 0.0)
    days, tests = zeros_run(log, max(grows or 0.0, loss.day if loss else 0.0), LONGEST_GAP_DAYS["planted"])
    days = days if grows is not None else 0.0
    w.line("planted", "days of zeros while plants grow", f"{tests} tests", days, "days", "practice")
    passes = days >= PLANTED_DAYS and tests >= FEWEST_ZEROS and log.plants != "none"
    if log.plants == "none":
        lacks = "only for a tank with plants in plenty"
    elif grows is None:
        lacks = "new growth: the four weeks count from there, not from the planting day"
    else:
        lacks = "nothing" if passes else f"{_more_days(PLANTED_DAYS - days)} of growth, with zeros each week"
    return Standard(
        standard="planted",
        title="Planted quiet start: four to five weeks of visible growth and zeros",
        passes=passes,
        cleared=int(days),
        needed=PLANTED_DAYS,
        missing=lacks,
        followed=followed,
    )


def nitrate_rose(log: CycleLog) -> bool:
    """Whether nitrate rose by more than the kit's resolution. log: the cycle's."""
    steps = log.kit.steps_mg_n_l("nitrate")
    rows = [(r.nitrate_mg_n_l, "nitrate" in r.off_scale) for r in sorted(log.readings, key=lambda r: r.day)]
    spans = [interval_of(value, steps, off) for value, off in rows if value is not None]
    return len(spans) > 1 and spans[-1][0] >= min(span[1] for span in spans[:-1]) - 1e-9


def _seeded_standard(log: CycleLog, followed: bool, w: Working) -> Standard:
    # Each group of animals is a new load with its own week of zeros; a loss of bacteria restarts the week.
    since = log.stocked_day or 0.0
    loss = voiding_loss(log, since)
    days, tests = zeros_run(log, max(since, loss.day) if loss else since, LONGEST_GAP_DAYS["seeded"])
    rising, comes = nitrate_rose(log), _film_came(log)
    w.line("seeded", "days of zeros in a row", f"{tests} tests", days, "days", "practice")
    passes = days >= SEEDED_DAYS and tests >= FEWEST_ZEROS and rising and comes
    if not comes:
        lacks = "only where the film came with the filter, or is fed by food or animals"
    elif passes:
        lacks = "nothing"
    else:
        wanting = [f"{_more_days(SEEDED_DAYS - days)} of zeros"] if days < SEEDED_DAYS else []
        wanting += [f"at least {FEWEST_ZEROS} tests of both"] if days >= SEEDED_DAYS and tests < FEWEST_ZEROS else []
        wanting += [] if rising else ["nitrate seen to rise by a step of the kit"]
        lacks = ", and ".join(wanting)
        if loss:
            lacks += f", counted from day {loss.day:.0f}, since {loss.what}"
    return Standard(
        standard="seeded",
        title="Moved or fed film: seven days of zeros with nitrate rising",
        passes=passes,
        cleared=int(days),
        needed=SEEDED_DAYS,
        missing=lacks,
        followed=followed,
    )


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
    fine = first <= 0.4 * log.challenge_mg_n_l()
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
        reads = f"{log.ppm(nitrite[1], 'nitrite')}{_or_more(log, nitrite[0])}"
        found.append(f"nitrite {reads}" if found else f"nitrite still reads {reads}")
    return " and ".join(found) or None


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
    if log.kit.expired:
        found.append("the kit is past its date: a zero from it proves nothing")
    if not log.filter_running:
        found.append("the filter is not running")
    if not followed.passes:
        found.append(followed.missing)
    return found


def _clears_words(log: CycleLog, cleared_mg_n_l_day: float) -> str:
    """What a filter that does not pass yet can already clear: as ppm a day and as animals."""
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


@computation("cycle-readiness", "May animals be added, by which standard")
def cycle_readiness(question: CycleReadinessQuestion) -> CycleReadinessAnswer:
    """Whether the tank is ready, by which standard, and what is missing.

    question: the log in days and mg N/L. One zero is never enough, nor is a log without nitrite, nor an expired kit.
    Source: the standards are common practice; load-matched is 1.2 times the planned day's load, at least 0.5 mg N/L.
    """
    q, w, log = question, Working(), question.log
    follow = q.standard or standard_for(log)
    challenge = w.line(
        "challenge",
        "max(1.2 × planned load, 0.5)",
        f"max(1.2 × {log.planned_load_mg_n_l_day:.3g}, 0.5)",
        log.challenge_mg_n_l(),
        "mg N/L",
        "practice",
    )
    zero_ammonia, zero_nitrite = log.kit.zero_mg_n_l("ammonia"), log.kit.zero_mg_n_l("nitrite")
    w.line("zero", "half the kit's first step", "ammonia, as N", zero_ammonia, "mg N/L", "practice")
    w.line("zero", "half the kit's first step", "nitrite, as N", zero_nitrite, "mg N/L", "practice")
    sized: tuple[tuple[StandardName, str, float], ...] = (
        ("load-matched", f"Load-matched: {log.ppm(challenge)} gone in a day, twice running", challenge),
        ("two-ppm", f"{log.ppm(2 * NITROGEN_SHARE['NH4'])} gone in a day, twice running", 2 * NITROGEN_SHARE["NH4"]),
        ("one-ppm", f"{log.ppm(NITROGEN_SHARE['NH4'])} gone in a day, twice running", NITROGEN_SHARE["NH4"]),
    )
    standards = [_dose_standard(log, name, title, size, follow == name, w) for name, title, size in sized]
    standards.append(_planted_standard(log, follow == "planted", w))
    standards.append(_seeded_standard(log, follow == "seeded", w))
    followed = next(s for s in standards if s.followed)
    held = standards[-1]
    if q.standard is None and not followed.passes and held.passes and _film_came(log):
        # A filter moved in may be proved either way: by doses or by the week of zeros.
        follow = held.standard
        standards = [s.model_copy(update={"followed": s.standard == follow}) for s in standards]
        followed = standards[-1]
    missing = _missing(log, followed)
    if not missing and _at_odds(log, followed):
        missing.append(AT_ODDS)
    ready = not missing
    confidence, why = _confidence(log, followed.cleared)
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
    ammonia, nitrite = log.latest("ammonia_mg_n_l"), log.latest("nitrite_mg_n_l")
    if ready:
        proof = (
            f"{followed.cleared} doses in a row were gone within a day"
            if followed.standard.endswith(("matched", "ppm"))
            else f"{followed.cleared} days of zeros"
        )
        verdict = (
            f"Ready, by the {followed.standard} standard: {proof}. One large water change, then add animals within a"
            " few days."
        )
    else:
        verdict = f"Not yet, because {missing[0]}."
    return CycleReadinessAnswer(
        verdict=verdict,
        working=w.lines,
        ready=ready,
        confidence=confidence,
        confidence_why=why,
        why_followed=_WHY[follow],
        missing=missing,
        standards=standards,
        clears_mg_n_l_day=cleared,
        clears=_clears_words(log, cleared),
        proven_mg_n_l_day=proven_capacity(log),
        ammonia_now_mg_n_l=ammonia[1] if ammonia else None,
        nitrite_now_mg_n_l=nitrite[1] if nitrite else None,
    )
