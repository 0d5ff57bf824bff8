"""Solver for an air network: the pressure at every node, with pumps, pipes and outlets. SI units: Pa, m³/s, m.

Air is taken as incompressible (it loses a few per cent of its pressure at most here). Every law is rising, so there is
one answer; Newton's steps with a halved one where the balance did not get better find it.
"""

import math
from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from reedmace.core.flow.hydraulic_kernel import friction_factor
from reedmace.core.quantity.constants import AIR_KG_M3, AIR_NU

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

ROUGHNESS_M = 1.5e-6
STEPS, HALVINGS = 200, 40
SPARSE_FROM = 60
"""Nodes from which a sparse solution is the faster one, as measured."""
BALANCED_M3S = 1e-10
"""Largest imbalance accepted at a node: six thousandths of a millilitre a minute."""


@njit(cache=True)
def drop_pa(flow: float, bore: float, length: float, valve: float) -> float:
    """Pressure loss of a line with its valve at a flow, Pa.

    flow: m³/s, 0 or more; bore, length: m; valve: Pa/(m³/s)². Source: Darcy-Weisbach with 64/Re and Colebrook-White.
    """
    if flow <= 0.0:
        return 0.0
    speed = flow / (0.25 * math.pi * bore * bore)
    factor = friction_factor(max(speed * bore / AIR_NU, 1e-6), ROUGHNESS_M / bore)
    return factor * length / bore * AIR_KG_M3 * speed * speed / 2 + valve * flow * flow


@njit(cache=True)
def line_flow(pressure: float, bore: float, length: float, valve: float) -> float:
    """Flow through a line with its valve at a pressure difference, m³/s; carries the sign of the pressure.

    pressure: Pa; bore, length: m; valve: Pa/(m³/s)². The inverse of `drop_pa`.
    """
    if pressure == 0.0:
        return 0.0
    wanted = abs(pressure)
    # Laminar flow is an upper bound at any pressure.
    high = wanted * math.pi * bore**4 / (128 * AIR_NU * AIR_KG_M3 * length)
    low = 0.0
    for _ in range(80):
        middle = 0.5 * (low + high)
        if drop_pa(middle, bore, length, valve) < wanted:
            low = middle
        else:
            high = middle
        if high - low < 1e-13 * high:
            break
    return math.copysign(0.5 * (low + high), pressure)


@njit(cache=True)
def line_slope(flow: float, bore: float, length: float, valve: float) -> float:
    """Derivative of line flow with respect to pressure, m³/(s Pa). flow: m³/s; bore, length: m; valve: Pa/(m³/s)²."""
    step = max(abs(flow) * 1e-5, 1e-12)
    rise = drop_pa(abs(flow) + step, bore, length, valve) - drop_pa(abs(flow), bore, length, valve)
    return step / rise


@njit(cache=True)
def balance(
    pressure: Floats,
    ends: Ints,
    pipes: Floats,
    at: Ints,
    lines: Floats,
    pump_at: Ints,
    pumps: Floats,
    given: Floats,
) -> tuple[Floats, Floats, Floats]:
    """(imbalance at each node, its Jacobian, flow of each outlet) at given pressures; m³/s, m³/(s Pa), m³/s.

    pressure: (n,) Pa; ends: (e, 2) nodes of each pipe; pipes: (e, 2) bore and length in m; at: (o,) nodes of the
    outlets; lines: (o, 4) threshold in Pa, bore, length in m, valve in Pa/(m³/s)²; pump_at: (k,) nodes; pumps: (k, 2)
    free flow in m³/s and pressure in Pa at which each gives up; given: (n,) flow taken out at each node whatever its
    pressure, m³/s.
    """
    n = pressure.shape[0]
    left, slopes, out = -given.copy(), np.zeros((n, n)), np.zeros(at.shape[0])
    for i in range(n):
        slopes[i, i] = 1e-15
    for e in range(ends.shape[0]):
        a, b = ends[e, 0], ends[e, 1]
        flow = line_flow(pressure[a] - pressure[b], pipes[e, 0], pipes[e, 1], 0.0)
        slope = line_slope(flow, pipes[e, 0], pipes[e, 1], 0.0)
        left[a] -= flow
        left[b] += flow
        slopes[a, a] += slope
        slopes[b, b] += slope
        slopes[a, b] -= slope
        slopes[b, a] -= slope
    for o in range(at.shape[0]):
        over = pressure[at[o]] - lines[o, 0]
        if over > 0.0:
            out[o] = line_flow(over, lines[o, 1], lines[o, 2], lines[o, 3])
            left[at[o]] -= out[o]
            slopes[at[o], at[o]] += line_slope(out[o], lines[o, 1], lines[o, 2], lines[o, 3])
    for k in range(pump_at.shape[0]):
        i = pump_at[k]
        share = 1.0 - pressure[i] / pumps[k, 1]
        if share > 0.0:
            left[i] += pumps[k, 0] * share
            slopes[i, i] += pumps[k, 0] / pumps[k, 1]
    return left, slopes, out


@dataclass(frozen=True)
class Network:
    """An air network: pipes between nodes, outlets and pumps at nodes. Shapes and units as in `balance`."""

    nodes: int
    ends: Ints
    pipes: Floats
    at: Ints
    lines: Floats
    pump_at: Ints
    pumps: Floats


@dataclass(frozen=True)
class Solved:
    """Solution of an air network.

    Pressures (n,) in Pa, air of each outlet (o,) and pump (k,) in m³/s, whether it converged, and a message.
    """

    pressure: Floats
    outlets: Floats
    pumps: Floats
    found: bool
    message: str


def _step(slopes: Floats, left: Floats) -> Floats:
    """Newton's step: pressures that would balance it, were it straight. slopes: (n, n); left: (n,)."""
    if len(left) < SPARSE_FROM:
        return np.asarray(np.linalg.solve(slopes, left))
    # A node has a few neighbours. Imported here: a room of that size is rare, and the import takes a while.
    from scipy.sparse import csc_matrix
    from scipy.sparse.linalg import spsolve

    return np.asarray(spsolve(csc_matrix(slopes), left))


def solve(net: Network, given: Floats | None = None) -> Solved:
    """Solve for the pressure at every node of an air network.

    net: the network; given: (n,) m³/s taken out at the nodes besides the outlets, none when left out.
    """
    taken = np.zeros(net.nodes) if given is None else given
    arguments = (net.ends, net.pipes, net.at, net.lines, net.pump_at, net.pumps, taken)
    pressure = np.full(net.nodes, 0.5 * float(net.pumps[:, 1].min()))
    left, slopes, out = balance(pressure, *arguments)
    worst = float(np.abs(left).max())
    for _ in range(STEPS):
        if worst < BALANCED_M3S:
            break
        move = _step(slopes, left)
        share = 1.0
        for _ in range(HALVINGS):
            trial = pressure + share * move
            left_then, slopes_then, out_then = balance(trial, *arguments)
            if float(np.linalg.norm(left_then)) < float(np.linalg.norm(left)):
                break
            share /= 2
        pressure, left, slopes, out = trial, left_then, slopes_then, out_then
        worst = float(np.abs(left).max())
    gives = net.pumps[:, 0] * np.maximum(1 - pressure[net.pump_at] / net.pumps[:, 1], 0.0)
    found = worst < 1e-8
    return Solved(pressure, out, gives, found, "" if found else f"{worst * 6e4:.2g} L/min do not add up")
