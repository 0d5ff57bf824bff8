"""Compiled inner loops of the hydraulics. All SI: m, m³/s, m²/s, head in m of water.

A plumbing is  h(Q) = static + c1 Q + c2 Q² + Σ hose friction(Q);  a pump is  H(Q), falling. Where they
meet is one root of a falling function, found by Newton's steps inside a bracket.
"""

import math

import numpy as np
from numba import config, njit, prange, set_num_threads
from numpy.typing import NDArray

from reedmace.core.quantity.constants import G

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

GATHERING = 3.0
"""Bores above the air inlet over which bubbles gather and give no lift yet (memory)."""
MIXTURE_K = 7.0
"""Loss coefficient of entrance, exit and acceleration on the mixture's velocity head.

Fitted to one published point: a 76 mm tube, 50 cm deep and not lifting, moves 66 L/min of water with 70 of air (Wurts,
McNeill and Overhults 1994, memory). Without it and `GATHERING` the relations for long tubes give three times that.
"""

MOST_THREADS = int(config.NUMBA_NUM_THREADS)  # type: ignore[attr-defined]
"""Read from the settings: querying the thread pool would start it, and a process with threads must not be forked."""
TWO_OVER_LN_10 = 2.0 / math.log(10.0)
"""Colebrook-White uses twice the common logarithm; the natural one is faster."""
WORTH_SHARING = 512
"""Rows below which a second thread costs more than it saves, on a busy machine far more (measured)."""


def set_threads(rows: int) -> None:
    """Set the number of threads for a kernel over `rows`; call before the kernel. rows: how many."""
    set_num_threads(MOST_THREADS if rows >= WORTH_SHARING else 1)


@njit(cache=True)
def colebrook(reynolds: float, relative_roughness: float) -> float:
    """Darcy friction factor of turbulent flow (Colebrook-White 1939), Re from about 2300 up.

    reynolds: Reynolds number; relative_roughness: roughness / bore, both dimensionless.

    >>> round(colebrook(1e5, 0.001), 5)
    0.02217
    """
    x = -1.8 * math.log10((relative_roughness / 3.7) ** 1.11 + 6.9 / reynolds)  # Haaland, as a start
    a, b = relative_roughness / 3.7, 2.51 / reynolds
    for _ in range(2):
        inside = a + b * x
        x -= (x + TWO_OVER_LN_10 * math.log(inside)) / (1.0 + TWO_OVER_LN_10 * b / inside)  # Newton's method
    return 1.0 / (x * x)


@njit(cache=True)
def friction_factor(reynolds: float, relative_roughness: float) -> float:
    """Darcy friction factor at any Reynolds number: 64/Re, a cubic join from 2000 to 4000, Colebrook-White above.

    reynolds: Reynolds number; relative_roughness: roughness / bore, both dimensionless.

    >>> round(friction_factor(1e5, 0.001), 5)
    0.02217
    """
    if reynolds < 2000.0:
        return 64.0 / max(reynolds, 1e-9)
    if reynolds > 4000.0:
        return colebrook(reynolds, relative_roughness)
    # Hermite cubic matching value and slope at both ends, so the solver meets no kink.
    f0, d0 = 0.032, -64.0 / 2000.0**2
    f1 = colebrook(4000.0, relative_roughness)
    d1 = (colebrook(4040.0, relative_roughness) - f1) / 40.0
    t = (reynolds - 2000.0) / 2000.0
    return (
        (2 * t**3 - 3 * t**2 + 1) * f0
        + (t**3 - 2 * t**2 + t) * 2000.0 * d0
        + (-2 * t**3 + 3 * t**2) * f1
        + (t**3 - t**2) * 2000.0 * d1
    )


@njit(cache=True)
def hose_head(flow: float, bore: float, length: float, roughness: float, viscosity: float) -> float:
    """Head lost along one hose, m.

    flow: m³/s; bore, length, roughness: m; viscosity: kinematic, m²/s.

    >>> round(hose_head(3e-4, 0.016, 1.5, 1e-5, 1e-6), 4)
    0.2791
    """
    if flow <= 0.0 or length <= 0.0:
        return 0.0
    velocity = flow / (0.25 * math.pi * bore * bore)
    return friction_factor(velocity * bore / viscosity, roughness / bore) * length / bore * velocity**2 / (2 * G)


