"""Removal of tanks and accounts at once, however long their logbooks: what takes longer is left to the sweep."""

import secrets
from datetime import UTC, datetime

import peewee

from reedmace.store.models import Account, DeviceRow, EntryRow, LookLink, Tank

SMALL = 5000
"""Entries that are deleted within a request; more are left to the worker, which may take its time."""
CLOSED = "closed "
"""Email prefix of what is left of a closed account until its logbooks are deleted. No address has a space."""
LONG_AGO = datetime(1990, 1, 1)


def remove_for_good(database: peewee.Database, tank_id: int) -> None:
    """Delete a tank with its logbook; a very long one is out of everybody's reach at once and swept."""
    if _is_small(database, [tank_id]):
        Tank.delete().where(Tank.id == tank_id).bind(database).execute()
    else:
        _take_away(database, [tank_id])


def delete_account(database: peewee.Database, account_id: int) -> None:
    """Delete an account with all that leads to it; very long logbooks, whose they were forgotten, are swept."""
    tank_ids = [row.id for row in Tank.select(Tank.id).where(Tank.account == account_id).bind(database)]
    with database.atomic():
        if tank_ids and not _is_small(database, tank_ids):
            _take_away(database, tank_ids, _nobody(database))
        Account.delete().where(Account.id == account_id).bind(database).execute()


def _is_small(database: peewee.Database, tank_ids: list[int]) -> bool:
    rows = EntryRow.select(EntryRow.id).where(EntryRow.tank.in_(tank_ids)).limit(SMALL + 1)
    return bool(rows.bind(database).count() <= SMALL)


def _take_away(database: peewee.Database, tank_ids: list[int], owner: int | None = None) -> None:
    """Mark tanks as removed too long ago to be restored, and end what leads to them. owner: the new one, if any."""
    LookLink.delete().where(LookLink.tank.in_(tank_ids)).bind(database).execute()
    DeviceRow.delete().where(DeviceRow.tank.in_(tank_ids)).bind(database).execute()
    values = {"aside": "removed", "aside_at": LONG_AGO} | ({} if owner is None else {"account": owner})
    Tank.update(values).where(Tank.id.in_(tank_ids)).bind(database).execute()


def _nobody(database: peewee.Database) -> int:
    """An account without name or password, for logbooks that wait to be deleted."""
    now = datetime.now(UTC).replace(tzinfo=None)
    values = {"email": f"{CLOSED}{secrets.token_hex(16)}", "password_hash": "", "made_at": now, "contributes": False}
    return int(Account.insert(values).bind(database).execute())
