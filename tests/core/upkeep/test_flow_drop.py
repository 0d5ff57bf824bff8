"""Falls of the flow that dirt does not explain, and what counts as clean after half a cleaning."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.upkeep.flow_drop import clean_flow, not_brought_back


def test_half_a_cleaning_is_measured_by_the_most_it_moved() -> None:
    flows = [(0.0, 700.0), (60.0, 480.0), (71.0, 540.0), (130.0, 400.0)]
    assert clean_flow(flows, [70.0]) == 700
    assert "77% of the most it moved" in (not_brought_back(flows, 70.0) or "")
    assert clean_flow(flows, []) is None
    assert clean_flow([], [70.0]) is None


def test_what_it_moved_over_400_days_ago_counts_no_longer() -> None:
    assert clean_flow([(0.0, 700.0), (401.0, 500.0), (420.0, 520.0)], [410.0]) == 520


def test_two_cleanings_that_bring_no_more_back_leave_another_cause() -> None:
    flows = [(0.0, 700.0), (60.0, 480.0), (71.0, 520.0), (91.0, 530.0)]
    assert clean_flow(flows, [70.0, 90.0]) == 530
    # Nor does the older flow come back at the next cleaning, a season on.
    assert clean_flow([*flows, (171.0, 400.0), (181.0, 525.0)], [70.0, 90.0, 180.0]) == 530
    # The second half brought it back, or came only a season later.
    assert clean_flow([*flows[:3], (91.0, 650.0)], [70.0, 90.0]) == 700
    assert clean_flow([*flows[:3], (201.0, 530.0)], [70.0, 200.0]) == 700


def test_a_flow_that_half_a_cleaning_left_under_the_limit_is_due_at_once() -> None:
    tests = [{"day": 1, "flow_lph": 470}, {"day": 15, "flow_lph": 440}]
    alone = compute("flow-fade", {"tests": tests})
    assert alone.service_day > 15
    known = compute("flow-fade", {"tests": tests, "most_lph": 700})
    assert (known.service_day, known.clean_lph, known.limit_lph) == (0, 700, pytest.approx(490))
    assert "the last cleaning left it under 490 L/h" in known.verdict


def test_dirt_left_behind_brings_the_next_cleaning_nearer() -> None:
    tests = [{"day": 0, "flow_lph": 600}, {"day": 30, "flow_lph": 570}, {"day": 60, "flow_lph": 540}]
    days = [compute("flow-fade", {"tests": tests, "most_lph": most}).service_day for most in (600, 650, 700)]
    assert days == sorted(days, reverse=True)
    assert days[0] > days[2] > 60
