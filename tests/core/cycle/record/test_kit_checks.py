"""A kit that reads the same whatever is done is not believed."""

from typing import Any

import pytest

from reedmace.core.cycle import (
    CycleAdviceQuestion,
    CycleForecastQuestion,
    CycleLog,
    CycleReadinessQuestion,
    cycle_advice,
    cycle_forecast,
    cycle_readiness,
)
from reedmace.core.cycle.record.kit_checks import kit_is_stuck
from tests.support.cycling import A

DOSES = [{"day": d, "raise_mg_n_l": 2 * A} for d in (0, 6, 12)]


def log_of(reads: list[float], **more: Any) -> CycleLog:
    days = [0.1, 3, 6.1, 9, 12.1, 15][: len(reads)]
    readings = [
        {"day": d, "ammonia_mg_n_l": ppm * A, "nitrite_mg_n_l": 0.0} for d, ppm in zip(days, reads, strict=True)
    ]
    return CycleLog.model_validate({"net_l": 100, "day_now": 15.1, "doses": DOSES, "readings": readings, **more})


def test_a_quarter_after_every_dose_is_the_kit() -> None:
    log = log_of([0.25] * 6)
    assert kit_is_stuck(log)
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert "test the kit" in advice.verdict
    assert "Test the kit itself" in [a.title for a in [advice.first, *advice.then]]
    assert any("the kit is to be tested first" in m for m in cycle_readiness(CycleReadinessQuestion(log=log)).missing)
    assert any("test the kit itself" in why for why in cycle_forecast(CycleForecastQuestion(log=log)).rests_on)


def test_a_quarter_the_day_after_every_dose_is_the_kit_too_where_nothing_shows_film() -> None:
    doses = [{"day": d, "raise_mg_n_l": 2 * A} for d in (0.1, 3.1)]
    rows: list[dict[str, Any]] = [
        {"day": float(d), "ammonia_mg_n_l": A / 4, "nitrite_mg_n_l": 0.0} for d in range(1, 7)
    ]
    kept = {"net_l": 100, "day_now": 6.1, "doses": doses}
    assert kit_is_stuck(CycleLog.model_validate({**kept, "readings": rows}))
    # Film at work may well leave a quarter a day after each dose.
    rows[-1] |= {"nitrite_mg_n_l": 1.0}
    assert not kit_is_stuck(CycleLog.model_validate({**kept, "readings": rows}))
    rows[-1] |= {"nitrite_mg_n_l": 0.0}
    assert not kit_is_stuck(CycleLog.model_validate({**kept, "readings": rows, "method": "seeded-filter"}))


def test_a_second_kit_that_reads_the_same_clears_the_first() -> None:
    log = log_of([0.25] * 6)
    confirmed = log.readings[-1].model_copy(update={"other_kit": True})
    assert not kit_is_stuck(log.model_copy(update={"readings": [*log.readings[:-1], confirmed]}))
    # One that was used before the last dose says nothing of what was read since.
    early = log.readings[0].model_copy(update={"other_kit": True})
    assert kit_is_stuck(log.model_copy(update={"readings": [early, *log.readings[1:]]}))


@pytest.mark.parametrize(
    "log",
    [
        log_of([2, 1, 2, 0.5, 2, 0.25]),
        log_of([0.0] * 6),
        log_of([0.25] * 3),
        log_of([0.25] * 6, doses=[]),
        log_of([0.25] * 6, doses=[{"day": 1, "raise_mg_n_l": 0.1}, {"day": 7, "raise_mg_n_l": 0.1}]),
    ],
    ids=["it moves", "always zero", "three tests", "nothing was dosed", "doses under a step"],
)
def test_a_kit_that_may_be_right_is_believed(log: CycleLog) -> None:
    assert not kit_is_stuck(log)


def test_with_animals_in_a_step_that_outlives_many_changes_is_the_kit() -> None:
    changes = [{"day": d, "share": 0.5} for d in (4, 8, 13)]
    log = log_of([0.25] * 6, doses=[], method="animals-in", animals_in_mg_n_l_day=0.1, changes=changes)
    assert kit_is_stuck(log)
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert "Test the kit itself" in [a.title for a in [advice.first, *advice.then]]
