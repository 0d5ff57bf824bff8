"""The demo keeper's shelf: invented boxes of all kinds and sizes, also used by tests and by the bench."""

import pytest

from reedmace.core.errors import CannotAnswer
from reedmace.core.filter.kinds import BY_NAME
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import rank


def test_the_sample_boxes_are_many_and_of_all_kinds() -> None:
    assert len(SAMPLE_BOXES) >= 60
    assert {f.kind for f in SAMPLE_BOXES} == set(BY_NAME)
    assert all(f.curve for f in SAMPLE_BOXES if f.kind == "sump")
    assert len({f.id for f in SAMPLE_BOXES}) == len(SAMPLE_BOXES)


def test_own_filters_are_ranked_and_ids_may_not_clash() -> None:
    own = next(f for f in SAMPLE_BOXES if f.id == "sweetflag-800").model_dump()
    own |= {"id": "own-one", "name": "Own one", "price": 1}
    assert "own-one" in {c.filter_id for c in rank(own_filters=[own]).ranked}
    with pytest.raises(CannotAnswer, match="share an id"):
        rank(own_filters=[own, own])
