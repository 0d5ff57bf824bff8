"""Ways to cycle as forms offer them."""

from typing import get_args

from reedmace.core.cycle.judgement.method_table import HELPER_TABLE, METHOD_TABLE
from reedmace.core.cycle.record.log import Helper, Method


def test_every_method_and_every_helper_is_offered_once() -> None:
    assert sorted(row.method for row in METHOD_TABLE) == sorted(get_args(Method))
    assert sorted(row.helper for row in HELPER_TABLE) == sorted(get_args(Helper))


def test_titles_read_inside_a_sentence() -> None:
    assert METHOD_TABLE[0].inside == "measured ammonia"
