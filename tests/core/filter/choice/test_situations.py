"""What practitioners know of a hundred and fifty situations, held against the ranking. Source: common practice."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.filter.choice.candidates import RankFiltersAnswer
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.situations import SITUATIONS as FIRST
from tests.support.situations import Situation
from tests.support.situations_wider import WIDER

pytestmark = pytest.mark.slow

SITUATIONS = [*FIRST, *WIDER]
KIND = {f.id: f.kind for f in SAMPLE_BOXES}


def _answer(s: Situation) -> RankFiltersAnswer:
    animals = [{"species_id": a[0], "count": a[1], **({"length_cm": a[2]} if len(a) > 2 else {})} for a in s.animals]
    question = {"site": s.room, "animals": animals, "temperature_c": s.temperature_c, "priorities": s.priorities}
    question["own_filters"] = [f.model_dump(mode="json") for f in SAMPLE_BOXES]
    return compute("rank-filters", question)


def test_the_table_holds_a_hundred_and_fifty_situations_each_told_once() -> None:
    assert len(SITUATIONS) >= 150
    assert len({s.name for s in SITUATIONS}) == len(SITUATIONS)


@pytest.mark.parametrize("s", SITUATIONS, ids=lambda s: s.name.replace(" ", "-"))
def test_the_ranking_says_what_practitioners_find(s: Situation) -> None:
    answer = _answer(s)
    inside = {c.kind for c in answer.ranked}
    if s.first is not None:
        assert {KIND[f] for f in answer.first} <= s.first
        assert answer.first, answer.verdict
    assert s.fits <= inside
    assert not s.barred & inside
    if s.asked:
        assert s.asked[0] <= answer.asked_low_lph / s.room["net_l"] <= s.asked[1]
    for words in s.says:
        assert words in answer.verdict
    by_id = {c.filter_id: c for c in answer.ranked}
    for filter_id, about, levels in s.level:
        assert next(m for m in by_id[filter_id].margins if m.about == about).level in levels
    if s.caveat:
        filter_id, words = s.caveat
        assert any(words in c for c in by_id[filter_id].caveats)


def test_what_is_looked_at_first_is_what_the_verdict_names() -> None:
    for s in SITUATIONS:
        answer = _answer(s)
        for filter_id in answer.first:
            name = next(f.name for f in SAMPLE_BOXES if f.id == filter_id)
            assert name in answer.verdict, s.name


def test_two_are_put_first_only_where_every_single_is_in_trouble() -> None:
    for s in SITUATIONS:
        answer = _answer(s)
        if len(answer.first) == 1 and len(answer.ranked) > 0:
            assert answer.first[0] == answer.ranked[0].filter_id
        elif len(answer.first) == 2 and answer.ranked:
            levels = {m.level for m in answer.ranked[0].margins}
            assert levels & {"short", "too-much"}, s.name
