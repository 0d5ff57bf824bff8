"""Air lifts, compiled: bubbles, driving head, losses and the water they raise."""

import math

import numpy as np
from numba import njit, prange

from reedmace.core.flow.hydraulic_kernel import GATHERING, MIXTURE_K, Floats, friction_factor
from reedmace.core.quantity.constants import WATER_KG_M3, G


@njit(cache=True)
def bubble_speed(bore: float) -> float:
    """Rise of a long bubble in still water, m/s, with the small-tube loss (Reinemann et al. 1990).

    bore: m. Below about 5 mm the bubble sticks and the result is 0.

    >>> round(bubble_speed(0.025), 4)
    0.1673
    """
    sigma = 0.0728 / (WATER_KG_M3 * G * bore * bore)
    return 0.352 * math.sqrt(G * bore) * max(1.0 - 3.18 * sigma - 14.77 * sigma**2, 0.0)


@njit(cache=True)
def lift_driving(submerged: float, lift: float, bore: float, gas: float) -> float:
    """Driving head of an air lift, m: the submerged column less the lightened one.

    submerged, lift, bore: m; gas: share of the tube that is air. The bubbles need `GATHERING` bores above their
    inlet to gather, and lighten nothing until then.
    """
    light = max(submerged + lift - GATHERING * bore, 0.0)
    return light * gas - lift


@njit(cache=True)
def lift_losses(
    jl: float, jg: float, gas: float, length: float, bore: float, minor_k: float, viscosity: float
) -> float:
    """Head loss of an air lift in its tube and at both ends, m, without its foam.

    jl, jg: water and air as if each had the tube to itself, m/s; gas: share of air; length, bore: m; minor_k: on
    the water's velocity head; viscosity: m²/s.
    """
    j = jl + jg
    f = friction_factor(max(j * bore / viscosity, 1.0), 1e-4)
    mixture = (1.0 - gas) * (f * length / bore + MIXTURE_K) * j * j
    return (mixture + minor_k * jl * jl) / (2 * G)


@njit(cache=True)
def airlift(
    air: float, bore: float, submerged: float, lift: float, c1: float, minor_k: float, viscosity: float
) -> float:
    """Water flow of an air lift, m³/s; 0 when the bubbles cannot raise it over the outlet.

    air: m³/s at the tube; bore, submerged, lift: m (depth of the air inlet below the surface, and how far the
    outlet stands above the surface); c1: linear resistance of foam and dirt, s/m²; minor_k: entrance and exit
    losses on the tube's velocity head; viscosity: m²/s.
    """
    area = 0.25 * math.pi * bore * bore
    jg = air / area
    rise = bubble_speed(bore)
    length = submerged + lift
    if jg <= 0.0 or submerged <= 0.0:
        return 0.0

    low, high = 0.0, 3.0
    for step in range(60):
        jl = 0.0 if step == 0 else 0.5 * (low + high)
        gas = jg / (1.2 * (jg + jl) + rise)
        losses = lift_losses(jl, jg, gas, length, bore, minor_k, viscosity) + c1 * jl * area
        if lift_driving(submerged, lift, bore, gas) - losses > 0.0:
            low = jl
        else:
            if step == 0:
                return 0.0
            high = jl
    return 0.5 * (low + high) * area


@njit(cache=True)
def airlift_spare(
    flow: float, air: float, bore: float, submerged: float, lift: float, c1: float, minor_k: float, viscosity: float
) -> float:
    """Added linear resistance that holds an air lift at a given flow, s/m². flow: m³/s; the rest as in `airlift`."""
    area = 0.25 * math.pi * bore * bore
    jg, jl, length = air / area, flow / area, submerged + lift
    if flow <= 0.0 or jg <= 0.0:
        return 0.0
    gas = jg / (1.2 * (jg + jl) + bubble_speed(bore))
    losses = lift_losses(jl, jg, gas, length, bore, minor_k, viscosity)
    return max((lift_driving(submerged, lift, bore, gas) - losses) / flow - c1, 0.0)


@njit(cache=True, parallel=True, nogil=True)
def airlift_spare_many(
    flow: Floats,
    air: Floats,
    bore: Floats,
    submerged: Floats,
    lift: Floats,
    c1: Floats,
    minor_k: Floats,
    viscosity: float,
) -> Floats:
    """`airlift_spare` for n lifts, s/m², shape (n,); all arguments (n,) in SI, viscosity m²/s."""
    out = np.empty(air.shape[0])
    for i in prange(air.shape[0]):
        out[i] = airlift_spare(flow[i], air[i], bore[i], submerged[i], lift[i], c1[i], minor_k[i], viscosity)
    return out


@njit(cache=True, parallel=True, nogil=True)
def airlift_many(
    air: Floats, bore: Floats, submerged: Floats, lift: Floats, c1: Floats, minor_k: Floats, viscosity: float
) -> Floats:
    """`airlift` for n lifts, m³/s, shape (n,); all arguments (n,) in SI, viscosity m²/s."""
    out = np.empty(air.shape[0])
    for i in prange(air.shape[0]):
        out[i] = airlift(air[i], bore[i], submerged[i], lift[i], c1[i], minor_k[i], viscosity)
    return out
