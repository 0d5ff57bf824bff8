"""What the ranking takes and gives: bounds of its lists, and figures that agree with each other."""

import pytest
from pydantic import ValidationError

from reedmace.core.filter.choice.candidates import MOST_PAIRS, MOST_SHOWN, RankFiltersQuestion
from tests.support.ranking import ROOM, SAMPLES, rank


def test_lists_are_bounded_and_what_is_not_shown_is_counted() -> None:
    many = [{**SAMPLES[n % len(SAMPLES)], "id": f"box-{n}"} for n in range(400)]
    found = rank(own_filters=many)
    assert len(found.ranked) <= MOST_SHOWN
    assert len(found.excluded) <= MOST_SHOWN
    assert len(found.pairs) <= MOST_PAIRS
    assert found.fitting_count + found.excluded_count == 400
    assert found.fitting_count >= len(found.ranked)


def test_every_candidate_adds_up() -> None:
    found = rank()
    assert found.ranked
    for one in found.ranked:
        assert one.score == pytest.approx(sum(c.points for c in one.contributions), abs=0.01)
        assert one.turnovers_per_hour == pytest.approx(one.delivered_lph / ROOM["net_l"])
        assert one.dirty_lph <= one.delivered_lph * 1.001
        assert one.air_pump_price <= one.price
        assert {m.about for m in one.margins} >= {"biology"}
    assert [c.score for c in found.ranked] == sorted((c.score for c in found.ranked), reverse=True)


def test_pairs_name_two_filters_and_their_place() -> None:
    found = rank()
    scores = sorted((c.score for c in found.ranked), reverse=True)
    for pair in found.pairs:
        assert len(pair.filter_ids) == 2
        assert pair.would_rank == 1 + sum(score > pair.score for score in scores)


def test_no_filter_is_both_ranked_and_left_out() -> None:
    found = rank()
    assert not {c.filter_id for c in found.ranked} & {e.filter_id for e in found.excluded}
    for one in found.excluded:
        assert one.reason


@pytest.mark.parametrize(
    ("field", "value"),
    [("own_filters", [SAMPLES[0]] * 5001), ("running_ids", ["a"] * 9), ("hose_m", {"a": 51}), ("temperature_c", 60)],
)
def test_what_is_out_of_bounds_is_refused(field: str, value: object) -> None:
    with pytest.raises(ValidationError) as refused:
        RankFiltersQuestion.model_validate({"site": ROOM, field: value})
    assert refused.value.errors()[0]["loc"][0] == field
