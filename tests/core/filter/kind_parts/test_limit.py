"""One piece of advice out of all a filter breaks."""

import numpy as np

from reedmace.core.filter.kind_parts.limit import Limit, one_remedy


def limit(remedy: str, count: int | None = None, *, final: bool = False) -> Limit:
    counted = None if count is None else lambda _: count
    return Limit(np.array([True]), lambda _: "why", lambda _: remedy, count=counted, final=final)


def test_remedies_are_joined_and_none_is_said_twice() -> None:
    assert one_remedy([limit("move it"), limit("fill it"), limit("move it")], 0, 4) == "move it and fill it"


def test_the_largest_number_of_them_is_said_or_a_larger_one() -> None:
    assert one_remedy([limit("", 2), limit("", 4), limit("move it")], 0, 4) == "move it and fit 4 of them"
    assert one_remedy([limit("", 5)], 0, 4) == "choose a larger one"


def test_where_the_kind_is_wrong_nothing_else_is_said() -> None:
    assert one_remedy([limit("", 2), limit("another kind", final=True), limit("move it")], 0, 4) == "another kind"
