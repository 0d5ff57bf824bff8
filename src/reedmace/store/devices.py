"""Devices and their tokens. A token is shown once, when it is made; only its hash is stored."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import UTC, datetime

import peewee

from reedmace.store.models import DeviceRow, RoomRow, Tank
from reedmace.store.quotas import MOST_DEVICES, too_many_devices
from reedmace.store.rooms import KeptRoom, Rooms
from reedmace.store.tanks import Tanks


class NoSuchDevice(LookupError):
    """No device of that id on this tank, or of that token anywhere."""


@dataclass(frozen=True)
class Device:
    """One device."""

    id: int
    name: str
    kind: str
    made_at: datetime
    filter_key: str | None = None


def hash_of(token: str) -> str:
    """What is stored of a secret. token: it."""
    return hashlib.sha256(token.encode()).hexdigest()


def _device(row: DeviceRow) -> Device:
    return Device(row.id, row.name, row.kind, row.made_at.replace(tzinfo=UTC), row.filter_key)


class Devices:
    """Queries on the devices of one account's tanks and rooms, and of the tanks it keeps in others' households."""

    def __init__(self, database: peewee.Database, account_id: int, tanks: Tanks) -> None:
        self._database = database
        self._account_id = account_id
        self._tanks = tanks

    def _of_tank(self, tank_id: int) -> peewee.Expression:
        """Raises NoSuchTank, or NotAllowed where the tank is another's and this role may not manage it."""
        self._tanks.allow_keeper(tank_id)
        return DeviceRow.tank == tank_id

    def _of_room(self, room_id: int) -> peewee.Expression:
        """Raises NoSuchRoom."""
        Rooms(self._database, self._account_id).get(room_id)
        return DeviceRow.room == room_id

    def all(self, tank_id: int) -> list[Device]:
        """Every device of a tank, oldest first. Raises NoSuchTank, NotAllowed."""
        return self._all(self._of_tank(tank_id))

    def all_of_room(self, room_id: int) -> list[Device]:
        """Every device of a room, oldest first. Raises NoSuchRoom."""
        return self._all(self._of_room(room_id))

    def _all(self, where: peewee.Expression) -> list[Device]:
        rows = DeviceRow.select().where(where).order_by(DeviceRow.id)
        return [_device(r) for r in rows.bind(self._database)]

    def make(
        self, tank_id: int, name: str, kind: str, now: datetime, filter_key: str | None = None
    ) -> tuple[Device, str]:
        """A new device and its token, which is not stored.

        now: aware time. Raises NoSuchTank, NotAllowed, OverQuota.
        """
        self._of_tank(tank_id)
        return self._make(now, tank=tank_id, name=name, kind=kind, filter_key=filter_key)

    def make_for_room(self, room_id: int, name: str, kind: str, now: datetime) -> tuple[Device, str]:
        """The same for a room. now: aware time. Raises NoSuchRoom, OverQuota."""
        self._of_room(room_id)
        return self._make(now, room=room_id, name=name, kind=kind)

    def _make(self, now: datetime, **values: str | int | None) -> tuple[Device, str]:
        where = DeviceRow.tank == values["tank"] if "tank" in values else DeviceRow.room == values["room"]
        if DeviceRow.select().where(where).bind(self._database).count() >= MOST_DEVICES:
            raise too_many_devices()
        token = secrets.token_urlsafe(24)
        at = now.astimezone(UTC).replace(tzinfo=None)
        made = {"token_hash": hash_of(token), "made_at": at, "made_by": self._account_id}
        new = DeviceRow.insert(made | values).bind(self._database).execute()
        key = values.get("filter_key")
        return Device(new, str(values["name"]), str(values["kind"]), now, key if isinstance(key, str) else None), token

    def remove(self, tank_id: int, device_id: int) -> None:
        """Delete a device. Raises NoSuchTank, NotAllowed, NoSuchDevice."""
        self._remove(self._of_tank(tank_id), device_id)

    def remove_from_room(self, room_id: int, device_id: int) -> None:
        """Delete a device of a room. Raises NoSuchRoom, NoSuchDevice."""
        self._remove(self._of_room(room_id), device_id)

    def _remove(self, where: peewee.Expression, device_id: int) -> None:
        if not DeviceRow.delete().where(where & (DeviceRow.id == device_id)).bind(self._database).execute():
            raise NoSuchDevice


@dataclass(frozen=True)
class Written:
    """Where a device writes: its tank, or every tank of its room; with whose queries."""

    device: Device
    tank_id: int | None
    room: KeptRoom | None
    tanks: Tanks


def by_token(database: peewee.Database, token: str) -> Written:
    """The device of a token and where it writes. Raises NoSuchDevice."""
    row = DeviceRow.select().where(DeviceRow.token_hash == hash_of(token)).bind(database).first()
    if row is None:
        raise NoSuchDevice
    if row.room_id is not None:
        owner = RoomRow.select().where(RoomRow.id == row.room_id).bind(database).get().account_id
        return Written(_device(row), None, Rooms(database, owner).get(row.room_id), Tanks(database, owner))
    owner = Tank.select().where(Tank.id == row.tank_id).bind(database).get().account_id
    return Written(_device(row), row.tank_id, None, Tanks(database, owner))
