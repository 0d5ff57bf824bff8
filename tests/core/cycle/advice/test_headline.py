"""The headline of a cycle in an empty tank: the first row that matches."""

import pytest

from reedmace.core.cycle.advice.headline import ROWS, Seen
from tests.support.cycle_logs import STALLED, TWO_PPM, advice, reading


def said(**changes) -> str:
    return advice({**TWO_PPM, **changes}).verdict


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"doses": [], "readings": []}, "Nothing is known yet"),
        ({"doses": [], "readings": [reading(0, 0, 0, 5, ph=7.4, kh_dkh=5)]}, "First meal"),
        ({"day_now": 5, "readings": [reading(4, 2, 0, ph=7.4, kh_dkh=5)]}, "Waiting for the first bacteria"),
        ({"day_now": 9, "readings": [reading(4, 2, 0), reading(8, 2, 0.25, ph=7.4)]}, "It has begun"),
        ({"day_now": 14, "readings": [reading(4, 2, 0), reading(13, 0.5, 2, ph=7.4, kh_dkh=5)]}, "On its way"),
    ],
)
def test_a_usual_course_is_told_step_by_step(changes: dict, words: str) -> None:
    assert said(**changes).startswith(words)


def test_acid_and_used_up_come_before_anything_else() -> None:
    assert "used up the alkalinity and the water turned acid" in advice(STALLED).verdict


def test_zeros_no_test_of_a_dose_stands_behind_prove_nothing() -> None:
    unseen = said(day_now=9, readings=[reading(8, 0, 0, 5, ph=7.4, kh_dkh=5)])
    assert "no test has seen a dose" in unseen or "never" in unseen
    assert "Nearly there" not in unseen


def test_some_row_always_matches() -> None:
    assert ROWS[-1][0](Seen(None, None, None, False)) is True
