"""Entries of a room of many tanks: its round as taken on, and broods."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.upkeep.care_schemas import CareWhat
from reedmace.logbook.plans.plan_kinds import FilterKey
from reedmace.logbook.times import OurTime


class TaskOnRound(Part):
    """A task of this tank that the room's round reckoned with."""

    what: CareWhat
    filter_key: FilterKey | None = None
    due_at: OurTime
    days: Annotated[list[date], Field(max_length=7, description="Walking days; none where it is left for next week")]


class OnRound(Part):
    """The week's round of the tank's room as taken on; without tasks it was given back. The newest counts."""

    kind: Literal["on-round"]
    from_day: date
    tasks: Annotated[list[TaskOnRound], Field(max_length=100)] = Field(default_factory=list)


BroodKey = Annotated[
    str, Field(min_length=4, max_length=40, pattern=r"^[A-Za-z0-9_-]+$", description="The same in every tank")
]


class BroodStep(Part):
    """A step in the life of a brood."""

    kind: Literal["brood"]
    brood: BroodKey
    what: Literal["pair", "spawned", "hatched", "free-swimming", "counted", "came", "moved", "sold", "lost", "ended"]
    species_id: Name
    count: (
        Annotated[int, whole(0, 20000, "There are now; of moved, sold and lost: went, all where left out")] | None
    ) = None
    length_cm: Annotated[float, number("cm", 0.1, 200, "Measured")] | None = None
    free_at: OurTime | None = Field(default=None, description="Of a brood that came: since when it swims freely")
