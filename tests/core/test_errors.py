"""Deliberate errors keep their operands and build their text from them."""

import pytest

from reedmace.core.errors import CannotAnswer, ReedmaceError


def test_what_where_and_remedy_are_fields_and_text() -> None:
    with pytest.raises(ReedmaceError) as raised:
        raise CannotAnswer("animals.0.species_id", "There is no such animal.", "Choose one of the list.")
    error = raised.value
    assert isinstance(error, ValueError)
    assert str(error) == "animals.0.species_id: There is no such animal. Choose one of the list."
    assert vars(error) == {
        "where": "animals.0.species_id",
        "what": "There is no such animal.",
        "remedy": "Choose one of the list.",
    }
