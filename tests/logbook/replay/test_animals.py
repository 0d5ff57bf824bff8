"""Animals in a tank and what they make."""

from datetime import timedelta

import pytest

from reedmace.logbook.replay.animals import (
    UNKNOWN_LOAD,
    animals_in,
    daily_load,
    grown_in,
    grown_load,
    load_in,
    loaded_at,
)
from tests.support.fitting import NOW, state_of

STOCK = (90, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 10}]})
RUNS = (80, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=300)).isoformat()})


def stocked(days: float, count: int, species: str = "guppy"):
    return (days, {"kind": "stocking", "species_id": species, "count": count})


def counts(state) -> dict[str, int]:
    return {a.species_id: a.count for a in animals_in(state)}


def test_planned_animals_are_in_only_where_they_came_with_the_tank() -> None:
    assert counts(state_of(STOCK)) == {}
    assert counts(state_of(STOCK, RUNS)) == {"guppy": 10}
    assert counts(state_of(STOCK, RUNS, stocked(5, -3), stocked(4, 2, "platy"))) == {"guppy": 7, "platy": 2}
    assert counts(state_of(STOCK, RUNS, stocked(5, -10))) == {}


def test_young_count_from_hatching_on() -> None:
    def step(what: str, days: float, **more: object):
        return (days, {"kind": "brood", "brood": "brood-1", "species_id": "angelfish", "what": what, **more})

    eggs = state_of(STOCK, RUNS, step("pair", 9), step("spawned", 3))
    hatched = state_of(
        STOCK, RUNS, step("pair", 9), step("spawned", 6), step("hatched", 3), step("counted", 1, count=40)
    )
    assert "angelfish" not in counts(eggs)
    assert counts(hatched)["angelfish"] == 40
    assert [a.species_id for a in grown_in(hatched)] == ["guppy"]


def test_load_is_of_those_in_else_of_those_planned_else_a_communitys() -> None:
    assert daily_load(state_of()) == load_in(state_of(), NOW) == UNKNOWN_LOAD
    planned = state_of(STOCK)
    assert load_in(planned, NOW) == daily_load(planned) != UNKNOWN_LOAD
    assert grown_load(planned) == 0
    few = state_of(STOCK, RUNS, stocked(5, -5))
    assert grown_load(few) == pytest.approx(daily_load(few) / 2)


def test_a_fifth_more_begins_a_watch_and_small_additions_count_together() -> None:
    assert loaded_at(state_of(STOCK, RUNS)) == NOW - timedelta(days=300)
    assert loaded_at(state_of(STOCK, RUNS, stocked(30, 1))) == NOW - timedelta(days=300)
    assert loaded_at(state_of(STOCK, RUNS, stocked(30, 3))) == NOW - timedelta(days=30)
    assert loaded_at(state_of(STOCK, RUNS, stocked(30, 1), stocked(20, 2))) == NOW - timedelta(days=20)


def test_after_many_left_their_return_begins_one_too() -> None:
    state = state_of(STOCK, RUNS, stocked(60, -8), stocked(20, 8))
    assert loaded_at(state) == NOW - timedelta(days=20)


def test_animals_nobody_described_always_begin_one() -> None:
    assert loaded_at(state_of(STOCK, RUNS, stocked(9, 1, "own-unknown"))) == NOW - timedelta(days=9)
    assert loaded_at(state_of(STOCK, RUNS, stocked(9, -1, "own-unknown"))) == NOW - timedelta(days=300)
