"""The standards of a finished cycle, each with what it needs and whether the log meets it."""

import math
from typing import Annotated, Literal

from reedmace.core.contract import Part, Working, whole
from reedmace.core.cycle.record.film_losses import Loss
from reedmace.core.cycle.record.log import TRANSFERRED, CycleLog
from reedmace.core.cycle.record.nitrification import nitrate_rose
from reedmace.core.cycle.record.proof import (
    NEEDED,
    SIZE_SLACK,
    STANDS_DAYS,
    CheckedDose,
    Outcome,
    bottle_is_known,
    checked_doses,
    poison_since,
    standing_proof,
    voiding_loss,
)
from reedmace.core.cycle.record.proven_load import (
    FEWEST_ZEROS,
    LONGEST_GAP_DAYS,
    PLANTED_DAYS,
    SEEDED_DAYS,
    planted_weeks,
    zeros_run,
)

StandardName = Literal["load-matched", "two-ppm", "one-ppm", "planted", "seeded"]


class Standard(Part):
    """One standard's requirement and result."""

    standard: StandardName
    title: str
    passes: bool
    cleared: Annotated[int, whole(0, 400, "Doses cleared so far, or days of zeros for seeded and planted")]
    needed: Annotated[int, whole(1, 400)]
    missing: str
    followed: bool


def standard_for(log: CycleLog) -> StandardName:
    """The standard the log's method calls for. log: the cycle's."""
    if log.method == "planted" and not log.animals_are_in():
        return "planted"
    if log.animals_are_in() or not log.doses_ammonia():
        return "seeded"
    # Transferred bacteria are proved by doses as any other; without doses, by a week of zeros.
    return "load-matched" if log.doses or not film_came(log) else "seeded"


def film_came(log: CycleLog) -> bool:
    """Whether bacteria came with a filter or are fed by food or animals, so that a week of zeros is evidence.

    log: the record so far.
    """
    fed = log.method == "fish-food" and log.food_g_day > 0
    return fed or log.method in (*TRANSFERRED, "animals-in") or log.animals_are_in()


WHY_FOLLOWED: dict[StandardName, str] = {
    "load-matched": "it asks for the bacteria your animals will need, and a fifth over",
    "two-ppm": "you chose it: more than most tanks make in a day",
    "one-ppm": "you chose it: a light stock's day",
    "planted": "growing plants take the ammonia, so growth and zeros are the proof",
    "seeded": "the film is there or is being fed already; a week of zeros shows that it holds",
}


def at_least(log: CycleLog, day: float) -> str:
    """Words after a nitrite figure: " or more" where that day's test was off its scale.

    log: the record so far; day: days since the start.
    """
    return " or more" if any(r.day == day and "nitrite" in r.off_scale for r in log.readings) else ""


_SHORT_OF: dict[Outcome, str] = {
    "not-seen": (
        "no dose of late was seen in the water, so zeros prove nothing: dose again, test ammonia an hour later,"
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
    sight = "" if bottle_is_known(log) else "seen in the water and "
    asked = f"{wanted}, {sight}with both at zero 20 to 28 hours later"
    if not held:
        return "a later test found ammonia or nitrite again: dose and test afresh"
    if loss is not None and len(kept) < NEEDED:
        return f"the film has to be proved again, since {loss.what} on day {loss.day:.0f}: {asked}"
    sized = [t for t in checked_doses(log) if t.raise_mg_n_l >= SIZE_SLACK * size]
    why = _SHORT_OF[sized[-1].outcome] if sized and log.day_now - sized[-1].day <= STANDS_DAYS else ""
    return f"{asked} ({why})" if why else asked


def dose_standard(log: CycleLog, name: StandardName, title: str, size: float, followed: bool, w: Working) -> Standard:
    """Judgement by doses cleared within a day.

    log: the record so far; name, title: of the standard; size: dose to clear, mg N/L; followed: whether this is the
    standard the keeper follows; w: takes the working.
    """
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


def planted_standard(log: CycleLog, followed: bool, w: Working) -> Standard:
    """Judgement by days of zeros while plants grow. log, followed, w: as for `dose_standard`."""
    grows = log.plants_growing_day
    run = planted_weeks(log)
    w.line("planted", "days of growth", "since new growth was seen", run.growth_days, "days", "practice")
    w.line("zeros", "days of zeros at their end", f"{run.tests} tests", run.zero_days, "days", "practice")
    passes = run.enough() and log.plants != "none"
    if log.plants == "none":
        lacks = "only for a tank with plants in plenty"
    elif grows is None:
        lacks = "new growth: the four weeks count from there, not from the planting day"
    else:
        lacks = "nothing" if passes else f"{_more_days(run.days_left())} of growth, with zeros each week"
    return Standard(
        standard="planted",
        title="Planted quiet start: four to five weeks of visible growth and zeros",
        passes=passes,
        cleared=int(min(max(PLANTED_DAYS - run.days_left(), 0), PLANTED_DAYS)),
        needed=PLANTED_DAYS,
        missing=lacks,
        followed=followed,
    )


def seeded_standard(log: CycleLog, followed: bool, w: Working) -> Standard:
    """Judgement by a week of zeros with nitrate rising. log, followed, w: as for `dose_standard`."""
    # Each group of animals is a new load with its own week of zeros; a loss of bacteria restarts the week.
    since = log.stocked_day or 0.0
    loss = voiding_loss(log, since)
    days, tests = zeros_run(log, max(since, loss.day) if loss else since, LONGEST_GAP_DAYS["seeded"])
    rising, comes = nitrate_rose(log), film_came(log)
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
