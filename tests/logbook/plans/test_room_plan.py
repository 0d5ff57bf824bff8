"""The plan of a room, and where more tanks find a place on it."""

from itertools import pairwise

import pytest

from reedmace.logbook.plans.room_plan import LONGEST_CM, RoomPlan, Spot, for_copies, placed, shelf_of

SHELVES = [{"y_cm": y, "x_cm": 0, "length_cm": 200} for y in (10, 75)]


def room(**changes) -> RoomPlan:
    return RoomPlan.model_validate({"shelves": SHELVES, "width_cm": 200, **changes})


def test_tanks_stand_side_by_side_from_the_left_and_then_on_the_next_shelf() -> None:
    found = placed([1, 2, 3, 4], dict.fromkeys(range(1, 5), 60.0), room())
    assert [(s.shelf, s.x_cm) for s in found.spots] == [(0, 0), (0, 64), (0, 128), (1, 0)]
    assert found.shelves == room().shelves


def test_a_tank_that_stands_there_stays() -> None:
    stands = room(spots=[{"tank_id": 7, "x_cm": 30, "shelf": 1}])
    found = placed([7, 8], {7: 60.0, 8: 60.0}, stands)
    assert found.spots[0] == stands.spots[0]
    assert len(found.spots) == 2


def test_a_bare_wall_gets_shelves_up_to_its_height_and_then_goes_on_to_the_right() -> None:
    sizes = {n: 60.0 for n in range(1, 31)}
    found = placed(list(sizes), sizes, RoomPlan(width_cm=200, height_cm=220))
    assert len(found.spots) == 30
    assert max(s.y_cm for s in found.shelves) < 220
    assert found.width_cm > 200
    for n in range(len(found.shelves)):
        row = sorted(s.x_cm for s in found.spots if s.shelf == n)
        assert all(b - a >= 60 for a, b in pairwise(row))
        assert row[-1] + 60 <= found.shelves[n].x_cm + found.shelves[n].length_cm


def test_what_finds_no_place_on_the_longest_wall_is_left_out() -> None:
    sizes = {n: 500.0 for n in range(1, 200)}
    found = placed(list(sizes), sizes, RoomPlan(width_cm=500, height_cm=220))
    assert 0 < len(found.spots) < 199
    assert found.width_cm <= LONGEST_CM


def test_a_tank_whose_shelf_is_gone_stands_on_the_floor() -> None:
    assert shelf_of(room(), Spot(tank_id=1, shelf=1)).y_cm == 75
    assert shelf_of(room(), Spot(tank_id=1, shelf=9)).y_cm == 0


@pytest.mark.parametrize("odd", ["²-f1", "x", "1", ""])
def test_copies_take_the_valves_of_their_originals_and_no_round(odd: str) -> None:
    sump = {"x_cm": 0, "y_cm": 0, "sump": {"length_cm": 60, "width_cm": 30, "height_cm": 30, "level_cm": 20}}
    taken = {"taken_at": "2026-11-23T08:00:00Z", "from_day": "2026-11-23", "tasks": []}
    plan = room(
        spots=[{"tank_id": 1}, {"tank_id": 2}], open_shares={"1-f1": 0.5, "2-f1": 0.7, odd: 0.3}, taken=taken,
        sump={**sump, "tank_ids": [1, 2], "tap_shares": {"1": 0.4, "²": 0.2}},
    )  # fmt: skip
    found = for_copies(plan, {1: 11})
    assert [s.tank_id for s in found.spots] == [11]
    assert found.open_shares == ({"11-f1": 0.5, "11-": 0.3} if odd == "1" else {"11-f1": 0.5})
    assert (found.sump.tank_ids, found.sump.tap_shares) == ([11], {"11": 0.4})
    assert found.taken is None
