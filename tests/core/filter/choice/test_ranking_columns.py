"""Scores and figures of every filter, from which it is ranked and paired."""

import numpy as np
import pytest

from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.choice.ranking_columns import ranking_columns, stirred
from reedmace.core.filter.choice.requirement import tank_requirement
from reedmace.core.filter.choice.scores import NAMES, weights_of
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.site.site import default_priorities
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM, SAMPLES, SHOAL

QUESTION = RankFiltersQuestion.model_validate({"site": ROOM, "animals": SHOAL, "own_filters": SAMPLES})
TABLE = table_of(SAMPLE_BOXES)


@pytest.fixture(scope="module")
def columns():
    asked = tank_requirement(QUESTION)
    got = flows_here(QUESTION, TABLE, asked.feed)
    return ranking_columns(QUESTION, TABLE, asked, weights_of(default_priorities(QUESTION.site)), got)


def test_every_column_has_a_figure_for_every_filter(columns) -> None:
    n = len(TABLE)
    for name in ("scores", "clean", "service", "low", "days", "rises", "film", "sound", "watts", "price", "slow"):
        assert getattr(columns, name).shape == (n,)
    assert columns.parts.shape == (n, len(NAMES))


def test_a_score_is_the_weighted_mean_of_its_parts(columns) -> None:
    expected = 100 * (columns.parts * columns.weights).sum(axis=1) / columns.weights.sum()
    assert columns.scores == pytest.approx(expected)
    assert ((columns.scores >= 0) & (columns.scores <= 100)).all()


def test_a_pair_moves_more_than_either_and_no_more_than_both_with_half_the_dirt(columns) -> None:
    best = np.argsort(-columns.scores)[:6]
    i, j = (best[k] for k in np.triu_indices(len(best), 1))
    together = columns.pair_service(best, i, j)
    assert (together >= np.maximum(columns.service[i], columns.service[j]) * 0.98).all()
    assert (together <= (columns.clean[i] + columns.clean[j]) * 1.001).all()
    # Which of the two is named first does not matter.
    assert together == pytest.approx(columns.pair_service(best, j, i))


def test_a_pair_of_equals_is_twice_one_with_half_the_food(columns) -> None:
    one = np.argsort(-columns.scores)[:1]
    half = flows_here(QUESTION, TABLE.taken(one), columns.asked.feed / 2).service_lph
    assert columns.pair_service(one, one, one) == pytest.approx(2 * half)


def test_currents_are_worked_out_once_for_one_set(columns) -> None:
    one = [(SAMPLE_BOXES[0], 400.0)]
    assert stirred(QUESTION, 300.0, one) is stirred(QUESTION, 300.0, one)
    assert stirred(QUESTION, 300.0, [(SAMPLE_BOXES[0], 500.0)]) is not stirred(QUESTION, 300.0, one)
