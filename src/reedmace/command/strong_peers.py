"""Speed beside the strongest peer somebody would use: compiled, vectorised or in memory, solve beside solve.

A ratio over a peer that reads files or calls Python in every step tells little. Each of these is given its question as
it likes it best, set up before the clock starts; ours gets the same figures. Agreement stands beside each ratio.
"""

import math
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from numba import njit
from scipy.sparse import csr_matrix
from scipy.sparse.linalg import spsolve

from reedmace.command.speed import FEED_G_DAY, LOOP, SERVICE_DAYS, Row, boxes_of_count
from reedmace.command.timing import Ratio, compare
from reedmace.core.air.network import BALANCED_M3S, Network, balance, solve
from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.computations import compute
from reedmace.core.cycle.model.inputs import model_input_of
from reedmace.core.cycle.model.nitrogen_kernel import (
    A0,
    AIMS,
    B0,
    DOSE_WORTH,
    FIRST_NITRATE,
    LAG,
    PARAMETERS,
    WAKING_PER_DAY,
)
from reedmace.core.cycle.model.prior import PRIOR_MEDIAN, PRIOR_SPREAD
from reedmace.core.cycle.model.simulation_kernel import simulate
from reedmace.core.cycle.record.log import CycleLog, LoggedDose
from reedmace.core.filter import Filter
from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.hydraulic_kernel import operating_flow, operating_flows, set_threads
from reedmace.core.flow.materials import dirt_resistance, media_coefficients, viscosity_m2_s
from reedmace.core.flow.operating_point import path_arrays
from reedmace.core.quantity.constants import G
from reedmace.formats import cycle_sbml, plumbing_inp
from reedmace.formats.sbml import CONSTANTS

DRAWS, DAYS, DOSE = 200, 90, 4.0
HOSE_M, ROUGHNESS_M = 2.8, 1.5e-6
K = 3.5
"""Fittings of the hoses the thousands of filters share, in speeds' heads."""


def _row(what: str, found: Ratio, agrees: str, target: str) -> Row:
    each = f"{found.theirs.cpu_s * 1e3:.3g} ms, ours {found.ours.cpu_s * 1e3:.3g}"
    return what, f"{found.times:.1f} x ({each}); {agrees}", target


def epanet_in_memory() -> list[Row]:
    """One operating point: EPANET's toolkit, file read before, hydraulics alone; and a whole answer."""
    from wntr.epanet.toolkit import ENepanet
    from wntr.epanet.util import EN

    question = OperatingPointQuestion.model_validate(LOOP)
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "loop.inp"
        path.write_text(plumbing_inp(question))
        toolkit = ENepanet()
        toolkit.ENopen(str(path), f"{folder}/loop.rpt", f"{folder}/loop.bin")
        toolkit.ENopenH()
        pump = toolkit.ENgetlinkindex("pump")

        def theirs() -> float:
            toolkit.ENinitH(10)
            toolkit.ENrunH()
            return float(toolkit.ENgetlinkvalue(pump, EN.FLOW)) * 3600.0

        flows, heads, speed, static, c1, c2, hoses, nu = path_arrays(question)

        def ours() -> float:
            return float(operating_flow(flows, heads, speed, static, c1, c2, hoses, nu))

        apart = abs(ours() * 3.6e6 / theirs() - 1)
        solving = compare(lambda: [theirs() for _ in range(200)], lambda: [ours() for _ in range(200)], 9)
        whole = compare(
            lambda: [theirs() for _ in range(50)], lambda: [compute("operating-point", LOOP) for _ in range(50)], 5
        )
        toolkit.ENcloseH()
        toolkit.ENclose()
    return [
        _row(
            "200 operating points, solving alone, against EPANET's toolkit in memory",
            solving,
            f"agrees to {apart:.2%}",
            "1 x",
        ),
        _row(
            "50 of our whole answers, with working and curves, against its solving alone",
            whole,
            "",
            "told, not aimed at",
        ),
    ]


def _resistances(boxes: list[Filter], nu: float, feed: float) -> tuple[Any, ...]:
    """Free flow m³/s, shut-off m, linear and square resistance of each box. feed: g of food since cleaning."""
    face = np.array([f.face_cm2 for f in boxes]) / 1e4
    foam = [media_coefficients("foam-20", a, f.foam_depth_cm / 100, nu) for f, a in zip(boxes, face, strict=True)]
    c1, c2 = np.array(foam).T
    dirt = np.array([dirt_resistance(1.0, feed, float(a)) for a in face]) if feed else 0.0
    most = np.array([f.box_lph for f in boxes]) / 3.6e6
    head = np.array([f.max_head_m or 1.0 for f in boxes])
    bore = np.array([(f.hose_bore_mm or 16) / 1000 for f in boxes])
    return most, head, c1 + dirt, c2, bore


