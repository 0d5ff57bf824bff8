"""Compiled kinetics of nitrification. Concentrations in mg N/L, alkalinity in mg/L CaCO3, time in days.

State, in order: TAN, nitrite-N, nitrate-N, alkalinity, capacity A, capacity B, nitrogen taken up by plants. A capacity
is what a film could remove in a day (mg N/L/day) at 25 °C with everything plentiful; it grows and decays as biomass
does in ASM1, once it is awake: a film new to a tank does nothing at first (a lag, in the form of Baranyi and Roberts
1994). pH follows alkalinity at a steady CO2, so an acid stall comes out of the sums rather than being put in. The
nitrogen a film builds into itself is left out: at these yields it is a few percent of what passes through.

Draws run side by side in lanes, so that one instruction moves several of them.
"""

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from reedmace.core.chemistry import ALKALINITY_PER_N, BASE_PER_N

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

LANES = 16
STEPS_PER_DAY = 12
"""Runge-Kutta steps a day. The fastest rate a mature film reaches here is about 20 a day, well inside stability."""

# Columns of a parameter row.
A0, B0, MU_A, MU_B, K_A, K_B, DECAY, CO2, A_MAX, INHIBIT_B, LAG, FIRST_NITRATE, DOSE_WORTH = range(13)
PARAMETERS = 13
WAKING_PER_DAY = 1.5
"""Steepness of waking: 1 / (1 + exp(-1.5 (t - lag))) of the bacteria are active at day t (memory)."""
# Kinds of event: what `value` means. Added alkalinity is in mg/L CaCO3, added film in mg N/L/day of capacity A.
ADD_TAN, CHANGE_WATER, ADD_ALKALINITY, KILL_FILM, ADD_FILM = range(5)
# Columns of a day's conditions: temperature factor (1 at 25 °C), acid constant of ammonium (mol/L), ammonia made in
# the tank (mg N/L/day), what plants can take (mg N/L/day), growth factor (phosphate), work factor (flow, oxygen).
THETA, KA, FEED, PLANTS, GROWTH, WORK = range(6)
CONDITIONS = 6
NITRIFIED, BASE = ALKALINITY_PER_N, BASE_PER_N
"""Alkalinity, mg CaCO3, that each mg N takes when nitrified (US EPA 1993), and that comes with it as NH3, from food and
animals; plants take it away with ammonium and give it back with nitrate (equivalent masses)."""
# What is aimed at from today on: dose (mg N/L, 0 for no dosing), a kit's zero (mg N/L), nitrite over which no dose is
# made (mg N/L), alkalinity held (mg/L CaCO3, 0 for not at all), days of zeros that count as passed (0 when doses are to
# be cleared instead), day from which zeros count, alkalinity that comes with each mg N dosed (mg CaCO3), the kit's zero
# of nitrite (mg N/L), doses seen to be cleared already, alkalinity under which a draw is simulated no
# further (mg/L CaCO3, 0 for every draw to its end).
DOSE, ZERO, HOLD_NITRITE, HOLD_ALKALINITY, ZEROS_NEEDED, COUNT_FROM, DOSE_BASE, ZERO_NITRITE, WON = range(9)
LEAST_ALKALINITY = 9
AIMS = 10
STATES = 7
NOTHING = 1e-20
"""Concentrations below this, mg N/L, count as zero."""
PLANT_HALF = 0.1
"""Half-saturation of plant uptake of ammonia, mg N/L (memory)."""
PLANT_HALF_NITRATE = 0.5
"""Half-saturation of plant uptake of nitrate, which plants turn to once ammonia is short, mg N/L (memory)."""


# One workspace holds all quantities of a block of draws, each as a run of LANES values at a fixed place: with
# constant offsets into one array the compiler can prove that nothing overlaps, and moves four draws an instruction.
_Y, _Z, _K, _SUM, _P = 0, STATES * LANES, 2 * STATES * LANES, 3 * STATES * LANES, 4 * STATES * LANES
ASLEEP = _P + PARAMETERS * LANES
"""Place in the workspace of the ratio of dormant to active bacteria, one per lane."""
WORKSPACE = ASLEEP + LANES


