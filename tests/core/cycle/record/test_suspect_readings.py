"""What one figure of a test may stand for."""

import numpy as np
import pytest

from reedmace.core.cycle import CycleLog, LoggedReading
from reedmace.core.cycle.model.draw_weights import log_chances
from reedmace.core.cycle.record.log import LoggedBetween
from reedmace.core.cycle.record.suspect_readings import figures_of, read_interval
from tests.support.cycling import A

LOG = CycleLog.model_validate({"net_l": 100, "day_now": 3})


def reading(low: float, high: float, **more: object) -> LoggedReading:
    between = [LoggedBetween(what="ammonia", low_mg_n_l=low, high_mg_n_l=high)]
    return LoggedReading.model_validate({"day": 1, "ammonia_mg_n_l": (low + high) / 2, "between": between, **more})


def test_a_range_takes_the_place_of_the_step_and_what_was_not_read_has_none() -> None:
    assert read_interval(LOG, reading(0.3, 0.9), "ammonia")[:2] == (0.3, 0.9)
    assert read_interval(LOG, reading(0.3, 0.9), "nitrite") is None
    plain = LoggedReading(day=1, ammonia_mg_n_l=A)
    assert read_interval(LOG, plain, "ammonia")[:2] == pytest.approx((0.75 * A, 1.5 * A))


def test_a_range_that_begins_at_nothing_reaches_below_as_a_zero_does() -> None:
    low, high, _ = read_interval(LOG, reading(0, 0.4), "ammonia")
    assert low < 0
    assert high == 0.4


def test_a_narrower_range_tells_more_surely_which_course_was_right() -> None:
    def margin(either_side: float) -> float:
        """By how much a course that ends at the figure is likelier than one 0.4 mg N/L away from it."""
        read = reading(1.0 - either_side, 1.0 + either_side)
        figures = figures_of(LOG, [read], [])
        states = np.full((2, 1, 4), 0.0)
        states[:, 0, 0] = 1.0, 1.4
        right, wrong = log_chances(states, figures)
        return float(right - wrong)

    assert margin(0.05) > 1.5 * margin(0.6) > 0
