"""What is done by hand: each thing once."""

from typing import get_args

from reedmace.core.guide import HOW_TO
from reedmace.core.guide.how_to import HowToKey


def test_each_key_has_one_text() -> None:
    assert [one.key for one in HOW_TO] == list(get_args(HowToKey))
    assert all(one.title for one in HOW_TO)
