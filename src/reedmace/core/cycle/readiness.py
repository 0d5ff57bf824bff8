"""May animals be added? By every standard in use, with what is still missing."""

from typing import Annotated, Literal

from reedmace.core.cycle.log import ZERO_AMMONIA_MG_N_L, ZERO_NITRITE_MG_N_L, CycleLog
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.working import Answer, Part, Question, Working, number, whole

StandardName = Literal["load-matched", "two-ppm", "one-ppm", "seeded"]


class CycleReadinessQuestion(Question):
    """A log and which standard decides."""

    log: CycleLog
    standard: StandardName = "load-matched"


class Standard(Part):
    """One school's bar."""

    standard: StandardName
    title: str
    passes: bool
    cleared: Annotated[int, whole(0, 400, "Doses cleared so far, or days of zeros for the seeded standard")]
    needed: Annotated[int, whole(1, 400)]
    missing: str
    followed: bool


class CycleReadinessAnswer(Answer):
    """Ready or not by the standard followed, every standard beside it, and how sure the log makes it."""

    ready: bool
    confidence: Literal["none", "low", "fair", "good"]
    missing: list[str]
    standards: list[Standard]
    ammonia_now_mg_n_l: Annotated[float, number("mg N/L", 0, 1e5)] | None
    nitrite_now_mg_n_l: Annotated[float, number("mg N/L", 0, 1e5)] | None


def _cleared_doses(log: CycleLog, at_least_mg_n_l: float) -> list[float]:
    """Days of the tests that found both zero 16 to 32 h after a dose of that size. An off-scale test never counts."""
    found = []
    for dose in log.doses:
        if dose.raise_mg_n_l < 0.97 * at_least_mg_n_l:
            continue
        for r in log.readings:
            if not 16 / 24 <= r.day - dose.day <= 32 / 24:
                continue
            if r.ammonia_mg_n_l is None or r.nitrite_mg_n_l is None or r.off_scale:
                continue
            if r.ammonia_mg_n_l <= ZERO_AMMONIA_MG_N_L and r.nitrite_mg_n_l <= ZERO_NITRITE_MG_N_L:
                found.append(r.day)
                break
    return sorted(found)


def _failed_since(log: CycleLog, day: float) -> bool:
    return any(
        r.day > day + 0.01
        and ((r.ammonia_mg_n_l or 0) > ZERO_AMMONIA_MG_N_L or (r.nitrite_mg_n_l or 0) > ZERO_NITRITE_MG_N_L)
        and not any(0 <= r.day - d.day < 16 / 24 for d in log.doses)
        for r in log.readings
    )


