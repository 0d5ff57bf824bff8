"""What the round of a room has for a tank this week."""

from datetime import timedelta
from typing import Any

from reedmace.logbook.care.round_days import round_week
from tests.support.fitting import CHOSEN, NOW, state_of

TODAY = NOW.date()


def on_round(days_ago: int, *tasks: dict[str, Any]):
    return (days_ago, {"kind": "on-round", "from_day": str(TODAY - timedelta(days=days_ago)), "tasks": list(tasks)})


def task(what: str, *in_days: int) -> dict[str, Any]:
    days = [str(TODAY + timedelta(days=n)) for n in in_days]
    return {"what": what, "due_at": NOW.isoformat(), "days": days}


def test_a_round_stands_for_its_week() -> None:
    assert round_week(state_of(CHOSEN), NOW) is None
    week = round_week(state_of(CHOSEN, on_round(2, task("change", 1))), NOW)
    assert week is not None
    assert week.until_days == 5
    assert [(v.what, v.walk_days) for v in week.visits] == [("change", [1.0])]
    assert round_week(state_of(CHOSEN, on_round(7, task("change", 1))), NOW) is None


def test_what_was_done_since_is_no_visit_and_what_comes_again_keeps_its_later_walks() -> None:
    changed = (1, {"kind": "water-change", "share": 0.25})
    done = round_week(state_of(CHOSEN, on_round(2, task("change", 1)), changed), NOW)
    assert done is not None
    assert done.visits == []
    daily = round_week(state_of(CHOSEN, on_round(2, task("change", -2, -1, 0, 2)), changed), NOW)
    assert daily is not None
    assert [v.walk_days for v in daily.visits] == [[0.0, 2.0]]


def test_the_newest_counts_and_given_back_it_has_none() -> None:
    week = round_week(state_of(CHOSEN, on_round(2, task("change", 1)), on_round(1)), NOW)
    assert week is not None
    assert week.visits == []
