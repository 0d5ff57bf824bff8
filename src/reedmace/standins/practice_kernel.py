"""Water and film of a practice tank in one of four structures, none of them the forecast's. Compiled.

logistic: one population on ammonia and one on nitrite, each held back by room. guilds: two ammonia oxidisers of unlike
affinity, held back by their own substrate. biomass: film grows from nitrogen it takes out of the water and returns when
it dies. dormant: a fast nitrite oxidiser that needs much and a slow one that lives on little, asleep while starved.

Nitrogen moves between the states and is made or lost nowhere; alkalinity follows it (7.14 mg CaCO3 for each mg N
nitrified, 3.57 gained for each released and lost for each taken up as ammonium: equivalent masses). Rates are a memory.
"""

import math
from typing import Any

import numpy as np
from numba import njit

TAN, NO2, NO3, ORG, PLANT, CELLS, ALK, O2, A1, A2, B1, B2, ACTIVE, NITRIFIED, RELEASED, TAKEN_UP = range(16)
"""States: nitrogen in mg N/L (ORG: food and waste not yet broken down), ALK in mg CaCO3/L, O2 in mg/L, film as capacity
in mg N/(L day), ACTIVE as a share, and what was nitrified, released and taken up as ammonium so far in mg N/L."""
STATES = 16
FEED, WASTE, BREATH, GROWING, WARMTH_C, RUNNING, KLA, AIRLESS = range(8)
"""What acts on it: food and waste in mg N/(L day), the animals' oxygen in mg/(L day), ammonia plants take at most in
mg N/(L day), °C, share of the filter that runs, exchange of oxygen with the air per day, share of the film that lies in
water without oxygen."""
FORCES = 8
STRUCTURE, MU_A, MU_A2, MU_B, K_A, K_A2, K_B, HOLD_A, HOLD_B, DECAY, MOST, LAG, CO2, SALT = range(14)
"""Own parameters: structure (0 to 3), growth per day, half saturations and inhibition in mg N/L, decay per day, most
capacity in mg N/(L day), days of lag, CO2 in mmol/L, whether the water is salt."""
PARAMETERS = 14
GUILDS, BIOMASS, DORMANT = 1, 2, 3
"""Numbers of the structures; 0 is the logistic one."""
STEPS_PER_HOUR = 4
ASSIMILATED_N = 0.12
"""Nitrogen bound for each mg N/(L day) of capacity grown, mg N/L (memory)."""


@njit(cache=True)
def ph_of(alkalinity: float, co2: float) -> float:
    """PH of the carbonate system. alkalinity: mg CaCO3/L; co2: mmol/L."""
    return 6.35 + math.log10(max(alkalinity, 0.3) / 50.04 / co2)


@njit(cache=True)
def free_ammonia(tan: float, ph: float, warmth_c: float) -> float:
    """Free ammonia in mg N/L (Emerson et al. 1975). tan: mg N/L; warmth_c: °C."""
    pka = 0.09018 + 2729.92 / (warmth_c + 273.15)
    return float(max(tan, 0.0) / (1.0 + 10.0 ** (pka - ph)))


@njit(cache=True)
def _waking(structure: int, active: float, tan: float, lag: float) -> float:
    """Change per day of the share of the film that is awake. active: that share; tan: mg N/L; lag: days."""
    if structure == DORMANT:
        fed = tan / (tan + 0.1)
        return (fed - active) * (1.2 if fed > active else 0.05)
    # A sleep before anything grows, its length the tank's own.
    return (0.02 + active) * max(1.0 - active, 0.0) * 4.0 / lag


