"""The kinetics, compiled. Concentrations in mg N/L, alkalinity in mg/L CaCO3, time in days.

State, in order: TAN, nitrite-N, nitrate-N, alkalinity, capacity A, capacity B. A capacity is what a film could
remove in a day (mg N/L/day) at 25 °C with everything plentiful; it grows and decays as biomass does in ASM1.
pH follows alkalinity at a steady CO2, so an acid stall comes out of the sums rather than being put in.
"""

import math

import numpy as np
from numba import njit, prange
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

STEPS_PER_DAY = 12
"""Runge-Kutta steps a day. The fastest rate a mature film reaches here is about 20 a day, well inside stability."""

# Columns of a parameter row.
A0, B0, MU_A, MU_B, K_A, K_B, DECAY, CO2, A_MAX, INHIBIT_B = range(10)
PARAMETERS = 10
# Kinds of event: what `value` means.
ADD_TAN, CHANGE_WATER, ADD_ALKALINITY = 0, 1, 2


@njit(cache=True, fastmath=True)
def rates(y: Floats, p: Floats, theta: float, ka_ammonia: float, feed: float, out: Floats) -> None:
    """Write dy/dt into `out`.

    y, out: state (6,); p: parameters (10,); theta: temperature factor, 1 at 25 °C; ka_ammonia: acid constant of
    ammonium, mol/L; feed: ammonia made in the tank, mg N/L/day. Source: form of ASM1; Anthonisen et al. 1976.
    """
    tan, no2 = max(y[0], 0.0), max(y[1], 0.0)
    alkalinity = max(y[3], 0.0)
    bicarbonate = max(alkalinity / 50.04, 0.004)
    hydrogen = 4.467e-7 * p[CO2] / bicarbonate
    # Cubed, so that the film works at 85 % at pH 7, 15 % at 6.5 and all but stops below (common practice).
    low, high = hydrogen * 5.62e6, 6.3e-10 / hydrogen
    free = tan * ka_ammonia / (ka_ammonia + hydrogen)
    shape = theta / (1.0 + low * low * low + high * high)
    take_a = shape * alkalinity * tan / ((alkalinity + 4.0) * (tan + p[K_A]) * (1.0 + free * (1.0 / 12.0)))
    take_b = shape * no2 / ((no2 + p[K_B]) * (1.0 + free / p[INHIBIT_B]))
    removed_a, removed_b = y[4] * take_a, y[5] * take_b
    out[0] = feed - removed_a
    out[1] = removed_a - removed_b
    out[2] = removed_b
    out[3] = -7.14 * removed_a
    out[4] = y[4] * (p[MU_A] * take_a * (1.0 - y[4] / p[A_MAX]) - p[DECAY] * theta)
    out[5] = y[5] * (p[MU_B] * take_b * (1.0 - y[5] / p[A_MAX]) - p[DECAY] * theta)


@njit(cache=True, fastmath=True)
def step(y: Floats, p: Floats, theta: float, ka_ammonia: float, feed: float, dt: float, k: Floats, z: Floats) -> None:
    """One Runge-Kutta 4 step of length dt days, in place. k: scratch (4, 6); z: scratch (6,). The rest as in `rates`."""
    rates(y, p, theta, ka_ammonia, feed, k[0])
    for i in range(6):
        z[i] = y[i] + 0.5 * dt * k[0, i]
    rates(z, p, theta, ka_ammonia, feed, k[1])
    for i in range(6):
        z[i] = y[i] + 0.5 * dt * k[1, i]
    rates(z, p, theta, ka_ammonia, feed, k[2])
    for i in range(6):
        z[i] = y[i] + dt * k[2, i]
    rates(z, p, theta, ka_ammonia, feed, k[3])
    for i in range(6):
        y[i] = y[i] + dt / 6.0 * (k[0, i] + 2.0 * k[1, i] + 2.0 * k[2, i] + k[3, i])


@njit(cache=True, parallel=True)
def simulate(
    parameters: Floats,
    start: Floats,
    theta: Floats,
    ka_ammonia: Floats,
    feed: float,
    event_step: Ints,
    event_kind: Ints,
    event_value: Floats,
    tap: Floats,
    today: int,
    days: int,
    dose: float,
    zero: float,
    hold_nitrite: float,
    hold_alkalinity: float,
    keep_step: Ints,
) -> tuple[Floats, Floats, Floats]:
    """Run every draw through the logged past and the advised future.

    parameters: (n, 10); start: TAN, NO2, NO3, alkalinity (4,); theta, ka_ammonia: by day (days + 1,);
    feed: mg N/L/day; event_*: (m,), steps in order, what happened; tap: (4,) as start; today: step from which the
    advice is followed (dose to `dose` mg N/L when TAN is under `zero` and nitrite under `hold_nitrite`; alkalinity
    held at `hold_alkalinity` mg/L CaCO3 or more, 0 for not at all); days: horizon; keep_step: (r,) steps to report.
    Returns daily states (n, days + 1, 4), states at keep_step (n, r, 4) and pass day (n,), NaN when it never
    clears two doses running, each within a day, ammonia and nitrite both under `zero`. A draw that has passed is
    reported clear from then on.
    """
    n, m, r = parameters.shape[0], event_step.shape[0], keep_step.shape[0]
    daily = np.zeros((n, days + 1, 4))
    kept = np.zeros((n, r, 4))
    passed = np.full(n, np.nan)
    dt = 1.0 / STEPS_PER_DAY
    for d in prange(n):
        p = parameters[d]
        y = np.zeros(6)
        y[:4] = start
        y[4], y[5] = p[A0], p[B0]
        k, z = np.zeros((4, 6)), np.zeros(6)
        at_event, at_keep, wins = 0, 0, 0
        dosed_day = -10 * STEPS_PER_DAY
        for s in range(days * STEPS_PER_DAY + 1):
            day = s // STEPS_PER_DAY
            while at_event < m and event_step[at_event] <= s:
                value = event_value[at_event]
                if event_kind[at_event] == ADD_TAN:
                    y[0] += value
                elif event_kind[at_event] == CHANGE_WATER:
                    for i in range(4):
                        y[i] = y[i] * (1.0 - value) + tap[i] * value
                else:
                    y[3] += value
                at_event += 1
            if s >= today and (s - today) % STEPS_PER_DAY == 0:
                if hold_alkalinity > 0.0 and y[3] < hold_alkalinity:
                    y[3] = hold_alkalinity
                clear = y[0] < zero and y[1] < zero
                if clear and dosed_day == s - STEPS_PER_DAY:
                    wins += 1
                    if wins == 2 and math.isnan(passed[d]):
                        passed[d] = s * dt
                elif dosed_day == s - STEPS_PER_DAY:
                    wins = 0
                if y[0] < zero and y[1] < hold_nitrite:
                    y[0] = max(dose, y[0])
                    dosed_day = s
            while at_keep < r and keep_step[at_keep] <= s:
                kept[d, at_keep] = y[:4]
                at_keep += 1
            if s % STEPS_PER_DAY == 0:
                daily[d, day] = y[:4]
            if not math.isnan(passed[d]) and at_event == m and at_keep == r:
                # Passed: shown clear from here on, since dosing and testing would end.
                y[0] = y[1] = 0.0
                for later in range(day + 1, days + 1):
                    daily[d, later] = y[:4]
                break
            if s < days * STEPS_PER_DAY:
                step(y, p, theta[day], ka_ammonia[day], feed, dt, k, z)
    return daily, kept, passed
