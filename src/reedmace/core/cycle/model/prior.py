"""Prior of the cycle model: medians and spreads of its parameters, by method, helpers and plants."""

import math

import numpy as np
from numpy.typing import NDArray

from reedmace.core.cycle.model.nitrogen_kernel import (
    A0,
    B0,
    CO2,
    LAG,
    MU_A,
    MU_B,
)
from reedmace.core.cycle.record.log import TRANSFERRED, CycleLog
from reedmace.core.film import ROCK_MG_N_KG_DAY
from reedmace.core.quantity import CACO3_PER_DKH, formatting

Floats = NDArray[np.float64]

# Log-normal prior, median and log spread, in the kernel's column order (tuned; see docs/prior.md).
PRIOR_MEDIAN = np.array([3.0e-3, 1.5e-3, 0.59, 0.485, 0.20, 0.15, 0.04, 0.10, 14.0, 0.35, 4.0, 1.0, 1.0])
PRIOR_SPREAD = np.array([1.1, 1.1, 0.18, 0.18, 0.5, 0.5, 0.3, 0.35, 0.35, 0.7, 0.5, 0.5, 0.1])
SLOW_TAIL = 2.3
"""Spread of growth below its median over that above it.

Most keepers say four to six weeks for a bare tank, some say six weeks to three months, and nobody says two (common
practice).
"""
BOTTLE_SPREAD, SEED_SPREAD, DONOR_SPREAD = 1.5, 0.8, 0.5
"""Additional log spread of the bacteria from a bottle or seeded media, and their whole spread where the donor is known
(memory).
"""
DONOR_NITRITE_RATIO = 4.0
"""Nitrite to ammonia oxidisers in media from a running tank at traces of both (tuned to "nitrite never seen")."""
SEEDED_START = 900.0
"""Initial bacteria of a mature filter moved in, relative to a bare tank (tuned to "inside a week")."""
ROCK_START = 40.0
"""The same for a piece of mature rock in salt water (tuned to "about two weeks")."""
BOTTLE_START = 5.0
"""The same for a bottled culture inside its window (tuned to "saves one to two weeks at best").

Outside it: `BOTTLE_OUTSIDE`.
"""
BOTTLE_OUTSIDE = 1.2
PLANT_START = {"none": 1.0, "some": 2.0, "many": 3.0}
"""The same for plants, on leaves and roots (memory)."""
MATURE_FILM_MG_N_L_DAY = SEEDED_START * 3.0e-3
"""Capacity of a whole mature filter, mg N/L/day at 25 °C; a share of seeded media is a share of this."""


def bottle_window(log: CycleLog) -> list[str]:
    """Why a bottled culture is outside its window; empty when it is inside (common practice). log: the cycle's."""
    kh, ph, phosphate = log.latest("kh_dkh"), log.latest("ph"), log.latest("phosphate_ppm")
    label = log.bottle
    checks = (
        (
            label.low_c <= log.temperature_now_c() <= label.high_c,
            f"{formatting.celsius.bare(label.low_c)} to {formatting.celsius(label.high_c)}",
        ),
        (
            label.ph_low <= (ph[1] if ph else log.start_ph) <= label.ph_high,
            f"pH {label.ph_low:.1f} to {label.ph_high:.1f}",
        ),
        ((kh[1] if kh else log.start_kh_dkh) >= 2, "some KH"),
        (phosphate is None or phosphate[1] > 0, "some phosphate"),
        (label.in_date, "a bottle in date"),
        (log.doses_ammonia() or log.method in ("fish-food", "animals-in"), "an ammonia source"),
    )
    return [wanted for holds, wanted in checks if not holds]


def _rock(log: CycleLog) -> float:
    """Initial bacteria of mature rock relative to a bare tank: by its mass where it was weighed."""
    if log.rock_kg is None:
        return ROCK_START - 1
    return log.rock_kg * ROCK_MG_N_KG_DAY / log.net_l / float(PRIOR_MEDIAN[A0])


