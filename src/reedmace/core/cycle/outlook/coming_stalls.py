"""Stalls that will come if nothing is done, with their day."""

from typing import Annotated

import numpy as np

from reedmace.core.contract import Part, Working, number
from reedmace.core.cycle.judgement.stall_causes import CauseKind
from reedmace.core.cycle.model.prior import bottle_window
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import COOL_C, WaterNow
from reedmace.core.film import FILM_STOPS_KH_DKH, lacks_alkalinity
from reedmace.core.quantity import CACO3_PER_DKH, formatting

HORIZON_DAYS = 10.0


class ComingStall(Part):
    """A stall that will come if nothing is done, with its day."""

    kind: CauseKind
    what: str
    day: Annotated[float, number("days", 0, 500, "Since the start")]
    detail: str


def kh_fall_dkh_day(log: CycleLog) -> tuple[float, str] | None:
    """(dKH a day, evidence) of the fall of KH: from its tests, otherwise from the doses; None when neither tells.

    log: the cycle's. Bicarbonate added between tests is taken out again first.
    """
    # A change brings the tap's KH, so only tests since the last change show what is used up.
    since = max([log.day_now - 14, *(c.day for c in log.changes if c.share > 0.05)])
    rows = sorted((r.day, r.kh_dkh) for r in log.readings if r.kh_dkh is not None and r.day >= since)[-5:]
    if len(rows) >= 3 and rows[-1][0] - rows[0][0] >= 2:
        days = np.array([d for d, _ in rows])
        bare = np.array([kh - sum(a.raise_dkh for a in log.alkalinity if a.day <= d) for d, kh in rows])
        slope = float(np.polyfit(days - days[0], bare, 1)[0])
        return (-slope, f"{len(rows)} KH tests over {days[-1] - days[0]:.0f} days") if slope < -0.02 else None
    recent = [d.raise_mg_n_l for d in log.doses if log.day_now - d.day <= 7]
    if recent and log.day_now >= 5:
        fall = log.alkalinity_eaten_per_n() * sum(recent) / CACO3_PER_DKH / min(7.0, log.day_now)
        return fall, f"{len(recent)} doses in the last week"
    return None


def _alkalinity(log: CycleLog, s: WaterNow, w: Working) -> ComingStall | None:
    fall, kh = kh_fall_dkh_day(log), log.latest("kh_dkh")
    if not fall or not kh or s.kh_now is None or lacks_alkalinity(s.kh_now):
        return None
    gone = kh[0] + (s.kh_now - FILM_STOPS_KH_DKH) / fall[0]
    if not log.day_now - 0.5 <= gone <= log.day_now + HORIZON_DAYS:
        return None
    w.line(
        "KH gone", "day of test + (KH − 1) / fall a day", f"{kh[0]:.1f} + ({s.kh_now:.1f} − 1) / {fall[0]:.2f}",
        gone, "days", "arithmetic",
    )  # fmt: skip
    detail = f"It falls by {fall[0]:.2f} dKH a day, by {fall[1]}."
    return ComingStall(kind="alkalinity", what="KH runs out", day=max(gone, log.day_now), detail=detail)


def _off_scale(log: CycleLog, s: WaterNow, w: Working) -> ComingStall | None:
    nitrite = sorted(
        (r.day, r.nitrite_mg_n_l)
        for r in log.readings
        if r.nitrite_mg_n_l is not None and log.day_now - r.day <= 7 and "nitrite" not in r.off_scale
    )[-3:]
    if len(nitrite) < 2 or nitrite[-1][0] - nitrite[0][0] < 1 or not s.newest or "nitrite" in s.newest.off_scale:
        return None
    top = log.kit.steps_mg_n_l("nitrite")[-1]
    (begun, first), (ended, last) = nitrite[0], nitrite[-1]
    rise = (last - first) / (ended - begun)
    if rise <= 0.05 or last >= top:
        return None
    at = ended + (top - last) / rise
    if not log.day_now <= at <= log.day_now + 7:
        return None
    detail = f"It rises by {log.ppm(rise, 'nitrite')} a day; dose less, and read it diluted."
    return ComingStall(kind="off-scale", what="Nitrite leaves the kit's scale", day=at, detail=detail)


def _cold(log: CycleLog, s: WaterNow, w: Working) -> ComingStall | None:
    warmth = sorted((r.day, r.temperature_c) for r in log.readings if r.temperature_c is not None)[-2:]
    if len(warmth) < 2 or warmth[1][0] - warmth[0][0] < 0.5 or log.day_now - warmth[1][0] > 3:
        return None
    (begun, first), (ended, last) = warmth
    fall = (first - last) / (ended - begun)
    if fall < 0.5 or last < COOL_C:
        return None
    at = ended + (last - COOL_C) / fall
    if not log.day_now - 0.5 <= at <= log.day_now + 5:
        return None
    detail = f"It has lost {formatting.degrees(fall)} a day: look at the heater."
    return ComingStall(kind="cold", what="The water turns cold", day=max(at, log.day_now), detail=detail)


BOTTLE_DAYS = 21.0
"""Days for which a bottled culture is still settling in (memory)."""


def _leaves(rows: list[tuple[float, float]], low: float, high: float) -> float | None:
    """Day on which the last two figures, extrapolated, leave a range; None where they stay in it."""
    if len(rows) < 2 or rows[-1][0] - rows[-2][0] < 0.5:
        return None
    (begun, first), (ended, last) = rows[-2:]
    slope = (last - first) / (ended - begun)
    bound = low if slope < 0 else high
    if abs(slope) < 0.02 or not low <= last <= high:
        return None
    return ended + (bound - last) / slope


def _bottle(log: CycleLog, s: WaterNow, w: Working) -> ComingStall | None:
    """A stall where the water is leaving the window of a bottled culture that is still settling in."""
    if "bottled-culture" not in log.helpers or log.day_now > BOTTLE_DAYS or bottle_window(log):
        return None
    label = log.bottle
    warmth = sorted((r.day, r.temperature_c) for r in log.readings if r.temperature_c is not None)
    ph = sorted((r.day, r.ph) for r in log.readings if r.ph is not None)
    leaving = [
        (day, words)
        for day, words in (
            (
                _leaves(warmth, label.low_c, label.high_c),
                f"warmth: it wants {formatting.celsius.bare(label.low_c)} to {formatting.celsius(label.high_c)}",
            ),
            (_leaves(ph, label.ph_low, label.ph_high), f"pH: it wants {label.ph_low:.1f} to {label.ph_high:.1f}"),
        )
        if day is not None and log.day_now - 0.5 <= day <= log.day_now + HORIZON_DAYS
    ]
    if not leaving:
        return None
    day, words = min(leaving)
    detail = f"By {words}. Outside it the bottle is worth next to nothing: hold the water as it is."
    return ComingStall(kind="bottle", what="The bottle's window is lost", day=max(day, log.day_now), detail=detail)


def coming_stalls(log: CycleLog, s: WaterNow, w: Working) -> list[ComingStall]:
    """Coming stalls, soonest first. log: the cycle's; s: the water now; w: gets the lines."""
    found = [look(log, s, w) for look in (_alkalinity, _off_scale, _cold, _bottle)]
    return sorted((f for f in found if f), key=lambda f: f.day)
