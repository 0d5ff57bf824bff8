"""Tokens that only read: shown once, stored as a hash, each with its scope and its end."""

import secrets
from dataclasses import dataclass
from datetime import UTC, datetime

import peewee

from reedmace.store.devices import hash_of
from reedmace.store.models import ReadTokenRow
from reedmace.store.quotas import MOST_READ_TOKENS, too_many_read_tokens
from reedmace.store.tanks import Tanks


class NoSuchReadToken(LookupError):
    """No token of that id in this account, or none that is valid now."""


@dataclass(frozen=True)
class ReadToken:
    """A token: what it reads and until when. tank_id: None for all of the account's tanks."""

    id: int
    account_id: int
    tank_id: int | None
    name: str
    made_at: datetime
    until: datetime


def _token(row: ReadTokenRow) -> ReadToken:
    made, until = row.made_at.replace(tzinfo=UTC), row.until.replace(tzinfo=UTC)
    return ReadToken(row.id, row.account_id, row.tank_id, row.name, made, until)


class ReadTokens:
    """Queries on the reading tokens of one account."""

    def __init__(self, database: peewee.Database, account_id: int) -> None:
        self._database = database
        self._account_id = account_id

    def all(self) -> list[ReadToken]:
        """Every token, oldest first, those whose time is over too."""
        rows = ReadTokenRow.select().where(ReadTokenRow.account == self._account_id).order_by(ReadTokenRow.id)
        return [_token(row) for row in rows.bind(self._database)]

    def make(self, name: str, tank_id: int | None, now: datetime, until: datetime) -> tuple[ReadToken, str]:
        """A new token and its secret, which is not stored.

        tank_id: a tank of the account's own; now, until: aware times. Raises NoSuchTank, OverQuota.
        """
        if tank_id is not None:
            Tanks(self._database, self._account_id).get(tank_id)
        if len(self.all()) >= MOST_READ_TOKENS:
            raise too_many_read_tokens()
        secret = secrets.token_urlsafe(24)
        made, end = (at.astimezone(UTC).replace(tzinfo=None) for at in (now, until))
        row = {
            "account": self._account_id,
            "tank": tank_id,
            "name": name,
            "token_hash": hash_of(secret),
            "made_at": made,
            "until": end,
        }
        key = ReadTokenRow.insert(row).bind(self._database).execute()
        return ReadToken(key, self._account_id, tank_id, name, now, until), secret

    def remove(self, token_id: int) -> None:
        """Revoke a token. Raises NoSuchReadToken."""
        mine = (ReadTokenRow.id == token_id) & (ReadTokenRow.account == self._account_id)
        if not ReadTokenRow.delete().where(mine).bind(self._database).execute():
            raise NoSuchReadToken


def read_token_of(database: peewee.Database, secret: str, now: datetime) -> ReadToken:
    """The token of a secret. now: aware time. Raises NoSuchReadToken, also where its time is over."""
    row = ReadTokenRow.select().where(ReadTokenRow.token_hash == hash_of(secret)).bind(database).first()
    if row is None or row.until.replace(tzinfo=UTC) <= now:
        raise NoSuchReadToken
    return _token(row)


__all__ = ["NoSuchReadToken", "ReadToken", "ReadTokens", "read_token_of"]
