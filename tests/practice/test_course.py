"""The course of a tank from where it was last is the course from its start, to the last figure."""

import numpy as np
import pytest

from reedmace.practice import course as module
from reedmace.practice.course import course
from reedmace.practice.lesson import DAY
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank


def acts_of(seed: int, days: int) -> list[Act]:
    """A life: film, animals, changes, cleanings, a stop, some of them at a full hour or on a checkpoint's minute."""
    rng = np.random.default_rng(seed)
    acts = [Act(0.0, "film-gain", 1.5), Act(5.0, "animals", 8, "zebra-danio")]
    for at in [*rng.uniform(0, days, 20), 30, 60.0, 60 + 1 / 24]:
        acts.append(Act(float(at) * DAY, "change", float(rng.uniform(0.1, 0.5))))
    for at in rng.uniform(0, days, 6):
        acts += [Act(float(at) * DAY, "clean", 0.5), Act(float(at) * DAY, "film-loss", 0.1)]
    return [*acts, Act(40 * DAY, "run", 0.0), Act(40.5 * DAY, "run", 1.0)]


@pytest.mark.parametrize("seed", range(4))
def test_pressed_on_day_by_day_it_is_what_it_is_at_once(seed: int) -> None:
    tank = PracticeTank(Setup(net_l=90, clogs_days=50, kh_dkh=8), seed)
    acts: list[Act] = []
    for day in (12, 31, 45, 61, 62, 95, 130):
        acts += [a for a in acts_of(seed, 130) if a.minute < day * DAY and a not in acts]
        fast, whole = course(tank, acts, day * DAY + 17), tank.run(acts, day * DAY + 17)
        assert fast.samples == whole.samples
        assert (fast.deaths, fast.distress, fast.changes) == (whole.deaths, whole.distress, whole.changes)
        assert np.array_equal(fast.state, whole.state)
        assert fast.added_n == whole.added_n


def test_another_past_is_another_course_and_no_more_is_kept_than_said() -> None:
    tank = PracticeTank(Setup(net_l=90), 3)
    acts = [Act(0.0, "film-gain", 1.5), Act(5.0, "animals", 8, "zebra-danio")]
    with_change = [*acts, Act(10 * DAY, "change", 0.5)]
    assert course(tank, acts, 70 * DAY).samples[-1] != course(tank, with_change, 70 * DAY).samples[-1]
    for n in range(module.MOST_KEPT + 5):
        course(tank, [*acts, Act(float(n), "change", 0.1)], 31 * DAY)
    assert len(module._kept) <= module.MOST_KEPT


def test_a_press_late_in_a_year_runs_the_days_since_the_last_checkpoint(monkeypatch: pytest.MonkeyPatch) -> None:
    tank = PracticeTank(Setup(net_l=90, clogs_days=50), 5)
    acts = [Act(0.0, "film-gain", 1.5), Act(5.0, "animals", 8, "zebra-danio")]
    course(tank, acts, 335 * DAY)
    lived = []
    whole = PracticeTank._live
    monkeypatch.setattr(PracticeTank, "_live", lambda *a: (lived.append(a[4]), whole(*a))[1])
    course(tank, acts, 336 * DAY)
    assert 0 < len(lived) < 8 * 24
