"""Speed, as ratios measured in one run: our sums against an independent program on the same question."""

import math
import os
import statistics
import tempfile
import threading
import time
import urllib.request
import warnings
from collections.abc import Callable
from pathlib import Path
from typing import Any

import fluids
import numpy as np
from scipy.integrate import solve_ivp
from scipy.optimize import brentq

from reedmace.command.lives import live, tally
from reedmace.command.run import Workers, bound
from reedmace.command.skill import forecast_skill, strangers_skill
from reedmace.command.warm import warm
from reedmace.core.computations import compute
from reedmace.core.cycle.ensemble import forget
from reedmace.core.cycle.kernel import KA, LANES, PARAMETERS, STATES, WORKSPACE, load, rates, simulate
from reedmace.core.cycle.model_input import PRIOR_MEDIAN, PRIOR_SPREAD, still_conditions
from reedmace.core.filter import CATALOGUE, Filter, deliver, table_of
from reedmace.core.filter.room import Plumbing, Room
from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.materials import dirt_resistance, media_coefficients, viscosity_m2_s
from reedmace.core.quantity.constants import G
from reedmace.formats import plumbing_inp

LOOP = {
    "pump": {"max_flow_lph": 800, "max_head_m": 1.4},
    "hoses": [{"bore_mm": 16, "length_m": 2.8}],
    "fittings": [{"kind": "strainer"}, {"kind": "entrance"}, {"kind": "u-bend", "count": 2}, {"kind": "exit"}],
    "media": [{"media": "foam-20", "area_cm2": 260, "depth_cm": 10}],
}
LIVES = 200


def _median(action: Callable[[], Any], times: int) -> float:
    took = []
    for _ in range(times):
        start = time.perf_counter()
        action()
        took.append(time.perf_counter() - start)
    return statistics.median(took)


def _operating_point() -> list[tuple[str, str, str]]:
    import wntr

    question = OperatingPointQuestion.model_validate(LOOP)
    with tempfile.TemporaryDirectory() as folder, warnings.catch_warnings():
        warnings.simplefilter("ignore")
        path = Path(folder) / "loop.inp"
        path.write_text(plumbing_inp(question))
        network = wntr.network.WaterNetworkModel(str(path))

        def epanet() -> float:
            results = wntr.sim.EpanetSimulator(network).run_sim(file_prefix=f"{folder}/run")
            return float(results.link["flowrate"]["pump"].iloc[0]) * 3.6e6

        theirs_lph = epanet()
        theirs = _median(epanet, 9)
    ours = _median(lambda: compute("operating-point", LOOP), 201)
    ours_lph = compute("operating-point", LOOP).delivered_lph  # type: ignore[attr-defined]
    agree = abs(ours_lph / theirs_lph - 1) * 100
    return [
        (
            "one operating point, with working and curves, against EPANET through wntr",
            f"{theirs / ours:.0f} x (agrees to {agree:.2f} %)",
            "at least 20 x",
        )
    ]


def _plain_flow(f: Filter, plumbing: Plumbing, nu: float, dirt_days: float) -> float:
    """One flow in L/h as anyone would write it: fluids' friction factor in a SciPy root search."""
    bore = (f.hose_bore_mm or 16) / 1000
    k = sum(x.k_on(bore * 1000) * x.count for x in plumbing.fittings)
    area, face = math.pi / 4 * bore**2, f.face_cm2 / 1e4
    a, b = media_coefficients("foam-20", face, f.foam_depth_cm / 100, nu)
    a += dirt_resistance(2.0, dirt_days, face)
    most = f.box_lph / 3.6e6

    def gap(flow: float) -> float:
        speed = flow / area
        factor = fluids.friction_factor(max(speed * bore / nu, 1e-6), 1.5e-6 / bore)
        hose = (factor * plumbing.hose_length_m / bore + k) * speed**2 / (2 * G)
        return (f.max_head_m or 1.0) * (1 - (flow / most) ** 2) - hose - a * flow - b * flow**2

    return float(brentq(gap, 0.0, most, xtol=1e-12)) * 3.6e6