@njit(cache=True)
def plumbing_head(flow: float, static: float, c1: float, c2: float, hoses: Floats, viscosity: float) -> float:
    """Head of the plumbing at a flow, m.

    flow: m³/s; static: m; c1: s/m²; c2: s²/m⁵; hoses: (n, 3) of bore, length, roughness in m; viscosity: m²/s.
    """
    head = static + c1 * flow + c2 * flow * flow
    for i in range(hoses.shape[0]):
        head += hose_head(flow, hoses[i, 0], hoses[i, 1], hoses[i, 2], viscosity)
    return head


@njit(cache=True)
def pump_head(flow: float, flows: Floats, heads: Floats, speed: float) -> float:
    """Head a pump gives at a flow, m; negative past its free flow.

    flow: m³/s; flows, heads: curve points in m³/s and m, flows rising. Two points mean the parabola
    H = Hmax (1 − (Q/Qmax)²); more are joined by straight lines. speed: share of full speed (affinity laws).
    """
    q = flow / speed
    n = flows.shape[0]
    if n == 2:
        return speed * speed * heads[0] * (1.0 - (q / flows[1]) ** 2)
    i = 0
    while i < n - 2 and q > flows[i + 1]:
        i += 1
    slope = (heads[i + 1] - heads[i]) / (flows[i + 1] - flows[i])
    return speed * speed * (heads[i] + slope * (q - flows[i]))


USUAL_ROOT = 7.0
"""Initial 1/√f at f = 0.02, near that of any hose.

Newton's third step from it is within 1e-11 (Re 4e3 to 1e6, roughness to 1 %).
"""


@njit(cache=True)
def hose_head_and_slope(
    flow: float, bore: float, length: float, roughness: float, viscosity: float, root: float
) -> tuple[float, float, float]:
    """Head along one hose, m, its derivative with respect to flow, s/m², and 1/√f as the next initial value.

    flow: m³/s; bore, length, roughness: m; viscosity: m²/s; root: 1/√f at a flow nearby, dimensionless, 0 where none is
    known. Near a known flow a step or two of Newton's on Colebrook-White give what `colebrook` gives from nothing.
    """
    if flow <= 0.0 or length <= 0.0:
        return 0.0, 0.0, root
    area = 0.25 * math.pi * bore * bore
    velocity = flow / area
    reynolds = velocity * bore / viscosity
    along = length / bore * velocity / (2 * G)
    if reynolds < 2000.0:
        factor, bend = 64.0 / max(reynolds, 1e-9), -1.0
    elif reynolds < 4000.0:
        factor = friction_factor(reynolds, roughness / bore)
        step = 1e-4 * reynolds
        bend = (friction_factor(reynolds + step, roughness / bore) / factor - 1.0) * 1e4
    else:
        a, b = roughness / bore / 3.7, 2.51 / reynolds
        root = root if root > 0.0 else USUAL_ROOT
        inside, off = a + b * root, 1.0
        while abs(off) > 1e-5:
            # The error left by a step is about its square.
            off = (root + TWO_OVER_LN_10 * math.log(inside)) / (1.0 + TWO_OVER_LN_10 * b / inside)
            root -= off
            inside = a + b * root
        factor = 1.0 / (root * root)
        share = TWO_OVER_LN_10 * b / inside
        bend = -2.0 * share / (1.0 + share)
    head = factor * along * velocity
    # Friction goes with the flow to the power of 2 + d ln f / d ln Re.
    return head, head / flow * (2.0 + bend), root


@njit(cache=True)
def plumbing_head_and_slope(
    flow: float, static: float, c1: float, c2: float, hoses: Floats, viscosity: float, roots: Floats
) -> tuple[float, float]:
    """Head of the plumbing, m, and its derivative with respect to flow, s/m².

    Arguments as for `plumbing_head`; roots: (n,) 1/√f of each hose at a flow nearby, dimensionless, written anew.
    """
    head, rise = static + c1 * flow + c2 * flow * flow, c1 + 2.0 * c2 * flow
    for i in range(hoses.shape[0]):
        one, slope, roots[i] = hose_head_and_slope(flow, hoses[i, 0], hoses[i, 1], hoses[i, 2], viscosity, roots[i])
        head += one
        rise += slope
    return head, rise


