"""A room's air against an independent solve of the same network: SciPy on all flows and pressures at once, fluids'
friction factor.
"""

import math
from functools import lru_cache

import fluids
import numpy as np
import pytest
from scipy.interpolate import CubicHermiteSpline
from scipy.optimize import least_squares

from reedmace.core.air import RoomAirQuestion, room_air
from reedmace.core.air.plan import TAP_PA

RHO, NU = 1.2, 1.5e-5
LITRE = 1 / 60000


@lru_cache
def join(rough: float) -> CubicHermiteSpline:
    """The cubic between laminar and turbulent flow, after Dunlop, on fluids' own Colebrook."""
    turbulent = fluids.friction.Colebrook
    slope = (turbulent(4001, rough) - turbulent(3999, rough)) / 2
    return CubicHermiteSpline([2000, 4000], [0.032, turbulent(4000, rough)], [-64 / 2000**2, slope])


def joined(reynolds: float, rough: float) -> float:
    """Friction factor over laminar flow."""
    return float(fluids.friction.Colebrook(reynolds, rough) if reynolds > 4000 else join(rough)(reynolds))


def loss(flow: float, bore: float, length: float, valve: float = 0.0) -> float:
    """Pressure along a line, Pa, with the sign of the flow."""
    size = abs(flow)
    speed = size / (math.pi / 4 * bore**2)
    reynolds = speed * bore / NU
    # The laminar law at low flow, so that nothing is divided by nothing.
    friction = (
        32 * RHO * NU * length * speed / bore**2
        if reynolds < 2000
        else joined(reynolds, 1.5e-6 / bore) * length / bore * RHO * speed**2 / 2
    )
    return math.copysign(friction + valve * size**2, flow)


def drawn(seed: int) -> dict:
    """A random room: a line, a tree or a ring, one to three pumps, two to fourteen outlets."""
    rng = np.random.default_rng(seed)
    count = int(rng.integers(2, 15))
    kind = ["line", "tree", "ring"][seed % 3]
    mains = []
    for i in range(count):
        start = "pump" if i == 0 else f"n{i - 1 if kind != 'tree' else int(rng.integers(0, i))}"
        mains.append(
            {
                "start": start,
                "end": f"n{i}",
                "bore_mm": float(rng.choice([8, 10, 12, 16, 20])),
                "length_m": float(rng.uniform(0.3, 3)),
            }
        )
    if kind == "ring" and count > 2:
        mains.append({"start": f"n{count - 1}", "end": "pump", "bore_mm": 12, "length_m": 2})
    outlets = [
        {
            "key": f"o{i}",
            "name": f"Tank {i}",
            "node": f"n{i}",
            "depth_cm": float(rng.uniform(15, 55)),
            "wanted_l_min": float(rng.uniform(0.3, 2)),
            "line_bore_mm": float(rng.choice([3, 4, 5])),
            "line_length_m": float(rng.uniform(0.5, 3)),
            "stone": bool(rng.random() < 0.5),
            "open_share": float(rng.uniform(0.05, 1)),
        }
        for i in range(count)
    ]
    pumps = [
        {
            "key": f"p{k}",
            "name": f"Pump {k}",
            "node": "pump" if k == 0 else f"n{int(rng.integers(0, count))}",
            "l_min": float(rng.uniform(0.6, 2) * count),
            "kpa": float(rng.uniform(12, 35)),
        }
        for k in range(int(rng.integers(1, 4)))
    ]
    return {"pumps": pumps, "mains": mains, "outlets": outlets}


def independently(room: dict, near: np.ndarray) -> np.ndarray:
    """Starting a good way off `near` (the answer is one, so the start only saves steps): air of every outlet, L/min:
    unknown are pipe flows, outlet flows and node pressures; an outlet under its threshold is shut.
    """
    nodes = ["pump", *dict.fromkeys(m["end"] for m in room["mains"] if m["end"] != "pump")]
    pipes, outlets, pumps = room["mains"], room["outlets"], room["pumps"]
    static = np.array([998.2 * 9.80665 * o["depth_cm"] / 100 + 1000 + (2000 if o["stone"] else 0) for o in outlets])
    open_ = np.ones(len(outlets), dtype=bool)
    for _ in range(20):

        def gaps(x: np.ndarray) -> np.ndarray:
            p, pipe, out = np.split(x, [len(nodes), len(nodes) + len(pipes)])
            at = dict(zip(nodes, p * 1000, strict=True))
            left = dict.fromkeys(nodes, 0.0)
            found = []
            for m, q in zip(pipes, pipe * LITRE, strict=True):
                found.append((at[m["start"]] - at[m["end"]] - loss(q, m["bore_mm"] / 1000, m["length_m"])) / 1000)
                left[m["start"]] -= q
                left[m["end"]] += q
            for i, (o, q) in enumerate(zip(outlets, out * LITRE, strict=True)):
                needs = loss(q, o["line_bore_mm"] / 1000, o["line_length_m"], TAP_PA / o["open_share"] ** 2)
                found.append((at[o["node"]] - static[i] - needs) / 1000 if open_[i] else q / LITRE)  # noqa: B023
                left[o["node"]] -= q
            for pump in pumps:
                left[pump["node"]] += pump["l_min"] * LITRE * max(1 - at[pump["node"]] / 1000 / pump["kpa"], 0)
            return np.array([*found, *(v / LITRE for v in left.values())])

        start = np.concatenate([np.full(len(nodes), 6.0), np.full(len(pipes), 1.0), 0.6 * near + 0.2])
        solved = least_squares(gaps, start, xtol=1e-14, ftol=1e-14, gtol=1e-14, max_nfev=4000, x_scale="jac")
        p, _, out = np.split(solved.x, [len(nodes), len(nodes) + len(pipes)])
        at = dict(zip(nodes, p * 1000, strict=True))
        now = np.array(
            [(open_[i] and out[i] > 0) or (not open_[i] and at[o["node"]] > static[i]) for i, o in enumerate(outlets)]
        )
        if (now == open_).all():
            assert solved.cost < 1e-6
            return out
        open_ = now
    raise AssertionError("no agreement on which outlets are shut")


@pytest.mark.parametrize("seed", range(100))
def test_every_outlets_air_is_what_an_independent_solve_finds(seed: int) -> None:
    room = drawn(seed)
    ours = np.array([o.air_l_min for o in room_air(RoomAirQuestion(**room)).outlets])
    theirs = independently(room, ours)
    assert ours == pytest.approx(theirs, rel=0.005, abs=0.003)
