"""Chances of draws and their weights: normalized, counted, resampled evenly."""

import math

import numpy as np
from numpy.typing import NDArray

from reedmace.core.cycle.model.chance_kernel import log_likelihood
from reedmace.core.cycle.model.nitrogen_kernel import PARAMETERS
from reedmace.core.cycle.record.suspect_readings import Figures

Floats = NDArray[np.float64]


HOPELESS = -1e6


EVIDENCE = 40.0
"""Most figures a whole log counts for: what the model leaves out is common to them all.

Tuned on tanks of another structure; a coarsened posterior (Miller and Dunson 2019).
"""


KIT_SPREAD = 0.12
"""Systematic deviation of one keeper's kit of ammonia, nitrite or nitrate, as a log spread (memory)."""


KITS = 3


FREEDOM = 12.0


HALF_LOG = 0.5 * (PARAMETERS + KITS) * float(np.log(2 * np.pi))


def log_chances(states: Floats, figures: Figures) -> Floats:
    """Log likelihood of draws (n,).

    states: at the readings (n, r, 4); figures: read. A diverged draw explains nothing.
    """
    found: Floats = np.nan_to_num(log_likelihood(states, *figures.rows()), nan=HOPELESS, neginf=HOPELESS)
    return found


def reading_worth(figures: Figures) -> float:
    """Tempering exponent of the likelihood.

    The figures of one log share what the model leaves out, so many count less than proportionally.
    """
    return 1.0 / (1.0 + len(figures.low) / EVIDENCE)


def percentiles(values: Floats, weights: Floats) -> tuple[float, float, float]:
    """Weighted 10th, 50th and 90th percentile; infinite where the level falls among infinite values.

    values: (n,), infinite for never; weights: (n,). Pass days come in whole days from today, so many draws share one:
    each is spread evenly over the half day before and after it.
    """
    finite = np.isfinite(values)
    days, place = np.unique(values[finite], return_inverse=True)
    if not len(days):
        return (math.inf, math.inf, math.inf)
    mass = np.bincount(place, weights=weights[finite]) / float(weights.sum())
    upto = np.cumsum(mass)
    step = min(float(np.min(np.diff(days))), 1.0) if len(days) > 1 else 0.0
    edges = np.concatenate([[days[0] - step / 2], days + step / 2])
    low, middle, high = (
        float(np.interp(level, np.concatenate([[0.0], upto]), edges)) if level <= upto[-1] else math.inf
        for level in (0.1, 0.5, 0.9)
    )
    return low, middle, high


def resample(weights: Floats, n: int | None = None) -> NDArray[np.int64]:
    """Indices that represent the weighted ensemble (systematic resampling).

    weights: summing to 1; n: how many, as many as there are weights when left out.
    """
    return evenly(weights, n or len(weights))


def evenly(weights: Floats, n: int) -> NDArray[np.int64]:
    """Indices resampled evenly by weight (n,). weights: that sum to one; n: how many."""
    again: NDArray[np.int64] = np.searchsorted(np.cumsum(weights), (np.arange(n) + 0.5) / n).clip(0, len(weights) - 1)
    return again


def normalized(log_weight: Floats) -> Floats:
    """Weights that sum to one. log_weight: natural logarithms of them."""
    weights = np.exp(log_weight - log_weight.max())
    return weights / float(weights.sum())  # type: ignore[no-any-return]


def effective_draws(log_weight: Floats) -> float:
    """How many equal draws weighted ones are worth. log_weight: natural logarithms of the weights."""
    return float(1.0 / np.sum(normalized(log_weight) ** 2))
