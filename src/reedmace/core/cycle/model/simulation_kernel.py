"""Draws simulated through the logged past and the advised future, compiled: events, samples, aims, passes."""

import math

import numpy as np
from numba import njit, prange

from reedmace.core.cycle.model.nitrogen_kernel import (
    AIMS,
    BASE,
    COUNT_FROM,
    DOSE,
    DOSE_BASE,
    FEED,
    HOLD_ALKALINITY,
    HOLD_NITRITE,
    LANES,
    LEAST_ALKALINITY,
    NITRIFIED,
    PLANT_HALF_NITRATE,
    PLANTS,
    STATES,
    STEPS_PER_DAY,
    WON,
    WORKSPACE,
    ZERO,
    ZERO_NITRITE,
    ZEROS_NEEDED,
    Floats,
    Ints,
    apply_event,
    load,
    step,
)


@njit(cache=True, error_model="numpy")
def count_zeros(y: Floats, wins: Ints, i: int, aim: Floats) -> None:
    """Add one to the zeros of lane i that follow one another, or begin them again, in place.

    y: states (7, LANES); wins: zeros so far (LANES,); aim: (10,) as the constants above say.
    """
    wins[i] = wins[i] + 1 if y[0, i] < aim[ZERO] and y[1, i] < aim[ZERO_NITRITE] else 0


@njit(cache=True, error_model="numpy")
def pass_by_zeros(y: Floats, wins: Ints, done: Floats, day: float, passing: bool, aim: Floats) -> int:
    """Count a day's zeros in place; how many lanes pass by them.

    y, wins, aim: as `count_zeros`; done: day each lane passed or NaN (LANES,); day: now; passing: whether today is
    reached.
    """
    passed = 0
    for i in range(LANES):
        if math.isnan(done[i]):
            count_zeros(y, wins, i, aim)
            if passing and wins[i] >= aim[ZEROS_NEEDED]:
                done[i] = day
                passed += 1
    return passed


@njit(cache=True, error_model="numpy")
def follow_aim(y: Floats, wins: Ints, dosed: Ints, done: Floats, nitrogen: Floats, s: int, aim: Floats) -> int:
    """Hold alkalinity, dose where it is time, count doses cleared within a day, in place; how many lanes pass.

    y, wins, done, aim: as `pass_by_zeros`; dosed: step of each lane's last dose (LANES,); nitrogen: in the tank
    (LANES,), mg N/L; s: step.
    """
    passed, dose = 0, aim[DOSE]
    for i in range(LANES):
        if not math.isnan(done[i]):
            continue
        if aim[HOLD_ALKALINITY] > 0.0 and y[3, i] < aim[HOLD_ALKALINITY]:
            y[3, i] = aim[HOLD_ALKALINITY]
        if dose <= 0.0:
            continue
        if aim[ZEROS_NEEDED] < 1.0 and dosed[i] == s - STEPS_PER_DAY:
            count_zeros(y, wins, i, aim)
            if wins[i] == 2:
                done[i] = s / STEPS_PER_DAY
                passed += 1
        if y[0, i] < aim[ZERO] and y[1, i] < aim[HOLD_NITRITE] and y[0, i] < dose:
            nitrogen[i] += dose - y[0, i]
            y[3, i] += aim[DOSE_BASE] * (dose - y[0, i])
            y[0, i] = dose
            dosed[i] = s
    return passed


@njit(cache=True, error_model="numpy")
def report_clear(y: Floats, done: Floats) -> None:
    """Turn what lanes that passed still hold into the nitrate it becomes within the day, in place.

    y, done: as `pass_by_zeros`.
    """
    for i in range(LANES):
        if math.isfinite(done[i]):
            y[2, i] += y[0, i] + y[1, i]
            y[3, i] = max(y[3, i] - NITRIFIED * y[0, i], 0.0)
            y[0, i] = y[1, i] = 0.0


@njit(cache=True, error_model="numpy")
def nitrify_feed(y: Floats, c: Floats) -> None:
    """One day of lanes that have all passed, in place: feed becomes nitrate, of which plants take up a share.

    y: states (7, LANES); c: the day's conditions (6,).
    """
    for i in range(LANES):
        taken = c[PLANTS] * y[2, i] / (y[2, i] + PLANT_HALF_NITRATE)
        y[2, i] = max(y[2, i] + c[FEED] - taken, 0.0)
        y[3, i] = max(y[3, i] + BASE * (c[FEED] + taken) - NITRIFIED * c[FEED], 0.0)


@njit(cache=True, error_model="numpy")
def stop_exhausted(y: Floats, done: Floats, least: float) -> int:
    """Mark lanes under the least alkalinity as never passing, in place; how many. None where `least` is 0.

    y, done: as `pass_by_zeros`; least: mg/L CaCO3.
    """
    stopped = 0
    for i in range(LANES):
        if least > 0.0 and math.isnan(done[i]) and y[3, i] < least:
            done[i] = math.inf
            stopped += 1
    return stopped


@njit(cache=True, error_model="numpy")
def widen_gap(y: Floats, nitrogen: Floats, gap: Floats) -> None:
    """Widen the gap in the nitrogen's books, mg N/L, in place. y: states; nitrogen: that ought to be there; gap."""
    for i in range(LANES):
        gap[i] = max(gap[i], abs(y[0, i] + y[1, i] + y[2, i] + y[6, i] - nitrogen[i]))


