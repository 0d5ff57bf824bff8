"""Devices and their tokens. A token is shown once, when it is made; what is kept is its hash."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import UTC, datetime

import peewee

from reedmace.store.models import MODELS, DeviceRow, Tank
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
        if not Tank.select().where((Tank.id == tank_id) & (Tank.account == self._account_id)).exists():
            raise NoSuchTank

    def all(self, tank_id: int) -> list[Device]:
        """Every device of a tank, oldest first. Raises NoSuchTank."""
        with self._database.bind_ctx(MODELS):
            self._own(tank_id)
            return [_device(r) for r in DeviceRow.select().where(DeviceRow.tank == tank_id).order_by(DeviceRow.id)]

    def make(
        self, tank_id: int, name: str, kind: str, now: datetime, filter_key: str | None = None
    ) -> tuple[Device, str]:
        """A new device and its token, which is not kept. now: aware time. Raises NoSuchTank."""
        token = secrets.token_urlsafe(24)
        with self._database.bind_ctx(MODELS):
            self._own(tank_id)
            row = DeviceRow.create(
                tank=tank_id,
                name=name,
                kind=kind,
                filter_key=filter_key,
                token_hash=_hash(token),
                made_at=now.astimezone(UTC).replace(tzinfo=None),
            )
            return _device(row), token

    def remove(self, tank_id: int, device_id: int) -> None:
        """Take a device's right to write away. Raises NoSuchTank, NoSuchDevice."""
        with self._database.bind_ctx(MODELS):
            self._own(tank_id)
            gone = DeviceRow.delete().where((DeviceRow.tank == tank_id) & (DeviceRow.id == device_id)).execute()
            if not gone:
                raise NoSuchDevice


def by_token(database: peewee.Database, token: str) -> tuple[Device, int, Tanks]:
    """The device of a token, its tank's id, and the queries on that tank's account. Raises NoSuchDevice."""
    with database.bind_ctx(MODELS):
        row = DeviceRow.select(DeviceRow, Tank).join(Tank).where(DeviceRow.token_hash == _hash(token)).first()
        if row is None:
            raise NoSuchDevice
        return _device(row), row.tank_id, Tanks(database, row.tank.account_id)