def cycle_readiness(question: CycleReadinessQuestion) -> CycleReadinessAnswer:
    """Whether the tank passes, by which standard, and what is missing.

    question: the log in days and mg N/L. One zero is never enough, nor is a log without nitrite.
    Source: the standards are common practice; load-matched is 1.2 times the planned day's load, at least 0.5 mg N/L.
    """
    q, w, log = question, Working(), question.log
    challenge = w.line(
        "challenge",
        "max(1.2 × planned load, 0.5)",
        f"max(1.2 × {log.planned_load_mg_n_l_day:.3g}, 0.5)",
        log.challenge_mg_n_l(),
        "mg N/L",
        "practice",
    )
    w.line("zero", "half a colour kit's first step", "ammonia, as N", ZERO_AMMONIA_MG_N_L, "mg N/L", "practice")
    standards = []
    for name, title, size in (
        ("load-matched", f"Load-matched: {challenge:.2g} mg N/L gone in a day, twice running", challenge),
        ("two-ppm", "2 ppm gone in a day, twice running", 2 * NITROGEN_SHARE["NH4"]),
        ("one-ppm", "1 ppm gone in a day, twice running", 1 * NITROGEN_SHARE["NH4"]),
    ):
        days = _cleared_doses(log, size)
        recent = [d for d in days if d >= (days[-1] - 4 if days else 0) and log.day_now - d <= 5]
        held = not days or not _failed_since(log, days[-1])
        cleared = len(recent) if held else 0
        passes = cleared >= 2
        if passes:
            lacks = "nothing"
        elif not held:
            lacks = "a later test found ammonia or nitrite again: dose and test afresh"
        elif cleared == 1:
            lacks = f"one more dose of {size:.2g} mg N/L, with both at zero a day later"
        else:
            lacks = f"two doses of {size:.2g} mg N/L, each with ammonia and nitrite at zero a day later"
        w.line(name, "doses cleared within a day", f"of {size:.2f} mg N/L", cleared, "doses", "practice")
        standards.append(
            Standard(
                standard=name,
                title=title,
                passes=passes,
                cleared=cleared,
                needed=2,
                missing=lacks,
                followed=q.standard == name,
            )
        )
    zeros = _days_of_zeros(log)
    nitrate = [r.nitrate_mg_n_l for r in log.readings if r.nitrate_mg_n_l is not None]
    rising = len(nitrate) > 1 and nitrate[-1] > nitrate[0]
    seeded = zeros >= 7 and rising and log.method == "seeded-filter"
    if log.method != "seeded-filter":
        lacking = "only for a filter moved from a running tank"
    else:
        lacking = (
            "nothing"
            if seeded
            else f"{max(7 - zeros, 0):.0f} more days of zeros" + ("" if rising else ", and nitrate seen to rise")
        )
    standards.append(
        Standard(
            standard="seeded",
            title="Moved filter: seven days of zeros with nitrate rising",
            passes=seeded,
            cleared=int(zeros),
            needed=7,
            missing=lacking,
            followed=q.standard == "seeded",
        )
    )
    followed = next(s for s in standards if s.followed)
    ammonia, nitrite = log.latest("ammonia_mg_n_l"), log.latest("nitrite_mg_n_l")
    missing: list[str] = []
    if ammonia is None:
        missing.append("no ammonia test yet")
    if nitrite is None:
        missing.append("no nitrite test yet; clear water and time prove nothing")
    last_test = min(ammonia[0] if ammonia else -99, nitrite[0] if nitrite else -99)
    stale = log.day_now - last_test > 3
    if ammonia and nitrite and stale:
        missing.append(f"the last full test is {log.day_now - last_test:.0f} days old")
    if ammonia and ammonia[1] > ZERO_AMMONIA_MG_N_L:
        missing.append(f"ammonia still reads {ammonia[1]:.2g} mg N/L")
    if nitrite and nitrite[1] > ZERO_NITRITE_MG_N_L:
        missing.append(f"nitrite still reads {nitrite[1]:.2g} mg N/L")
    if not followed.passes:
        missing.append(followed.missing)
    # A dose made since the last clear test reads as ammonia now; that alone does not undo two cleared doses.
    fresh_dose = any(log.day_now - d.day < 16 / 24 for d in log.doses)
    ready = (
        followed.passes
        and not stale
        and ammonia is not None
        and nitrite is not None
        and not (fresh_dose and ammonia[1] > ZERO_AMMONIA_MG_N_L)
    )
    ready = ready and (nitrite is not None and nitrite[1] <= ZERO_NITRITE_MG_N_L)
    tests = sum(r.ammonia_mg_n_l is not None and r.nitrite_mg_n_l is not None for r in log.readings)
    confidence: Literal["none", "low", "fair", "good"] = (
        "none" if tests == 0 else "low" if tests < 4 else "fair" if tests < 8 or followed.cleared < 3 else "good"
    )
    if ready:
        verdict = f"Ready, by the {followed.standard} standard: {followed.cleared} doses in a row were gone within a day. One large water change, then add animals within a few days."
        missing = []
    else:
        verdict = f"Not yet, because {missing[0]}."
    return CycleReadinessAnswer(
        verdict=verdict,
        working=w.lines,
        ready=ready,
        confidence=confidence,
        missing=missing,
        standards=standards,
        ammonia_now_mg_n_l=ammonia[1] if ammonia else None,
        nitrite_now_mg_n_l=nitrite[1] if nitrite else None,
    )


def _days_of_zeros(log: CycleLog) -> float:
    clear_from = None
    for r in sorted(log.readings, key=lambda r: r.day):
        if r.ammonia_mg_n_l is None or r.nitrite_mg_n_l is None:
            continue
        if r.ammonia_mg_n_l <= ZERO_AMMONIA_MG_N_L and r.nitrite_mg_n_l <= ZERO_NITRITE_MG_N_L:
            clear_from = r.day if clear_from is None else clear_from
            last = r.day
        else:
            clear_from = None
    return 0.0 if clear_from is None else last - clear_from
