"""One sump under several tanks against all branches solved at once by SciPy, with fluids' own friction factor."""

import math

import fluids
import numpy as np
import pytest
from scipy.optimize import root

from reedmace.core.computations import compute
from reedmace.core.flow.materials import viscosity_m2_s

G = 9.80665


def question(seed: int) -> dict:
    rng = np.random.default_rng(seed)
    return {
        "pump_lph": float(rng.uniform(1500, 9000)),
        "pump_head_m": float(rng.uniform(2.5, 5)),
        "sump_l": 80,
        "sump_free_l": 50,
        "tanks": [
            {
                "key": str(n), "name": f"Tank {n}", "net_l": float(rng.uniform(20, 120)), "surface_cm2": 1800,
                "lift_cm": float(rng.uniform(30, 130)), "bore_mm": float(rng.choice([12, 16, 20, 25])),
                "length_m": float(rng.uniform(0.5, 6)), "tap_share": float(rng.uniform(0.3, 1)),
            }
            for n in range(rng.integers(2, 9))
        ],
    }  # fmt: skip


def solved(q: dict) -> np.ndarray:
    """Flows of the branches, L/h: unknown are the flows and the head they share, all at once."""
    nu, tanks = viscosity_m2_s(25), q["tanks"]

    def head(t: dict, flow: float) -> float:
        bore = t["bore_mm"] / 1000
        speed = flow / (math.pi / 4 * bore**2)
        factor = fluids.friction_factor(max(speed * bore / nu, 1e-6), 1.5e-6 / bore)
        k = 0.2 / t["tap_share"] ** 2 + 1.0
        return t["lift_cm"] / 100 + (factor * t["length_m"] / bore + k) * speed**2 / (2 * G)

    def gaps(x: np.ndarray) -> np.ndarray:
        flows, shared = np.abs(x[:-1]) / 3.6e6, x[-1]
        gives = q["pump_head_m"] * (1 - (flows.sum() / (q["pump_lph"] / 3.6e6)) ** 2)
        return np.array([*(head(t, f) - shared for t, f in zip(tanks, flows, strict=True)), gives - shared])

    start = np.array([q["pump_lph"] / len(tanks) / 2] * len(tanks) + [q["pump_head_m"] / 2])
    found = root(gaps, start, method="lm", tol=1e-12)
    assert found.success
    return np.abs(found.x[:-1])


@pytest.mark.parametrize("seed", range(40))
def test_flows_are_those_of_all_branches_solved_at_once(seed: int) -> None:
    q = question(seed)
    answer = compute("shared-sump", q)
    flows = np.array([t.flow_lph for t in answer.tanks])
    # A branch out of reach runs dry: the head in the main, worked out from the others, is under its lift.
    wet = [t for t, f in zip(q["tanks"], flows, strict=True) if f > 0]
    dry = [t for t, f in zip(q["tanks"], flows, strict=True) if f == 0]
    shared = q["pump_head_m"] * (1 - (flows.sum() / q["pump_lph"]) ** 2)
    assert all(t["lift_cm"] / 100 >= shared - 1e-6 for t in dry)
    flows = flows[flows > 0]
    q["tanks"] = wet
    # fluids' friction factor jumps between laminar and turbulent where ours joins them.
    reynolds = [
        4 * f / 3.6e6 / (math.pi * t["bore_mm"] / 1000 * viscosity_m2_s(25))
        for f, t in zip(flows, q["tanks"], strict=True)
    ]
    joined = any(2000 < number < 4000 for number in reynolds)
    assert flows == pytest.approx(solved(q), rel=0.2 if joined else 0.005)
    assert answer.return_lph == pytest.approx(flows.sum())
    assert len(wet) >= 1


@pytest.mark.parametrize("seed", range(20))
def test_with_the_taps_set_as_shown_all_tanks_turn_over_alike(seed: int) -> None:
    q = question(seed)
    answer = compute("shared-sump", q)
    # A tap can be set no finer than a fiftieth of a turn.
    q["tanks"] = [t for t, got in zip(q["tanks"], answer.tanks, strict=True) if got.even_tap_share >= 0.02]
    answer = compute("shared-sump", q)
    for tank, got in zip(q["tanks"], answer.tanks, strict=True):
        tank["tap_share"] = got.even_tap_share
    set_ = compute("shared-sump", q)
    turns = [t.turnovers_per_hour for t in set_.tanks]
    assert turns == pytest.approx([answer.even_turnovers_per_hour] * len(turns), rel=0.005)
    # No other setting gives the slowest tank more.
    before = min(t.turnovers_per_hour for t in answer.tanks)
    assert min(turns) >= before * 0.995
