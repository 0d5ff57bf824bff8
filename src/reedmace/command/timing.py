"""Timing on a busy machine: processor time beside wall time, and ratios by turns."""

import gc
import math
import resource
import statistics
import sys
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Timing:
    """Seconds of wall time and of processor time (every thread of this process)."""

    wall_s: float
    cpu_s: float

    def words(self) -> str:
        """As text for the table."""
        return f"{self.cpu_s * 1000:.0f} ms of processor, {self.wall_s * 1000:.0f} ms by the clock"


@dataclass(frozen=True)
class Ratio:
    """Speed-up: median of the turns' ratios, by processor time."""

    times: float
    ours: Timing
    theirs: Timing


def once(action: Callable[[], Any]) -> Timing:
    """One run. action: what is measured."""
    wall, cpu = time.perf_counter(), time.process_time()
    action()
    return Timing(time.perf_counter() - wall, time.process_time() - cpu)


def measure(action: Callable[[], Any], times: int) -> Timing:
    """Medians of several runs, garbage collected before and not while. action: what is measured; times: how often."""
    took = []
    for _ in range(times):
        gc.collect()
        gc.disable()
        try:
            took.append(once(action))
        finally:
            gc.enable()
    return Timing(statistics.median(t.wall_s for t in took), statistics.median(t.cpu_s for t in took))


def compare(theirs: Callable[[], Any], ours: Callable[[], Any], turns: int, *, each: int = 1) -> Ratio:
    """Ours against theirs by turns, so that other load falls on both.

    theirs, ours: what is measured; turns: pairs of runs; each: runs of ours in a turn, where one is too short to time.
    """
    found = [(measure(theirs, 1), measure(lambda: [ours() for _ in range(each)], 1)) for _ in range(turns)]
    ratios = [t.cpu_s * each / max(o.cpu_s, 1e-9) for t, o in found]
    return Ratio(
        statistics.median(ratios),
        Timing(
            statistics.median(o.wall_s for _, o in found) / each, statistics.median(o.cpu_s for _, o in found) / each
        ),
        Timing(statistics.median(t.wall_s for t, _ in found), statistics.median(t.cpu_s for t, _ in found)),
    )


def exponent(sizes: Sequence[float], seconds: Sequence[float]) -> float:
    """Exponent of the growth with size: slope of a least-squares line through both logarithms.

    sizes: of what was given, two or more; seconds: what each took. Over 1 it grows faster than its size.
    """
    x, y = [math.log(s) for s in sizes], [math.log(max(t, 1e-9)) for t in seconds]
    mid_x, mid_y = statistics.fmean(x), statistics.fmean(y)
    rise = sum((a - mid_x) * (b - mid_y) for a, b in zip(x, y, strict=True))
    return rise / sum((a - mid_x) ** 2 for a in x)


def peak_mb() -> float:
    """Peak memory of this process, MB."""
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    return most / (1024 if sys.platform.startswith("linux") else 1024 * 1024)
