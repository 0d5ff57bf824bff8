"""Events that may have killed filter bacteria.

When, how much, and on what evidence. Used by model, proof and advice.
"""

from dataclasses import dataclass
from itertools import pairwise

from reedmace.core.cycle.record.log import Chlorine, CycleLog, LoggedMedia
from reedmace.core.film import FILM_STOPS_KH_DKH, FILM_STOPS_PH, SQUEEZED_SHARE
from reedmace.core.memo import memoize
from reedmace.core.quantity import formatting

AIRLESS_HALF_H = {True: 6.0, False: 24.0}
"""Hours until half the bacteria of a stopped filter are lost, closed and open (memory;

closed ones turn anoxic within hours).
"""
TAP_KILL: dict[Chlorine, float] = {"none": 0.0, "chlorine": 0.6, "chloramine": 0.6, "unknown": 0.4}
"""Share of bacteria lost when media are rinsed in tap water, by its disinfectant (memory)."""
CHANGE_KILL, CHANGE_KILL_MOST = 1.5, 0.9
"""An untreated change kills this multiple of its share of what a rinse would, capped by the second (memory)."""
HOT_KILL_C, HOT_KILL_SHARE = 36.0, 0.5
COLD_SHOCK_C, COLD_KILL_SHARE = 10.0, 0.2
"""Temperature drop that shocks bacteria, and the share it kills (memory)."""
GONE_SHARE = 0.9
"""Share of the bacteria on the media touched that is lost with them (memory)."""


@dataclass(frozen=True)
class Loss:
    """Bacteria lost: the day it ended, the share of the total, and what happened."""

    day: float
    share: float
    what: str


def airless_share(hours: float, closed: bool) -> float:
    """Share of a filter's bacteria lost after hours without flow. hours: h; closed: whether its body is (memory).

    >>> round(airless_share(6.0, True), 4)
    0.5
    """
    return float(1 - 0.5 ** (hours / AIRLESS_HALF_H[closed]))


def _stops(log: CycleLog) -> list[Loss]:
    found = []
    for o in log.outages:
        closed = log.filter_closed if o.closed is None else o.closed
        lost = o.share * airless_share(o.hours, closed)
        words = f"the {'closed ' if closed else ''}filter stood still for {o.hours:.0f} hours"
        found.append(Loss(o.day + o.hours / 24, lost, words))
    return found


def _media_loss(log: CycleLog, work: LoggedMedia) -> Loss | None:
    lost, words = {
        "rinsed-tap": (TAP_KILL[log.tap.chlorine], "media were rinsed in tap water"),
        "replaced": (GONE_SHARE, "media were replaced"),
        "dried": (GONE_SHARE, "media dried out"),
        "taken-off": (GONE_SHARE, "a filter was taken off"),
        "rinsed-tank-water": (SQUEEZED_SHARE, "media were rinsed in tank water"),
    }.get(work.what, (0.0, ""))
    return Loss(work.day, lost * work.share, words) if words else None


def _shocks(log: CycleLog) -> list[Loss]:
    degrees = sorted((r.day, r.temperature_c) for r in log.readings if r.temperature_c is not None)
    found = [
        Loss(day, HOT_KILL_SHARE, f"the water stood at {formatting.celsius(warm)}")
        for day, warm in degrees
        if warm >= HOT_KILL_C
    ]
    for (_, before), (day, after) in pairwise(degrees):
        if before - after >= COLD_SHOCK_C and after < HOT_KILL_C:
            found.append(
                Loss(
                    day,
                    COLD_KILL_SHARE,
                    f"the water fell from {formatting.celsius.bare(before)} to {formatting.celsius(after)}",
                )
            )
    return found


@memoize
def film_losses(log: CycleLog) -> list[Loss]:
    """All losses of bacteria, by day. log: the cycle's. Shares from memory, as the constants above say."""
    kill = TAP_KILL[log.tap.chlorine]
    found = [*_stops(log), *_shocks(log)]
    found += [loss for work in log.media if (loss := _media_loss(log, work))]
    found += [
        Loss(
            c.day,
            min(kill * c.share * CHANGE_KILL, CHANGE_KILL_MOST),
            f"{c.share:.0%} of the water was changed untreated",
        )
        for c in log.changes
        if not c.treated and kill > 0
    ]
    return sorted(found, key=lambda loss: loss.day)


def stopped_film(log: CycleLog) -> list[Loss]:
    """Days on which pH fell under 6.5 or KH under 1 dKH, where it had not been before: the film may have stopped.

    log: the cycle's. Source: common practice.
    """
    found: list[Loss] = []
    for column, least, name in (("ph", FILM_STOPS_PH, "pH"), ("kh_dkh", FILM_STOPS_KH_DKH, "KH")):
        rows = sorted((r.day, getattr(r, column)) for r in log.readings if getattr(r, column) is not None)
        start = log.start_ph if column == "ph" else log.start_kh_dkh
        for (_, before), (day, after) in pairwise([(-1.0, start), *rows]):
            if after < least <= before:
                found.append(Loss(day, 1.0, f"{name} fell to {after:g}"))
    return sorted(found, key=lambda loss: loss.day)
