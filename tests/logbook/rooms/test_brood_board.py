"""Broods of many tanks, those that press first."""

from reedmace.logbook.rooms.brood_board import board_verdict, brood_board
from reedmace.logbook.rooms.shared_resources import RoomTank
from tests.support.fitting import BY_ID, NOW, state_of

SPONGE = (300, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BY_ID["burreed-20"].model_dump()}]})


def step(what: str, days: float, species: str = "angelfish", **more: object):
    return (days, {"kind": "brood", "brood": "brood-1", "species_id": species, "what": what, **more})


def tank(n: int, *rows) -> RoomTank:
    return RoomTank(n, f"Rack {n}", state_of(SPONGE, *rows))


EGGS = tank(1, step("pair", 9), step("spawned", 1))
PAIR = tank(2, step("pair", 3))
CROWD = tank(3, step("pair", 60), step("spawned", 55), step("free-swimming", 50), step("counted", 30, count=900))


def test_the_soonest_stands_first_and_a_pair_that_waits_last() -> None:
    rows = brood_board([PAIR, EGGS, CROWD], NOW)
    assert [row.tank for row in rows] == ["Rack 3", "Rack 1", "Rack 2"]
    assert [row.next_step for row in rows] == ["counted", "hatched", "spawned"]


def test_the_verdict_says_what_presses_first() -> None:
    assert board_verdict([], NOW).startswith("No brood is written down")
    assert board_verdict(brood_board([PAIR], NOW), NOW) == "One brood. Rack 2 waits for angelfish to breed."
    assert "should hatch" in board_verdict(brood_board([EGGS], NOW), NOW)
    crowded = board_verdict(brood_board([CROWD, PAIR], NOW), NOW)
    assert crowded.startswith("2 broods. Rack 3 is too small for so many angelfish young")


def test_a_brood_that_is_over_is_on_no_board() -> None:
    assert brood_board([tank(4, step("pair", 9), step("ended", 1))], NOW) == []
