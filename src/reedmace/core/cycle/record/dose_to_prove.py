"""The dose whose clearing proves the filter: for the planned load, or half of it where full doses leave a trace."""

from itertools import pairwise

from reedmace.core.contract import Working
from reedmace.core.cycle.record.log import CycleLog, LoggedReading
from reedmace.core.cycle.record.proof import SIZE_SLACK, CheckedDose, checked_doses, is_full
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import NITROGEN_SHARE

TRACES_IN_A_ROW, TRACES_OVER_DAYS, TRACES_SPEAK_DAYS = 3, 4.0, 28.0
"""Full doses in a row that left a trace, the days they span, and for how long they decide (a stated judgement)."""
TRACE_NITRITE_MG_N_L = 0.5 * NITROGEN_SHARE["NO2"]
"""Nitrite a day after a dose that still is a trace: half a ppm, or a coarser kit's first step (a stated judgement)."""
PART_SHARE = 0.5
"""Part of the dose that is asked for then: a smaller first group can be shown to be carried (common practice)."""


def leaves_traces(log: CycleLog) -> bool:
    """Whether full doses of late went within a day but for a trace of nitrite that does not get less.

    log: the cycle's. A filter whose second step is just too small for the whole plan reads so for weeks.
    """
    full = [
        dose
        for dose in checked_doses(log)
        if dose.raise_mg_n_l >= SIZE_SLACK * log.challenge_mg_n_l() and log.day_now - dose.day <= TRACES_SPEAK_DAYS
    ]
    tests = {r.day: r for r in log.readings if is_full(r)}
    row: list[tuple[float, float]] = []
    for dose in full:
        if dose.outcome not in ("failed", "cleared") or dose.tested_day is None:
            continue  # Without a test that counts it says neither.
        trace = _trace(log, dose, tests[dose.tested_day])
        row = [] if trace is None else [*row, (dose.day, trace)]
        long = bool(row) and dose.day - row[0][0] >= TRACES_OVER_DAYS
        if long and len(row) >= TRACES_IN_A_ROW and not _falls([left for _, left in row]):
            return True
    return False


def _trace(log: CycleLog, dose: CheckedDose, test: LoggedReading) -> float | None:
    """Nitrite that a dose left a day later, mg N/L; None where its test says anything else."""
    if dose.outcome != "failed":
        return None
    nitrite, most = test.at_most_mg_n_l("nitrite"), max(TRACE_NITRITE_MG_N_L, log.kit.steps_mg_n_l("nitrite")[1])
    if (test.at_most_mg_n_l("ammonia") or 0.0) > log.kit.zero_mg_n_l("ammonia") or test.off_scale:
        return None
    return nitrite if nitrite is not None and nitrite <= 1.001 * most else None


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


__all__ = ["PART_SHARE", "dose_to_prove_mg_n_l", "leaves_traces", "write_dose_to_prove"]
