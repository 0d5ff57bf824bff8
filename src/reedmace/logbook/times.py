"""The times a logbook knows: with a zone, and near enough that every sum over days can be done."""

from datetime import datetime
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime

EARLIEST, LATEST = 1990, 2200


def in_our_time(value: datetime) -> datetime:
    """The time itself, if its year is one a logbook can hold. value: any. ValueError otherwise."""
    if not EARLIEST <= value.year <= LATEST:
        raise ValueError(f"the year must lie between {EARLIEST} and {LATEST}")
    return value


OurTime = Annotated[AwareDatetime, AfterValidator(in_our_time)]
