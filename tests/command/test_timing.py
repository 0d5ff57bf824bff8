"""Measuring: what grows as it should comes out so, and a turn's noise falls on both."""

import time

import pytest

from reedmace.command.scaling import NOW, long_running_state
from reedmace.command.timing import Timing, compare, exponent, measure
from reedmace.logbook.replay.state import replay


@pytest.mark.parametrize("power", [0.5, 1.0, 2.0])
def test_the_power_of_a_known_growth_is_found(power: float) -> None:
    sizes = [10, 100, 1000]
    assert exponent(sizes, [3e-6 * n**power for n in sizes]) == pytest.approx(power)


def test_sleep_takes_wall_time_and_no_processor() -> None:
    took = measure(lambda: time.sleep(0.05), 3)
    assert took.wall_s >= 0.05
    assert took.cpu_s < took.wall_s / 2
    assert Timing(0.2, 0.1).words() == "100 ms of processor, 200 ms by the clock"


def test_ours_is_as_many_times_faster_as_it_does_less() -> None:
    def work(times: int) -> None:
        for _ in range(times):
            sum(range(2000))

    assert 3 < compare(lambda: work(400), lambda: work(40), 5).times < 30


def test_the_logbook_that_is_measured_is_one_that_lives() -> None:
    state = replay(long_running_state(12))
    assert len(state.readings) == 12
    assert state.readings[-1].at <= NOW
    assert state.filters()
