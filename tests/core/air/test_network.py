"""An air network against closed forms: laminar lines, books that balance, pumps on their line."""

import math

import numpy as np
import pytest

from reedmace.core.air.network import SPARSE_FROM, Network, drop_pa, line_flow, line_slope, solve

AIR_PA_S = 1.2 * 1.51e-5
"""Dynamic viscosity of air at 20 °C, Pa s, to half a percent (CRC Handbook)."""
BORE_M, LENGTH_M = 0.004, 2.0


def network(outlets_pa: list[float], *, pumps: tuple[tuple[float, float], ...] = ((1e-4, 20_000.0),)) -> Network:
    """A line of nodes, a pump at the first, an outlet at each."""
    n = len(outlets_pa)
    return Network(
        nodes=n,
        ends=np.array([[i, i + 1] for i in range(n - 1)], dtype=np.int64).reshape(-1, 2),
        pipes=np.tile([0.012, 1.0], (n - 1, 1)),
        at=np.arange(n, dtype=np.int64),
        lines=np.array([[pa, BORE_M, LENGTH_M, 2e11] for pa in outlets_pa]),
        pump_at=np.zeros(len(pumps), dtype=np.int64),
        pumps=np.array(pumps, dtype=float),
    )


def test_a_slow_line_loses_what_poiseuille_says() -> None:
    # 128 μ L Q / (π d⁴): at 5 mL/s the air in a 4 mm line is laminar.
    flow = 5e-6
    assert drop_pa(flow, BORE_M, LENGTH_M, 0.0) == pytest.approx(
        128 * AIR_PA_S * LENGTH_M * flow / (math.pi * BORE_M**4), rel=0.01
    )
    assert drop_pa(0.0, BORE_M, LENGTH_M, 1e12) == 0.0
    assert drop_pa(flow, BORE_M, LENGTH_M, 1e12) - drop_pa(flow, BORE_M, LENGTH_M, 0.0) == pytest.approx(25.0)


@pytest.mark.parametrize("pressure", [0.5, 30.0, 400.0, 9000.0])
@pytest.mark.parametrize("valve", [0.0, 3e11])
def test_the_flow_of_a_line_is_the_inverse_of_its_loss_and_turns_with_the_pressure(
    pressure: float, valve: float
) -> None:
    flow = line_flow(pressure, BORE_M, LENGTH_M, valve)
    assert drop_pa(flow, BORE_M, LENGTH_M, valve) == pytest.approx(pressure, rel=1e-9)
    assert line_flow(-pressure, BORE_M, LENGTH_M, valve) == -flow
    assert line_flow(0.0, BORE_M, LENGTH_M, valve) == 0.0


@pytest.mark.parametrize("flow", [2e-6, 2e-5, 1e-4])
def test_the_slope_is_that_of_the_flow_over_pressure(flow: float) -> None:
    pressure = drop_pa(flow, BORE_M, LENGTH_M, 1e11)
    step = 1e-4 * pressure
    by_hand = (
        line_flow(pressure + step, BORE_M, LENGTH_M, 1e11) - line_flow(pressure - step, BORE_M, LENGTH_M, 1e11)
    ) / (2 * step)
    assert line_slope(flow, BORE_M, LENGTH_M, 1e11) == pytest.approx(by_hand, rel=2e-3)
    assert line_slope(-flow, BORE_M, LENGTH_M, 1e11) == line_slope(flow, BORE_M, LENGTH_M, 1e11)


@pytest.mark.parametrize("count", [1, 3, 20, SPARSE_FROM, SPARSE_FROM + 5])
def test_what_the_pump_gives_comes_out_and_lies_on_its_line(count: int) -> None:
    net = network([2000.0 + 30 * i for i in range(count)])
    found = solve(net)
    assert found.found
    assert found.message == ""
    assert found.pumps == pytest.approx(1e-4 * (1 - found.pressure[[0]] / 20_000.0))
    assert found.outlets.sum() == pytest.approx(found.pumps.sum(), abs=count * 1e-10)
    # Each outlet gives what its line passes at the pressure over its depth.
    by_hand = [line_flow(max(p - row[0], 0.0), *row[1:]) for p, row in zip(found.pressure, net.lines, strict=True)]
    assert found.outlets == pytest.approx(by_hand, abs=1e-12)
    assert list(found.pressure) == sorted(found.pressure, reverse=True)


def test_an_outlet_deeper_than_the_pressure_gives_nothing_and_takes_nothing_back() -> None:
    found = solve(network([1500.0, 19_000.0, 1500.0], pumps=((2e-6, 20_000.0),)))
    assert found.found
    assert found.outlets[1] == 0.0
    assert found.outlets[[0, 2]].min() > 0
    assert found.outlets.sum() == pytest.approx(found.pumps.sum(), abs=1e-9)


def test_a_pump_pressed_over_its_own_pressure_gives_nothing() -> None:
    found = solve(network([8000.0], pumps=((1e-4, 30_000.0), (1e-4, 5000.0))))
    assert found.found
    assert found.pumps[1] == 0.0
    assert found.pumps[0] == pytest.approx(found.outlets[0], abs=1e-9)


def test_air_taken_out_at_a_node_is_missing_at_the_outlets() -> None:
    net = network([2000.0, 2000.0])
    taken = np.array([0.0, 3e-5])
    found = solve(net, taken)
    assert found.outlets.sum() + 3e-5 == pytest.approx(found.pumps.sum(), abs=1e-9)
    assert found.pressure[0] < solve(net).pressure[0]