@njit(cache=True, error_model="numpy")
def add(amounts: Floats, more: float) -> None:
    """Add to every lane in place. amounts: (LANES,); more: in their unit."""
    for i in range(LANES):
        amounts[i] += more


@njit(cache=True, error_model="numpy")
def store(y: Floats, out: Floats, first: int, lanes: int, place: int) -> None:
    """Write TAN, NO2, NO3 and alkalinity of a block of draws.

    y: states (7, LANES); out: (n, places, 4); first, lanes: the block's first draw and how many; place: in the second
    axis.
    """
    for i in range(lanes):
        for j in range(4):
            out[first + i, place, j] = y[j, i]


@njit(cache=True, error_model="numpy")
def store_rest(y: Floats, out: Floats, first: int, lanes: int, day: int, conditions: Floats) -> None:
    """Write the days after every lane has passed.

    y, out, first, lanes: as `store`; day: the last written; conditions: by day (days + 1, 6).
    """
    for later in range(day + 1, out.shape[1]):
        nitrify_feed(y, conditions[later - 1])
        store(y, out, first, lanes, later)


@njit(cache=True, error_model="numpy")
def sample(
    y: Floats, kept: Floats, first: int, lanes: int, place: int, sample_steps: Ints, s: int, at_event: int
) -> int:
    """Write the states asked for at this step and after so many events; place of the next one to write.

    y, first, lanes: as `store`; kept: (n, r, 4); place: the next; sample_steps: (r, 2); s: step; at_event: events so
    far.
    """
    while place < sample_steps.shape[0] and sample_steps[place, 0] <= s and sample_steps[place, 1] <= at_event:
        store(y, kept, first, lanes, place)
        place += 1
    return place


@njit(cache=True, parallel=True, nogil=True, error_model="numpy")
def simulate(
    parameters: Floats,
    start: Floats,
    conditions: Floats,
    event_step: Ints,
    event_kind: Ints,
    event_value: Floats,
    tap: Floats,
    today: int,
    days: int,
    aim: Floats,
    sample_steps: Ints,
) -> tuple[Floats, Floats, Floats, Floats]:
    """Simulate every draw through the logged past and the advised future.

    parameters: (n, 13); start: TAN, NO2, NO3, alkalinity (4,); conditions: by day (days + 1, 6); event_step,
    event_kind, event_value: (m,), in order; tap: (4,) as start; today: step from which the aim (10,) is followed (a
    dose when TAN is at a kit's zero and nitrite low, alkalinity held); days: horizon; sample_steps: (r, 2) steps to
    report, and how many events had happened by then (a test and a dose an hour apart share a step). Returns daily
    states (n, days + 1, 4), states at sample_steps (n, r, 4), pass day (n,) and the largest gap in the nitrogen's books
    (n,), mg N/L. The pass day is NaN when a draw never clears two doses running or keeps zeros as long as asked;
    infinite where alkalinity stopped it. Raises ValueError for an aim of another length, which would be read past.
    """
    if aim.shape[0] != AIMS:
        raise ValueError("aim has not as many entries as AIMS")
    n, m, r = parameters.shape[0], event_step.shape[0], sample_steps.shape[0]
    daily, kept, passed, drift = np.zeros((n, days + 1, 4)), np.zeros((n, r, 4)), np.full(n, np.nan), np.zeros(n)
    counted, count_from = aim[ZEROS_NEEDED] > 0.0, int(aim[COUNT_FROM] * STEPS_PER_DAY)
    for block in prange((n + LANES - 1) // LANES):
        first, lanes, w = block * LANES, min(LANES, n - block * LANES), np.zeros(WORKSPACE)
        load(w, parameters, first, start)
        y = w[: STATES * LANES].reshape(STATES, LANES)
        wins, dosed = np.full(LANES, int(aim[WON])), np.full(LANES, -10 * STEPS_PER_DAY)
        done, nitrogen_total, gap = np.full(LANES, np.nan), y[0] + y[1] + y[2], np.zeros(LANES)
        at_event, at_sample, left = 0, 0, LANES
        for s in range(days * STEPS_PER_DAY + 1):
            day, midnight = s // STEPS_PER_DAY, s % STEPS_PER_DAY == 0
            while at_event < m and event_step[at_event] <= s:
                at_sample = sample(y, kept, first, lanes, at_sample, sample_steps, s, at_event)
                apply_event(w, event_kind[at_event], event_value[at_event], tap, nitrogen_total)
                at_event += 1
            at_sample = sample(y, kept, first, lanes, at_sample, sample_steps, s, at_event)
            if counted and s >= count_from and midnight:
                left -= pass_by_zeros(y, wins, done, s / STEPS_PER_DAY, s >= today, aim)
            if s >= today and (s - today) % STEPS_PER_DAY == 0:
                left -= follow_aim(y, wins, dosed, done, nitrogen_total, s, aim)
            if at_event == m and left < LANES:
                report_clear(y, done)
            if midnight:
                widen_gap(y, nitrogen_total, gap)
                store(y, daily, first, lanes, day)
                left -= stop_exhausted(y, done, aim[LEAST_ALKALINITY])
            if left == 0 and at_event == m and at_sample == r:
                store_rest(y, daily, first, lanes, day, conditions)
                break
            if s < days * STEPS_PER_DAY:
                step(w, conditions[day], 1.0 / STEPS_PER_DAY)
                add(nitrogen_total, conditions[day, FEED] / STEPS_PER_DAY)
        passed[first : first + lanes], drift[first : first + lanes] = done[:lanes], gap[:lanes]
    return daily, kept, passed, drift
