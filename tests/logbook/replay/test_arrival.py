"""How a tank stood when it was added."""

from datetime import timedelta

import pytest

from reedmace.logbook.replay.arrival import came_at, came_with_animals, is_filled, ran_already, since
from tests.support.fitting import BY_ID, CHOSEN, NOW, state_of


def said(stands: str, days: float = 5, began: float | None = 200):
    body: dict = {"kind": "situation", "stands": stands}
    return (days, body if began is None else body | {"since": (NOW - timedelta(days=began)).isoformat()})


@pytest.mark.parametrize(
    ("stands", "runs", "lives"),
    [("empty", False, False), ("cycling", True, False), ("animals-in", True, True), ("running", True, True)],
)
def test_what_was_said_tells_since_when_it_runs_and_who_was_in(stands: str, runs: bool, lives: bool) -> None:
    state = state_of(said(stands))
    assert (since(state) is not None) == runs
    assert (came_with_animals(state) is not None) == lives
    if runs:
        assert since(state) == NOW - timedelta(days=200)


def test_it_never_began_after_it_was_told() -> None:
    assert since(state_of(said("running", 5, 1))) == NOW - timedelta(days=5)
    assert since(state_of(said("running", 5, None))) == NOW - timedelta(days=5)


def test_animals_come_with_the_tank_by_stocking_and_by_hatching() -> None:
    guppies = {"kind": "stocking", "species_id": "guppy", "count": 4}
    state = state_of(said("running"), (3, guppies), (2, {**guppies, "count": -1}))
    assert came_at(state) == [NOW - timedelta(days=200), NOW - timedelta(days=3)]


def test_a_tank_that_is_tested_or_changed_is_full_and_a_planned_one_is_not() -> None:
    assert not is_filled(state_of(CHOSEN))
    for body in ({"kind": "reading", "ph": 7}, {"kind": "water-change", "share": 0.2}):
        assert is_filled(state_of((1, body)))


def test_only_the_filters_that_were_there_ran_already() -> None:
    one = BY_ID["sweetflag-800"].model_dump()
    first = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": one}]}
    later = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": one}, {"key": "f2", "filter": one}]}
    state = state_of(said("running"), (4.9, first), (4.8, later))
    assert (ran_already(state, "f1"), ran_already(state, "f2")) == (True, False)
    assert not ran_already(state_of(said("empty"), (4.9, first)), "f1")
    assert not ran_already(state_of(said("running"), (1, first)), "f1")
