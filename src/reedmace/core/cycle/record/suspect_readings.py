"""The interval a reading stands for given the kit's steps, and readings that look wrong."""

from bisect import bisect_right
from dataclasses import dataclass
from itertools import accumulate
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray

from reedmace.core.contract import Part, number
from reedmace.core.cycle.record.log import CycleLog, LoggedReading, Off
from reedmace.core.memo import memoize
from reedmace.core.quantity import CACO3_PER_DKH

Floats = NDArray[np.float64]
What = Literal["ammonia", "nitrite", "nitrate"]
TESTS: tuple[What, ...] = ("ammonia", "nitrite", "nitrate")
WRONG, DOUBTFUL = 0.02, 0.6
"""Probability of a gross error: one in fifty by default (memory), six in ten where there is a reason for doubt."""
HIGHEST = 1e9


class SuspectReading(Part):
    """One figure with reduced weight, and why."""

    day: Annotated[float, number("days", 0, 400)]
    what: Literal["ammonia", "nitrite", "nitrate", "kit"]
    reason: str


@dataclass(frozen=True)
class Figures:
    """Every figure as the interval it stands for, in the shape the kernel takes; one entry per figure."""

    low: Floats
    high: Floats
    zero_width: Floats
    column: NDArray[np.int64]
    reading: NDArray[np.int64]
    scale: Floats
    wrong_chance: Floats

    def between(self, first: int, last: int) -> "Figures":
        """The figures of some readings. first, last: numbers of the readings, the last left out."""
        some = (self.reading >= first) & (self.reading < last)
        return Figures(
            self.low[some],
            self.high[some],
            self.zero_width[some],
            self.column[some],
            self.reading[some],
            self.scale[some],
            self.wrong_chance[some],
        )

    def rows(self) -> tuple[Floats, Floats, Floats, NDArray[np.int64], NDArray[np.int64], Floats, Floats]:
        """In the order `log_likelihood` takes them."""
        return self.low, self.high, self.zero_width, self.column, self.reading, self.scale, self.wrong_chance


def interval_of(value: float, steps: list[float], off_scale: bool) -> tuple[float, float, float]:
    """(low, high, half the first step) of a colour reading, all in mg N/L.

    value: as read, mg N/L; steps: the kit's, rising, mg N/L; off_scale: read as "this or more".
    A step stands for everything nearer to it than to its neighbours; between two steps, for what lies between; the top
    step cannot be told from more, so it is a bound.
    """
    first = (steps[1] - steps[0]) / 2
    if off_scale:
        return value / 1.2, HIGHEST, first
    for i, step in enumerate(steps):
        if abs(value - step) <= 0.03 * step + 1e-6:
            low = (steps[i - 1] + step) / 2 if i else -HIGHEST
            high = (step + steps[i + 1]) / 2 if i + 1 < len(steps) else HIGHEST
            return low, high, first
    if value > steps[-1]:
        # Read diluted: the relative width of the step stays that of the last two.
        ratio = (steps[-1] / max(steps[-2], 1e-9)) ** 0.5
        return value / ratio, value * ratio, first
    above = next(s for s in steps if s > value)
    return max(s for s in [-first, *steps] if s < value), above, first


def read_interval(log: CycleLog, reading: LoggedReading, what: Off) -> tuple[float, float, float] | None:
    """(low, high, half the first step) of one figure of a test, mg N/L; None where it was not read.

    log: whose kit; reading: one test; what: which figure. A range given with it takes the place of the kit's step; one
    that begins at nothing reaches below it, as a zero does.
    """
    value: float | None = getattr(reading, f"{what}_mg_n_l")
    if value is None:
        return None
    steps = log.kit.steps_mg_n_l(what)
    low, high, first = interval_of(value, steps, what in reading.off_scale)
    for given in reading.between:
        if given.what == what and given.high_mg_n_l > given.low_mg_n_l:
            return (given.low_mg_n_l or -HIGHEST), given.high_mg_n_l, first
    return low, high, first


def kh_interval(value_dkh: float, step_dkh: float) -> tuple[float, float]:
    """(low, high) of a KH reading, dKH.

    value_dkh: as read; step_dkh: one drop of the kit's titration. Drops are counted until the colour turns, so a whole
    number of them stands for anything up to one drop less; a figure between two counts came from elsewhere, a strip or
    a finer kit, and stands for half a drop either way.

    >>> [round(x, 4) for x in kh_interval(4.0, 1.0)]
    [3.0, 4.0]
    """
    counts = value_dkh / step_dkh
    if abs(counts - round(counts)) <= 0.02 and counts >= 0.5:
        return value_dkh - step_dkh, value_dkh
    return value_dkh - step_dkh / 2, value_dkh + step_dkh / 2


