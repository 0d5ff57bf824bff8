"""One air pump feeding one or more outlets: the pressure it must give and the air it has left."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer


def air(**more):
    one = {"count": 4, "depth_cm": 35, "air_l_min": 0.8, **more.pop("outlet", {})}
    return compute("air-supply", {"pump_l_min": 10, "pump_kpa": 20, "outlets": [one], **more})


def test_depth_presses_back_with_its_own_weight() -> None:
    deeper = air(outlet={"depth_cm": 45})
    assert deeper.needed_kpa - air().needed_kpa == pytest.approx(998 * 9.80665 * 0.10 / 1000)
    with pytest.raises(CannotAnswer, match="gives up"):
        air(outlet={"depth_cm": 250})


def test_a_pump_carries_as_many_more_as_it_says_and_not_one_beyond() -> None:
    more = air().more_count
    assert more > 0
    assert air(outlet={"count": 4 + more}).carries
    assert not air(outlet={"count": 5 + more}).carries


def test_a_ring_main_costs_less_than_a_dead_end() -> None:
    long = {"main_length_m": 20, "main_bore_mm": 4}
    assert air(**long, ring=True).needed_kpa < air(**long).needed_kpa


def test_a_small_air_pump_can_carry_a_room_of_sponges() -> None:
    # Common practice: one small air pump carries dozens of sponges.
    answer = compute(
        "air-supply",
        {
            "pump_l_min": 30,
            "pump_kpa": 25,
            "outlets": [{"count": 24, "depth_cm": 30, "air_l_min": 0.5}],
            "main_bore_mm": 19,
            "main_length_m": 8,
        },
    )
    assert answer.carries
