"""Root of a function by SciPy, imported on first use since few computations need it."""

from collections.abc import Callable


def root_between(
    f: Callable[[float], float], low: float, high: float, xtol: float = 2e-12, rtol: float = 8.9e-16
) -> float:
    """Root of a function of one variable between two points of opposite sign.

    f: of the figure, dimensionless or in any unit; low, high: figures, in its unit; xtol: how near, in its unit; rtol:
    how near, as a share, dimensionless. Raises ValueError where both sides have one sign. Source: Brent 1973, as SciPy
    has it.
    """
    from scipy.optimize import brentq

    return float(brentq(f, low, high, xtol=xtol, rtol=rtol))
