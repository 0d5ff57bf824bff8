"""Questions people ask, each with the stage that answers it."""

from typing import get_args

from reedmace.core.guide.questions import QUESTIONS, Stage


def test_each_is_a_question_of_its_own_that_a_stage_answers() -> None:
    assert {one.stage for one in QUESTIONS} <= set(get_args(Stage))
    assert len({one.question for one in QUESTIONS}) == len(QUESTIONS)
    assert len({one.key for one in QUESTIONS}) == len(QUESTIONS)
