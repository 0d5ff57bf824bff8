"""Shares of the film, and stops of filters."""

from datetime import timedelta

import pytest

from reedmace.logbook.replay.film_shares import film_shares, stretches
from tests.support.fitting import BY_ID, NOW, state_of

TWO = (
    90,
    {
        "kind": "filter-plan",
        "filters": [{"key": key, "filter": BY_ID["sweetflag-800"].model_dump()} for key in ("f1", "f2")],
    },
)


def stop(days: float, running: bool = False, key: str | None = None):
    return (days, {"kind": "outage", "running": running, "filter_key": key})


def test_filters_alike_that_hang_as_long_hold_as_much_and_all_of_it() -> None:
    shares = film_shares(state_of(TWO), NOW)
    assert shares == pytest.approx({"f1": 0.5, "f2": 0.5})


def test_a_stop_of_all_is_one_of_each_and_lasts_until_it_runs() -> None:
    found = stretches(state_of(TWO, stop(3), stop(2, True, "f1")), NOW)
    assert [(at, until, key) for at, until, key in found] == [
        (NOW - timedelta(days=3), NOW - timedelta(days=2), "f1"),
        (NOW - timedelta(days=3), None, "f2"),
    ]


def test_an_end_that_lies_ahead_has_not_come() -> None:
    assert stretches(state_of(TWO, stop(1, key="f1"), stop(-1, True, "f1")), NOW)[0][1] is None
    assert stretches(state_of(TWO, stop(-1, key="f1")), NOW) == []


def test_a_tank_that_lists_no_filter_has_one_all_the_same() -> None:
    assert [key for _, _, key in stretches(state_of(stop(1)), NOW)] == ["*"]
