"""A hard limit over a table of filters: which rows break it, why, and what would lift it."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True)
class Limit:
    """One limit over n filters.

    Which filters break it, the reason and remedy of one, and the single input that would lift it.
    """

    broken: Bools
    reason: Callable[[int], str]
    remedy: Callable[[int], str]
    key: str | None = None
    """Input of the site that lifts it alone, None where no single one does."""
    need: Floats | None = None
    """Value of that input each filter needs (n,)."""
