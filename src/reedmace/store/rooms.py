"""Rooms of one account. Every query names the account, so another's rows are out of reach."""

from dataclasses import dataclass
from datetime import UTC, datetime

import peewee

from reedmace.logbook.plans.room_plan import RoomPlan
from reedmace.store.models import RoomRow
from reedmace.store.quotas import MOST_ROOMS, too_many_rooms


class NoSuchRoom(LookupError):
    """No room of that id in this account."""


class RoomMoved(Exception):
    """The room was saved elsewhere since; `current` is the present version."""

    def __init__(self, current: "KeptRoom") -> None:
        super().__init__("the room was saved elsewhere since")
        self.current = current


@dataclass(frozen=True)
class KeptRoom:
    """A room as stored; `version` counts its saves."""

    id: int
    name: str
    plan: RoomPlan
    version: int


def _room(row: RoomRow) -> KeptRoom:
    return KeptRoom(row.id, row.name, RoomPlan.model_validate(row.plan), row.version)


class Rooms:
    """Queries on one account's rooms."""

    def __init__(self, database: peewee.Database, account_id: int) -> None:
        self._database = database
        self._account_id = account_id

    def all(self) -> list[KeptRoom]:
        """Every room, oldest first."""
        rows = RoomRow.select().where(RoomRow.account == self._account_id).order_by(RoomRow.id)
        return [_room(r) for r in rows.bind(self._database)]

    def get(self, room_id: int) -> KeptRoom:
        """One room. Raises NoSuchRoom."""
        return _room(self._row(room_id))

    def make(self, name: str, plan: RoomPlan, now: datetime) -> KeptRoom:
        """A new room. Raises OverQuota."""
        if len(self.all()) >= MOST_ROOMS:
            raise too_many_rooms()
        values = {
            "account": self._account_id,
            "name": name,
            "plan": plan.model_dump(mode="json"),
            "version": 1,
            "made_at": now.astimezone(UTC).replace(tzinfo=None),
        }
        return KeptRoom(RoomRow.insert(values).bind(self._database).execute(), name, plan, 1)

    def save(self, room_id: int, name: str, plan: RoomPlan, version: int) -> KeptRoom:
        """Save over the version it was edited from. Raises NoSuchRoom, RoomMoved."""
        changed = (
            RoomRow.update(name=name, plan=plan.model_dump(mode="json"), version=version + 1)
            .where((RoomRow.id == room_id) & (RoomRow.account == self._account_id) & (RoomRow.version == version))
            .bind(self._database)
            .execute()
        )
        if not changed:
            raise RoomMoved(self.get(room_id))
        return KeptRoom(room_id, name, plan, version + 1)

    def remove(self, room_id: int) -> None:
        """Remove a room; its tanks stay. Raises NoSuchRoom."""
        RoomRow.delete().where(RoomRow.id == self._row(room_id).id).bind(self._database).execute()

    def _row(self, room_id: int) -> RoomRow:
        mine = RoomRow.select().where((RoomRow.id == room_id) & (RoomRow.account == self._account_id))
        row: RoomRow | None = mine.bind(self._database).first()
        if row is None:
            raise NoSuchRoom
        return row
