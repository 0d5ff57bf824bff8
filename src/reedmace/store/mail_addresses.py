"""Where mail to an account goes, and whether its address was shown to be its own."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

import peewee

from reedmace.store.keepers import GUEST, VISITOR
from reedmace.store.models import Account
from reedmace.store.removal import CLOSED

VISIT_HOST = "visit.example"
"""Host of a demo visit's address, which only the demo's own mail server takes."""


@dataclass(frozen=True)
class MailAddress:
    """An account's address, and what its mails are made with."""

    account_id: int
    email: str
    password_hash: str
    units: dict[str, str] | None
    confirmed: bool
    visiting: bool = False


def mail_address(database: peewee.Database, account_id: int) -> MailAddress | None:
    """Where mail to an account goes; None for a guest, who has no address, and for an account that is gone."""
    return _address(Account.id == account_id, database)


def mail_address_of(database: peewee.Database, email: str) -> MailAddress | None:
    """The same by its address."""
    return _address(Account.email == email.strip().lower(), database)


def _address(which: Any, database: peewee.Database) -> MailAddress | None:
    row = Account.select().where(which).bind(database).first()
    if row is None or row.email.startswith((GUEST, CLOSED)):
        return None
    visiting = row.email.startswith(VISITOR)
    email = f"{row.email.replace(' ', '-')}@{VISIT_HOST}" if visiting else row.email
    return MailAddress(row.id, email, row.password_hash, row.units, row.confirmed_at is not None, visiting)


def confirm_address(database: peewee.Database, account_id: int, email: str, now: datetime) -> bool:
    """Note that an address is the account's own; False where it has another one by now. now: UTC without zone."""
    mine = (Account.id == account_id) & (Account.email == email)
    Account.update(confirmed_at=now).where(mine & Account.confirmed_at.is_null()).bind(database).execute()
    return bool(Account.select().where(mine).bind(database).exists())
