"""Where a function crosses nought, by SciPy, which is read when first asked: most sums need no root."""

from collections.abc import Callable


def root_between(
    f: Callable[[float], float], low: float, high: float, xtol: float = 2e-12, rtol: float = 8.9e-16
) -> float:
    """The root of a function of one figure between two that have it on either side.

    f: of the figure, dimensionless or in any unit; low, high: figures, in its unit; xtol: how near, in its unit; rtol: how near, as
    a share, dimensionless. Raises ValueError where both sides have one sign. Source: Brent 1973, as SciPy has it.
    """
    from scipy.optimize import brentq

    return float(brentq(f, low, high, xtol=xtol, rtol=rtol))
