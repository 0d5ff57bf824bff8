"""An air pump by a jug on one line: closed forms, its range, and the doubt about pumps known by watts alone."""

import pytest

from reedmace.core.air.network import line_flow
from reedmace.core.air.plan import L_MIN_PER_W, MORE_THAN_ESTIMATED
from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer


def timed(**more: object):
    return compute("airline-bucket", {"jug_ml": 500, "times_s": [20, 20, 20], **more})


def test_half_a_litre_in_twenty_seconds_is_a_litre_and_a_half_a_minute() -> None:
    answer = timed(lines_count=4)
    assert answer.line_l_min == pytest.approx(1.5)
    assert answer.all_l_min == pytest.approx(6)


def test_the_free_flow_is_the_straight_curve_back_from_the_working_point() -> None:
    answer = timed(kpa=20, depth_cm=30)
    assert answer.all_l_min == pytest.approx(answer.free_l_min * (1 - answer.at_kpa / 20))
    # 30 cm of water, a check valve, and 1.5 m of 4 mm line at 1.5 L/min by the room's own network.
    line_pa = (answer.at_kpa - 1.0 - 998.2 * 9.80665 * 0.3 / 1000) * 1000
    assert line_flow(line_pa, 0.004, 1.5, 0.0) * 60_000 == pytest.approx(1.5, rel=0.02)


def test_a_simulated_pump_is_found_again_within_the_range_told() -> None:
    # A pump of 8 L/min that gives up at 24 kPa, three lines 25 cm deep; each fill is timed three per cent off.
    at = timed(depth_cm=25).at_kpa
    given = 8 * (1 - at / 24) / 3
    times = [500 * 0.06 / given * off for off in (0.97, 1.0, 1.03)]
    answer = timed(times_s=times, depth_cm=25, lines_count=3)
    assert answer.low_l_min <= 8 <= answer.high_l_min
    assert answer.high_l_min / answer.low_l_min < 1.6


def test_one_fill_is_told_less_surely_than_three_alike() -> None:
    one, three = timed(times_s=[20]), timed()
    assert one.high_l_min - one.low_l_min > three.high_l_min - three.low_l_min


def test_deeper_than_such_a_pump_can_blow_is_said() -> None:
    with pytest.raises(CannotAnswer, match="gives up at 4 as its box says"):
        timed(kpa=4, depth_cm=60)
    with pytest.raises(CannotAnswer, match="as such pumps do"):
        timed(depth_cm=200)


def outlets(count: int) -> list[dict]:
    return [
        {"key": f"o{n}", "name": f"Tank {n}", "node": "pump", "depth_cm": 30, "wanted_l_min": 0.8} for n in range(count)
    ]


def room(pump: dict, count: int = 12):
    return compute("room-air", {"pumps": [{"key": "p", "name": "Old pump", **pump}], "outlets": outlets(count)})


def test_a_pump_known_by_watts_alone_is_not_called_too_small_where_it_may_do() -> None:
    doubt = room({"watts": 10})
    assert not doubt.told
    assert "cannot be told from its watts or outlets alone" in doubt.verdict
    assert "time how long" in doubt.remedies[0]
    # With the same air measured, it is told.
    sure = room({"l_min": 10 * L_MIN_PER_W})
    assert sure.told
    assert sure.verdict.startswith("Too little air")
    assert not sure.carries
    best = room({"l_min": 10 * L_MIN_PER_W * MORE_THAN_ESTIMATED})
    assert best.carries


def test_a_pump_far_too_small_is_told_by_watts_alone() -> None:
    answer = room({"watts": 3})
    assert answer.told
    assert answer.verdict.startswith("Too little air")
