"""Whether a kit can be believed: one that reads the same whatever is done to the water cannot."""

from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.proof import SEEN_WITHIN_H
from reedmace.core.memo import memoize

FEWEST_TESTS, FEWEST_DOSES = 4, 2
"""Tests that read the same, and doses among them that should have moved two steps each (a stated judgement)."""
LONG_TESTS, LONG_DAYS, CHANGED_SHARE = 6, 10.0, 1.0
"""Without doses: tests and days that read the same, and the water changed meanwhile (a stated judgement)."""


@memoize
def kit_is_stuck(log: CycleLog) -> bool:
    """Whether the ammonia test has read one and the same, above zero, while the water must have moved.

    log: the cycle's. Always zero after doses is told apart as ammonia never seen: the bottle may be dead as well.
    """
    rows = sorted((r.day, r.ammonia_mg_n_l) for r in log.readings if r.ammonia_mg_n_l is not None)
    if len(rows) < FEWEST_TESTS or rows[0][1] <= log.kit.zero_mg_n_l("ammonia"):
        return False
    if any(value != rows[0][1] for _, value in rows):
        return False
    steps = log.kit.steps_mg_n_l("ammonia")
    told = [
        dose
        for dose in log.doses
        if dose.raise_mg_n_l >= 2 * (steps[1] - steps[0])
        and any(0 < day - dose.day <= SEEN_WITHIN_H / 24 for day, _ in rows)
    ]
    if len(told) >= FEWEST_DOSES:
        return True
    first, last = rows[0][0], rows[-1][0]
    changed = sum(c.share for c in log.changes if first < c.day < last)
    return len(rows) >= LONG_TESTS and last - first >= LONG_DAYS and changed >= CHANGED_SHARE
