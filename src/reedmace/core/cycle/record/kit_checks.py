"""Whether a kit can be believed.

One that reads the same whatever is done to the water cannot, nor one that does not see what ammonia has become.
"""

from reedmace.core.cycle.record.log import TRANSFERRED, CycleLog
from reedmace.core.cycle.record.proof import SEEN_WITHIN_H
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import NITROGEN_SHARE

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
    since = max((dose.day for dose in log.doses), default=log.day_now - LONG_DAYS)
    if any(r.other_kit and r.ammonia_mg_n_l is not None and r.day > since for r in log.readings):
        # Two kits that read the same of the water as it is now are not both stuck.
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


WENT_MG_N_L, WENT_DAYS = 0.98 * 0.5 * NITROGEN_SHARE["NH4"], 10.0
"""Ammonia that went, and the days within which it went, from which its nitrite must show: half a ppm, by eye (a stated
judgement).
"""
SHOWN_SHARE = 0.5
"""Share of what went that nitrate must have risen by to tell where it is (a stated judgement)."""
DOUBTED_DAYS = 10.0
"""Days for which the nitrite test stays in doubt, once ammonia went unseen, unless another kit ends it (a stated
judgement): the film for nitrite comes one to three weeks after the one for ammonia.
"""


@memoize
def nitrite_is_missed(log: CycleLog) -> bool:
    """Whether ammonia went, with animals in a new tank, and neither nitrite nor nitrate shows what it became.

    log: the cycle's. The film that takes ammonia comes first (common practice), so nitrite follows; plants and media
    that came with their film are left out. A second kit that reads none as well ends the doubt.
    """
    seeded = log.method in TRANSFERRED or "seed-media" in log.helpers
    if not log.animals_are_in() or log.settled() or seeded or log.plants == "many":
        return False
    rows = sorted(
        (r.day, r.ammonia_mg_n_l, r.nitrite_mg_n_l or 0.0) for r in log.readings if r.ammonia_mg_n_l is not None
    )
    rows = [row for row in rows if row[0] >= log.day_now - WENT_DAYS - DOUBTED_DAYS]
    late = (n for n in range(3, len(rows) + 1) if rows[n - 1][0] >= log.day_now - DOUBTED_DAYS)
    return any(_went_unseen(log, rows[:n]) for n in late)


def _went_unseen(log: CycleLog, rows: list[tuple[float, float, float]]) -> bool:
    """Whether ammonia went by the last of some tests, (day, ammonia, nitrite) in mg N/L, and nothing shows where.

    Nitrite that was read with it and is read no more went with it: a test that misses nitrite may see it once.
    """
    rows = [row for row in rows if row[0] >= rows[-1][0] - WENT_DAYS]
    # Of one step too low, once, nothing is concluded.
    before, now = rows[:-2], rows[-2:]
    left, shown = max(((ammonia, nitrite) for _, ammonia, nitrite in before), default=(0.0, 0.0))
    since = max((day for day, ammonia, _ in before if ammonia == left), default=log.day_now)
    for change in sorted(log.changes, key=lambda c: c.day):
        if since < change.day < rows[-1][0]:
            left += change.share * (log.tap.released_mg_n_l() - left)
            shown *= 1 - change.share
    ammonia_went = left - max(ammonia for _, ammonia, _ in now)
    went = ammonia_went + max(shown - max(nitrite for *_, nitrite in now), 0.0)
    after = [r for r in log.readings if r.day > since]
    nitrite = [r.nitrite_mg_n_l for r in after if r.nitrite_mg_n_l is not None]
    if ammonia_went < WENT_MG_N_L / 2 or went < WENT_MG_N_L:
        return False
    if not nitrite or max(nitrite) > log.kit.zero_mg_n_l("nitrite"):
        return False
    if any(r.other_kit and r.nitrite_mg_n_l is not None for r in after):
        return False
    nitrate = [r.nitrate_mg_n_l for r in after if r.nitrate_mg_n_l is not None]
    earlier = [r.nitrate_mg_n_l for r in log.readings if r.nitrate_mg_n_l is not None and r.day <= since]
    return not (nitrate and earlier and max(nitrate) - earlier[-1] >= SHOWN_SHARE * went)