def _ranking() -> list[tuple[str, str, str]]:
    rng = np.random.default_rng(1)
    pumped = [f for f in CATALOGUE if f.kind == "canister"]
    many = [
        pumped[i % len(pumped)].model_copy(
            update={
                "id": f"f{i}",
                "curve": [],
                "box_lph": float(rng.uniform(200, 3000)),
                "max_head_m": float(rng.uniform(0.6, 3.5)),
            }
        )
        for i in range(5000)
    ]
    room = Room(net_l=129, water_depth_cm=41, length_cm=90, width_cm=40)
    plumbing = Plumbing()
    nu = viscosity_m2_s(25)

    def plain() -> list[float]:
        return [_plain_flow(f, plumbing, nu, dirt) for f in many for dirt in (0.0, 60.0)]

    theirs = _median(plain, 1)
    table = table_of(many)
    only_flows = _median(lambda: deliver(table, room, plumbing, 2.0, 25, days=60), 7)
    got = deliver(table, room, plumbing, 2.0, 25, days=60)
    clean, dirty = got.clean_lph, got.service_lph
    agree = float(np.max(np.abs(np.column_stack([clean, dirty]).ravel() / np.array(plain()) - 1)))
    question = {
        "room": room.model_dump(),
        "animals": [{"species_id": "zebra-danio", "count": 20}],
        "own_filters": [f.model_dump() for f in many],
        "with_catalogue": False,
    }
    whole = _median(lambda: compute("rank-filters", question), 3)
    return [
        (
            "flows of 5,000 filters, clean and dirty, against a plain loop over SciPy brentq",
            f"{theirs / only_flows:.0f} x (agrees to {agree:.0e})",
            "at least 50 x",
        ),
        (
            "ranking those 5,000 and every pair of the best 200, reasoned, against the same loop",
            f"{theirs / whole:.1f} x ({whole * 1000:.0f} ms)",
            "under 300 ms",
        ),
    ]


def _derivative(y: Any, row: Any, ka: float) -> list[float]:
    """The model as anyone would write it for SciPy, in plain Python, at 25 °C."""
    tan, no2, alkalinity = max(y[0], 0.0), max(y[1], 0.0), max(y[3], 0.0)
    _, _, mu_a, mu_b, k_a, k_b, decay, co2, most, inhibit = row
    hydrogen = 4.467e-7 * co2 / max(alkalinity / 50.04, 0.004)
    free = tan * ka / (ka + hydrogen)
    shape = 1 / (1 + (hydrogen * 5.62e6) ** 3 + (6.3e-10 / hydrogen) ** 2)
    take_a = shape * alkalinity * tan / ((alkalinity + 4) * (tan + k_a) * (1 + free / 12))
    take_b = shape * no2 / ((no2 + k_b) * (1 + free / inhibit))
    a, b = y[4] * take_a, y[5] * take_b
    grow_a = y[4] * (mu_a * take_a * (1 - y[4] / most) - decay)
    return [-a, a - b, b, -7.14 * a, grow_a, y[5] * (mu_b * take_b * (1 - y[5] / most) - decay)]


def _forecast() -> list[tuple[str, str, str]]:
    days, ka = 90, 5.7e-10
    rng = np.random.default_rng(2)
    rows = np.exp(np.log(PRIOR_MEDIAN) + PRIOR_SPREAD * rng.standard_normal((1000, PARAMETERS)))
    empty = (np.zeros(1, np.int64), np.zeros(1, np.int64), np.array([6.0]))
    start, conditions = np.array([0, 0, 0, 200.0]), still_conditions(days, 25)
    conditions[:, KA] = ka
    aim = np.array([0.0, 0.13, 1.5, 0.0, 0.0, 0.0, 0.0])

    def ours() -> Any:
        return simulate(rows, start, conditions, *empty, start, 10**6, days, aim, np.zeros((0, 2), np.int64))

    def solve(derivative: Callable[[float, Any], Any], row: Any) -> Any:
        first = np.array([6.0, 0, 0, 200.0, row[0], row[1]])
        return solve_ivp(
            derivative, (0, days), first, method="LSODA", rtol=1e-4, atol=1e-6, t_eval=np.arange(days + 1)
        ).y

    def lsoda(row: Any) -> Any:
        return solve(lambda _, y: _derivative(y, row, ka), row)

    def lsoda_compiled(row: Any) -> Any:
        w, trial = np.zeros(WORKSPACE), np.s_[STATES * LANES : (STATES + 6) * LANES]
        load(w, row[None, :], 0, start)

        def derivative(_: float, y: Any) -> Any:
            w[trial] = np.repeat(y, LANES)
            rates(w, conditions[0])
            return w[2 * STATES * LANES : (2 * STATES + 6) * LANES : LANES].copy()

        return solve(derivative, row)

    daily = ours()[0]
    worst = max(
        float(np.max(np.abs(lsoda(rows[i])[:4].T - daily[i]) / np.maximum(daily[i].max(axis=0), 1e-9)))
        for i in range(20)
    )
    compiled = _median(lambda: [lsoda_compiled(rows[i]) for i in range(20)], 3) / 20
    per_draw = _median(ours, 5) / len(rows)
    theirs = _median(lambda: [lsoda(rows[i]) for i in range(20)], 3) / 20
    readings = [
        {"day": d * 0.4, "ammonia_mg_n_l": 1.0 if d < 30 else 0.3, "nitrite_mg_n_l": 0.0 if d < 15 else 0.5}
        for d in range(60)
    ]
    log = {
        "net_l": 130,
        "day_now": 24.5,
        "start_kh_dkh": 8,
        "readings": readings,
        "doses": [{"day": 0, "raise_mg_n_l": 1.5}, {"day": 18, "raise_mg_n_l": 1.0}],
    }

    def forecast() -> None:
        # What is remembered from the last time would be measured otherwise.
        forget()
        compute("cycle-forecast", {"log": log, "draws": 1000, "horizon_days": 90})

    whole = _median(forecast, 5)
    return [
        (
            "cycle model per draw, against SciPy LSODA on the model in plain Python",
            f"{theirs / per_draw:.0f} x (agrees to {worst * 100:.2f} %)",
            "at least 100 x",
        ),
        (
            "the same, against SciPy LSODA given our own compiled rates",
            f"{compiled / per_draw:.0f} x",
            "none set",
        ),
        (
            "forecast of 1,000 draws, 90 days, 60 readings, against LSODA for as many draws",
            f"{theirs * 1000 / whole:.0f} x ({whole * 1000:.0f} ms)",
            "under 150 ms",
        ),
    ]