@njit(cache=True)
def pump_slope(flow: float, flows: Floats, heads: Floats, speed: float) -> float:
    """Derivative of a pump's head with respect to flow, s/m², below 0. Arguments as for `pump_head`."""
    n = flows.shape[0]
    if n == 2:
        return -2.0 * heads[0] * flow / (flows[1] * flows[1])
    i = 0
    while i < n - 2 and flow / speed > flows[i + 1]:
        i += 1
    return speed * (heads[i + 1] - heads[i]) / (flows[i + 1] - flows[i])


@njit(cache=True)
def operating_flow(
    flows: Floats, heads: Floats, speed: float, static: float, c1: float, c2: float, hoses: Floats, viscosity: float
) -> float:
    """Flow at the operating point, m³/s; 0 when the pump cannot reach the outlet.

    Arguments as for `pump_head` and `plumbing_head`. Newton's steps between two flows that hold the root between them,
    halved where a step would leave them; begun where the parabola through shut-off would meet friction that went with
    the square.
    """
    shut = pump_head(0.0, flows, heads, speed)
    if shut - static <= 0.0:
        return 0.0
    low, high = 0.0, flows[-1] * speed
    roots = np.zeros(hoses.shape[0])
    asked, _ = plumbing_head_and_slope(high, static, c1, c2, hoses, viscosity, roots)
    gives = pump_head(high, flows, heads, speed)
    if gives - asked >= 0.0:
        return high
    tolerance = 1e-9 * high
    square = (shut - gives + asked - static - c1 * high) / (high * high)
    linear = 0.5 * c1 / square
    q = math.sqrt(linear * linear + (shut - static) / square) - linear if square > 0.0 else 0.5 * high
    for _ in range(80):
        if not low < q < high:
            q = 0.5 * (low + high)
        asked, rise = plumbing_head_and_slope(q, static, c1, c2, hoses, viscosity, roots)
        spare = pump_head(q, flows, heads, speed) - asked
        if spare > 0.0:
            low = q
        else:
            high = q
        if abs(spare) < 1e-10 or high - low < tolerance:
            return q
        step = spare / (rise - pump_slope(q, flows, heads, speed))
        q += step
        # The error left by a step of Newton's method is about its square.
        if abs(step) < 1e-5 * q and low < q < high:
            return q
    return q


@njit(cache=True, parallel=True, nogil=True)
def operating_flows(
    flows: Floats, heads: Floats, points: Ints, static: Floats, c1: Floats, c2: Floats, hoses: Floats, viscosity: float
) -> Floats:
    """`operating_flow` of n pumps, each on its own plumbing; m³/s, shape (n,).

    flows, heads: (n, k) curve points in m³/s and m, of which the first `points` (n,) count (two: the parabola);
    static, c1, c2: (n,); hoses: (n, j, 3); viscosity: m²/s.
    """
    n = flows.shape[0]
    out = np.empty(n)
    for i in prange(n):
        p = points[i]
        out[i] = operating_flow(flows[i, :p], heads[i, :p], 1.0, static[i], c1[i], c2[i], hoses[i], viscosity)
    return out


@njit(cache=True, parallel=True, nogil=True)
def spare_resistances(
    flow: Floats,
    flows: Floats,
    heads: Floats,
    points: Ints,
    static: Floats,
    c1: Floats,
    c2: Floats,
    hoses: Floats,
    viscosity: float,
) -> Floats:
    """Added linear resistance that holds each pump at a given flow, s/m², shape (n,); 0 where it gives less already.

    flow: (n,) m³/s; the rest as in `operating_flows`.
    """
    n = flows.shape[0]
    out = np.zeros(n)
    for i in prange(n):
        p = points[i]
        q = flow[i]
        if q > 0.0:
            head = pump_head(q, flows[i, :p], heads[i, :p], 1.0)
            out[i] = max((head - plumbing_head(q, static[i], c1[i], c2[i], hoses[i], viscosity)) / q, 0.0)
    return out
