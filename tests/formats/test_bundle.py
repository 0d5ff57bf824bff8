"""A tank's whole logbook as one JSON bundle, out and in. Its schema is published at /api/bundle/schema."""

import pytest
from pydantic import ValidationError

from reedmace.formats import Bundle
from tests.support.entries import NOW, entry


def test_a_bundle_refuses_an_entry_out_of_time() -> None:
    row = entry(1, {"kind": "note", "text": "x"}).model_dump(mode="json")
    good = {"written_at": NOW.isoformat(), "tank": "T", "entries": [row]}
    assert len(Bundle.model_validate(good).entries) == 1
    with pytest.raises(ValidationError, match="year 1750"):
        Bundle.model_validate({**good, "entries": [{**row, "at": "1750-01-01T00:00:00Z"}]})