@njit(cache=True)
def load(w: Floats, parameters: Floats, first: int, start: Floats) -> None:
    """Load a block of draws into the workspace.

    w: workspace (WORKSPACE,); parameters: rows (n, 13), of which LANES from `first` on are taken, the last one again
    where there are no more; start: TAN, NO2, NO3, alkalinity (4,).
    """
    for i in range(LANES):
        d = min(first + i, parameters.shape[0] - 1)
        for j in range(PARAMETERS):
            w[_P + j * LANES + i] = parameters[d, j]
        for s in range(4):
            w[_Y + s * LANES + i] = start[s]
        w[_Y + 4 * LANES + i] = parameters[d, A0]
        w[_Y + 5 * LANES + i] = parameters[d, B0]
        w[_Y + 6 * LANES + i] = 0.0
        w[_Y + 2 * LANES + i] *= parameters[d, FIRST_NITRATE]
        # An extreme lag is capped so that its exponential stays finite.
        w[ASLEEP + i] = math.exp(min(WAKING_PER_DAY * parameters[d, LAG], 300.0))
        # One division here saves one in every step.
        for j in (A_MAX, INHIBIT_B):
            w[_P + j * LANES + i] = 1.0 / parameters[d, j]


@njit(cache=True, fastmath=True, error_model="numpy")
def rates(w: Floats, c: Floats) -> None:
    """dy/dt of every lane, from the trial state in the workspace.

    w: workspace (WORKSPACE,); c: the day's conditions (6,). Source: form of ASM1; Anthonisen et al. 1976; Baranyi and
    Roberts 1994.
    """
    theta, ka_ammonia, feed, plants, growth, work = c[0], c[1], c[2], c[3], c[4], c[5]
    pace = theta * work
    for i in range(LANES):
        tan, no2, alkalinity = w[_Z + i], w[_Z + LANES + i], w[_Z + 3 * LANES + i]
        a, b = w[_Z + 4 * LANES + i], w[_Z + 5 * LANES + i]
        # Values below NOTHING are set to zero: denormal numbers would slow the loop tenfold.
        tan = tan if tan > NOTHING else 0.0
        no2 = no2 if no2 > NOTHING else 0.0
        alkalinity = alkalinity if alkalinity > 0.0 else 0.0
        bicarbonate = alkalinity * (1.0 / 50.04)
        bicarbonate = bicarbonate if bicarbonate > 0.004 else 0.004
        hydrogen = 4.467e-7 * w[_P + CO2 * LANES + i] / bicarbonate
        # Cubed, so that activity is 85 % at pH 7, 15 % at 6.5 and near zero below (common practice). The
        # alkaline side is written with its own hydrogen multiplied through, to save a division.
        low, square = hydrogen * 5.62e6, hydrogen * hydrogen
        free = tan * ka_ammonia / (ka_ammonia + hydrogen)
        comfort = (square * (1.0 + low * low * low) + 6.3e-10 * 6.3e-10) * (1.0 + w[ASLEEP + i])
        shape = pace * square
        take_a = (
            shape
            * alkalinity
            * tan
            / (comfort * (alkalinity + 4.0) * (tan + w[_P + K_A * LANES + i]) * (1.0 + free * (1.0 / 12.0)))
        )
        take_b = (
            shape * no2 / (comfort * (no2 + w[_P + K_B * LANES + i]) * (1.0 + free * w[_P + INHIBIT_B * LANES + i]))
        )
        room_a, room_b = 1.0 - a * w[_P + A_MAX * LANES + i], 1.0 - b * w[_P + A_MAX * LANES + i]
        decay = w[_P + DECAY * LANES + i] * theta
        w[_K + i] = feed - a * take_a
        w[_K + LANES + i] = a * take_a - b * take_b
        w[_K + 2 * LANES + i] = b * take_b
        w[_K + 3 * LANES + i] = BASE * feed - NITRIFIED * a * take_a
        w[_K + 4 * LANES + i] = a * (growth * w[_P + MU_A * LANES + i] * take_a * room_a - decay)
        w[_K + 5 * LANES + i] = b * (growth * w[_P + MU_B * LANES + i] * take_b * room_b - decay)
        w[_K + 6 * LANES + i] = 0.0
    if plants > 0.0:
        # Ammonia first, nitrate as ammonia runs short.
        for i in range(LANES):
            tan, no3 = w[_Z + i], w[_Z + 2 * LANES + i]
            tan, no3 = tan if tan > NOTHING else 0.0, no3 if no3 > NOTHING else 0.0
            from_tan = plants * tan / (tan + PLANT_HALF)
            from_no3 = plants * PLANT_HALF / (tan + PLANT_HALF) * no3 / (no3 + PLANT_HALF_NITRATE)
            w[_K + i] -= from_tan
            w[_K + 2 * LANES + i] -= from_no3
            w[_K + 3 * LANES + i] += BASE * (from_no3 - from_tan)
            w[_K + 6 * LANES + i] = from_tan + from_no3


