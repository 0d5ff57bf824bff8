"""What an account chose to be told of, and when, in its own time zone."""

from datetime import UTC, date, datetime, time, timedelta
from typing import Annotated
from zoneinfo import ZoneInfo, available_timezones

from pydantic import Field, field_validator

from reedmace.core.contract import Part, whole

Clock = Annotated[str, Field(pattern=r"^([01]\d|2[0-3]):[0-5]\d$", description="Local time, 08:00")]


class NoticeChoice(Part):
    """What reaches an account, and when. Clock times are local to `zone`."""

    mail: bool = Field(default=False, description="Whether anything is mailed at all")
    at_once: bool = Field(default=True, description="What cannot wait, when it is seen")
    day: bool = Field(default=True, description="The day's list, where something is due")
    day_at: Clock = "08:00"
    week: bool = Field(default=False, description="The week's list")
    week_on: Annotated[int, whole(0, 6, "Monday is 0")] = 6
    quiet_from: Clock = "22:00"
    quiet_until: Clock = "07:00"
    wake_for_harm: bool = Field(default=True, description="Animals in danger are told in quiet hours too")
    browser: bool = Field(default=False, description="Notices of the browser while a page is open")
    zone: Annotated[str, Field(max_length=60, description="IANA name of the time zone")] = "UTC"

    @field_validator("zone")
    @classmethod
    def _is_a_zone(cls, zone: str) -> str:
        if zone not in available_timezones():
            raise ValueError(f'"{zone}" is no time zone; write one as Europe/Lisbon')
        return zone

    def local(self, now: datetime) -> datetime:
        """An aware time on the clock of this zone."""
        return now.astimezone(ZoneInfo(self.zone))

    def at(self, day: date, clock: str) -> datetime:
        """Aware time of a clock time on a local day. In the hour a clock skips, the time just after it."""
        hour, minute = (int(part) for part in clock.split(":"))
        local = datetime.combine(day, time(hour, minute), tzinfo=ZoneInfo(self.zone))
        return local.astimezone(UTC)

    def quiet_ends(self, now: datetime) -> datetime | None:
        """When the quiet hours end that `now` falls into; None outside them."""
        if self.quiet_from == self.quiet_until:
            return None
        day = self.local(now).date()
        for first in (day - timedelta(days=1), day):
            begins = self.at(first, self.quiet_from)
            last = first if self.quiet_until > self.quiet_from else first + timedelta(days=1)
            ends = self.at(last, self.quiet_until)
            if begins <= now < ends:
                return ends
        return None
