"""A fish room as one JSON bundle, out and in: its plan, and the bundle of every tank on it."""

from collections.abc import Iterable, Iterator
from datetime import datetime
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field, model_validator

from reedmace.core.contract import Part
from reedmace.formats.bundle import Bundle, bundle_parts
from reedmace.logbook.plans.room_plan import RoomPlan
from reedmace.logbook.replay.entries import Entry, StoredReading

MOST_TANKS = 200


class RoomBundle(Part):
    """A room: its plan as drawn, and its tanks in the order of `tank_ids`, by which the plan names them."""

    format: Literal["reedmace-room"] = "reedmace-room"
    version: Literal[1] = 1
    written_at: AwareDatetime
    room: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    plan: RoomPlan
    tank_ids: Annotated[list[Annotated[int, Field(ge=1, le=2**53)]], Field(max_length=MOST_TANKS)]
    tanks: Annotated[list[Bundle], Field(max_length=MOST_TANKS)]

    @model_validator(mode="after")
    def _every_tank_is_there(self) -> "RoomBundle":
        if len(self.tank_ids) != len(self.tanks) or len(set(self.tank_ids)) != len(self.tank_ids):
            raise ValueError(f"tank_ids names {len(set(self.tank_ids))} tanks where {len(self.tanks)} are; one each")
        return self


def room_bundle_parts(
    name: str, plan: RoomPlan, tanks: Iterable[tuple[int, str, Iterable[Entry | StoredReading]]], now: datetime
) -> Iterator[str]:
    """JSON text of a room's bundle in pieces.

    name, plan: the room's; tanks: id, name and all entries of each; now: aware time of writing.
    """
    tanks = list(tanks)
    head = RoomBundle.model_construct(
        format="reedmace-room",
        version=1,
        written_at=now,
        room=name,
        plan=plan,
        tank_ids=[i for i, _, _ in tanks],
        tanks=[],
    )
    yield head.model_dump_json(indent=1).removesuffix("]\n}")
    # Each logbook is written as its own file would be, so that either can be imported alone.
    for n, (_, one, entries) in enumerate(tanks):
        yield ",\n" if n else "\n"
        yield from bundle_parts(one, entries, now)
    yield "]\n}"
