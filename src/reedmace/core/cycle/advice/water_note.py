"""What the newest tests of a settled tank show that is no emergency: a trace, a swing, a figure they do not like."""

from collections.abc import Iterator
from typing import NamedTuple

from reedmace.core.chemistry import DissolvedCo2Question, dissolved_co2
from reedmace.core.chemistry.tolerance import PH_MARGIN, UNTESTED_PH, ammonia_reach
from reedmace.core.cycle.advice.action import Action, Do
from reedmace.core.cycle.advice.water_alarm import first_step_mg_n_l, in_danger_now, is_stable
from reedmace.core.cycle.animals.day_plan import AIR_BREATHING_SHARE
from reedmace.core.cycle.record.kit_checks import kit_is_stuck
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.targets import breathe_water_share, tolerance_of
from reedmace.core.flow.oxygen_balance import DOUBTFUL_MG_L
from reedmace.core.memo import memoize
from reedmace.core.quantity import formatting

TRACE_DAYS, LATELY_DAYS = 4.0, 3.0
"""Days for which a trace of poison, and any other figure, is spoken of (memory)."""
HOUR, DAY = 1.5 / 24, 1.05
"""Days within which two readings count as an hour apart, and as a day apart (a stated judgement)."""
SWING_C = {HOUR: 3.0, DAY: 4.0}
SWING_PH = {HOUR: 0.5, DAY: 1.0}
"""Rise or fall within the hour and within the day that harms by its pace (memory, cautious)."""
DISLIKED_C = 2.0
"""Distance outside their range at which warmth is spoken of (memory)."""


NEAR_LIMIT = 1.0
"""Share of its limit at which even a kit's first step of ammonia is spoken of (a stated judgement)."""


class WaterNote(NamedTuple):
    """A verdict that is no alarm, and what to do about it, the first first."""

    words: str
    actions: list[Action]


@memoize
def water_note(log: CycleLog) -> WaterNote | None:
    """What a settled tank's newest tests show; None where nothing does, or where an alarm says it already.

    log: the cycle's, with animals in. Source: common practice for a trace; swings from memory.
    """
    if not log.animals_are_in() or not is_stable(log) or in_danger_now(log):
        return None
    return next(iter([*_trace(log), *_conditions(log)]), None)


def condition_note(log: CycleLog) -> WaterNote | None:
    """The same of warmth, pH and CO2 alone, in any tank with animals: a trace in a new tank is its advice's own matter.

    log: the cycle's.
    """
    if not log.animals_are_in() or in_danger_now(log):
        return None
    return next(_conditions(log), None)


def _conditions(log: CycleLog) -> Iterator[WaterNote]:
    yield from _oxygen(log)
    yield from _swing(log)
    yield from _warmth(log)
    yield from _acidity(log)
    yield from _carbon_dioxide(log)


def _lately(log: CycleLog, field: str, days: float = LATELY_DAYS) -> float | None:
    read = log.latest(field)
    return read[1] if read is not None and log.day_now - read[0] <= days else None


def _measure(title: str, detail: str) -> Action:
    return Action(
        do="test",
        title=title,
        detail=detail,
        reason="One reading may be a slip; two are a fact.",
        when="tonight",
    )


def _moved(log: CycleLog, field: str, most: dict[float, float]) -> tuple[float, float] | None:
    """(before, now) of a figure that moved further than it should in the time; None where it did not."""
    rows = sorted((r.day, getattr(r, field)) for r in log.readings if getattr(r, field) is not None)
    if not rows or log.day_now - rows[-1][0] > 1:
        return None
    at, now = rows[-1]
    for days, far in most.items():
        before = [value for day, value in rows[:-1] if at - day <= days]
        furthest = max(before, key=lambda value: abs(now - value), default=now)
        if abs(now - furthest) > far - 1e-9:
            return furthest, now
    return None


def _swing(log: CycleLog) -> Iterator[WaterNote]:
    degrees = _moved(log, "temperature_c", SWING_C)
    if degrees is not None:
        before, now = degrees
        how = "fell" if now < before else "rose"
        look = (
            "See that the heater is plugged in, wet and lit, and warm it by no more than a degree an hour."
            if now < before
            else "See that the heater has not stuck, and let it cool by no more than a degree an hour."
        )
        yield WaterNote(
            f"The water {how} from {formatting.celsius.bare(before)} to {formatting.celsius(now)} within a day.",
            [_measure("Read the thermometer again in an hour", look)],
        )
    ph = _moved(log, "ph", SWING_PH)
    if ph is not None:
        before, now = ph
        yield WaterNote(
            f"pH went from {before:.1f} to {now:.1f} within a day.",
            [_measure("Test pH and KH again", "With the same kit, before anything is poured in; never chase pH.")],
        )


