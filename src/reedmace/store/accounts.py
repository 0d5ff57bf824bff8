"""Accounts: sign-up, password check, change, and the limit on failed attempts."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta

import peewee
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from reedmace.store.models import MODELS, Account, SignedIn, SignInFailure

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
        with self._database.bind_ctx(MODELS):
            try:
                row = Account.create(
                    email=email.strip().lower(),
                    password_hash=self._hasher.hash(password),
                    made_at=now,
                )
            except peewee.IntegrityError as error:
                raise EmailTaken from error
            return Keeper(row.id, row.email)

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
                return Keeper(row.id, row.email)
            if row is None:
                # Spend the same time as for a known address, so that timing tells nobody who has an account.
                self._hasher.hash(password)
            SignInFailure.insert_many([{"who": whose, "at": now}, {"who": whence, "at": now}]).execute()
            SignInFailure.delete().where(SignInFailure.at < now - WINDOW * 4).execute()
            return None

    def begin(self, keeper: Keeper, now: datetime) -> str:
        """The token of a newly signed-in browser; what is kept is its hash. now: UTC without zone."""
        token = secrets.token_urlsafe(24)
        with self._database.bind_ctx(MODELS):
            SignedIn.delete().where(SignedIn.made_at < now - SIGNED_IN_FOR).execute()
            SignedIn.create(account=keeper.id, token_hash=_digest("session", token), made_at=now)
        return token

    def end(self, token: str) -> None:
        """Sign that browser out; a token that is not known is none."""
        with self._database.bind_ctx(MODELS):
            SignedIn.delete().where(SignedIn.token_hash == _digest("session", token)).execute()

    def find(self, token: str, now: datetime) -> Keeper | None:
        """The keeper of a signed-in browser; None once signed out, outdated or after a change of password."""
        with self._database.bind_ctx(MODELS):
            row = (
                SignedIn.select(SignedIn, Account)
                .join(Account)
                .where((SignedIn.token_hash == _digest("session", token)) & (SignedIn.made_at > now - SIGNED_IN_FOR))
                .first()
            )
            return Keeper(row.account.id, row.account.email) if row else None

    def change_password(self, account_id: int, old: str, new: str) -> Keeper | None:
        """Change it and end every other session; None when the old one is wrong."""
        with self._database.bind_ctx(MODELS), self._database.atomic():
            row = Account.get_or_none(Account.id == account_id)
            if row is None or not self._verify(row.password_hash, old):
                return None
            row.password_hash = self._hasher.hash(new)
            row.save()
            SignedIn.delete().where(SignedIn.account == account_id).execute()
            return Keeper(row.id, row.email)

    def by_email(self, email: str) -> Keeper | None:
        """The keeper of an address, None when there is none (for the demo's open door)."""
        with self._database.bind_ctx(MODELS):
            row = Account.get_or_none(Account.email == email.strip().lower())
            return Keeper(row.id, row.email) if row else None

    def _verify(self, stored: str, password: str) -> bool:
        try:
            return self._hasher.verify(stored, password)
        except (VerificationError, InvalidHashError):
            return False


def _digest(kind: str, value: str) -> str:
    return hashlib.sha256(f"{kind}:{value}".encode()).hexdigest()
