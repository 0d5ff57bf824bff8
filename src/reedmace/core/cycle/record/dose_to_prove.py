"""The dose whose clearing proves the filter: for the planned load, or half of it where full doses leave a trace."""

from itertools import pairwise
from typing import Literal

from reedmace.core.contract import Working
from reedmace.core.cycle.record.log import CycleLog, LoggedReading
from reedmace.core.cycle.record.proof import SIZE_SLACK, CheckedDose, checked_doses, is_full
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import NITROGEN_SHARE

TRACES_IN_A_ROW, TRACES_OVER_DAYS, TRACES_SPEAK_DAYS = 3, 4.0, 28.0
"""Full doses in a row that left a trace, the days they span, and for how long they decide (a stated judgement)."""
TRACE_MG_N_L = {"ammonia": 0.25 * NITROGEN_SHARE["NH4"], "nitrite": 0.5 * NITROGEN_SHARE["NO2"]}
"""What still is a trace a day after a dose: so much, or a coarser kit's first step (a stated judgement)."""
FED_AFTER = 2
"""Doses in a row that left traces after which a film is fed daily (a stated judgement)."""
POISONS: tuple[Literal["ammonia", "nitrite"], ...] = ("ammonia", "nitrite")
PART_SHARE = 0.5
"""Part of the dose that is asked for then: a smaller first group can be shown to be carried (common practice)."""


def leaves_traces(log: CycleLog) -> bool:
    """Whether full doses of late went within a day but for a trace of ammonia or nitrite that does not get less.

    log: the cycle's. A filter that is just too small for the whole plan reads so for weeks.
    """
    row: list[tuple[float, float]] = []
    for day, left in _left_by_doses(log):
        row = [] if left is None else [*row, (day, left)]
        long = bool(row) and day - row[0][0] >= TRACES_OVER_DAYS
        if long and len(row) >= TRACES_IN_A_ROW and not _falls([left for _, left in row]):
            return True
    return False


def is_underfed(log: CycleLog) -> bool:
    """Whether the last doses left no more than traces: a film that waits for zeros before it is fed hardly grows.

    log: the cycle's.
    """
    last = _left_by_doses(log)[-FED_AFTER:]
    return len(last) == FED_AFTER and all(left is not None for _, left in last)


def may_be_fed(log: CycleLog, ammonia_mg_n_l: float) -> bool:
    """Whether a film is underfed and gets a day's food on top of what is there.

    log: the cycle's; ammonia_mg_n_l: what the water holds, mg N/L: no more than a trace.
    """
    return is_underfed(log) and ammonia_mg_n_l <= 1.001 * _most(log, "ammonia")


@memoize
def _left_by_doses(log: CycleLog) -> list[tuple[float, float | None]]:
    """Day of each whole dose of late with a test that counts, and the traces it left; None for none, or for more."""
    tests = {r.day: r for r in log.readings if is_full(r)}
    found: list[tuple[float, float | None]] = []
    for dose in checked_doses(log):
        whole = dose.raise_mg_n_l >= SIZE_SLACK * log.challenge_mg_n_l()
        # Without a test that counts it says neither.
        if not whole or dose.outcome not in ("failed", "cleared") or dose.tested_day is None:
            continue
        if log.day_now - dose.day <= TRACES_SPEAK_DAYS:
            found.append((dose.day, _trace(log, dose, tests[dose.tested_day])))
    return found


def _most(log: CycleLog, what: Literal["ammonia", "nitrite"]) -> float:
    """Most that still is a trace, mg N/L."""
    return max(TRACE_MG_N_L[what], log.kit.steps_mg_n_l(what)[1])


def _trace(log: CycleLog, dose: CheckedDose, test: LoggedReading) -> float | None:
    """Ammonia and nitrite that a dose left a day later, mg N/L; None where it left none, or more than traces."""
    if dose.outcome != "failed" or test.off_scale:
        return None
    left = {what: test.at_most_mg_n_l(what) or 0.0 for what in POISONS}
    return sum(left.values()) if all(left[what] <= 1.001 * _most(log, what) for what in POISONS) else None


def _falls(row: list[float]) -> bool:
    """Whether what the last doses left became less from one to the next."""
    last = row[-TRACES_IN_A_ROW:]
    return last[-1] < last[0] and all(after <= before for before, after in pairwise(last))


@memoize
def dose_to_prove_mg_n_l(log: CycleLog) -> float:
    """The dose to be cleared twice, mg N/L: load-matched, or half of that where full doses go on leaving a trace.

    log: the cycle's. What is proven is what was cleared: half a dose proves half the animals.
    """
    return log.challenge_mg_n_l() * (PART_SHARE if leaves_traces(log) else 1.0)


def write_dose_to_prove(log: CycleLog, w: Working) -> float:
    """The dose to be cleared, mg N/L, with its lines. log: the cycle's; w: takes them."""
    challenge = w.line(
        "challenge",
        "max(1.2 × planned load, 0.5)",
        f"max(1.2 × {log.planned_load_mg_n_l_day:.3g}, 0.5)",
        log.challenge_mg_n_l(),
        "mg N/L",
        "practice",
    )
    if not leaves_traces(log):
        return challenge
    return w.line(
        "part",
        "half the challenge, where whole doses leave a trace",
        f"{PART_SHARE:g} × {challenge:.3g}",
        dose_to_prove_mg_n_l(log),
        "mg N/L",
        "practice",
    )


__all__ = ["PART_SHARE", "dose_to_prove_mg_n_l", "leaves_traces", "may_be_fed", "write_dose_to_prove"]
