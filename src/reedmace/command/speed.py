"""Speed of the computations, as ratios by turns in one run: against an independent program or a plain loop."""

import math
from collections.abc import Callable
from itertools import combinations_with_replacement
from typing import Any

import fluids
import numpy as np
from scipy.integrate import solve_ivp
from scipy.optimize import brentq

from reedmace.command.forecast_skill import tested
from reedmace.command.timing import compare, measure
from reedmace.core.computations import compute
from reedmace.core.cycle.model.ensemble import forget
from reedmace.core.cycle.model.inputs import still_conditions
from reedmace.core.cycle.model.nitrogen_kernel import AIMS, DOSE_WORTH, KA, PARAMETERS, WAKING_PER_DAY
from reedmace.core.cycle.model.prior import PRIOR_MEDIAN, PRIOR_SPREAD
from reedmace.core.cycle.model.simulation_kernel import simulate
from reedmace.core.filter import Filter
from reedmace.core.filter.filter_flow import Placed, current_preferences, currents_and_oxygen, oxygen_consumers
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.flow.materials import dirt_resistance, media_coefficients, viscosity_m2_s
from reedmace.core.quantity.constants import G
from reedmace.core.stock import Animals
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.standins import ColourKit, usual_tank

Row = tuple[str, str, str]
"""What was measured, the result, the target."""
SERVICE_DAYS, FEED_G_DAY, BEST, SHOWN = 60.0, 2.0, 200, 60
TRIED = 20
"""Draws that the other program runs in a turn."""

LOOP = {
    "pump": {"max_flow_lph": 800, "max_head_m": 1.4},
    "hoses": [{"bore_mm": 16, "length_m": 2.8}],
    "fittings": [{"kind": "strainer"}, {"kind": "entrance"}, {"kind": "u-bend", "count": 2}, {"kind": "exit"}],
    "media": [{"media": "foam-20", "area_cm2": 260, "depth_cm": 10}],
}


def _plain_flow(f: Filter, plumbing: Plumbing, nu: float, feed_days: float) -> float:
    """One flow in L/h by a straightforward implementation.

    fluids' friction factor in a SciPy root search. feed_days: g of food since cleaning.
    """
    bore = (f.hose_bore_mm or 16) / 1000
    k = sum(x.k_on(bore * 1000) * x.count for x in plumbing.fittings)
    area, face = math.pi / 4 * bore**2, f.face_cm2 / 1e4
    a, b = media_coefficients("foam-20", face, f.foam_depth_cm / 100, nu)
    a += dirt_resistance(1.0, feed_days, face)
    most = f.box_lph / 3.6e6

    def gap(flow: float) -> float:
        speed = flow / area
        factor = fluids.friction_factor(max(speed * bore / nu, 1e-6), 1.5e-6 / bore)
        hose = (factor * plumbing.hose_length_m / bore + k) * speed**2 / (2 * G)
        return (f.max_head_m or 1.0) * (1 - (flow / most) ** 2) - hose - a * flow - b * flow**2

    return float(brentq(gap, 0.0, most, xtol=1e-12)) * 3.6e6


def boxes_of_count(count: int) -> list[Filter]:
    """Pumped filters with individual figures. count: how many."""
    rng = np.random.default_rng(1)
    pumped = [f for f in SAMPLE_BOXES if f.kind == "canister"]
    return [
        pumped[i % len(pumped)].model_copy(
            update={
                "id": f"f{i}",
                "curve": [],
                "box_lph": float(rng.uniform(200, 3000)),
                "max_head_m": float(rng.uniform(0.6, 3.5)),
            }
        )
        for i in range(count)
    ]


SITE, STOCK = (
    Site(net_l=129, water_depth_cm=41, length_cm=90, width_cm=40),
    [Animals(species_id="zebra-danio", count=20)],
)


def ranking_question(filters: list[Filter]) -> dict[str, Any]:
    """Ranking input for many boxes. filters: any number up to 5,000."""
    return {
        "site": SITE.model_dump(),
        "animals": [a.model_dump() for a in STOCK],
        "own_filters": [f.model_dump() for f in filters],
    }


def _plain_ranking(filters: list[Filter], plumbing: Plumbing, nu: float) -> list[float]:
    """The ranking's main results in a plain loop.

    Both flows of every filter, every pair of the best two hundred by the dirt it shares, currents and oxygen of those
    shown. Left out: reasons, changes, limits, priorities.
    """
    dirt = SERVICE_DAYS * FEED_G_DAY
    clean = [_plain_flow(f, plumbing, nu, 0.0) for f in filters]
    service = [_plain_flow(f, plumbing, nu, dirt) for f in filters]
    order = sorted(range(len(filters)), key=lambda i: -service[i])
    together = []
    for i, j in combinations_with_replacement(order[:BEST], 2):
        part = clean[i] / (clean[i] + clean[j])
        together.append(
            _plain_flow(filters[i], plumbing, nu, dirt * part)
            + _plain_flow(filters[j], plumbing, nu, dirt * (1 - part))
        )
    likes, breathe = current_preferences(STOCK, []), oxygen_consumers(STOCK, [])
    kept = [
        currents_and_oxygen(SITE, [Placed(filters[i], plumbing, clean[i])], likes, breathe, 500.0, 60.0, 25.0)[
            1
        ].working
        for i in order[:SHOWN]
    ]
    return [*service, *together, float(len(kept))]


