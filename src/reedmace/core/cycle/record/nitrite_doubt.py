"""Whether zeros of the nitrite test can be believed with animals in.

They cannot where what the animals made is seen by no test, nor where another kit read nitrite beside them.
"""

from itertools import pairwise

from reedmace.core.chemistry.tolerance import nitrite_limit_mg_n_l
from reedmace.core.cycle.record.kit_checks import (
    ALMOST,
    DOUBTED_DAYS,
    came_with_film,
    nitrite_is_missed,
    nitrite_never_showed,
)
from reedmace.core.cycle.record.log import CycleLog, LoggedReading
from reedmace.core.cycle.record.suspect_readings import interval_of
from reedmace.core.memo import memoize

MADE_SHARE, WITH_PLANTS_SHARE = 0.6, 0.5
"""Share of the usual waste that sparingly fed animals surely make, and of it what some plants leave (memory)."""
UNSEEN_LIMITS = 1.0
"""Unseen waste, as a multiple of the day's limit of nitrite, from which its nitrite must show (a stated judgement)."""
FEWEST_LOOKS, LOOKED_DAYS = 3, 7.0
"""Tests of nitrite within so many days that must have read none (a stated judgement)."""
EARLIER_SHARE = 0.5
"""Share of today's animals taken to have been in before the last ones came, in a tank cycled with animals (memory)."""
BESIDE_DAYS, BLIND_DAYS = 1.5, 21.0
"""Days within which two kits tell of the same water, and for which one that saw none is doubted (a stated judgement):
so long may nitrite stand in a new tank.
"""


def _made_by(log: CycleLog, day: float) -> float:
    """The least of the animals' waste still in the water on a day, whatever it has become, mg N/L.

    Before the last animals came, half of today's are taken to have been in where the tank was cycled with animals.
    """
    full = log.animals_in_mg_n_l_day * MADE_SHARE * (1.0 if log.plants == "none" else WITH_PLANTS_SHARE)
    came = log.stocked_day or 0.0

    def made(since: float, until: float) -> float:
        alone = max(min(until, came) - since, 0.0) if log.method == "animals-in" else 0.0
        return full * (max(until - max(since, came), 0.0) + EARLIER_SHARE * alone)

    steps = log.kit.steps_mg_n_l("ammonia")
    tests = sorted((r.day, r.ammonia_mg_n_l) for r in log.readings if r.ammonia_mg_n_l is not None)
    # Of one step too high, once, nothing is concluded.
    surely = [(at, 0.0, max(interval_of(min(a, b), steps, False)[0], 0.0)) for (_, a), (at, b) in pairwise(tests)]
    at, left = 0.0, 0.0
    for then, share, ammonia in sorted([*surely, *((c.day, c.share, 0.0) for c in log.changes)]):
        if at <= then <= day:
            at, left = then, max((left + made(at, then)) * (1 - share), ammonia)
    return left + made(at, day)


def _most_ammonia(log: CycleLog, rows: list[LoggedReading]) -> float | None:
    """The most that the last two tests of ammonia stand for, mg N/L; None where there are fewer."""
    read = [r for r in rows if r.ammonia_mg_n_l is not None][-2:]
    steps = log.kit.steps_mg_n_l("ammonia")
    most = [interval_of(r.ammonia_mg_n_l or 0.0, steps, "ammonia" in r.off_scale)[1] for r in read]
    return max(most) if len(most) == 2 else None


def _unseen_on(log: CycleLog, rows: list[LoggedReading]) -> float:
    """Waste that was unseen at the last of some tests, mg N/L; 0 where too few looked. rows: by day."""
    day = rows[-1].day
    looks = [r for r in rows if r.nitrite_mg_n_l is not None and r.day >= day - LOOKED_DAYS]
    ammonia = _most_ammonia(log, rows)
    return 0.0 if len(looks) < FEWEST_LOOKS or ammonia is None else _made_by(log, day) - ammonia


def _nitrate_risen(log: CycleLog, rows: list[LoggedReading]) -> float:
    """Rise of nitrate that the last two tests agree on, mg N/L: one step now and none tomorrow tell of no rise."""
    nitrate = [r.nitrate_mg_n_l for r in rows if r.nitrate_mg_n_l is not None]
    return min(nitrate[-2:]) - log.first_nitrate_mg_n_l() if nitrate else 0.0


@memoize
def waste_is_unseen(log: CycleLog) -> bool:
    """Whether animals made more than the tests show, in a tank whose nitrite was never read above none.

    log: of a new tank with animals in. Waste is ammonia, nitrite or nitrate; where the ammonia went and nitrate did not
    rise by half of it, it is nitrite, and a test that never showed any may be blind to it. Media that came with their
    film, and plants that grow well, are left out. A second kit that reads none ends the doubt.
    Source: conservation of nitrogen.
    """
    if not log.animals_are_in() or log.settled() or came_with_film(log):
        return False
    rows = sorted(log.readings, key=lambda r: r.day)
    zero = log.kit.zero_mg_n_l("nitrite")
    if any((r.nitrite_mg_n_l or 0.0) > zero for r in rows):
        return False
    if any(r.other_kit and r.nitrite_mg_n_l is not None and r.day >= log.day_now - DOUBTED_DAYS for r in rows):
        return False
    late = (n for n, row in enumerate(rows, 1) if log.day_now - DOUBTED_DAYS <= row.day <= log.day_now)
    unseen = max((_unseen_on(log, rows[:n]) for n in late), default=0.0)
    most = UNSEEN_LIMITS * nitrite_limit_mg_n_l(log.salinity_g_kg)
    return unseen >= most and _nitrate_risen(log, rows) < unseen / 2


@memoize
def read_none_beside_another(log: CycleLog) -> bool:
    """Whether this kit read no nitrite where another read two steps or more, and nothing since cleared it.

    log: the cycle's. It ends when this kit reads nitrite, or another kit reads none.
    """
    if log.settled():
        return False
    zero = log.kit.zero_mg_n_l("nitrite")
    second = [step for step in log.kit.steps_mg_n_l("nitrite") if step > 0][1:2]
    rows = [(r.day, r.nitrite_mg_n_l, r.other_kit) for r in log.readings if r.nitrite_mg_n_l is not None]
    blind = False
    for day, nitrite, other in sorted(rows):
        if not other:
            blind = blind and nitrite <= zero
        elif nitrite <= zero:
            blind = False
        elif second and nitrite >= ALMOST * second[0] and day >= log.day_now - BLIND_DAYS:
            beside = [value for at, value, another in rows if not another and day - BESIDE_DAYS <= at <= day]
            blind = blind or (bool(beside) and max(beside) <= zero)
    return blind


@memoize
def nitrite_is_doubted(log: CycleLog) -> bool:
    """Whether zeros of the nitrite test are not to be trusted, with animals in. log: the cycle's."""
    return nitrite_is_missed(log) or nitrite_never_showed(log) or waste_is_unseen(log) or read_none_beside_another(log)
