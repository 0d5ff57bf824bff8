"""The simulated tank behind practice: nothing is made or lost, its step does not matter, and its weeks are keepers'."""

from typing import Any

import numpy as np
import pytest

from reedmace.standins import practice_kernel as kernel
from reedmace.standins.practice_run import Act, Run, Setup
from reedmace.standins.practice_tank import PracticeTank

DAY = 1440.0
NITROGEN = (kernel.TAN, kernel.NO2, kernel.NO3, kernel.ORG, kernel.PLANT, kernel.CELLS)
BUSY = (
    Act(0, "dose", 1.5),
    Act(500, "film-gain", 0.3),
    Act(0, "plants", 0.3),
    Act(3000, "animals", 12, "zebra-danio"),
    Act(5000, "soda", 2),
    Act(9000, "change", 0.3),
    Act(9500.5, "untreated-change", 0.2),
    Act(12001.5, "film-loss", 0.5),
    Act(20000, "run", 0),
    Act(22000, "run", 1),
    Act(30000, "animals", -3, "zebra-danio"),
)


def nitrogen_of(run: Run) -> float:
    """Nitrogen in a tank at the end of a run, mg N/L."""
    return float(sum(run.state[which] for which in NITROGEN))


@pytest.mark.parametrize("structure", range(4))
@pytest.mark.parametrize("seed", [1, 2])
def test_nitrogen_and_alkalinity_are_conserved_to_rounding(structure: int, seed: int) -> None:
    tank = PracticeTank(Setup(net_l=100, kh_dkh=6), seed, structure)
    start = tank.run([], 0)
    run = tank.run(BUSY, 40 * DAY)
    assert nitrogen_of(run) == pytest.approx(nitrogen_of(start) + run.added_n, abs=1e-9)
    s = run.state
    used = 3.57 * (s[kernel.RELEASED] - s[kernel.TAKEN_UP]) - 7.14 * s[kernel.NITRIFIED]
    assert s[kernel.ALK] == pytest.approx(start.state[kernel.ALK] + run.added_alkalinity + used, abs=1e-8)
    # Every part of it took part, so that the balance is of something.
    assert s[kernel.NITRIFIED] > 0.5
    assert s[kernel.TAKEN_UP] > 0.1


@pytest.mark.parametrize("structure", range(4))
def test_half_the_step_gives_the_same_tank_within_a_hundredth(structure: int) -> None:
    tank = PracticeTank(Setup(net_l=100, kh_dkh=6), 3, structure)
    whole, half = tank.run(BUSY, 40 * DAY), tank.run(BUSY, 40 * DAY, steps_per_hour=2 * kernel.STEPS_PER_HOUR)
    np.testing.assert_allclose(whole.state, half.state, rtol=0.01, atol=1e-4)
    assert [d.count for d in whole.deaths] == [d.count for d in half.deaths]


def test_the_same_acts_give_the_same_tank_to_the_last_figure_however_far_it_is_run() -> None:
    tank = PracticeTank(Setup(net_l=100), 8)
    far, near = tank.run(BUSY, 30 * DAY), tank.run(BUSY, 12 * DAY + 333)
    assert far.samples[: len(near.samples) - 1] == near.samples[:-1]


@pytest.mark.parametrize("structure", range(4))
def test_bare_tanks_are_ready_in_the_weeks_keepers_see(structure: int) -> None:
    ready = []
    for seed in range(12):
        tank = PracticeTank(Setup(net_l=100, kh_dkh=8), seed, structure)
        acts: list[Any] = []
        for day in range(0, 70, 2):
            last = tank.run(acts, day * DAY).samples[-1]
            if min(last.clears, last.clears_nitrite) > 1.5:
                ready.append(day)
                break
            if last.tan < 0.8 and last.no2 < 3.5:
                acts.append(Act(day * DAY, "dose", 1.55 - last.tan))
            if last.kh_dkh < 3:
                acts.append(Act(day * DAY + 1, "soda", 4))
    assert len(ready) == 12
    assert 24 <= np.median(ready) <= 48


def test_each_danger_harms_and_its_remedy_helps() -> None:
    danios = Act(0, "animals", 30, "zebra-danio")
    bare = PracticeTank(Setup(net_l=60, ph=8.0), 5)
    assert bare.run([danios], 20 * DAY).lost > 0
    changed = [danios, *(Act(day * DAY, "change", 0.5) for day in range(1, 20)), Act(0, "feed", 0.25)]
    assert bare.run(changed, 20 * DAY).lost == 0
    many = [Act(0, "film-gain", 6), Act(0, "animals", 100, "zebra-danio"), Act(DAY, "run", 0)]
    stifled = bare.run(many, 3 * DAY)
    assert {d.cause for d in stifled.deaths} == {"want of oxygen"}
    assert bare.run([*many, Act(DAY, "air-stone", 1)], 3 * DAY).lost == 0
    cold = bare.run([Act(0, "film-gain", 3), danios, Act(DAY, "heater", 10)], 10 * DAY)
    assert "cold" in {d.cause for d in cold.deaths}


def test_a_test_an_instant_after_a_dose_reads_it() -> None:
    run = PracticeTank(Setup(net_l=100), 8).run([Act(605.0, "dose", 1.5)], 606.0)
    assert run.samples[-1].minute == 606.0
    assert run.samples[-1].tan > 1.4
    assert run.at(606.0) == run.samples[-1]
    assert run.at(600.0).tan < 0.1
