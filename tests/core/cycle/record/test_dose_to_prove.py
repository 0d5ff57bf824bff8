"""A filter whose film leaves a trace of every whole dose proves half the load with half the dose."""

from typing import Any

import pytest

from reedmace.core.cycle import (
    CycleAdviceQuestion,
    CycleLog,
    CycleReadinessQuestion,
    cycle_advice,
    cycle_readiness,
)
from reedmace.core.cycle.record.dose_to_prove import dose_to_prove_mg_n_l, leaves_traces
from tests.support.cycling import NI, A

LOAD = 0.8
WHOLE = 1.2 * LOAD


def dosed(*left_ppm: float, apart_days: float = 2.0, ammonia_ppm: float = 0.0, size: float = WHOLE) -> CycleLog:
    """Doses from day 30 on, each seen in the water, and the nitrite (ppm) each left after a day."""
    days = [30 + apart_days * i for i in range(len(left_ppm))]
    return made(days, [size] * len(days), left_ppm, ammonia_ppm)


def made(days: list[float], sizes: list[float], left_ppm: Any, ammonia_ppm: float = 0.0) -> CycleLog:
    readings = []
    for day, size, left in zip(days, sizes, left_ppm, strict=True):
        readings += [
            {"day": day + 0.04, "ammonia_mg_n_l": size},
            {"day": day + 1, "ammonia_mg_n_l": ammonia_ppm * A, "nitrite_mg_n_l": left * NI, "nitrate_mg_n_l": 10.0},
        ]
    return CycleLog.model_validate({
        "net_l": 100,
        "day_now": days[-1] + 1.05,
        "planned_load_mg_n_l_day": LOAD,
        "animals": [{"species_id": "zebra-danio", "count": 12}],
        "start_kh_dkh": 6,
        "start_ph": 7.4,
        "doses": [{"day": d, "raise_mg_n_l": s} for d, s in zip(days, sizes, strict=True)],
        "readings": [{"day": 29.5, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "kh_dkh": 6, "ph": 7.4}, *readings],
    })  # fmt: skip


@pytest.mark.parametrize(
    ("log", "why"),
    [
        (dosed(0.25, 0.25), "two only"),
        (dosed(0.25, 0.25, 0.25, apart_days=1), "within three days"),
        (dosed(0.5, 0.25, 0.1), "it gets less"),
        (dosed(0.25, 0.0, 0.25, 0.25), "one was cleared"),
        (dosed(2, 2, 2), "much more than a trace"),
        (dosed(0.25, 0.25, 0.25, ammonia_ppm=0.5), "much ammonia is left too"),
        (dosed(0, 0, 0), "all were cleared"),
        (dosed(0.25, 0.25, 0.25, size=WHOLE / 2), "these were no whole doses"),
    ],
)
def test_the_whole_dose_is_asked_for_as_long_as_it_may_yet_be_cleared(log: CycleLog, why: str) -> None:
    assert not leaves_traces(log), why
    assert dose_to_prove_mg_n_l(log) == pytest.approx(WHOLE)


def test_a_trace_that_stays_asks_for_half_a_dose_and_says_why() -> None:
    log = dosed(0.25, 0.5, 0.25)
    assert dose_to_prove_mg_n_l(log) == pytest.approx(WHOLE / 2)
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    (dose,) = [a for a in [advice.first, *advice.then] if a.do == "dose-ammonia"]
    assert dose.raise_mg_n_l == pytest.approx(WHOLE / 2, rel=0.05)
    assert "half the animals" in dose.reason


def test_a_trace_of_both_poisons_is_a_trace() -> None:
    assert leaves_traces(dosed(0.25, 0.25, 0.25, ammonia_ppm=0.25))
    assert leaves_traces(dosed(0, 0, 0, ammonia_ppm=0.25))


def test_half_doses_gone_in_a_day_are_ready_for_half_the_animals() -> None:
    days = [30.0, 32.0, 34.0, 36.0, 37.0, 38.0]
    log = made(days, [WHOLE] * 3 + [WHOLE / 2] * 3, [0.25, 0.25, 0.25, 0, 0, 0])
    ready = cycle_readiness(CycleReadinessQuestion(log=log))
    assert ready.ready, ready.missing
    assert ready.proven_mg_n_l_day == pytest.approx(WHOLE / 2)
    assert "60% of what the planned animals make" in ready.verdict


def test_a_whole_dose_that_goes_later_counts_for_itself() -> None:
    days = [30.0, 32.0, 34.0, 36.0, 38.0, 39.0]
    log = made(days, [WHOLE] * 3 + [WHOLE / 2] + [WHOLE] * 2, [0.25, 0.25, 0.25, 0, 0, 0])
    assert cycle_readiness(CycleReadinessQuestion(log=log)).proven_mg_n_l_day == pytest.approx(WHOLE)


def test_after_four_weeks_the_whole_dose_is_tried_again() -> None:
    log = dosed(0.25, 0.25, 0.25)
    assert not leaves_traces(log.model_copy(update={"day_now": 34 + 29}))


@pytest.mark.parametrize(("ammonia_ppm", "fed"), [(0.25, True), (0.5, False)])
def test_a_moved_film_that_leaves_traces_is_fed_daily_and_not_only_after_zeros(ammonia_ppm: float, fed: bool) -> None:
    log = dosed(0.25, 0.25, ammonia_ppm=ammonia_ppm).model_copy(update={"method": "seeded-filter", "seed_share": 0.2})
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    doses = [a for a in [advice.first, *advice.then] if a.do == "dose-ammonia"]
    assert bool(doses) is fed
    # The whole dose on top of the trace, or its clearing would prove nothing.
    assert all(a.raise_mg_n_l == pytest.approx(WHOLE, rel=0.02) for a in doses)