class _AddedNitrogen:
    """Upper bound of the nitrogen in the water by a day, mg N/L, ignoring what changes took out."""

    def __init__(self, log: CycleLog) -> None:
        doses = sorted((d.day, d.raise_mg_n_l) for d in log.doses)
        self._days = [day for day, _ in doses]
        self._sums = [0.0, *accumulate(raised for _, raised in doses)]
        self._made = log.animals_in_mg_n_l_day + log.food_mg_n_l_day()
        self._tap = log.tap.released_mg_n_l() + log.tap.nitrite_mg_n_l + log.tap.nitrate_mg_n_l

    def by(self, day: float) -> float:
        return self._sums[bisect_right(self._days, day + 0.02)] + self._made * day + self._tap


@memoize
def suspect_readings(log: CycleLog) -> list[SuspectReading]:
    """Figures inconsistent with what was added or with their neighbours (common practice). log: the cycle's."""
    found: list[SuspectReading] = []
    readings = sorted(log.readings, key=lambda r: r.day)
    if log.kit.expired and readings:
        found.append(SuspectReading(day=readings[-1].day, what="kit", reason="the kit is past its date"))
    baseline = log.first_nitrate_mg_n_l()
    added = _AddedNitrogen(log)
    for r in readings:
        most = added.by(r.day)
        known = most > 0.2
        if known and r.ammonia_mg_n_l is not None and r.ammonia_mg_n_l > 1.6 * most + 0.4:
            found.append(SuspectReading(day=r.day, what="ammonia", reason="more ammonia than was ever put in"))
        if known and r.nitrite_mg_n_l is not None and r.nitrite_mg_n_l > 1.6 * most + 0.4:
            found.append(
                SuspectReading(day=r.day, what="nitrite", reason="more nitrite than the ammonia put in can make")
            )
        if known and r.nitrate_mg_n_l is not None and r.nitrate_mg_n_l > 1.5 * most + baseline + 2.0:
            found.append(
                SuspectReading(
                    day=r.day,
                    what="nitrate",
                    reason="more nitrate than the ammonia put in can make; nitrite in the water reads as nitrate too",
                )
            )
    pair: tuple[What, ...] = ("ammonia", "nitrite")
    done = sorted([d.day for d in log.doses] + [x.day for x in log.changes])
    for what in pair:
        rows = [(r.day, getattr(r, f"{what}_mg_n_l")) for r in readings if getattr(r, f"{what}_mg_n_l") is not None]
        for (a, before), (b, here), (c, after) in zip(rows, rows[1:], rows[2:], strict=False):
            quiet = bisect_right(done, a) == bisect_right(done, c)
            if quiet and c - a <= 7 and here < 0.2 * min(before, after) and min(before, after) > 0.5:
                found.append(
                    SuspectReading(day=b, what=what, reason=f"a low {what} between two high ones, with nothing done")
                )
    return found


def figures_of(log: CycleLog, readings: list[LoggedReading], doubtful: list[SuspectReading]) -> Figures:
    """Every figure in the form the kernel weighs.

    log: the cycle's; readings: by day; doubtful: from `suspect_readings`.
    """
    weak = {(d.day, d.what) for d in doubtful}
    rows = []
    for j, reading in enumerate(readings):
        for column, what in enumerate(TESTS):
            interval = read_interval(log, reading, what)
            if interval is None:
                continue
            low, high, first = interval
            wrong_chance = DOUBTFUL if (reading.day, what) in weak or log.kit.expired else WRONG
            rows.append((low, high, first, column, j, 1.0, wrong_chance))
        if reading.kh_dkh is not None:
            low, high = kh_interval(reading.kh_dkh, log.kit.kh_step_dkh)
            rows.append((low, high, max((high - low) / 2, 0.25), 3, j, CACO3_PER_DKH, WRONG))
    table = np.array(rows, dtype=float).reshape(-1, 7)
    return Figures(
        table[:, 0].copy(),
        table[:, 1].copy(),
        table[:, 2].copy(),
        table[:, 3].astype(np.int64),
        table[:, 4].astype(np.int64),
        table[:, 5].copy(),
        table[:, 6].copy(),
    )
