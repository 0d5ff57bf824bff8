"""Times of a logbook: in range where they were written and in UTC, as they are stored."""

from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from reedmace.logbook.times import EARLIEST, LATEST, OurTime

TIME = TypeAdapter(OurTime)


@pytest.mark.parametrize(
    "text",
    [
        "2200-12-31T23:59:59-14:00",
        "1990-01-01T00:00:00+14:00",
        "1989-12-31T23:00:00Z",
        "9999-12-31T23:59:59-14:00",
        "0001-01-01T00:00:00+14:00",
    ],
)
def test_a_time_that_leaves_the_range_in_utc_is_refused(text: str) -> None:
    with pytest.raises(ValidationError, match=f"between {EARLIEST} and {LATEST}"):
        TIME.validate_python(text)


@given(st.datetimes(timezones=st.timezones()))
def test_whatever_is_taken_can_be_stored(value: datetime) -> None:
    try:
        taken = TIME.validate_python(value)
    except ValidationError:
        return
    assert EARLIEST <= taken.astimezone(UTC).year <= LATEST
