"""Whether a kit can be believed.

One that reads the same whatever is done to the water cannot, nor one that does not see what ammonia has become.
"""

import math
from collections.abc import Iterable
from itertools import pairwise
from typing import Literal

from reedmace.core.cycle.record.log import TRANSFERRED, CycleLog, LoggedChange, LoggedReading
from reedmace.core.cycle.record.nitrification import film_at_work
from reedmace.core.cycle.record.proof import SEEN_WITHIN_H
from reedmace.core.cycle.record.suspect_readings import interval_of
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import NITROGEN_SHARE

FEWEST_TESTS, FEWEST_DOSES = 4, 2
"""Tests that read the same, and doses among them that should have moved two steps each (a stated judgement)."""
LONG_TESTS, LONG_DAYS, CHANGED_SHARE = 6, 10.0, 1.0
"""Without doses: tests and days that read the same, and the water changed meanwhile (a stated judgement)."""


TestRow = tuple[float, float, float]
"""(day, ammonia, nitrite) of one test, mg N/L."""


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
    # Film that nothing shows cannot have eaten a dose overnight.
    within = SEEN_WITHIN_H / 24 if film_at_work(log) or came_with_film(log) else DOSE_DAYS
    told = [
        dose
        for dose in log.doses
        if dose.raise_mg_n_l >= 2 * (steps[1] - steps[0]) and any(0 < day - dose.day <= within for day, _ in rows)
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
FELL_DAYS = 4.0
"""Days for which a nitrite test is doubted that showed two steps or more, and at the next look none (a stated
judgement).
"""
DOSE_DAYS = 2.0
"""Days after a dose in which tests tell of it (a stated judgement)."""
ALMOST = 0.98
"""A figure this near a step of the kit is that step, however its basis was converted."""
DOUBTED_DAYS = 10.0
"""Days for which the nitrite test stays in doubt, once ammonia went unseen, unless another kit ends it (a stated
judgement): the film for nitrite comes one to three weeks after the one for ammonia.
"""


def came_with_film(log: CycleLog) -> bool:
    """Whether media brought both films, or plants take the ammonia: then nitrite need never show. log: the cycle's."""
    return log.method in (*TRANSFERRED, "mature-rock") or "seed-media" in log.helpers or log.plants == "many"


STOOD_DAYS, NEXT_DAYS = 2.0, 7.0
"""Days for which ammonia that stands shows that the film is yet to come, and days after it in which nitrite shows (a
stated judgement): the film for nitrite comes one to three weeks after the one for ammonia.
"""


@memoize
def nitrite_never_showed(log: CycleLog) -> bool:
    """Whether ammonia stood for days in a tank that began empty, and went, and neither nitrite nor nitrate ever showed.

    log: the cycle's, also once animals came against advice. A test that is blind to nitrite reads so; zeros from it
    prove nothing. A second kit that reads none after the ammonia went ends the doubt, as does nitrate.
    """
    if log.method == "animals-in" or log.settled() or came_with_film(log) or film_at_work(log):
        return False
    rows = sorted((r for r in log.readings if r.ammonia_mg_n_l is not None), key=lambda r: r.day)
    stood = _stood_until(log, rows)
    if stood is None:
        return False
    since, until, ammonia = stood
    after = [r for r in rows if r.day > until]
    changes = [c for c in log.changes if c.day >= since]
    gone = [r for r in after if ammonia * _kept(c for c in changes if c.day < r.day) - _most(log, r) >= WENT_MG_N_L]
    nitrite = [r for r in log.readings if r.nitrite_mg_n_l is not None and r.day > until]
    looked = [r for r in nitrite if r.day <= until + NEXT_DAYS]
    # Of one step too low, once, nothing is concluded.
    return len(gone) >= 2 and len(looked) >= 2 and not any(r.other_kit for r in nitrite if r.day >= gone[0].day)


def _stood_until(log: CycleLog, rows: list[LoggedReading]) -> tuple[float, float, float] | None:
    """(first day, last day, ammonia at first in mg N/L at least) where ammonia stood for days; None where none did.

    rows: tests of ammonia, by day.
    """
    first = last = None
    for row in rows:
        least = _least(log, "ammonia", row.ammonia_mg_n_l or 0.0)
        if least >= WENT_MG_N_L:
            first, last = first or row, row
        elif first is not None and last is not None and last.day - first.day >= STOOD_DAYS:
            break
        else:
            first = last = None
    if first is None or last is None or last.day - first.day < STOOD_DAYS:
        return None
    return first.day, last.day, _least(log, "ammonia", first.ammonia_mg_n_l or 0.0)


def _most(log: CycleLog, row: LoggedReading) -> float:
    """The most a test's ammonia stands for, mg N/L."""
    return interval_of(row.ammonia_mg_n_l or 0.0, log.kit.steps_mg_n_l("ammonia"), "ammonia" in row.off_scale)[1]


@memoize
def nitrite_is_missed(log: CycleLog) -> bool:
    """Whether ammonia or nitrite went, with animals in a new tank, and nothing shows what it became.

    log: the cycle's. The film that takes ammonia comes first (common practice), so nitrite follows; plants and media
    that came with their film are left out. A second kit that reads none as well ends the doubt.
    """
    if not log.animals_are_in() or log.settled() or came_with_film(log):
        return False
    rows = sorted(
        (r.day, r.ammonia_mg_n_l, r.nitrite_mg_n_l or 0.0) for r in log.readings if r.ammonia_mg_n_l is not None
    )
    since = max(log.day_now - WENT_DAYS - DOUBTED_DAYS, _doses_are_over(log))
    rows = [row for row in rows if row[0] >= since]
    late = (n for n in range(3, len(rows) + 1) if rows[n - 1][0] >= log.day_now - DOUBTED_DAYS)
    return _fell_at_once(log) or any(_went_unseen(log, rows[:n], start) for n in late for start in range(n - 2))


def _doses_are_over(log: CycleLog) -> float:
    """Day from which tests tell of the animals' ammonia and no longer of the last dose, whose clearing is a proof."""
    return max((dose.day + DOSE_DAYS for dose in log.doses), default=-math.inf)


def _least(log: CycleLog, what: Literal["ammonia", "nitrite"], value: float) -> float:
    """The least a reading stands for, mg N/L: half-way to the step below it."""
    return max(interval_of(value, log.kit.steps_mg_n_l(what), False)[0], 0.0)


def _read_twice(values: list[float], at: int) -> float:
    """What a figure and a neighbour both read at least: of one step too high, once, nothing is concluded."""
    return max((min(values[at], values[n]) for n in (at - 1, at + 1) if 0 <= n < len(values)), default=0.0)


def _went_unseen(log: CycleLog, rows: list[TestRow], start: int) -> bool:
    """Whether ammonia went from one test to the last two, and nothing shows where.

    rows: in mg N/L; start: which of them. Nitrite that was read with it and is read no more went with it: a test that
    misses nitrite may see it once.
    """
    since, _, shown = rows[start]
    if since < rows[-1][0] - WENT_DAYS:
        return False
    values = [value for _, value, _ in rows]
    # Read once it may be one step too high, no more.
    lower = max((step for step in log.kit.steps_mg_n_l("ammonia") if step < ALMOST * values[start]), default=0.0)
    ammonia = max(_read_twice(values, start), lower)
    if not shown:
        ammonia = _least(log, "ammonia", ammonia)
    # Of one step too low, once, nothing is concluded.
    now = rows[-2:]
    changes = [c for c in sorted(log.changes, key=lambda c: c.day) if since < c.day < rows[-1][0]]
    left = ammonia
    for change in changes:
        left += change.share * (log.tap.released_mg_n_l() - left)
    ammonia_went = left - max(value for _, value, _ in now)
    went = ammonia_went + max(shown * _kept(changes) - max(nitrite for *_, nitrite in now), 0.0)
    if ammonia_went < WENT_MG_N_L / 2 or went < WENT_MG_N_L:
        return False
    return _reads_none_since(log, since) and not _nitrate_tells(log, since, went)


def _fell_at_once(log: CycleLog) -> bool:
    """Whether nitrite was read at two steps twice, or at three, and none at the next look, though changes left enough.

    It may come true once the ammonia is gone: the film for nitrite is the last to come. Where nitrite was read again
    after such a fall, the test misses it now and then.
    """
    steps = [step for step in log.kit.steps_mg_n_l("nitrite") if step > 0]
    first, second, third = [*steps, math.inf, math.inf][:3]
    zero, over = log.kit.zero_mg_n_l("nitrite"), _doses_are_over(log)
    read = [r for r in sorted(log.readings, key=lambda r: r.day) if r.day >= over]
    tests = [(r.day, r.nitrite_mg_n_l) for r in read if r.nitrite_mg_n_l is not None]

    def left(nitrite: float, since: float, until: float) -> float:
        return nitrite * _kept([c for c in log.changes if since <= c.day < until])

    falls = [
        (since, nitrite)
        for (since, nitrite), (day, then) in pairwise(tests)
        if nitrite >= ALMOST * second and then <= zero and left(nitrite, since, day) >= ALMOST * first
    ]
    if not falls or tests[-1][1] > zero:
        return False
    fell, nitrite = falls[-1]
    since = max(day for day, value in tests if value > zero)
    again = max((day for day, value in tests if value >= ALMOST * second), default=since)
    flickers = any(log.day_now - DOUBTED_DAYS <= day < again for day, _ in falls)
    values = [value for day, value in tests if day <= fell]
    surely = nitrite >= ALMOST * third or _read_twice(values, len(values) - 1) >= ALMOST * second
    fresh = surely and fell >= log.day_now - FELL_DAYS and left(nitrite, fell, log.day_now) >= ALMOST * first
    ammonia = [r.ammonia_mg_n_l for r in read if r.day >= fell and r.ammonia_mg_n_l is not None]
    stands = bool(ammonia) and ammonia[-1] > log.kit.zero_mg_n_l("ammonia")
    if not flickers and not (fresh and stands):
        return False
    return _reads_none_since(log, since) and not _nitrate_tells(log, since, nitrite)


def _kept(changes: Iterable[LoggedChange]) -> float:
    """Share of what was in the water that is left after some changes."""
    return math.prod(1 - c.share for c in changes)


def _reads_none_since(log: CycleLog, day: float) -> bool:
    """Whether nitrite was tested after a day, by this kit alone, and none was read."""
    after = [r for r in log.readings if r.day > day and r.nitrite_mg_n_l is not None]
    zero = log.kit.zero_mg_n_l("nitrite")
    return bool(after) and all((r.nitrite_mg_n_l or 0.0) <= zero and not r.other_kit for r in after)


def _nitrate_tells(log: CycleLog, day: float, went: float) -> bool:
    """Whether nitrate rose after a day by enough of what went, mg N/L, to tell where it is."""
    after = [r.nitrate_mg_n_l for r in log.readings if r.nitrate_mg_n_l is not None and r.day > day]
    earlier = [r.nitrate_mg_n_l for r in log.readings if r.nitrate_mg_n_l is not None and r.day <= day]
    return bool(after and earlier) and max(after) - earlier[-1] >= SHOWN_SHARE * went
