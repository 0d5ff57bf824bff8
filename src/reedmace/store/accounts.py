"""Accounts: sign-up, password check, change, and the limit on failed attempts."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta

import peewee
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from reedmace.store.models import Account, SignedIn, SignInFailure

WINDOW = timedelta(minutes=15)
FAILURES_PER_ACCOUNT, FAILURES_PER_ADDRESS = 8, 60
SIGNED_IN_FOR = timedelta(days=60)


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


class Accounts:
    """Queries on accounts. Times are UTC without zone, as stored."""

    def __init__(self, database: peewee.Database, hasher: PasswordHasher | None = None) -> None:
        self._database = database
        self._hasher = hasher or PasswordHasher()

    def sign_up(self, email: str, password: str, now: datetime) -> Keeper:
        """Make an account. Raises EmailTaken."""
        try:
            address = email.strip().lower()
            new = Account.insert(email=address, password_hash=self._hasher.hash(password), made_at=now)
            return Keeper(new.bind(self._database).execute(), address)
        except peewee.IntegrityError as error:
            raise EmailTaken from error

    def sign_in(self, email: str, password: str, address: str, now: datetime) -> Keeper | None:
        """The keeper if the password is right, else None. Raises TooManyAttempts before it looks at all."""
        whose, whence = _digest("account", email.strip().lower()), _digest("address", address)
        for who, limit in ((whose, FAILURES_PER_ACCOUNT), (whence, FAILURES_PER_ADDRESS)):
            recent = (
                SignInFailure.select(SignInFailure.at)
                .where((SignInFailure.who == who) & (SignInFailure.at > now - WINDOW))
                .order_by(SignInFailure.at)
            )
            times = [row.at for row in recent.bind(self._database)]
            if len(times) >= limit:
                raise TooManyAttempts(max(int((times[-limit] + WINDOW - now).total_seconds()), 1))
        row = self._row(Account.email == email.strip().lower())
        if row is not None and self._verify(row.password_hash, password):
            SignInFailure.delete().where(SignInFailure.who == whose).bind(self._database).execute()
            return Keeper(row.id, row.email)
        if row is None:
            # Spend the same time as for a known address, so that timing tells nobody who has an account.
            self._hasher.hash(password)
        rows = [{"who": whose, "at": now}, {"who": whence, "at": now}]
        SignInFailure.insert_many(rows).bind(self._database).execute()
        SignInFailure.delete().where(SignInFailure.at < now - WINDOW * 4).bind(self._database).execute()
        return None

    def begin(self, keeper: Keeper, now: datetime) -> str:
        """The token of a newly signed-in browser; what is kept is its hash. now: UTC without zone."""
        token = secrets.token_urlsafe(24)
        SignedIn.delete().where(SignedIn.made_at < now - SIGNED_IN_FOR).bind(self._database).execute()
        new = SignedIn.insert(account=keeper.id, token_hash=_digest("session", token), made_at=now)
        new.bind(self._database).execute()
        return token

    def end(self, token: str) -> None:
        """Sign that browser out; a token that is not known is none."""
        SignedIn.delete().where(SignedIn.token_hash == _digest("session", token)).bind(self._database).execute()

    def find(self, token: str, now: datetime) -> Keeper | None:
        """The keeper of a signed-in browser; None once signed out, outdated or after a change of password."""
        row = (
            SignedIn.select(SignedIn, Account)
            .join(Account)
            .where((SignedIn.token_hash == _digest("session", token)) & (SignedIn.made_at > now - SIGNED_IN_FOR))
            .bind(self._database)
            .first()
        )
        return Keeper(row.account.id, row.account.email) if row else None

    def change_password(self, account_id: int, old: str, new: str) -> Keeper | None:
        """Change it and end every other session; None when the old one is wrong."""
        with self._database.atomic():
            row = self._row(Account.id == account_id)
            if row is None or not self._verify(row.password_hash, old):
                return None
            change = Account.update(password_hash=self._hasher.hash(new)).where(Account.id == account_id)
            change.bind(self._database).execute()
            SignedIn.delete().where(SignedIn.account == account_id).bind(self._database).execute()
            return Keeper(row.id, row.email)

    def by_email(self, email: str) -> Keeper | None:
        """The keeper of an address, None when there is none (for the demo's open door)."""
        row = self._row(Account.email == email.strip().lower())
        return Keeper(row.id, row.email) if row else None

    def _row(self, which: peewee.Expression) -> Account | None:
        row: Account | None = Account.select().where(which).bind(self._database).first()
        return row

    def _verify(self, stored: str, password: str) -> bool:
        try:
            return self._hasher.verify(stored, password)
        except (VerificationError, InvalidHashError):
            return False


def _digest(kind: str, value: str) -> str:
    return hashlib.sha256(f"{kind}:{value}".encode()).hexdigest()
