"""When each task was last done, from the logbook."""

from datetime import timedelta

import pytest

from reedmace.logbook.care.last_done import LONGEST, cleaned_at, days_since, last_done, looked_at
from tests.support.fitting import CHOSEN, NOW, state_of


@pytest.mark.parametrize(
    ("what", "key", "body"),
    [
        ("change", None, {"kind": "water-change", "share": 0.2}),
        ("test", None, {"kind": "reading", "ph": 7}),
        ("clean", "f1", {"kind": "media-work", "what": "rinsed"}),
        ("guard", None, {"kind": "care", "what": "guard"}),
        ("feed-young", None, {"kind": "care", "what": "feed-young"}),
        ("look", "f1", {"kind": "air-seen", "bubbles": "weak"}),
    ],
)
def test_the_newest_of_its_own_entries_counts(what, key: str | None, body: dict) -> None:
    assert last_done(state_of(CHOSEN, (9, body), (4, body)), what, key) == NOW - timedelta(days=4)


def test_what_was_done_to_another_filter_does_not_count() -> None:
    rinsed = {"kind": "media-work", "what": "rinsed", "filter_key": "f2"}
    assert cleaned_at(state_of(CHOSEN, (4, rinsed)), "f1") is None
    assert cleaned_at(state_of(CHOSEN, (4, rinsed)), "f2") == NOW - timedelta(days=4)
    # Squeezing a seed into a new tank's filter is no cleaning of it.
    assert cleaned_at(state_of(CHOSEN, (4, {"kind": "media-work", "what": "seed-added"})), "f1") is None


def test_a_cleaning_was_a_look_as_well() -> None:
    assert looked_at(state_of(CHOSEN, (4, {"kind": "media-work", "what": "rinsed"})), "f1") == NOW - timedelta(days=4)


def test_days_are_never_negative_and_end_where_they_do_not_matter() -> None:
    assert days_since(NOW, None) is None
    assert days_since(NOW, NOW + timedelta(days=2)) == 0
    assert days_since(NOW, NOW - timedelta(days=50_000)) == LONGEST
