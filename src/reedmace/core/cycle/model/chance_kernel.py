"""Chances of what a kit read, compiled: of one figure, of a test, and of all tests for every draw."""

import math

import numpy as np
from numba import njit, prange

from reedmace.core.cycle.model.nitrogen_kernel import Floats, Ints


@njit(cache=True, error_model="numpy")
def above(z: float) -> float:
    """Probability that a standard normal variable exceeds z, to 7.5e-8. Source: Abramowitz and Stegun 1964, 26.2.17.

    z: standard deviations, of either sign.

    >>> round(above(1.96), 5)
    0.025
    """
    x = abs(z)
    if x > 7.0:
        return 0.0 if z > 0.0 else 1.0
    t = 1.0 / (1.0 + 0.2316419 * x)
    series = t * (0.319381530 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
    tail = 0.3989422804014327 * math.exp(-0.5 * x * x) * series
    return tail if z >= 0.0 else 1.0 - tail


@njit(cache=True, error_model="numpy")
def chance_of(x: float, low: float, high: float, zero_width: float) -> float:
    """Probability that water at x is read as the interval low to high, all in the unit read.

    x: the water; low, high: of the interval; zero_width: half the first step.

    >>> round(chance_of(0.4, 0.0, 1.0, 0.1), 4)
    1.0
    """
    sharp = 1.0 / (0.3 * zero_width + 0.11 * x)
    return above((low - x) * sharp) - above((high - x) * sharp)


@njit(cache=True, error_model="numpy")
def chances(
    values: Floats, low: Floats, high: Floats, zero_width: Floats, column: Ints, reading: Ints, scale: Floats
) -> Floats:
    """Mean probability of every figure over the draws (f,), without the chance of a gross error.

    values: states at the readings (n, r, 4); the rest as in `log_likelihood`.
    """
    n, f = values.shape[0], low.shape[0]
    out = np.zeros(f)
    for j in range(f):
        for d in range(n):
            out[j] += chance_of(values[d, reading[j], column[j]] / scale[j], low[j], high[j], zero_width[j]) / n
    return out


@njit(cache=True, parallel=True, nogil=True, error_model="numpy")
def log_likelihood(
    values: Floats,
    low: Floats,
    high: Floats,
    zero_width: Floats,
    column: Ints,
    reading: Ints,
    scale: Floats,
    wrong_chance: Floats,
) -> Floats:
    """Log likelihood of every reading's interval for each draw (n,).

    values: states at the readings (n, r, 4); one entry per figure read (f,): low, high: the interval it stands for;
    zero_width: half the first step; column, reading: which state it reads; scale: state units per unit read;
    wrong_chance: chance that the figure is plain wrong.
    """
    n, f = values.shape[0], low.shape[0]
    out = np.zeros(n)
    for d in prange(n):
        total, product = 0.0, 1.0
        for j in range(f):
            x = values[d, reading[j], column[j]] / scale[j]
            chance = chance_of(x, low[j], high[j], zero_width[j])
            product *= (1.0 - wrong_chance[j]) * chance + wrong_chance[j] * 0.05
            # One logarithm for sixteen figures: none is under a thousandth, so their product does not underflow.
            if j % 16 == 15:
                total, product = total + math.log(product), 1.0
        out[d] = total + math.log(product)
    return out
