"""Devices and their tokens. A token is shown once, when it is made; what is kept is its hash."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import UTC, datetime

import peewee

from reedmace.store.models import DeviceRow, Tank
from reedmace.store.tanks import NoSuchTank, Tanks


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


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def _device(row: DeviceRow) -> Device:
    return Device(row.id, row.name, row.kind, row.made_at.replace(tzinfo=UTC), row.filter_key)


class Devices:
    """Queries on the devices of one account's tanks."""

    def __init__(self, database: peewee.Database, account_id: int) -> None:
        self._database = database
        self._account_id = account_id

    def _own(self, tank_id: int) -> None:
        mine = Tank.select().where((Tank.id == tank_id) & (Tank.account == self._account_id))
        if not mine.bind(self._database).exists():
            raise NoSuchTank

    def all(self, tank_id: int) -> list[Device]:
        """Every device of a tank, oldest first. Raises NoSuchTank."""
        self._own(tank_id)
        rows = DeviceRow.select().where(DeviceRow.tank == tank_id).order_by(DeviceRow.id)
        return [_device(r) for r in rows.bind(self._database)]

    def make(
        self, tank_id: int, name: str, kind: str, now: datetime, filter_key: str | None = None
    ) -> tuple[Device, str]:
        """A new device and its token, which is not kept. now: aware time. Raises NoSuchTank."""
        token = secrets.token_urlsafe(24)
        self._own(tank_id)
        new = DeviceRow.insert(
            tank=tank_id,
            name=name,
            kind=kind,
            filter_key=filter_key,
            token_hash=_hash(token),
            made_at=now.astimezone(UTC).replace(tzinfo=None),
        )
        return Device(new.bind(self._database).execute(), name, kind, now, filter_key), token

    def remove(self, tank_id: int, device_id: int) -> None:
        """Take a device's right to write away. Raises NoSuchTank, NoSuchDevice."""
        self._own(tank_id)
        one = DeviceRow.delete().where((DeviceRow.tank == tank_id) & (DeviceRow.id == device_id))
        if not one.bind(self._database).execute():
            raise NoSuchDevice


def by_token(database: peewee.Database, token: str) -> tuple[Device, int, Tanks]:
    """The device of a token, its tank's id, and the queries on that tank's account. Raises NoSuchDevice."""
    row = (
        DeviceRow.select(DeviceRow, Tank).join(Tank).where(DeviceRow.token_hash == _hash(token)).bind(database).first()
    )
    if row is None:
        raise NoSuchDevice
    return _device(row), row.tank_id, Tanks(database, row.tank.account_id)
