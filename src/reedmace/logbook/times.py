"""Times of a logbook: with a zone, and in a range for which day arithmetic works."""

from datetime import datetime
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime

EARLIEST, LATEST = 1990, 2200


def in_our_time(value: datetime) -> datetime:
    """The time itself, if its year is in range. value: any. ValueError otherwise."""
    if not EARLIEST <= value.year <= LATEST:
        raise ValueError(f"the year must lie between {EARLIEST} and {LATEST}")
    return value


OurTime = Annotated[AwareDatetime, AfterValidator(in_our_time)]