def _trace(log: CycleLog) -> Iterator[WaterNote]:
    if kit_is_stuck(log):
        return
    ammonia, nitrite = (_lately(log, f"{one}_mg_n_l", TRACE_DAYS) or 0.0 for one in ("ammonia", "nitrite"))
    seen, ph = [], _lately(log, "ph") or UNTESTED_PH
    free = ammonia_reach(ammonia, ph, log.temperature_now_c(), log.salinity_g_kg)
    if ammonia > first_step_mg_n_l(log) or free > NEAR_LIMIT:
        seen.append(f"{log.ppm(ammonia)} of ammonia")
    if nitrite > log.kit.zero_mg_n_l("nitrite"):
        seen.append(f"{log.ppm(nitrite, 'nitrite')} of nitrite")
    if seen:
        yield WaterNote(
            f"{' and '.join(seen)}, where a settled tank has none.",
            [
                Action(
                    do="feed-little",
                    title="Feed half",
                    detail=(
                        "And look for what rots: a body behind the filter, leaves, food under the gravel; see that the"
                        " filter runs as fast as it did."
                    ),
                    reason="It is under the limit; what made it may go on.",
                    when="now",
                ),
                Action(
                    do="test",
                    title="Test ammonia and nitrite tomorrow",
                    detail="If it stands higher, change a third, treated.",
                    reason="A settled film clears a trace within a day; one that does not is short of something.",
                    when="tomorrow",
                ),
            ],
        )


def _warmth(log: CycleLog) -> Iterator[WaterNote]:
    now, bearing = _lately(log, "temperature_c"), tolerance_of(log)
    if now is None or bearing.low_c is None or bearing.high_c is None:
        return
    if now >= bearing.high_c + DISLIKED_C:
        yield WaterNote(
            f"At {formatting.celsius(now)} it is warmer than they like: {formatting.celsius(bearing.high_c)} at most.",
            [_act_now("cool", "Bring it down slowly",
                  "Heater down, lid open, lights off in the heat of the day, the outlet at the surface.",
                  "Warm water holds less oxygen while they need more.")],
        )  # fmt: skip
    elif now <= bearing.low_c - DISLIKED_C:
        yield WaterNote(
            f"At {formatting.celsius(now)} it is cooler than they like: {formatting.celsius(bearing.low_c)} at least.",
            [_act_now("warm", "Warm it slowly", "See that the heater is plugged in and wet; two degrees a day at most.",
                  "Cold slows them and the film, and lays them open to disease.")],
        )  # fmt: skip


def _act_now(do: Do, title: str, detail: str, reason: str) -> Action:
    return Action(do=do, title=title, detail=detail, reason=reason, when="now")


def _oxygen(log: CycleLog) -> Iterator[WaterNote]:
    now = _lately(log, "oxygen_mg_l")
    if now is None or now >= DOUBTFUL_MG_L or breathe_water_share(log) < AIR_BREATHING_SHARE:
        return
    yield WaterNote(
        f"Oxygen of {now:.1f} mg/L leaves little in hand.",
        [_act_now("aerate", "Let the outlet break the surface",
              "Or an air stone, at night above all; read it again at dawn, when it is lowest.",
              "A warm night, a full stomach or a short stop of the filter takes a milligram or two.")],
    )  # fmt: skip


def _acidity(log: CycleLog) -> Iterator[WaterNote]:
    now, bearing = _lately(log, "ph"), tolerance_of(log)
    if now is None or bearing.ph_low is None or bearing.ph_high is None:
        return
    low, high = bearing.ph_low - PH_MARGIN, bearing.ph_high + PH_MARGIN
    if not low <= now <= high:
        side = f"{bearing.ph_high:.1f} at most" if now > high else f"{bearing.ph_low:.1f} at least"
        yield WaterNote(
            f"pH {now:.1f} is not what they like: {side}.",
            [_measure("Test pH again, and the tap", "What the tap brings stays; never chase pH with a bottle.")],
        )


def _carbon_dioxide(log: CycleLog) -> Iterator[WaterNote]:
    read = [r for r in log.readings if r.ph is not None and r.kh_dkh is not None and log.day_now - r.day <= 1]
    if not log.co2_given or not read:
        return
    newest = max(read, key=lambda r: r.day)
    found = dissolved_co2(
        DissolvedCo2Question(kh_dkh=newest.kh_dkh, ph=newest.ph, temperature_c=log.temperature_now_c(), net_l=log.net_l)
    )
    if found.mark == "over":
        yield WaterNote(
            found.verdict.split(":")[0] + ".",
            [
                Action(
                    do="aerate",
                    title="Give less CO2",
                    detail="Fewer bubbles, off with the light; an air stone now where fish hang at the surface.",
                    reason="CO2 that stands high keeps them from breathing whatever oxygen there is.",
                    when="now",
                )
            ],
        )