def ranking() -> list[Row]:
    """The whole ranking of five thousand filters."""
    many, plumbing, nu = boxes_of_count(5000), Plumbing(), viscosity_m2_s(25)

    question = ranking_question(many)
    whole = compare(lambda: _plain_ranking(many, plumbing, nu), lambda: compute("rank-filters", question), 3)
    return [
        (
            "ranking those 5,000, every pair of the best 200, verdicts, changes, against a loop without the last",
            f"{whole.times:.0f} x; {whole.ours.words()}",
            "300 ms; 50 x",
        ),
    ]


def _derivative(t: float, y: Any, row: Any, ka: float) -> list[float]:
    """The model as a plain Python function for SciPy, at 25 °C."""
    tan, no2, alkalinity = max(y[0], 0.0), max(y[1], 0.0), max(y[3], 0.0)
    mu_a, mu_b, k_a, k_b, decay, co2, most, inhibit, lag = row[2:11]
    hydrogen = 4.467e-7 * co2 / max(alkalinity / 50.04, 0.004)
    free = tan * ka / (ka + hydrogen)
    awake = 1 / (1 + np.exp(-WAKING_PER_DAY * (t - lag)))
    shape = awake / (1 + (hydrogen * 5.62e6) ** 3 + (6.3e-10 / hydrogen) ** 2)
    take_a = shape * alkalinity * tan / ((alkalinity + 4) * (tan + k_a) * (1 + free / 12))
    take_b = shape * no2 / ((no2 + k_b) * (1 + free / inhibit))
    a, b = y[4] * take_a, y[5] * take_b
    grow_a = y[4] * (mu_a * take_a * (1 - y[4] / most) - decay)
    return [-a, a - b, b, -7.14 * a, grow_a, y[5] * (mu_b * take_b * (1 - y[5] / most) - decay)]


def kept_log(tests: int, days: int) -> dict[str, Any]:
    """A simulated tank's log, dosed as usual and read by a coarse kit. tests: how many; days: over how long."""
    tank, kit = usual_tank(days), ColourKit()
    readings = [tested(kit, tank, days * n / tests) for n in range(tests)]
    now = {"day_now": float(days), "doses": tank.doses, "alkalinity": tank.added, "readings": readings}
    return tank.log.model_copy(update=now).model_dump()


def uncached(name: str, log: dict[str, Any]) -> Callable[[], Any]:
    """A cycle computation without cached results. name: the computation; log: its input."""

    def ask() -> Any:
        # Cached results would falsify the measurement.
        forget()
        return compute(name, {"log": log})

    return ask


def history() -> list[Row]:
    """History and what-if against one forecast, and a log of four hundred tests."""
    log, long = kept_log(60, 60), kept_log(400, 400)
    one = uncached("cycle-forecast", log)
    rows = [
        (
            f"{words}, 60 tests, day 60, in times of one forecast",
            f"{1 / compare(one, uncached(name, log), 5).times:.1f} x",
            "under 3 x",
        )
        for name, words in (("cycle-history", "how the forecast has moved"), ("cycle-what-if", "what would move it"))
    ]
    names = ("cycle-forecast", "cycle-history", "cycle-what-if")
    took = [measure(uncached(name, long), 3) for name in names]
    words = ", ".join(f"{t.wall_s:.1f}" for t in took)
    return [*rows, ("forecast, history and what if of 400 tests over 400 days", f"{words} s by the clock", "under 2 s")]


def _lsoda(days: int, ka: float) -> Callable[[Any], Any]:
    """SciPy's LSODA on the cycle model in plain Python, for one draw. days: of the run; ka: dissociation, mol/kg."""

    def solve(row: Any) -> Any:
        first = np.array([6.0 * row[DOSE_WORTH], 0, 0, 200.0, row[0], row[1]])
        return solve_ivp(
            lambda t, y: _derivative(t, y, row, ka),
            (0, days),
            first,
            method="LSODA",
            rtol=1e-4,
            atol=1e-6,
            t_eval=np.arange(days + 1),
        ).y

    return solve


def forecast() -> list[Row]:
    """The cycle model per draw, and a whole forecast."""
    days, ka = 90, 5.7e-10
    rng = np.random.default_rng(2)
    rows = np.exp(np.log(PRIOR_MEDIAN) + PRIOR_SPREAD * rng.standard_normal((1000, PARAMETERS)))
    empty = (np.zeros(1, np.int64), np.zeros(1, np.int64), np.array([6.0]))
    start, conditions = np.array([0, 0, 0, 200.0]), still_conditions(days, 25)
    conditions[:, KA] = ka
    aim = np.zeros(AIMS)

    def ours() -> Any:
        return simulate(rows, start, conditions, *empty, start, 10**6, days, aim, np.zeros((0, 2), np.int64))

    lsoda = _lsoda(days, ka)

    daily = ours()[0]
    worst = max(
        float(np.max(np.abs(lsoda(rows[i])[:4].T - daily[i]) / np.maximum(daily[i].max(axis=0), 1e-9)))
        for i in range(TRIED)
    )
    share = len(rows) / TRIED
    plain = compare(lambda: [lsoda(rows[i]) for i in range(TRIED)], ours, 5)
    log = kept_log(60, 24)
    whole = compare(lambda: [lsoda(rows[i]) for i in range(TRIED)], uncached("cycle-forecast", log), 5)
    return [
        (
            "cycle model per draw, against SciPy LSODA on the model in plain Python",
            f"{plain.times * share:.0f} x (agrees to {worst * 100:.2f} %)",
            "told: Python in each step",
        ),
        (
            "forecast of 1,000 draws, 90 days, 60 readings, against LSODA for as many draws",
            f"{whole.times * share:.0f} x; {whole.ours.words()}",
            "under 150 ms",
        ),
    ]
