"""The bench's peers answer the question ours answers: a ratio over another question would tell nothing."""

import math

import numpy as np

from reedmace.command.speed import boxes_of_count
from reedmace.command.strong_peers import (
    HOSE_M,
    ROUGHNESS_M,
    K,
    _resistances,
    carbonate,
    numba_flows,
    numpy_flows,
    rack_air,
)
from reedmace.core.air import network
from reedmace.core.flow.hydraulic_kernel import operating_flow
from reedmace.core.flow.materials import viscosity_m2_s
from reedmace.core.quantity.constants import G


def test_columns_in_numpy_and_a_compiled_loop_find_the_flows_ours_finds_outside_the_join_of_the_two_laws() -> None:
    nu = viscosity_m2_s(25)
    for feed in (0.0, 120.0):
        given = _resistances(boxes_of_count(120), nu, feed)
        all_most, all_head, all_c1, all_c2, bores = given
        columns = numpy_flows(all_most, all_head, all_c1, all_c2, bores, nu)
        loop = numba_flows(all_most, all_head, all_c1, all_c2, bores, nu)
        checked = 0
        for n, (most, head, c1, c2, bore) in enumerate(zip(*given, strict=True)):
            area = math.pi / 4 * bore**2
            hoses, square = np.array([[bore, HOSE_M, ROUGHNESS_M]]), c2 + K / (2 * G * area**2)
            q = operating_flow(np.array([0.0, most]), np.array([head, 0.0]), 1.0, 0.0, c1, square, hoses, nu)
            reynolds = q / area * bore / nu
            if 1900 < reynolds < 4100:
                # Ours joins the laminar law and the turbulent one by a curve; theirs leap from one to the other.
                continue
            checked += 1
            # Serghides and Swamee and Jain stand within half a per cent and three of Colebrook's friction.
            assert abs(columns[n] / q - 1) < 1e-3
            assert abs(loop[n] / q - 1) < 0.01
        assert checked > 80


def test_a_room_s_air_is_the_same_by_the_sparse_solver_and_by_the_dense_one(monkeypatch) -> None:
    net = rack_air(90)
    sparse = network.solve(net)
    monkeypatch.setattr(network, "SPARSE_FROM", 10_000)
    dense = network.solve(net)
    assert sparse.found
    assert dense.found
    assert np.allclose(sparse.outlets, dense.outlets, rtol=1e-9)
    assert np.ptp(sparse.outlets) > 0


def test_phreeqc_and_pyco2sys_read_the_ph_ours_reads() -> None:
    apart = [float(row[1].rsplit("within ", 1)[1].split()[0]) for row in carbonate()]
    assert len(apart) == 2
    assert max(apart) <= 0.05
