"""Whether a filter can stay off, step by step."""

import pytest

from reedmace.core.computations import compute

WELL = {"carried_times_count": 3.0, "oxygen_enough": True}


def trial(*hours: float, **changes: object):
    trials = [{"hours": h} for h in hours]
    return compute("standby-trial", WELL | {"trials": trials} | changes)


@pytest.mark.parametrize(
    ("done", "next_h"), [((), 6), ((6,), 24), ((6, 23), 72), ((6, 24, 72), 168), ((6, 24, 72, 168), None)]
)
def test_each_step_follows_the_longest_that_passed(done: tuple[float, ...], next_h: float | None) -> None:
    answer = trial(*done)
    assert answer.next_h == next_h
    assert answer.proved == (next_h is None)
    assert bool(answer.steps) == (next_h is not None)


def test_what_was_not_tested_proved_nothing() -> None:
    assert compute("standby-trial", WELL | {"trials": [{"hours": 24, "tested": False}]}).next_h == 6


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"trials": [{"hours": 6, "trace": True}]}, "it is needed"),
        ({"carried_times_count": 1.9}, "a trial begins at 2"),
        ({"oxygen_enough": False}, "air stone first"),
        ({"animals_settled": False}, "six weeks"),
    ],
)
def test_what_bars_a_trial_is_said_and_no_step_is_offered(changes: dict, words: str) -> None:
    answer = compute("standby-trial", WELL | changes)
    assert (answer.may_try, answer.next_h, answer.steps) == (False, None, [])
    assert words in answer.verdict
