"""The load a filter has been shown to carry: by doses, food, animals or nitrate."""

from dataclasses import dataclass

from reedmace.core.cycle.record.log import CycleLog, Plants
from reedmace.core.cycle.record.proof import SPEAKS_DAYS, cleared_doses, is_full, is_zero, proof_share, voiding_loss
from reedmace.core.cycle.record.suspect_readings import interval_of
from reedmace.core.memo import memoize

SEEDED_DAYS, PLANTED_DAYS = 7, 28
"""Days of zeros that prove a film which is fed, and days of growth that prove plants (common practice)."""
GROWN_ZEROS_DAYS = 14
"""Days of zeros at the end of a planted tank's weeks of growth: a trace starts them anew, not the weeks (memory)."""
PLANTS_CARRY_MG_N_L_DAY: dict[Plants, float] = {"none": 0.0, "some": 0.08, "many": 0.25}
"""Half of what plants in growth take up, mg N/L/day (memory, cautious): a first group, never a whole stock."""
LONGEST_GAP_DAYS = {"seeded": 4.0, "planted": 9.0}
"""Longest gap between zeros that still counts as unbroken, days (memory)."""
FEWEST_ZEROS = 3


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


@memoize
def proven_capacity(log: CycleLog) -> float:
    """Largest load the tests have shown to be cleared in a day, mg N/L/day; no bacteria lost since. log: the cycle's.

    Doses gone within a day in the last fortnight; food or animals under an unbroken week of zeros; nitrate made in it.
    """
    cleared = [c for c in cleared_doses(log, 0.05) if log.day_now - (c.tested_day or 0.0) <= SPEAKS_DAYS]
    doses = [c.raise_mg_n_l * proof_share(log, c.day) for c in cleared if voiding_loss(log, c.day) is None]
    return max([*doses, _carried_under_zeros(log), _taken_by_plants(log)])


@dataclass(frozen=True)
class PlantedWeeks:
    """Days of growth so far, and days and tests of the zeros that end today, counted from growth or the last loss."""

    growth_days: float
    zero_days: float
    tests: int

    def enough(self) -> bool:
        """Whether four weeks of growth end in a fortnight of zeros."""
        return self.growth_days >= PLANTED_DAYS and self.zero_days >= GROWN_ZEROS_DAYS and self.tests >= FEWEST_ZEROS

    def days_left(self) -> float:
        """Days still missing, 0 or less where none are."""
        return max(PLANTED_DAYS - self.growth_days, GROWN_ZEROS_DAYS - self.zero_days)


def planted_weeks(log: CycleLog) -> PlantedWeeks:
    """How far a planted quiet start has come. log: the cycle's."""
    grows = log.plants_growing_day
    if grows is None:
        return PlantedWeeks(0.0, 0.0, 0)
    loss = voiding_loss(log, grows)
    days, tests = zeros_run(log, max(grows, loss.day if loss else 0.0), LONGEST_GAP_DAYS["planted"])
    return PlantedWeeks(log.day_now - grows, days, tests)


def _taken_by_plants(log: CycleLog) -> float:
    """What growing plants take each day, mg N/L/day, where a planted tank's weeks of zeros are full; else 0."""
    if log.method != "planted" or log.plants_growing_day is None:
        return 0.0
    return PLANTS_CARRY_MG_N_L_DAY[log.plants] if planted_weeks(log).enough() else 0.0


def _carried_under_zeros(log: CycleLog) -> float:
    """Nitrogen worked through each day of an unbroken run of zeros, mg N/L/day; 0 for a run under a week."""
    since = max(log.stocked_day or 0.0, loss.day if (loss := voiding_loss(log, log.stocked_day or 0.0)) else 0.0)
    days, tests = zeros_run(log, since, LONGEST_GAP_DAYS["seeded"])
    if days < SEEDED_DAYS or tests < FEWEST_ZEROS:
        return 0.0
    fed = log.animals_in_mg_n_l_day or log.food_mg_n_l_day()
    return max(fed, _nitrate_made(log, log.day_now - days) / days)


def _nitrate_made(log: CycleLog, since_day: float) -> float:
    """Nitrate that rose since a day beyond the kit's steps, mg N/L, with what changes took out; 0 where unread."""
    rows = sorted(
        (r.day, r.nitrate_mg_n_l) for r in log.readings if r.nitrate_mg_n_l is not None and r.day >= since_day
    )
    if len(rows) < 2:
        return 0.0
    steps = log.kit.steps_mg_n_l("nitrate")
    (first, was), (last, now) = rows[0], rows[-1]
    least, most = interval_of(now, steps, False)[0], interval_of(was, steps, False)[1]
    out = sum(c.share * max(least - log.tap.nitrate_mg_n_l, 0.0) for c in log.changes if first < c.day <= last)
    return max(least - most + out, 0.0)
