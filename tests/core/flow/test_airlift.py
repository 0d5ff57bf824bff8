"""Water an air lift moves."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.flow.airlift import uplift_cut_cm

LIFT = {"air_l_min": 2, "tube_bore_mm": 20, "submerged_cm": 30}


def flow(**changes: float) -> float:
    return compute("airlift-flow", LIFT | changes).delivered_lph


def test_more_air_depth_and_foam_move_more_and_a_higher_outlet_less() -> None:
    assert flow(air_l_min=3) > flow() > flow(air_l_min=1) > 0
    assert flow(submerged_cm=40) > flow()
    assert flow(foam_face_cm2=900) > flow(foam_face_cm2=100)
    assert flow(outlet_above_water_cm=3) < flow()


def test_without_air_or_with_the_outlet_far_too_high_nothing_moves() -> None:
    assert flow(air_l_min=0) == 0
    assert flow(outlet_above_water_cm=100) == 0


def test_dirt_and_evaporation_take_from_it() -> None:
    answer = compute("airlift-flow", LIFT | {"feed_g_day": 3, "days_since_cleaning": 60})
    assert answer.dirty_lph < answer.delivered_lph
    assert answer.evaporated_lph < answer.delivered_lph
    clean = compute("airlift-flow", LIFT | {"feed_g_day": 0})
    assert clean.dirty_lph == pytest.approx(clean.delivered_lph)


def test_an_uplift_is_cut_under_the_lowest_level() -> None:
    assert [uplift_cut_cm(30, 2), uplift_cut_cm(30, 0), uplift_cut_cm(2, 2)] == [27, 29, 0]
