"""When the calendar asks for a filter to be opened, by its own flow tests."""

import math

import pytest

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.care.due import due
from reedmace.logbook.care.upkeep_log import care, care_question, flow_faded
from reedmace.logbook.stages import keep_view
from tests.support.lives import NOW, Row, lived, tank

CANISTER = next(f for f in SAMPLE_BOXES if f.kind == "canister")
HANGING: Row = (300, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": CANISTER.model_dump()}]})


def timed(days_ago: float, lph: float) -> Row:
    """A jug of two litres filled in so many seconds that it makes this flow."""
    return days_ago, {"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [7200 / lph, 7200 / lph]}


def half_cleaned(days_ago: float) -> Row:
    return days_ago, {"kind": "media-work", "what": "rinsed", "share": 0.5, "filter_key": "f1"}


def cleaning_in_days(*rows: Row) -> float:
    plan = care(lived(*tank(300), HANGING, *rows), NOW)
    assert plan is not None
    return next((task.in_days for task in plan.tasks if task.what == "clean"), math.inf)


def test_one_test_after_half_a_cleaning_that_left_it_clogged_asks_for_the_other_half() -> None:
    left = (timed(290, 500), timed(60, 300), half_cleaned(50), timed(20, 330))
    assert cleaning_in_days(*left) <= 0
    assert cleaning_in_days(*left[:3], timed(20, 480)) > 0


def test_a_clogged_filter_is_late_from_the_day_it_was_timed() -> None:
    # Lateness decides whether it may still wait for poison to pass, so that it has to grow.
    state = lived(*tank(300), HANGING, timed(290, 500), timed(60, 300), half_cleaned(50), timed(20, 330))
    question = care_question(state, NOW)
    assert question is not None
    assert question.filters[0].fades_in_days == pytest.approx(-20, abs=0.1)


def test_each_half_cleaning_is_measured_by_what_the_filter_moved_when_clean() -> None:
    # Each cleaning brings back less than the one before: to the last of them alone it would seem well.
    rows = (timed(290, 500), timed(200, 340), half_cleaned(190), timed(185, 430), timed(120, 340), half_cleaned(110),
            timed(100, 390), timed(20, 345))  # fmt: skip
    state = lived(*tank(300), HANGING, *rows)
    fade, _ = flow_faded(state, "f1")
    assert fade is not None
    assert (round(fade.clean_lph), round(fade.limit_lph)) == (500, 350)
    assert any(row.key.startswith("clean") and row.at <= NOW for row in due(state, NOW))
    assert "has fallen to 69% of its clean flow" in keep_view(state, NOW).verdict
