"""What is kept of a practice tank besides its logbook: lesson, seed, clock, coach, and how the page ends."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.stock import Animals
from reedmace.practice.mishaps import SentMishap

Coach = Literal["beside", "when-wrong", "silent"]
Setting = Literal["feed", "air-stone", "heater"]
Minutes = Annotated[float, number("min", 0, 2_200_000)]
ENTRY_MINUTES = 1.0
"""Time each thing done takes on the practice clock, so that no two are at one moment."""
MOST_DAYS = 400
"""Days a practice tank lives."""
Days = Annotated[float, number("days", 0, MOST_DAYS + 1)]
MOST_SETTINGS, MOST_VISITS, MOST_MISHAPS = 400, 2000, 20


class ChangedSetting(Part):
    """Something set by hand: food as a share of the ration, an air stone on or off, the heater in °C."""

    minute: Minutes
    name: Setting
    value: Annotated[float, number("name", 0, 40)]


MOST_SIDE_BY_SIDE = 8
"""Tanks of one lesson at once."""


class SidePlace(Part):
    """Which of several tanks of one lesson this is."""

    group: Name = Field(description="The play they belong to")
    place: Annotated[int, whole(0, MOST_SIDE_BY_SIDE - 1)]
    seed: Annotated[int, whole(0, 2**31 - 1, "Of the play, which all of them share")]


class TakenMedia(Part):
    """Media moved out of a filter into another tank of the same lesson."""

    minute: Minutes
    share: Annotated[float, number("share", 0, 1, "Of what the filter still held")]


class Copied(Part):
    """The true tank behind a copy of a real one: what its logbook shows, and likely figures for the rest."""

    net_l: Annotated[float, number("L", 0.1, 1e6)]
    kh_dkh: Annotated[float, number("dKH", 0, 40)]
    ph: Annotated[float, number("pH", 4, 10)]
    warmth_c: Annotated[float, number("°C", 0, 45)]
    salt: bool
    tap_ammonia_mg_n_l: Annotated[float, number("mg N/L", 0, 100)]
    ammonia_mg_n_l: Annotated[float, number("mg N/L", 0, 1000)]
    nitrite_mg_n_l: Annotated[float, number("mg N/L", 0, 1000)]
    nitrate_mg_n_l: Annotated[float, number("mg N/L", 0, 10000)]
    film_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)]
    animals: Annotated[list[Animals], Field(max_length=60)]


class Practice(Part):
    """A practice tank. `visits` are the minutes at which the keeper came to the tank; the clock stands at `minutes`."""

    lesson: Name
    seed: Annotated[int, whole(0, 2**31 - 1)]
    began_at: AwareDatetime
    minutes: Minutes
    coach: Coach = "beside"
    reads_vials: bool = Field(default=True, description="Whether the keeper reads the vials; else they are entered")
    settings: Annotated[list[ChangedSetting], Field(max_length=MOST_SETTINGS)] = Field(default_factory=list)
    visits: Annotated[list[Minutes], Field(max_length=MOST_VISITS)] = Field(default_factory=list)
    ended: bool = False
    mishaps: Annotated[list[SentMishap], Field(max_length=MOST_MISHAPS)] = Field(
        default_factory=list, description="Sent by the teacher of its class"
    )
    copied: Copied | None = None
    side: SidePlace | None = None
    taken: Annotated[list[TakenMedia], Field(max_length=100)] = Field(default_factory=list)
    most_seed: Annotated[float, number("share", 0, 1, "Of a mature filter that was left for this tank")] = 1.0

    def now(self) -> datetime:
        """The practice clock as aware time."""
        return self.began_at + timedelta(minutes=self.minutes)

    def minute_of(self, at: datetime) -> float:
        """A moment on the practice clock, minutes since the start. at: aware time."""
        return (at - self.began_at).total_seconds() / 60

    def passed(self, minutes: float) -> "Practice":
        """Later, with its keeper at the tank again. minutes: on the clock."""
        return self.model_copy(update={"minutes": minutes, "visits": [*self.visits, minutes][-MOST_VISITS:]})

    def set_to(self, settings: Sequence[ChangedSetting]) -> "Practice":
        """With something set by hand. settings: in order."""
        return self.model_copy(update={"settings": [*self.settings, *settings][-MOST_SETTINGS:]})

    def ticked(self) -> "Practice":
        """A moment later, after one thing was done."""
        return self.model_copy(update={"minutes": self.minutes + ENTRY_MINUTES})

    @property
    def day(self) -> float:
        """Days since the start."""
        return self.minutes / 1440

    def setting(self, name: Setting, before: float) -> float:
        """How something stands set. name: which; before: where it was never set."""
        return next((s.value for s in reversed(self.settings) if s.name == name), before)
