"""Times of a logbook: with a zone, and in a range for which day arithmetic works."""

from datetime import UTC, datetime, timedelta
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime

EARLIEST, LATEST = 1990, 2200


def in_our_time(value: datetime) -> datetime:
    """The time itself, if its year is in range here and in UTC, as it is stored. value: aware. ValueError otherwise."""
    offset = value.utcoffset() or timedelta(0)
    # At the ends of what a datetime can hold, its time in UTC would not exist.
    inside = EARLIEST <= value.year <= LATEST
    if not inside or not EARLIEST <= (value.replace(tzinfo=UTC) - offset).year <= LATEST:
        raise ValueError(f"the year must lie between {EARLIEST} and {LATEST}")
    return value


OurTime = Annotated[AwareDatetime, AfterValidator(in_our_time)]
