"""Film and doses that tests prove although nobody wrote them down."""

import pytest

from reedmace.core.cycle import CycleForecastQuestion, cycle_forecast
from reedmace.core.cycle.record.log import CycleLog, LoggedChange, LoggedDose, LoggedReading, TapWater
from reedmace.core.cycle.record.nitrification import film_at_work, unwritten_doses
from reedmace.core.quantity.units import NITROGEN_SHARE

A, NI, NA = NITROGEN_SHARE["NH4"], NITROGEN_SHARE["NO2"], NITROGEN_SHARE["NO3"]


def kit(day: float, ammonia: float, nitrite: float, nitrate: float | None = None) -> LoggedReading:
    """One test in ppm as the ion."""
    return LoggedReading(
        day=day,
        ammonia_mg_n_l=ammonia * A,
        nitrite_mg_n_l=nitrite * NI,
        nitrate_mg_n_l=None if nitrate is None else nitrate * NA,
    )


COURSE = [
    kit(3, 2, 0, 0),
    kit(7, 1.5, 0.5, 0),
    kit(10, 1, 2, 5),
    kit(13, 0.25, 5, 10),
    kit(17, 0, 2, 20),
    kit(21, 0, 0.5, 40),
]


def log_of(*readings: LoggedReading, **more: object) -> CycleLog:
    return CycleLog.model_validate({"net_l": 100, "day_now": 21, "readings": list(readings), **more})


def test_nitrite_or_risen_nitrate_is_film_at_work() -> None:
    assert film_at_work(log_of(kit(21, 0.25, 2)))
    assert film_at_work(log_of(kit(6, 2, 0, 5), kit(21, 0, 0, 40)))


@pytest.mark.parametrize(
    "log",
    [
        log_of(kit(21, 2, 0)),
        log_of(kit(21, 0, 0, 40)),
        log_of(kit(6, 0, 0, 40), kit(21, 0, 0, 40)),
        log_of(kit(21, 0, 0.25), tap=TapWater(nitrite_mg_n_l=0.1)),
    ],
    ids=["ammonia alone", "nitrate that may be the tap's", "nitrate that stood still", "the tap's own nitrite"],
)
def test_what_something_else_may_have_brought_proves_nothing(log: CycleLog) -> None:
    assert not film_at_work(log)
    assert unwritten_doses(log) == []


def test_the_nitrogen_seen_was_put_in() -> None:
    put_in = sum(d.raise_mg_n_l for d in unwritten_doses(log_of(*COURSE)))
    # The last test shows 30 to 60 ppm of nitrate; the least of it above none at the start, and its nitrite.
    assert put_in == pytest.approx(30 * NA + 0.5 * NI, rel=0.2)
    assert all(0 <= d.day <= 21 for d in unwritten_doses(log_of(*COURSE)))


def test_written_doses_are_not_doubled() -> None:
    written = log_of(*COURSE, doses=[LoggedDose(day=0, raise_mg_n_l=7)])
    assert unwritten_doses(written) == []


def test_what_a_change_took_out_is_counted() -> None:
    kept = log_of(kit(6, 2, 1, 20), kit(12, 2, 1, 20))
    thinned = log_of(kit(6, 2, 1, 20), kit(12, 2, 1, 20), changes=[LoggedChange(day=8, share=0.5)])
    more = sum(d.raise_mg_n_l for d in unwritten_doses(thinned)) - sum(d.raise_mg_n_l for d in unwritten_doses(kept))
    seen = sum(d.raise_mg_n_l for d in unwritten_doses(kept))
    assert more == pytest.approx(seen / 2, rel=0.05)


@pytest.mark.parametrize("method", ["fish-food", "planted", "animals-in"])
def test_methods_without_doses_have_none(method: str) -> None:
    assert unwritten_doses(log_of(*COURSE, method=method)) == []


def test_the_forecast_of_a_course_on_paper_is_near_and_says_what_it_rests_on() -> None:
    on_paper = cycle_forecast(CycleForecastQuestion(log=log_of(*COURSE)))
    assert 21 <= on_paper.pass_day_p50 <= 30
    assert any("nobody wrote down" in why for why in on_paper.rests_on)
    # One test with nitrite is weaker evidence: later, and less sure.
    single = cycle_forecast(CycleForecastQuestion(log=log_of(kit(21, 0.25, 2, 20))))
    assert single.pass_day_p90 - single.pass_day_p10 > 3 * (on_paper.pass_day_p90 - on_paper.pass_day_p10)
    assert single.pass_day_p50 < 45