def numpy_flows(most: Any, head: Any, c1: Any, c2: Any, bore: Any, nu: float) -> Any:
    """Operating points by Newton's method on columns; the friction factor by Serghides (1984), 64/Re below 2300."""
    area = math.pi / 4 * bore**2
    q, low, high = 0.6 * most, np.zeros_like(most), most.copy()
    minor = K / (2 * G * area**2)
    for _ in range(40):
        re = np.maximum(q / area * bore / nu, 1e-6)
        rough = ROUGHNESS_M / bore / 3.7
        a = -2 * np.log10(rough + 12 / re)
        b = -2 * np.log10(rough + 2.51 * a / re)
        c = -2 * np.log10(rough + 2.51 * b / re)
        factor = np.where(re < 2300, 64 / re, (a - (b - a) ** 2 / (c - 2 * b + a)) ** -2)
        hose = (factor * HOSE_M / bore / (2 * G * area**2) + minor) * q**2
        gap = head * (1 - (q / most) ** 2) - hose - c1 * q - c2 * q**2
        low, high = np.where(gap > 0, q, low), np.where(gap > 0, high, q)
        step = gap / (2 * head * q / most**2 + 2 * hose / q + c1 + 2 * c2 * q)
        then = q + step
        then = np.where((then > low) & (then < high), then, 0.5 * (low + high))
        if np.max(np.abs(then - q) / most) < 1e-9:
            return then
        q = then
    return q


@njit(cache=True)
def numba_flows(most: Any, head: Any, c1: Any, c2: Any, bore: Any, nu: float) -> Any:
    """The same one after another, compiled; the friction factor by Swamee and Jain (1976), 64/Re below 2300."""
    out = np.empty(most.shape[0])
    for i in range(most.shape[0]):
        area = math.pi / 4 * bore[i] ** 2
        low, high = 0.0, most[i]
        for _ in range(50):
            q = 0.5 * (low + high)
            re = max(q / area * bore[i] / nu, 1e-6)
            turbulent = 0.25 / math.log10(ROUGHNESS_M / bore[i] / 3.7 + 5.74 / re**0.9) ** 2
            factor = 64 / re if re < 2300 else turbulent
            hose = (factor * HOSE_M / bore[i] + K) * (q / area) ** 2 / (2 * G)
            if head[i] * (1 - (q / most[i]) ** 2) - hose - c1[i] * q - c2[i] * q**2 > 0:
                low = q
            else:
                high = q
        out[i] = 0.5 * (low + high)
    return out


def many_filters() -> list[Row]:
    """Flows of 5,000 filters, clean and dirty, against columns in NumPy and a compiled loop."""
    boxes, nu = boxes_of_count(5000), viscosity_m2_s(25)
    clean, dirty = (_resistances(boxes, nu, feed) for feed in (0.0, SERVICE_DAYS * FEED_G_DAY))
    set_threads(5000)
    columns = []
    for most, head, c1, c2, bore in (clean, dirty):
        hoses = np.zeros((len(most), 1, 3))
        hoses[:, 0, 0], hoses[:, 0, 1], hoses[:, 0, 2] = bore, HOSE_M, ROUGHNESS_M
        squares = c2 + K / (2 * G * (math.pi / 4 * bore**2) ** 2)
        flows, heads = np.column_stack([np.zeros_like(most), most]), np.column_stack([head, np.zeros_like(most)])
        columns.append((flows, heads, np.full(len(most), 2), np.zeros(len(most)), c1, squares, hoses, nu))

    def ours() -> Any:
        return [operating_flows(*one) for one in columns]

    def both(peer: Callable[..., Any]) -> Callable[[], Any]:
        return lambda: [peer(*one, nu) for one in (clean, dirty)]

    both(numba_flows)()
    rows = []
    for words, peer, target in (
        ("Newton's method on NumPy columns", numpy_flows, "10 x"),
        ("a loop compiled by numba", numba_flows, "told"),
    ):
        apart = np.abs(np.array(ours()) / np.array(both(peer)()) - 1)
        at = np.unravel_index(int(np.argmax(apart)), apart.shape)
        q, bore = float(np.array(ours())[at]), float(clean[4][at[1]])
        re = q / (math.pi / 4 * bore**2) * bore / nu
        agrees = (
            f"median {np.median(apart):.0e}, worst {apart[at]:.0%} at Re {re:.0f}, {np.mean(apart > 0.01):.1%} over 1 %"
        )
        rows.append(
            _row(f"5,000 flows, clean and dirty, against {words}", compare(both(peer), ours, 7), agrees, target)
        )
    return rows


