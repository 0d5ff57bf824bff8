"""Days of a quarantine, and what begins it anew."""

import pytest

from reedmace.core.computations import compute


def test_days_count_down_to_over() -> None:
    answer = compute("quarantine", {"asked_days": 28, "since_begun_days": 9.5})
    assert (answer.day, answer.left_days, answer.over) == (9.5, 18.5, False)
    assert answer.verdict == "Quarantine, day 10 of 28: nothing leaves it for 18 more days."
    assert compute("quarantine", {"asked_days": 28, "since_begun_days": 27.2}).verdict.endswith("for 1 more day.")
    assert compute("quarantine", {"asked_days": 28, "since_begun_days": 28}).over


@pytest.mark.parametrize(
    ("event", "why"), [("since_animals_days", "new animals came in"), ("since_trouble_days", "one was unwell or lost")]
)
def test_what_happened_since_begins_it_anew_and_what_was_before_does_not(event: str, why: str) -> None:
    again = compute("quarantine", {"since_begun_days": 20, event: 3})
    assert (again.day, again.begun_again) == (3, why)
    assert compute("quarantine", {"since_begun_days": 20, event: 40}).begun_again is None


def test_too_few_days_for_salt_water_are_said_first() -> None:
    salt = compute("quarantine", {"asked_days": 28, "salt_water": True})
    assert salt.cautions[0] == "In salt water 6 weeks are usual; 28 days may end too soon."
    assert len(compute("quarantine", {"asked_days": 42, "salt_water": True}).cautions) == 2
