"""What one figure of a test may stand for."""

import pytest

from reedmace.core.cycle import CycleForecastQuestion, CycleLog, LoggedReading, cycle_forecast
from reedmace.core.cycle.record.log import LoggedBetween
from reedmace.core.cycle.record.suspect_readings import read_interval
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


def test_a_finer_reading_narrows_the_forecast() -> None:
    doses = [{"day": 0.1, "raise_mg_n_l": 2 * A}]
    rows = [(5.0, 1.6), (8.0, 1.2), (11.0, 0.7)]
    plain = [{"day": day, "ammonia_mg_n_l": ppm * A, "nitrite_mg_n_l": 0.0} for day, ppm in rows]
    fine = [
        row | {"between": [{"what": "ammonia", "low_mg_n_l": (ppm - 0.05) * A, "high_mg_n_l": (ppm + 0.05) * A}]}
        for row, (_, ppm) in zip(plain, rows, strict=True)
    ]

    def width(readings: list[dict]) -> float:
        log = CycleLog.model_validate({"net_l": 100, "day_now": 11.1, "doses": doses, "readings": readings})
        answer = cycle_forecast(CycleForecastQuestion(log=log))
        return answer.pass_day_p90 - answer.pass_day_p10

    assert width(fine) < width(plain)