def start_factor(log: CycleLog) -> float:
    """Initial bacteria of the method and its helpers, relative to a bare tank. log: the cycle's."""
    factor = 1.0
    # Transferred bacteria have a fixed total capacity; per litre it depends on this tank's volume.
    seed = SEEDED_START * log.seed_share
    if log.donor is not None:
        seed = log.donor.film_mg_n_day(log.seed_share) / log.net_l / float(PRIOR_MEDIAN[A0])
    if log.method in TRANSFERRED:
        factor += seed
    if log.method == "mature-rock":
        factor += _rock(log)
    if "seed-media" in log.helpers and log.method not in TRANSFERRED:
        factor += seed
    relied_on = "plants" in log.helpers or log.method == "planted"
    factor += PLANT_START["many" if relied_on else log.plants] - 1
    if "bottled-culture" in log.helpers:
        factor += (BOTTLE_START if not bottle_window(log) else BOTTLE_OUTSIDE) - 1
    return factor


def prior_spread(log: CycleLog) -> Floats:
    """Log spread of each parameter for this log, in the kernel's column order (13,). log: the cycle's.

    What a bottle or a handful of media is worth nobody can say beforehand: from nothing to a great deal.
    """
    spread = PRIOR_SPREAD.copy()
    more = 0.0
    if "bottled-culture" in log.helpers and not bottle_window(log):
        more = max(more, BOTTLE_SPREAD)
    if "seed-media" in log.helpers or log.method in (*TRANSFERRED, "mature-rock"):
        more = max(more, SEED_SPREAD)
    spread[A0] = float(np.hypot(spread[A0], more))
    spread[B0] = float(np.hypot(spread[B0], more))
    if log.donor is not None and more:
        spread[A0] = spread[B0] = DONOR_SPREAD
    return spread


def below_median(spread: Floats) -> Floats:
    """Log spread of each parameter below its median, in the kernel's column order. spread: above it (13 or more,)."""
    below = spread.copy()
    below[MU_A : MU_B + 1] *= SLOW_TAIL
    return below


def spread_out(normals: Floats, spread: Floats) -> Floats:
    """Log deviations from the medians with half of their mass on each side.

    normals: standard normal draws (..., 13 or more); spread: log spread above the median (13 or more,).
    """
    deviations: Floats = np.where(normals < 0, below_median(spread), spread) * normals
    return deviations


def prior_median(log: CycleLog) -> Floats:
    """Median of each parameter for this log, in the kernel's column order (13,). log: the cycle's."""
    median = PRIOR_MEDIAN.copy()
    median[CO2] = _co2_mmol(log)
    factor = start_factor(log)
    median[LAG] /= 1.0 + math.log(factor)
    median[A0] *= factor
    median[B0] *= factor
    if log.donor is not None and factor > 1.0:
        film = log.donor.film_mg_n_day(log.seed_share) / log.net_l
        median[B0] += film * (DONOR_NITRITE_RATIO - float(PRIOR_MEDIAN[B0] / PRIOR_MEDIAN[A0]))
    return median


AERATED_DAY, AERATED_CO2_MMOL = 1.0, 0.3
"""Day from which a reading shows the water as a running filter keeps it, and the most CO2 left in it by then, mmol/L.

Tap and fresh wells hold more, which a filter drives out within a day (common practice; about 13 mg/L, memory).
"""


LEAST_PAIRED_KH_DKH, MOST_CO2_MMOL = 0.3, 3.0
"""KH under which a pair of readings says nothing of CO2, dKH, and the most CO2 a log is understood to show, mmol/L."""


def _co2_mmol(log: CycleLog) -> float:
    """CO2 that explains the readings of pH and KH together, mmol/L (pH = 6.35 + log10(HCO3/CO2)).

    Readings of the first day and a typed start may be of water that still loses its CO2.
    """
    pairs = [
        (r.day, r.ph, r.kh_dkh)
        for r in log.readings
        if r.ph is not None and r.kh_dkh is not None and r.kh_dkh >= LEAST_PAIRED_KH_DKH
    ]
    aerated = [pair for pair in pairs if pair[0] >= AERATED_DAY]
    pairs = aerated or pairs or [(0.0, log.start_ph, max(log.start_kh_dkh, LEAST_PAIRED_KH_DKH))]
    found = float(np.median([kh * CACO3_PER_DKH / 50.04 / 10 ** (ph - 6.35) for _, ph, kh in pairs]))
    most = MOST_CO2_MMOL if aerated or log.co2_given else AERATED_CO2_MMOL
    return float(np.clip(found, 0.01, most))