def _latency() -> list[tuple[str, str, str]]:
    environment = {
        **os.environ,
        "REEDMACE_DATABASE_URL": "mysql://nobody@127.0.0.1:1/none",
        "REEDMACE_SECRET_KEY": "bench",
    }
    listener = bound("127.0.0.1", 0)
    port = listener.getsockname()[1]
    server = Workers(listener, environment, 3)
    body = b'{"length_cm":90,"width_cm":40,"height_cm":45}'
    took: list[float] = []

    def ask() -> float:
        request = urllib.request.Request(
            f"http://127.0.0.1:{port}/api/compute/tank-volume", data=body, headers={"Content-Type": "application/json"}
        )
        start = time.perf_counter()
        urllib.request.urlopen(request, timeout=20).read()  # noqa: S310
        return time.perf_counter() - start

    try:
        for _ in range(600):
            try:
                ask()
                break
            except OSError:
                time.sleep(0.1)
        alone = _median(ask, 50)

        def client() -> None:
            # A keeper types about eight characters a second at most.
            for _ in range(60):
                took.append(ask())
                time.sleep(0.1)

        threads = [threading.Thread(target=client) for _ in range(8)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
    finally:
        server.stop()
        listener.close()
    slow = float(np.percentile(took, 95))
    return [
        (
            "an answer while typing, 95th percentile with 8 clients, against one client alone",
            f"{slow / alone:.1f} x ({slow * 1000:.0f} ms)",
            "under 50 ms",
        )
    ]


def _skill() -> list[tuple[str, str, str]]:
    """The forecast on 200 virtual tanks: coverage of its 80 % range, and its error against always saying day 35."""
    return [
        (
            f"forecast, day {s.day}, {s.tanks} tanks {kind}: truths held; error, and of 'day 35'",
            f"{s.held * 100:.0f} %; {s.median_error_days:.1f} against {s.median_error_always_days:.1f} days",
            "70 to 90 %; half at day 14",
        )
        for kind, varied in (("alike", False), ("as kept", True))
        for s in forecast_skill(200, varied=varied)
    ]


def _strangers() -> list[tuple[str, str, str]]:
    """The forecast on tanks of another structure than its own."""
    return [
        (
            f"forecast, {structure}, {start}, day {s.day}, {s.tanks} tanks: truths held; error, 'day 35'; bias",
            f"{s.held * 100:.0f} %; {s.median_error_days:.1f}, {s.median_error_always_days:.1f}; {s.bias_days:+.1f} days",
            "75 to 90 %; half where over 4; under 1",
        )
        for structure in ("guilds", "biomass")
        for start in ("unseeded", "squeezed", "bottled", "moved")
        for s in strangers_skill(structure, start, 60)
    ]


def _lives() -> list[tuple[str, str, str]]:
    """Random lives kept by the advice alone, judged by what is really in the water."""
    told = tally([live(seed) for seed in range(1, LIVES + 1)])
    return [
        (
            f"{told['lives']:.0f} random lives: lost; kept waiting over a week too long; contradictions",
            f"{told['lost']:.0f}; {told['waited']:.0f}; {told['faults']:.0f}",
            "0; few; 0",
        )
    ]


def bench() -> int:
    """Print the table. Nothing here fails a build: it says what was measured on this machine, in this run."""
    warm()
    print(f"{'what':84} {'measured':34} target")
    for part in (_operating_point, _ranking, _forecast, _skill, _strangers, _lives, _latency):
        for what, measured, target in part():
            print(f"{what:84} {measured:34} {target}", flush=True)
    return 0
