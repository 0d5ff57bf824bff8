"""Proof of film at work, and ammonia that was dosed but never written down, both inferred from the tests."""

from typing import Literal

from reedmace.core.cycle.record.log import CycleLog, LoggedDose, LoggedReading
from reedmace.core.cycle.record.suspect_readings import read_interval
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import NITROGEN_SHARE

SURELY = 2.0
"""Multiple of the kit's zero that nitrite must read to be proof by itself: a slip reads one step (memory)."""
LEAST_DOSE_MG_N_L = 0.4
"""Nitrogen below which tests cannot tell a dose from their own steps, mg N/L (memory)."""
UNTESTED_TAP_NITRATE_MG_N_L = 10 * NITROGEN_SHARE["NO3"]
"""Nitrate an untested tap may have brought, mg N/L: 10 ppm (memory, cautious)."""
OWED_SHARE = 0.8
"""Share of the nitrogen dosed that must have turned into nitrate where it was read (memory)."""
EVERY_DAYS = 4.0
"""Days between doses nobody wrote down (common practice: two or three days to a week)."""


@memoize
def nitrate_rose(log: CycleLog) -> bool:
    """Whether nitrate rose by more than the kit's resolution. log: the cycle's."""
    spans = [_span(log, r, "nitrate") for r in _in_order(log)]
    known = [span for span in spans if span is not None]
    return len(known) > 1 and known[-1][0] >= min(span[1] for span in known[:-1]) - 1e-9


def nitrate_did_not_rise(log: CycleLog) -> bool:
    """Whether nitrate was read and did not rise although doses should have shown in it: nothing was nitrified.

    log: the cycle's. Only where nothing else took it: no plants, and no change between the tests.
    """
    rows = [r for r in _in_order(log) if r.nitrate_mg_n_l is not None]
    if len(rows) < 2 or log.plants != "none" or not log.doses_ammonia():
        return False
    first, last = rows[0].day, rows[-1].day
    given = sum(d.raise_mg_n_l for d in log.doses if first <= d.day <= last - 1)
    was, now = _span(log, rows[0], "nitrate"), _span(log, rows[-1], "nitrate")
    if was is None or now is None or any(first < c.day <= last for c in log.changes):
        return False
    # Even if the first test stood at the bottom of its step and the last at the top, part of the doses is missing.
    return now[1] - max(was[0], 0.0) < OWED_SHARE * given


def film_at_work(log: CycleLog) -> bool:
    """Whether tests prove nitrification, whatever doses were written down. log: the cycle's.

    Nitrite comes from nothing else, unless the tap brings it; risen nitrate neither (common practice).
    """
    zero = SURELY * log.kit.zero_mg_n_l("nitrite") + log.tap.nitrite_mg_n_l
    return any((r.nitrite_mg_n_l or 0.0) > zero for r in log.readings) or nitrate_rose(log)


@memoize
def unwritten_doses(log: CycleLog) -> list[LoggedDose]:
    """Doses that must have been given before the first one written down, as few as explain the nitrogen seen.

    log: the cycle's. Only of methods that dose, and where tests prove film at work: what stands as ammonia, nitrite and
    nitrate above the tap's was put in at least. Empty where the written doses explain it.
    """
    if not log.doses_ammonia() or not film_at_work(log):
        return []
    until = min((d.day for d in log.doses), default=log.day_now)
    found: list[LoggedDose] = []
    given, before = 0.0, 0.0
    for reading in _in_order(log):
        if log.doses and reading.day >= until:
            break
        given *= _left_by_changes(log, before, reading.day)
        missing = _seen_mg_n_l(log, reading) - given
        if missing >= LEAST_DOSE_MG_N_L:
            found += _spread(missing, before, reading.day)
            given += missing
        before = reading.day
    return found


def _in_order(log: CycleLog) -> list[LoggedReading]:
    return sorted(log.readings, key=lambda r: r.day)


def _span(log: CycleLog, reading: LoggedReading, what: Literal["nitrate"]) -> tuple[float, float] | None:
    interval = read_interval(log, reading, what)
    return None if interval is None else interval[:2]


def _seen_mg_n_l(log: CycleLog, reading: LoggedReading) -> float:
    """Nitrogen a test shows above the tap's, mg N/L: the middle of ammonia and nitrite, the least of nitrate."""
    nitrate = _span(log, reading, "nitrate")
    base = log.first_nitrate_mg_n_l()
    read = [r.nitrate_mg_n_l for r in log.readings if r.nitrate_mg_n_l is not None]
    if base == 0.0 and read:
        # Neither the tap nor the start was tested: what the lowest test shows may have been there.
        base = min(UNTESTED_TAP_NITRATE_MG_N_L, *read)
    made = max((nitrate[0] if nitrate else 0.0) - base, 0.0)
    ammonia = max((reading.ammonia_mg_n_l or 0.0) - log.tap.released_mg_n_l(), 0.0)
    return ammonia + max((reading.nitrite_mg_n_l or 0.0) - log.tap.nitrite_mg_n_l, 0.0) + made


def _left_by_changes(log: CycleLog, after: float, until: float) -> float:
    left = 1.0
    for change in log.changes:
        if after < change.day <= until:
            left *= 1 - change.share
    return left


def _spread(missing_mg_n_l: float, after: float, until: float) -> list[LoggedDose]:
    """Equal doses over a stretch of days, the first at its beginning."""
    count = max(1, min(int((until - after) / EVERY_DAYS), int(missing_mg_n_l / LEAST_DOSE_MG_N_L)))
    apart = (until - after) / count
    return [LoggedDose(day=after + i * apart, raise_mg_n_l=missing_mg_n_l / count) for i in range(count)]
