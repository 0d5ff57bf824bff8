"""Jets and the circulation they drive."""

import math

import numpy as np
import pytest

from reedmace.core.flow.jets import (
    CALM_ASKED,
    DRAG,
    GLASS_SHARE,
    MOST_SHARE,
    Basin,
    Opening,
    calm_share,
    circulation_m_s,
    jet_cm,
    jet_m3,
    largest_share,
    rest_share,
)

BASIN = Basin(0.9, 0.4, 0.4)
NOZZLE = Opening(600 / 3.6e6, 0.014)
BAR = Opening(600 / 3.6e6, 0.004, holes=12, row_m=0.35)


@pytest.mark.parametrize("openings", [[NOZZLE], [BAR], [NOZZLE, BAR], [NOZZLE._replace(worth=GLASS_SHARE)]])
def test_circulation_balances_impulse_with_the_drag_of_the_walls(openings: list[Opening]) -> None:
    v = circulation_m_s(openings, BASIN)
    impulse = sum(o.flow_m3s * (o.speed_m_s * o.worth - v) for o in openings)
    assert impulse == pytest.approx(DRAG * BASIN.wet_m2 * v**2 / 2, rel=1e-9)


def test_nothing_turns_where_nothing_flows() -> None:
    assert circulation_m_s([], BASIN) == 0
    assert calm_share([], BASIN, 0.05) == 1


def test_a_round_jet_holds_the_water_that_its_profile_says() -> None:
    # Summed in slices: speed along the middle 6.2 D/x, across it a bell that is half at 0.094 x.
    over, out = 0.1, NOZZLE.speed_m_s
    x = np.linspace(1e-4, 0.9, 200_000)
    middle = np.minimum(6.2 * NOZZLE.bore_m / x, 1e9) * out
    inside = middle > over
    r2 = (0.094 * x[inside]) ** 2 * np.log(middle[inside] / over) / math.log(2)
    expected = np.pi * r2.sum() * (x[1] - x[0])
    assert jet_m3(NOZZLE, over, BASIN) == pytest.approx(expected, rel=1e-3)


def test_a_jet_reaches_to_where_it_is_as_slow_as_asked_or_to_the_glass() -> None:
    over = 0.3
    length, half = jet_cm(NOZZLE, over, BASIN)
    assert length == pytest.approx(100 * 6.2 * 0.014 * NOZZLE.speed_m_s / over)
    assert half == pytest.approx(0.094 * length)
    assert jet_cm(NOZZLE, 0.01, BASIN)[0] == pytest.approx(90)
    assert jet_cm(BAR, 0.01, BASIN)[0] == pytest.approx(40)
    assert jet_cm(NOZZLE, 9.0, BASIN) == (0, 0)
    assert jet_m3(NOZZLE, 9.0, BASIN) == 0


def test_rest_lies_evenly_up_to_twice_the_mean() -> None:
    assert [rest_share(0.1, c) for c in (0.05, 0.2, 0.5)] == pytest.approx([0.25, 1, 1])
    assert rest_share(0.0, 0.05) == 1


@pytest.mark.parametrize("opening", [NOZZLE, BAR])
@pytest.mark.parametrize("comfort", [0.03, 0.08, 0.2])
def test_the_largest_flow_leaves_half_the_water_calm_and_a_little_more_does_not(
    opening: Opening, comfort: float
) -> None:
    most = largest_share([opening], BASIN, comfort)
    at, beyond = (
        calm_share([opening._replace(flow_m3s=opening.flow_m3s * most * k)], BASIN, comfort) for k in (1.0, 1.01)
    )
    assert at >= CALM_ASKED
    assert beyond < CALM_ASKED or most == MOST_SHARE