@njit(cache=True)
def _slopes(s: Any, f: Any, p: Any, out: Any) -> None:
    """Change per day of each state. s: states; f: forces; p: parameters; out: (STATES,), filled."""
    structure = int(p[STRUCTURE])
    tan, no2, no3, org = max(s[TAN], 0.0), max(s[NO2], 0.0), max(s[NO3], 0.0), max(s[ORG], 0.0)
    ph, oxygen, t = ph_of(s[ALK], p[CO2]), max(s[O2], 0.0), f[WARMTH_C]
    ph_factor = 1.0 / (1.0 + (10.0 ** (6.25 - ph)) ** (3.0 if structure == BIOMASS else 2.0))
    # Nitrification ends with the last of the alkalinity, whatever the pH says.
    ph_factor *= max(s[ALK], 0.0) / (max(s[ALK], 0.0) + 2.0)
    temperature_factor = 1.08 ** (min(t, 33.0) - 25.0) * (1.0 if t <= 36.0 else max(1.0 - (t - 36.0) / 6.0, 0.0))
    flow = 0.08 + 0.92 * f[RUNNING]
    activity = ph_factor * temperature_factor * flow
    on_a = oxygen / (oxygen + 0.5) * activity
    on_b = oxygen / (oxygen + 1.0) * activity / (1.0 + free_ammonia(tan, ph, t) / 0.4)
    active = s[ACTIVE]
    if structure == GUILDS:
        uptake_a = tan / (tan + p[K_A] + tan * tan / p[HOLD_A]) * on_a * active
        uptake_a2 = tan / (tan + p[K_A2] + tan * tan / 6.0) * on_a * active
    else:
        uptake_a, uptake_a2 = tan / (tan + p[K_A]) * on_a * active, 0.0
    uptake_b = no2 / (no2 + p[K_B] + no2 * no2 / p[HOLD_B]) * on_b
    uptake_b2 = no2 / (no2 + 0.05 + no2 * no2 / 3.0) * on_b if structure == DORMANT else 0.0
    if structure != DORMANT:
        uptake_b *= active
    first = max(s[A1], 0.0) * uptake_a + max(s[A2], 0.0) * uptake_a2
    second = max(s[B1], 0.0) * uptake_b + max(s[B2], 0.0) * uptake_b2
    mineralized = 0.6 * temperature_factor * org
    plant_ammonium = f[GROWING] * tan / (tan + 0.1)
    plant_nitrate = 0.2 * f[GROWING] * no3 / (no3 + 2.0)
    # Share of the room that is taken, by both halves of the film.
    room_a = max(1.0 - (s[A1] + s[A2]) / p[MOST], 0.0)
    room_b = max(1.0 - (s[B1] + s[B2]) / p[MOST], 0.0)
    # Without water moving through it a film starves of oxygen and dies faster.
    decay = p[DECAY] * (0.4 + 0.6 * temperature_factor) * (1.0 + 12.0 * f[AIRLESS])
    more_a, less_a = p[MU_A] * uptake_a * room_a * s[A1], decay * s[A1]
    more_a2, less_a2 = p[MU_A2] * uptake_a2 * room_a * s[A2], decay * s[A2]
    more_b, less_b = p[MU_B] * uptake_b * room_b * s[B1], decay * s[B1]
    more_b2, less_b2 = 0.6 * p[MU_B] * uptake_b2 * room_b * s[B2], 0.6 * decay * s[B2]
    assimilated = 0.0
    lysed = 0.0
    if structure == BIOMASS:
        assimilated = ASSIMILATED_N * (more_a + more_b)
        # What dies gives back what it held, no more.
        held = max(s[CELLS], 0.0)
        lysed = min(ASSIMILATED_N * (less_a + less_b), 4.0 * held)
        assimilated = min(assimilated, 20.0 * tan)
    out[TAN] = f[WASTE] + mineralized - first - plant_ammonium - assimilated
    out[NO2] = first - second
    out[NO3] = second - plant_nitrate
    out[ORG] = f[FEED] - mineralized + lysed
    out[PLANT] = plant_ammonium + plant_nitrate
    out[CELLS] = assimilated - lysed
    released, taken = f[WASTE] + mineralized, plant_ammonium + assimilated
    out[ALK] = 3.57 * (released - taken) - 7.14 * first
    full = (14.6 - 0.39 * t + 0.0047 * t * t) * (0.8 if p[SALT] > 0 else 1.0)
    out[O2] = f[KLA] * (full - oxygen) - f[BREATH] - 3.43 * first - 1.14 * second - 2.0 * mineralized
    out[A1], out[A2] = more_a - less_a, more_a2 - less_a2
    out[B1], out[B2] = more_b - less_b, more_b2 - less_b2
    out[ACTIVE] = _waking(structure, active, tan, p[LAG])
    out[NITRIFIED], out[RELEASED], out[TAKEN_UP] = first, released, taken


@njit(cache=True)
def advance(state: Any, forces: Any, own: Any, hours: float, steps_per_hour: int) -> None:
    """Run a tank on, in place, under forces that stand still (Runge and Kutta's fourth order).

    state: (STATES,); forces: (FORCES,); own: (PARAMETERS,); hours: how long; steps_per_hour: of the solution.
    """
    steps = max(math.ceil(hours * steps_per_hour - 1e-9), 1)
    dt = hours / 24.0 / steps
    a, b, c, d = np.zeros(STATES), np.zeros(STATES), np.zeros(STATES), np.zeros(STATES)
    for _ in range(steps):
        _slopes(state, forces, own, a)
        _slopes(state + 0.5 * dt * a, forces, own, b)
        _slopes(state + 0.5 * dt * b, forces, own, c)
        _slopes(state + dt * c, forces, own, d)
        state += dt / 6.0 * (a + 2.0 * b + 2.0 * c + d)
