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
    count: Callable[[int], int] | None = None
    """How many of one filter would lift it, where a number does."""
    final: bool = False
    """Whether no number of such filters would do: then nothing else is said."""


def one_remedy(limits: list[Limit], i: int, most_of_one: int) -> str:
    """What would let a filter in, as one piece of advice. limits: all it breaks; i: its row; most_of_one: that is said.

    Where its kind is wrong for the tank nothing else is said; where it is too small in several ways, the largest number
    of them.
    """
    final = [limit for limit in limits if limit.final]
    if final:
        return final[0].remedy(i)
    found = [limit.remedy(i) for limit in limits if limit.count is None]
    counts = [limit.count(i) for limit in limits if limit.count is not None]
    if counts:
        found.append(f"fit {max(counts)} of them" if max(counts) <= most_of_one else "choose a larger one")
    return " and ".join(dict.fromkeys(found))