def compiled_cycle() -> list[Row]:
    """The cycle model, draw by draw, against CVODE with a compiled right-hand side (libRoadRunner on our own SBML)."""
    import roadrunner

    log = CycleLog.model_validate({"net_l": 100, "day_now": 0, "start_kh_dkh": 10})
    dosed = log.model_copy(update={"doses": [LoggedDose(day=0.0, raise_mg_n_l=DOSE)]})
    rng = np.random.default_rng(2)
    rows = np.exp(np.log(PRIOR_MEDIAN) + PRIOR_SPREAD * rng.standard_normal((DRAWS, PARAMETERS)))
    given = model_input_of(dosed, DAYS)
    set_threads(DRAWS)

    def ours() -> Any:
        return simulate(
            rows, given.start, given.conditions, given.steps, given.kinds, given.values, given.tap, 10**6, DAYS,
            np.zeros(AIMS), np.zeros((0, 2), np.int64),
        )  # fmt: skip

    runner = roadrunner.RoadRunner(cycle_sbml(log, rows[0]))
    for setting, value in (("absolute_tolerance", 1e-6), ("relative_tolerance", 1e-4)):
        runner.integrator.setValue(setting, value)
    shown = ["TAN", "NO2", "NO3", "ALK"]

    def one(row: Any) -> Any:
        runner.reset()
        for name, value in zip(CONSTANTS, row, strict=True):
            runner[name] = float(value)
        runner["FILM_A"], runner["FILM_B"] = float(row[A0]), float(row[B0])
        # The dose is in its first water: an event at the start would be worth what the last draw's was.
        runner["TAN"] = float(given.start[0] + DOSE * row[DOSE_WORTH])
        runner["ASLEEP"] = math.exp(WAKING_PER_DAY * row[LAG])
        runner["NO3"] = float(given.start[2] * row[FIRST_NITRATE])
        return np.array(runner.simulate(0, DAYS, DAYS + 1, shown))

    daily = ours()[0]
    apart = [
        float(np.max(np.abs(one(row) - mine) / np.maximum(mine.max(axis=0), 1e-9)))
        for row, mine in zip(rows, daily, strict=True)
    ]
    found = compare(lambda: [one(row) for row in rows], ours, 5)
    agrees = f"median of the worst {np.median(apart):.2%}, worst {max(apart):.1%}"
    return [_row(f"{DRAWS} draws of {DAYS} days against compiled CVODE", found, agrees, "20 x")]


def carbonate() -> list[Row]:
    """pH of a mixed water against PHREEQC in memory and PyCO2SYS on a whole column."""
    import PyCO2SYS
    from phreeqpython import PhreeqPython

    phreeqc, count = PhreeqPython(), 50
    waters = [(1.0 + 0.05 * n, 1.1 + 0.05 * n) for n in range(count)]

    def theirs() -> list[float]:
        found = []
        for alkalinity, carbon in waters:
            water = phreeqc.add_solution(
                {"units": "mmol/kgw", "temp": 25, "pH": "7 charge", "C(4)": carbon, "Na": alkalinity}
            )
            found.append(water.pH)
            water.forget()
        return found

    def ours() -> list[float]:
        return [Carbonate(alkalinity, carbon).ph() for alkalinity, carbon in waters]

    apart = float(np.max(np.abs(np.array(ours()) - theirs())))
    column = np.array(waters)

    def columns() -> Any:
        return PyCO2SYS.sys(
            par1=column[:, 0] * 1e3, par2=column[:, 1] * 1e3, par1_type=1, par2_type=2, salinity=35, temperature=25
        )["pH"]

    def sea() -> list[float]:
        return [Carbonate(alkalinity, carbon, 25.0, 35.0).ph() for alkalinity, carbon in waters]

    off = float(np.max(np.abs(np.array(sea()) - columns())))
    return [
        _row(
            f"pH of {count} fresh waters against PHREEQC in memory",
            compare(theirs, ours, 5),
            f"within {apart:.2f} pH",
            "told",
        ),
        _row(
            f"pH of {count} salt waters against PyCO2SYS on columns",
            compare(columns, sea, 5),
            f"within {off:.2f} pH",
            "told",
        ),
    ]


def rack_air(nodes: int = 240) -> Network:
    """A loop of pipe around a fish room, an outlet at each node. nodes: of the loop."""
    ends = np.array([[n, (n + 1) % nodes] for n in range(nodes)])
    pipes = np.tile([0.012, 0.4], (nodes, 1))
    lines = np.tile([3000.0, 0.004, 1.2, 2e14], (nodes, 1))
    pump = np.array([[nodes * 4e-5, 30_000.0]])
    return Network(nodes, ends, pipes, np.arange(nodes), lines, np.array([0]), pump)


def room_air() -> list[Row]:
    """Air of a fish room of 240 outlets against Newton's method with SciPy's sparse solver, on the same equations."""
    net = rack_air()
    arguments = (net.ends, net.pipes, net.at, net.lines, net.pump_at, net.pumps, np.zeros(net.nodes))

    def theirs() -> Any:
        pressure = np.full(net.nodes, 0.5 * float(net.pumps[:, 1].min()))
        for _ in range(80):
            left, slopes, out = balance(pressure, *arguments)
            if float(np.abs(left).max()) < BALANCED_M3S:
                break
            pressure = pressure + spsolve(csr_matrix(slopes), left)
        return out

    def ours() -> Any:
        return solve(net).outlets

    apart = float(np.max(np.abs(ours() / theirs() - 1)))
    found = compare(theirs, ours, 5)
    return [
        _row("air of 240 outlets on one loop against SciPy's sparse solver", found, f"agrees to {apart:.0e}", "told")
    ]


PARTS = (epanet_in_memory, many_filters, compiled_cycle, carbonate, room_air)
