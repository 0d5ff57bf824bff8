"""What is said of a plan that was saved elsewhere."""

from datetime import UTC, datetime

from reedmace.logbook.replay.entries import NewEntry
from reedmace.store.tank_queries import EntryFilter, PlanMoved


def test_a_moved_plan_keeps_both_sides() -> None:
    mine = NewEntry.model_validate(
        {"key": "plan-key-1", "at": datetime.now(UTC), "body": {"kind": "filter-plan", "filters": []}}
    )
    moved = PlanMoved(None, mine, {"f1": "Willow"})
    assert (moved.current, moved.mine, moved.filters) == (None, mine, {"f1": "Willow"})
    assert "saved elsewhere" in str(moved)


def test_an_empty_filter_matches_everything() -> None:
    assert EntryFilter() == (None, None, None)
