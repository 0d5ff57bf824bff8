"""Draws conditioned on a log, and their courses."""

import numpy as np
import pytest

from reedmace.core.cycle.model.draw_weights import percentiles
from reedmace.core.cycle.model.ensemble import condition, condition_at, fewer_draws, project, share_passing_within
from reedmace.core.cycle.model.inputs import Scenario
from reedmace.core.cycle.record.log import CycleLog
from tests.support.cycle_logs import DOSED, TWO_PPM, reading

DRAWS = 200


def log_of(**changes) -> CycleLog:
    return CycleLog.model_validate({**TWO_PPM, **changes})


READ = log_of(day_now=16, readings=[reading(4, 2, 0), reading(10, 1, 1), reading(15, 0.25, 3)])


def test_the_same_log_has_the_same_draws_in_whatever_order_it_was_typed() -> None:
    turned = READ.model_copy(update={"readings": READ.readings[::-1]})
    one, two = condition(READ, DRAWS), condition(turned, DRAWS)
    assert np.array_equal(one.rows, two.rows)
    assert one.weights.sum() == pytest.approx(1)
    # An hour later, with nothing new, they are the same too.
    later = READ.model_copy(update={"day_now": 16.04})
    assert np.array_equal(condition(later, DRAWS).rows, one.rows)


def test_tests_move_the_day_and_narrow_it() -> None:
    def days(log: CycleLog) -> tuple[float, ...]:
        ensemble = condition(log, DRAWS)
        return percentiles(project(log, ensemble, 150, Scenario()).late, ensemble.weights)

    early, middle, late = days(READ)
    before = days(log_of())
    assert early <= middle <= late
    assert late - early < before[2] - before[0]


def test_a_course_ends_where_its_alkalinity_does_and_is_the_same_until_then() -> None:
    log = log_of(start_kh_dkh=2)
    ensemble = condition(log, DRAWS)
    whole = project(log, ensemble, 100, Scenario(hold_kh_dkh=0))
    ended = project(log, ensemble, 100, Scenario(hold_kh_dkh=0, until_kh_gone=True))
    low = whole.daily[:, :, 3] < 17.848
    gone = np.where(low.any(axis=1), low.argmax(axis=1), 100)
    assert (gone < 100).any()
    for course, until, same in zip(ended.daily, gone, whole.daily, strict=True):
        assert np.array_equal(course[: until + 1], same[: until + 1])
    assert not np.isfinite(ended.late[gone < np.minimum(whole.late, 100)]).any()


def test_few_draws_tell_a_median_as_well_as_many() -> None:
    log = log_of()
    all_of_them = condition(log, 1000)
    some = fewer_draws(all_of_them, 250)
    assert some.weights.sum() == pytest.approx(1)
    medians = [percentiles(project(log, one, 150, Scenario()).late, one.weights)[1] for one in (all_of_them, some)]
    assert medians[1] == pytest.approx(medians[0], rel=0.05)


def test_a_forecast_as_it_stood_ends_with_the_one_of_today() -> None:
    then = condition_at(READ, [5.0, READ.day_now], DRAWS, DRAWS)
    assert np.array_equal(then[-1].rows, condition(READ, DRAWS).rows)
    assert then[0].figures < then[-1].figures


def test_more_time_lets_no_fewer_draws_pass() -> None:
    log = CycleLog.model_validate({**DOSED, "doses": [{"day": 0, "raise_mg_n_l": 1.5}], "readings": []})
    shares = [share_passing_within(log, days, DRAWS) for days in (5, 20, 60)]
    assert shares == sorted(shares)
    assert 0 <= shares[0] < shares[-1] <= 1
