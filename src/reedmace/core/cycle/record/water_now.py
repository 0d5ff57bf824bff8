"""The present water as far as the log tells."""

from dataclasses import dataclass

from reedmace.core.cycle.record.log import CycleLog, LoggedChange, LoggedReading
from reedmace.core.cycle.record.targets import WaterTargets, targets_of
from reedmace.core.memo import memoize

COOL_C, HOT_C = 22.0, 33.0
RAW_DAYS = 1.5
"""Days during which chlorine of an untreated change does harm (memory)."""


@dataclass
class WaterNow:
    """The present water: mg N/L, dKH, °C; None where never tested."""

    ammonia: tuple[float, float] | None
    nitrite: tuple[float, float] | None
    nitrate: tuple[float, float] | None
    ammonia_now: float
    kh_now: float | None
    ph: float | None
    temperature: float
    newest: LoggedReading | None
    acid: bool
    low_kh: bool
    wanted: WaterTargets


@memoize
def water_now(log: CycleLog) -> WaterNow:
    """The present water: the newest readings with what was added since. log: the cycle's."""
    ammonia, kh, ph = log.latest("ammonia_mg_n_l"), log.latest("kh_dkh"), log.latest("ph")
    wanted = targets_of(log)
    doses = [(d.day, d.raise_mg_n_l) for d in log.doses]
    now = carried_forward(ammonia or (-1.0, 0.0), doses, log, log.tap.released_mg_n_l())
    kh_now = carried_forward(kh, [(a.day, a.raise_dkh) for a in log.alkalinity], log, log.tap_kh_dkh()) if kh else None
    # The water was corrected after the pH was read, so the old figure no longer holds.
    treated = ph is not None and any(a.day >= ph[0] for a in log.alkalinity)
    return WaterNow(
        ammonia=ammonia,
        nitrite=log.latest("nitrite_mg_n_l"),
        nitrate=log.latest("nitrate_mg_n_l"),
        ammonia_now=now,
        kh_now=kh_now,
        ph=ph[1] if ph else None,
        temperature=log.temperature_now_c(),
        newest=max(log.readings, key=lambda r: r.day, default=None),
        acid=ph is not None and ph[1] < wanted.ph_low and not treated,
        low_kh=kh_now is not None and kh_now < wanted.kh_low_dkh,
        wanted=wanted,
    )


def carried_forward(read: tuple[float, float], added: list[tuple[float, float]], log: CycleLog, tap: float) -> float:
    """A figure carried forward from the day it was read through later additions and changes, in order.

    read: (day, value), any unit; added: (day, amount) in that unit; log: whose changes count; tap: what a change
    brings. A dose before a change is diluted by it, one after is not.
    """
    day_read, value = read
    happened = [(day, 0.0, 0.0, amount) for day, amount in added] + [(c.day, 1.0, c.share, 0.0) for c in log.changes]
    for day, _, share, amount in sorted(happened):
        if day > day_read:
            value = (value + amount) * (1 - share) + tap * share
    return value


def untreated_changes(log: CycleLog) -> list[LoggedChange]:
    """Late changes of water with chlorine in it that nobody treated. log: the cycle's."""
    if log.tap.chlorine == "none":
        return []
    return [c for c in log.changes if not c.treated and not c.conditioned and log.day_now - c.day <= RAW_DAYS]
