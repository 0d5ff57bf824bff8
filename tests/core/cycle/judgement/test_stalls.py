"""Whether readings stand still, and whether that is a stall."""

import pytest

from reedmace.core.cycle.judgement.stalls import STALL_AFTER_DAYS, readings_stalled
from reedmace.core.cycle.record.log import CycleLog


def log(*readings: tuple[float, float | None, float | None], day: float = 25.0, **more: object) -> CycleLog:
    rows = [{"day": d, "ammonia_mg_n_l": a, "nitrite_mg_n_l": n} for d, a, n in readings]
    return CycleLog.model_validate({"day_now": day, "net_l": 100, "readings": rows, **more})


@pytest.mark.parametrize(
    ("rows", "stands"),
    [
        (((20, 0, 3), (22, 0, 3), (24, 0, 3)), True),
        (((20, 0, 3), (22, 0, 2), (24, 0, 1)), False),
        (((20, 0, 1), (22, 0, 2), (24, 0, 3)), False),
        (((23, 0, 3), (23.5, 0, 3), (24, 0, 3)), False),
        (((20, 0, 3), (24, 0, 3)), False),
        (((20, 0, 0.3), (22, 0, 0.3), (24, 0, 0.3)), False),
        (((20, 2, 0), (22, 2, 0), (24, 2, 0)), True),
    ],
    ids=["nitrite stands", "falls", "rises", "too soon", "two tests", "low", "ammonia stands"],
)
def test_three_tests_over_two_days_that_show_no_work_stand_still(rows: tuple, stands: bool) -> None:
    assert readings_stalled(log(*rows)) is stands


def test_a_young_cycle_is_slow_and_not_stalled() -> None:
    rows = ((4, 2, 0), (6, 2, 0), (8, 2, 0))
    assert not readings_stalled(log(*rows, day=STALL_AFTER_DAYS))


def test_ammonia_that_was_dosed_between_and_reads_the_same_was_used() -> None:
    rows = ((20, 2, 0), (22, 2, 0), (24, 2, 0))
    doses = [{"day": d, "raise_mg_n_l": 1.0} for d in (20.5, 22.5)]
    assert not readings_stalled(log(*rows, doses=doses))
