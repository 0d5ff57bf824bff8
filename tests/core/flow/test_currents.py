"""Currents: invariants, an independent integration of the calm share, and consistent advice."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.flow.currents import CurrentPreference, CurrentsQuestion, Outlet, currents
from reedmace.core.flow.jets import (
    DRAG,
    PLANE,
    PLANE_HALF,
    ROUND,
    ROUND_HALF,
    Basin,
    Opening,
    calm_share,
    circulation_m_s,
    jet_m3,
    largest_share,
)

TANK = Basin(0.9, 0.4, 0.4)
NOZZLE = Opening(600 / 3.6e6, 0.014)
BAR = Opening(600 / 3.6e6, 0.004, 24, 0.7)


def test_a_round_jet_keeps_its_momentum_along_the_way() -> None:
    # Albertson's 6.2 and Pope's half-width 0.094 belong together: momentum flux far off is that in the opening.
    x = 1.0
    middle, half = ROUND / x, ROUND_HALF * x
    far = middle**2 * math.pi * half**2 / (2 * math.log(2))
    assert far == pytest.approx(math.pi / 4, rel=0.05)


def test_a_plane_jet_keeps_its_momentum_along_the_way() -> None:
    # U² integrated across a bell of this half-width, per metre of slot; the two books' constants meet within a fourth.
    x = 1.0
    far = PLANE**2 / x * PLANE_HALF * x * math.sqrt(math.pi / (2 * math.log(2)))
    assert far == pytest.approx(1.0, rel=0.25)


@pytest.mark.parametrize("over", [0.03, 0.06, 0.15], ids="over {} m/s".format)
def test_a_round_jets_fast_water_is_what_a_grid_counts(over: float) -> None:
    x = (np.arange(4000) + 0.5) * TANK.length_m / 4000
    r = (np.arange(3000) + 0.5) * 0.3 / 3000
    middle = ROUND * NOZZLE.bore_m * NOZZLE.speed_m_s / x
    speed = middle[:, None] * np.exp(-math.log(2) * (r[None, :] / (ROUND_HALF * x[:, None])) ** 2)
    ring = 2 * math.pi * r * (r[1] - r[0])
    counted = float(((speed > over) * ring).sum() * (x[1] - x[0]))
    assert jet_m3(NOZZLE, over, TANK) == pytest.approx(counted, rel=0.01)


@pytest.mark.parametrize("over", [0.04, 0.1, 0.2], ids="over {} m/s".format)
def test_a_bars_fast_water_is_what_a_grid_counts(over: float) -> None:
    slot = math.pi / 4 * BAR.bore_m**2 * BAR.holes / BAR.row_m
    x = (np.arange(6000) + 0.5) * TANK.width_m / 6000
    y = (np.arange(3000) + 0.5) * 0.2 / 3000
    middle = BAR.speed_m_s * PLANE * np.sqrt(slot / x)
    speed = middle[:, None] * np.exp(-math.log(2) * (y[None, :] / (PLANE_HALF * x[:, None])) ** 2)
    counted = float((speed > over).sum() * (x[1] - x[0]) * (y[1] - y[0])) * 2 * BAR.row_m
    assert jet_m3(BAR, over, TANK) == pytest.approx(counted, rel=0.015)


def test_the_tank_turns_as_its_impulse_and_its_walls_balance() -> None:
    turning = circulation_m_s([NOZZLE, BAR], TANK)
    pushed = sum(o.flow_m3s * (o.speed_m_s - turning) for o in (NOZZLE, BAR))
    assert pushed == pytest.approx(DRAG * TANK.wet_m2 * turning**2 / 2, rel=1e-9)
    assert circulation_m_s([], TANK) == 0.0


@given(st.floats(20, 5000), st.floats(4, 40), st.integers(1, 40), st.floats(0.02, 0.6))
@settings(max_examples=150)
def test_more_flow_is_never_calmer_and_the_limit_leaves_half(
    lph: float, bore: float, holes: int, comfort: float
) -> None:
    one = Opening(lph / 3.6e6, bore / 1000, holes, 0.7 if holes > 1 else 0.0)
    shares = [calm_share([one._replace(flow_m3s=one.flow_m3s * k)], TANK, comfort) for k in (0.5, 1, 2)]
    assert all(0 <= share <= 1 for share in shares)
    assert shares[0] >= shares[1] - 1e-9
    assert shares[1] >= shares[2] - 1e-9
    most = largest_share([one], TANK, comfort)
    if 0 < most < 50:
        there = calm_share([one._replace(flow_m3s=one.flow_m3s * most)], TANK, comfort)
        assert there == pytest.approx(0.5, abs=0.02)


def asked(lph: float, length_cm: float, **more: Any):
    question = {"length_cm": 90, "width_cm": 40, "depth_cm": 40, "outlets": [{"flow_lph": lph}]}
    animals = [{"name": "Longfin", "length_cm": length_cm, "current": "gentle"}]
    return compute("currents", {**question, "animals": animals, **more})


def test_a_large_fish_rests_where_a_small_one_of_the_same_liking_does_not() -> None:
    assert asked(800, 2.5).troubled == ["Longfin"]
    assert asked(800, 15).troubled == []


def test_what_is_advised_suits_when_it_is_done() -> None:
    answer = asked(800, 4)
    assert not answer.conflict
    assert asked(answer.limit_lph * 0.999, 4).troubled == []
    assert asked(answer.limit_lph * 1.05, 4).troubled == ["Longfin"]
    spread = [{"flow_lph": 800, "bore_mm": 4, "holes_count": 25}]
    assert any("spray bar" in r for r in answer.remedies)
    assert asked(800, 4, outlets=spread).limit_lph > answer.limit_lph


def test_a_flow_asked_over_the_limit_is_called_a_conflict_and_never_throttled_under() -> None:
    answer = asked(900, 3, asked_lph=800)
    assert answer.conflict
    assert answer.limit_lph < 800
    assert not any("Throttle" in r for r in answer.remedies)
    assert answer.remedies


def test_still_water_is_calm_for_all() -> None:
    answer = asked(800, 4, outlets=[])
    assert answer.calm[0].share == 1
    assert answer.settles_share == 1
    assert answer.limit_lph is None


def test_the_jet_that_is_drawn_ends_where_the_delicate_can_bear_it() -> None:
    # U/U0 = 6.2 D/x (Albertson et al. 1950): a 14 mm nozzle with 600 L/h, felt by a 4 cm fish of slow water at 4 cm/s.
    asked = {
        "length_cm": 400,
        "width_cm": 60,
        "depth_cm": 60,
        "outlets": [{"flow_lph": 600, "bore_mm": 14}],
        "animals": [{"name": "Betta", "length_cm": 4, "current": "gentle"}],
    }
    found = compute("currents", asked)
    out_cm_s = 600e3 / 3600 / (math.pi / 4 * 1.4**2)
    (jet,) = found.jets
    assert jet.reach_cm == pytest.approx(min(6.2 * 1.4 * out_cm_s / 4, 400), rel=1e-6)
    assert jet.half_width_cm == pytest.approx(0.094 * jet.reach_cm)
    quieter = compute("currents", {**asked, "outlets": [{"flow_lph": 60, "bore_mm": 14}]})
    assert quieter.jets[0].reach_cm < jet.reach_cm
    assert quieter.rest_share >= found.rest_share
    glass = compute(
        "currents", {**asked, "length_cm": 900, "outlets": [{"flow_lph": 600, "bore_mm": 14, "against_glass": True}]}
    )
    open_water = compute("currents", {**asked, "length_cm": 900})
    assert glass.jets[0].reach_cm < open_water.jets[0].reach_cm
    still = compute("currents", {**asked, "outlets": []})
    assert (still.jets, still.rest_share) == ([], 1.0)


def test_an_outlet_put_in_the_middle_blows_half_as_far_and_one_turned_to_the_glass_leaves_more_calm() -> None:
    fish = [CurrentPreference(name="Ricefish", length_cm=3.5, current="gentle")]

    def asked(**more: object):
        outlet = Outlet(flow_lph=700, bore_mm=16, **more)
        return currents(CurrentsQuestion(length_cm=120, width_cm=50, depth_cm=45, outlets=[outlet], animals=fish))

    whole, half, glass = asked(), asked(way_cm=60), asked(against_glass=True)
    assert half.jets[0].reach_cm == pytest.approx(60)
    assert half.jets[0].reach_cm < whole.jets[0].reach_cm
    assert half.calm[0].share > whole.calm[0].share
    assert glass.turning_cm_s < whole.turning_cm_s
    assert glass.calm[0].share > whole.calm[0].share


@pytest.mark.parametrize("way", [10.0, 40.0, 90.0, 200.0])
def test_a_jet_that_meets_the_glass_sooner_is_never_less_calm(way: float) -> None:
    basin = Basin(1.2, 0.5, 0.45)
    free = Opening(700 / 3.6e6, 0.016)
    assert jet_m3(free._replace(way_m=way / 100), 0.03, basin) <= jet_m3(free._replace(way_m=2.0), 0.03, basin) + 1e-12
