"""Accounts: sign-up, password check, change, and the limit on failed attempts."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta

import peewee
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from reedmace.store.models import MODELS, Account, SignInFailure

WINDOW = timedelta(minutes=15)
FAILURES_PER_ACCOUNT, FAILURES_PER_ADDRESS = 8, 60


class EmailTaken(Exception):
    """That address has an account."""


@dataclass
class TooManyAttempts(Exception):
    """Signing in is paused for `wait_s` seconds."""

    wait_s: int


@dataclass(frozen=True)
class Keeper:
    """An account as the rest of the program sees it."""

    id: int
    email: str
    stamp: str


class Accounts:
    """Queries on accounts. Times are UTC without zone, as stored."""

    def __init__(self, database: peewee.Database, hasher: PasswordHasher | None = None) -> None:
        self._database = database
        self._hasher = hasher or PasswordHasher()

    def sign_up(self, email: str, password: str, now: datetime) -> Keeper:
        """Make an account. Raises EmailTaken."""
        with self._database.bind_ctx(MODELS):
            try:
                row = Account.create(
                    email=email.strip().lower(),
                    password_hash=self._hasher.hash(password),
                    stamp=secrets.token_hex(16),
                    made_at=now,
                )
            except peewee.IntegrityError as error:
                raise EmailTaken from error
            return Keeper(row.id, row.email, row.stamp)

    def sign_in(self, email: str, password: str, address: str, now: datetime) -> Keeper | None:
        """The keeper if the password is right, else None. Raises TooManyAttempts before it looks at all."""
        whose, whence = _digest("account", email.strip().lower()), _digest("address", address)
        with self._database.bind_ctx(MODELS):
            for who, limit in ((whose, FAILURES_PER_ACCOUNT), (whence, FAILURES_PER_ADDRESS)):
                recent = (
                    SignInFailure.select(SignInFailure.at)
                    .where((SignInFailure.who == who) & (SignInFailure.at > now - WINDOW))
                    .order_by(SignInFailure.at)
                )
                times = [row.at for row in recent]
                if len(times) >= limit:
                    raise TooManyAttempts(max(int((times[-limit] + WINDOW - now).total_seconds()), 1))
            row = Account.get_or_none(Account.email == email.strip().lower())
            if row is not None and self._verify(row.password_hash, password):
                SignInFailure.delete().where(SignInFailure.who == whose).execute()
                return Keeper(row.id, row.email, row.stamp)
            if row is None:
                # Spend the same time as for a known address, so that timing tells nobody who has an account.
                self._hasher.hash(password)
            SignInFailure.insert_many([{"who": whose, "at": now}, {"who": whence, "at": now}]).execute()
            SignInFailure.delete().where(SignInFailure.at < now - WINDOW * 4).execute()
            return None

    def find(self, account_id: int, stamp: str) -> Keeper | None:
        """The keeper of a session, None when the password has changed since."""
        with self._database.bind_ctx(MODELS):
            row = Account.get_or_none((Account.id == account_id) & (Account.stamp == stamp))
            return Keeper(row.id, row.email, row.stamp) if row else None

    def change_password(self, account_id: int, old: str, new: str) -> Keeper | None:
        """Change it and end every other session; None when the old one is wrong."""
        with self._database.bind_ctx(MODELS), self._database.atomic():
            row = Account.get_or_none(Account.id == account_id)
            if row is None or not self._verify(row.password_hash, old):
                return None
            row.password_hash, row.stamp = self._hasher.hash(new), secrets.token_hex(16)
            row.save()
            return Keeper(row.id, row.email, row.stamp)

    def by_email(self, email: str) -> Keeper | None:
        """The keeper of an address, None when there is none (for the demo's open door)."""
        with self._database.bind_ctx(MODELS):
            row = Account.get_or_none(Account.email == email.strip().lower())
            return Keeper(row.id, row.email, row.stamp) if row else None

    def _verify(self, stored: str, password: str) -> bool:
        try:
            return self._hasher.verify(stored, password)
        except (VerificationError, InvalidHashError):
            return False


def _digest(kind: str, value: str) -> str:
    return hashlib.sha256(f"{kind}:{value}".encode()).hexdigest()