@njit(cache=True, error_model="numpy")
def wake(w: Floats, share: float) -> None:
    """Reduce the dormant share on every lane in place. w: as `rates`; share: factor, 0 to 1."""
    for i in range(LANES):
        # A floor keeps the value out of the denormal range.
        w[ASLEEP + i] = max(w[ASLEEP + i] * share, 1e-30)


@njit(cache=True, fastmath=True, error_model="numpy")
def step(w: Floats, c: Floats, dt: float) -> None:
    """One Runge-Kutta 4 step of length dt days on every lane, in place. w, c: as `rates`."""
    awoken = math.exp(-0.5 * WAKING_PER_DAY * dt)
    for i in range(STATES * LANES):
        w[_Z + i] = w[_Y + i]
    rates(w, c)
    wake(w, awoken)
    for i in range(STATES * LANES):
        w[_SUM + i] = w[_K + i]
        w[_Z + i] = w[_Y + i] + 0.5 * dt * w[_K + i]
    rates(w, c)
    for i in range(STATES * LANES):
        w[_SUM + i] += 2.0 * w[_K + i]
        w[_Z + i] = w[_Y + i] + 0.5 * dt * w[_K + i]
    rates(w, c)
    for i in range(STATES * LANES):
        w[_SUM + i] += 2.0 * w[_K + i]
        w[_Z + i] = w[_Y + i] + dt * w[_K + i]
    wake(w, awoken)
    rates(w, c)
    for i in range(STATES * LANES):
        w[_Y + i] += dt * (1.0 / 6.0) * (w[_SUM + i] + w[_K + i])


@njit(cache=True, error_model="numpy")
def apply_event(w: Floats, kind: int, value: float, tap: Floats, nitrogen_total: Floats) -> None:
    """Apply one logged event on every lane in place.

    w: workspace; kind, value: as the constants above say; tap: water put in at a change (4,); nitrogen_total: nitrogen
    that ought to be in the tank (LANES,), mg N/L, kept up with what comes and goes.
    """
    y, most = w[_Y:_Z].reshape(STATES, LANES), w[_P + A_MAX * LANES : _P + (A_MAX + 1) * LANES]
    for i in range(LANES):
        if kind == ADD_TAN:
            # The strength of a label or a kitchen scale is uncertain.
            worth = value * w[_P + DOSE_WORTH * LANES + i]
            y[0, i] += worth
            nitrogen_total[i] += worth
        elif kind == CHANGE_WATER:
            nitrogen_total[i] += value * (tap[0] + tap[1] + tap[2] - y[0, i] - y[1, i] - y[2, i])
            for s in range(4):
                y[s, i] = y[s, i] * (1.0 - value) + tap[s] * value
        elif kind == ADD_ALKALINITY:
            y[3, i] += value
        elif kind == KILL_FILM:
            y[4, i] *= 1.0 - value
            y[5, i] *= 1.0 - value
        else:
            # Mature media hold both groups about evenly, and active. `most` is stored as its reciprocal.
            asleep = w[ASLEEP + i]
            w[ASLEEP + i] = asleep * y[4, i] / (y[4, i] + value * (1.0 + asleep)) if value > 0.0 else asleep
            y[4, i] = min(y[4, i] + value, 1.0 / most[i])
            y[5, i] = min(y[5, i] + value, 1.0 / most[i])
