"""A room from a table: what is no table, no number or no count is refused with its line; nothing breaks."""

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.errors import CannotAnswer
from reedmace.formats.room_table import read_room

HEAD = "name,length_cm,width_cm,height_cm,filter,animals,stands\n"


@pytest.mark.parametrize(
    "text",
    [
        f"{HEAD}A,60,30,36,sponge,² guppy,running\n",
        f"{HEAD}A,60,30,36,sponge,{'9' * 5000} guppy,running\n",
        f"{HEAD}{'A' * 140_000},60,30,36,,,\n",
        f"{HEAD}A,{'9' * 5000},30,36,,,\n",
        f"{HEAD}A,nan,30,36,,,\n",
        "\r",
        f"{HEAD}A\rB,60,30,36,,,\n",
    ],
    ids=[
        "superscript",
        "five thousand digits",
        "a field too long",
        "a size too long",
        "nan",
        "lone return",
        "return in a name",
    ],
)
def test_what_cannot_be_read_is_refused_and_says_what(text: str) -> None:
    with pytest.raises(CannotAnswer) as refused:
        read_room(text)
    assert refused.value.what
    assert refused.value.remedy


@given(st.text(max_size=200), st.text(max_size=12), st.text(max_size=20))
def test_any_text_is_read_or_refused(text: str, size: str, animals: str) -> None:
    for table in (text, f"{HEAD}A,{size},30,36,,{animals},\n"):
        with suppress(CannotAnswer):
            assert read_room(table)
