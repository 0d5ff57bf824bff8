"""Interval between cleanings: the flow at which a filter is cleaned, and the days until it is reached."""

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

SERVICE_SHARE = 0.70
"""Share of the clean flow at which keepers clean (common practice)."""
LONGEST_DAYS = 3650.0


def days_until(spare: Floats, dirt_per_day: Floats) -> Floats:
    """Days until the flow falls to the service limit (n,), at most ten years.

    spare: linear resistance that brings it there, s/m²; dirt_per_day: what a day's dirt adds, s/m² a day; both (n,).
    """
    with np.errstate(divide="ignore", invalid="ignore"):
        days = np.where(dirt_per_day > 0, spare / np.maximum(dirt_per_day, 1e-12), LONGEST_DAYS)
    return np.minimum(days, LONGEST_DAYS)


def service_interval(usual: Floats, until_limit: Floats) -> Floats:
    """Days between cleanings (n,): the kind's usual ones, or sooner where the limit is reached before.

    usual, until_limit: days (n,). Source: common practice.
    """
    return np.minimum(usual, until_limit)
