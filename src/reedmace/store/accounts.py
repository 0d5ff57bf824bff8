"""Accounts: sign-up, password check, change, and the limit on failed attempts."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address, ip_network

import peewee
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from reedmace.store.models import Account, CalendarLink, RecoveryCode, SignedIn, SignInFailure

WINDOW = timedelta(minutes=15)
FAILURES_HERE, FAILURES_PER_ACCOUNT, FAILURES_PER_ADDRESS = 8, 40, 60
"""Failed attempts allowed for one account from one address, for the account from everywhere (high enough that nobody
can lock its keeper out), and for the address.
"""
SIGN_UPS_AN_HOUR = 30
"""Sign-ups an hour from one address."""
VISITS_AN_HOUR, VISIT = 600, timedelta(days=1)
"""Demo visits an hour from one address, and the lifetime of a visit."""
VISITOR = "visitor "
"""Email prefix of a visit's account. No email address starts like this, since none contains a space."""
SIGNED_IN_FOR = timedelta(days=60)
CODES_COUNT, CODE_LETTERS = 8, "abcdefghjkmnpqrstuvwxyz23456789"
"""Number and length of recovery codes, of unambiguous letters and digits; twelve are 59 bits."""


class EmailTaken(Exception):
    """The email address already has an account."""


@dataclass
class TooManyAttempts(Exception):
    """Signing in is paused for `wait_s` seconds."""

    wait_s: int


@dataclass(frozen=True)
class Keeper:
    """An account as the rest of the program sees it."""

    id: int
    email: str
    units: dict[str, str] | None = None
    """As chosen, or None."""

    @property
    def visiting(self) -> bool:
        """Whether this is a visit of the demo."""
        return self.email.startswith(VISITOR)


class Accounts:
    """Queries on accounts. Times are UTC without zone, as stored."""

    def __init__(
        self, database: peewee.Database, hasher: PasswordHasher | None = None, sign_ups: int = SIGN_UPS_AN_HOUR
    ) -> None:
        self._database = database
        self._sign_ups = sign_ups
        self._hasher = hasher or PasswordHasher()

    def sign_up(
        self,
        email: str,
        password: str,
        now: datetime,
        whence: str | None = None,
        units: dict[str, str] | None = None,
    ) -> Keeper:
        """Make an account. whence: the sender's address, whose sign-ups are counted; units: as chosen.

        Raises EmailTaken, TooManyAttempts.
        """
        if whence is not None:
            tried = _digest("sign-up", network_of(whence))
            self._hold([(tried, self._sign_ups)], now, timedelta(hours=1))
            # Addresses already taken count too: otherwise trying them would reveal who has an account.
            self._note([tried], now)
        try:
            address = email.strip().lower()
            new = Account.insert(email=address, password_hash=self._hasher.hash(password), made_at=now, units=units)
            return Keeper(new.bind(self._database).execute(), address, units)
        except peewee.IntegrityError as error:
            raise EmailTaken from error

    def sign_in(self, email: str, password: str, address: str, now: datetime) -> Keeper | None:
        """The keeper if the password is right, otherwise None. Raises TooManyAttempts before any check."""
        held, own = _limits(email.strip().lower(), address)
        self._hold(held, now, WINDOW)
        row = self._row(Account.email == email.strip().lower())
        if row is not None and self._verify(row.password_hash, password):
            SignInFailure.delete().where(SignInFailure.who == own).bind(self._database).execute()
            return Keeper(row.id, row.email, row.units)
        if row is None:
            # Take the same time as for a known address, so that timing does not reveal who has an account.
            self._hasher.hash(password)
        self._note([who for who, _ in held], now)
        return None

    def begin(self, keeper: Keeper, now: datetime) -> str:
        """The token of a new session; only its hash is stored. now: UTC without zone."""
        token = secrets.token_urlsafe(24)
        SignedIn.delete().where(SignedIn.made_at < now - SIGNED_IN_FOR).bind(self._database).execute()
        new = SignedIn.insert(account=keeper.id, token_hash=_digest("session", token), made_at=now)
        new.bind(self._database).execute()
        return token

    def end(self, token: str) -> None:
        """End a session; an unknown token is ignored."""
        SignedIn.delete().where(SignedIn.token_hash == _digest("session", token)).bind(self._database).execute()

    def find(self, token: str, now: datetime) -> Keeper | None:
        """The keeper of a session; None once signed out, expired or after a change of password."""
        row = (
            SignedIn.select(SignedIn, Account)
            .join(Account)
            .where((SignedIn.token_hash == _digest("session", token)) & (SignedIn.made_at > now - SIGNED_IN_FOR))
            .bind(self._database)
            .first()
        )
        return Keeper(row.account.id, row.account.email, row.account.units) if row else None

    def change_password(self, account_id: int, old: str, new: str, address: str, now: datetime) -> Keeper | None:
        """Change the password and end every other session; None when the old one is wrong. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone. A guess at the old password is one at signing in.
        """
        known = self._checked(account_id, old, address, now)
        if known is None:
            return None
        self._set_password(known, new)
        return Keeper(known.id, known.email, known.units)

    def fresh_codes(self, account_id: int, now: datetime) -> list[str]:
        """New recovery codes; older ones stop working."""
        codes = ["-".join(_letters(4) for _ in range(3)) for _ in range(CODES_COUNT)]
        rows = [{"account": account_id, "code_hash": _digest("recovery", _bare(c)), "made_at": now} for c in codes]
        with self._database.atomic():
            RecoveryCode.delete().where(RecoveryCode.account == account_id).bind(self._database).execute()
            RecoveryCode.insert_many(rows).bind(self._database).execute()
        return codes

    def codes_with(self, account_id: int, password: str, address: str, now: datetime) -> list[str] | None:
        """The same after a password check; None when it is wrong. Raises TooManyAttempts."""
        known = self._checked(account_id, password, address, now)
        return None if known is None else self.fresh_codes(known.id, now)

    def codes_left(self, account_id: int) -> int:
        """Number of unused codes."""
        return int(RecoveryCode.select().where(RecoveryCode.account == account_id).bind(self._database).count())

    def recover(self, email: str, code: str, new: str, address: str, now: datetime) -> Keeper | None:
        """Set a new password by a recovery code, which is used up; None when it is invalid. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone. A guess at a code is one at signing in.
        """
        held, _ = _limits(email.strip().lower(), address)
        self._hold(held, now, WINDOW)
        known = self._row(Account.email == email.strip().lower())
        own = (RecoveryCode.account == (known.id if known else 0)) & (
            RecoveryCode.code_hash == _digest("recovery", _bare(code))
        )
        # The number of deleted rows tells whether the code was still valid, so it cannot be used twice at once.
        if known is None or not RecoveryCode.delete().where(own).bind(self._database).execute():
            self._note([who for who, _ in held], now)
            return None
        self._set_password(known, new)
        return Keeper(known.id, known.email, known.units)

    def _set_password(self, known: Account, new: str) -> None:
        """Change the password and end every session."""
        with self._database.atomic():
            change = Account.update(password_hash=self._hasher.hash(new)).where(Account.id == known.id)
            change.bind(self._database).execute()
            SignedIn.delete().where(SignedIn.account == known.id).bind(self._database).execute()

    def change_email(self, account_id: int, password: str, email: str, address: str, now: datetime) -> Keeper | None:
        """Change the email address; None when the password is wrong. Raises EmailTaken, TooManyAttempts.

        address: the sender's; now: UTC without zone.
        """
        known = self._checked(account_id, password, address, now)
        if known is None:
            return None
        new = email.strip().lower()
        try:
            Account.update(email=new).where(Account.id == account_id).bind(self._database).execute()
        except peewee.IntegrityError as error:
            raise EmailTaken from error
        return Keeper(known.id, new, known.units)

    def close(self, account_id: int, password: str, address: str, now: datetime) -> bool:
        """Delete the account with everything in it; False when the password is wrong. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone.
        """
        if self._checked(account_id, password, address, now) is None:
            return False
        Account.delete().where(Account.id == account_id).bind(self._database).execute()
        return True

    def reset(self, email: str, password: str) -> bool:
        """Set a new password by the operator; every session ends. False for an unknown email address."""
        known = self._row(Account.email == email.strip().lower())
        if known is None:
            return False
        self._set_password(known, password)
        return True

    def _checked(self, account_id: int, password: str, address: str, now: datetime) -> Account | None:
        """The account if its password is right. A wrong one counts as a failed sign-in."""
        known = self._row(Account.id == account_id)
        held, _ = _limits(known.email if known else "", address)
        self._hold(held, now, WINDOW)
        if known is None or not self._verify(known.password_hash, password):
            self._note([who for who, _ in held], now)
            return None
        return known

    def by_id(self, account_id: int) -> Keeper | None:
        """The keeper of an account; None when it is gone."""
        row = self._row(Account.id == account_id)
        return Keeper(row.id, row.email, row.units) if row else None

    def reject_guessing(self, address: str, now: datetime) -> None:
        """Reject an address that has tried too many invalid links. Raises TooManyAttempts."""
        self._hold([(_digest("link", network_of(address)), FAILURES_PER_ADDRESS)], now, WINDOW)

    def count_guess(self, address: str, now: datetime) -> None:
        """Count an invalid link."""
        self._note([_digest("link", network_of(address))], now)

    def by_email(self, email: str) -> Keeper | None:
        """The keeper of an email address, None when there is none (for the demo)."""
        row = self._row(Account.email == email.strip().lower())
        return Keeper(row.id, row.email, row.units) if row else None

    def visitor(self, now: datetime, whence: str, units: dict[str, str] | None = None) -> Keeper:
        """An account for one visit of the demo, without sign-in; visits older than a day are deleted.

        now: UTC without zone; whence: the sender's address, whose visits are counted; units: as chosen.
        Raises TooManyAttempts.
        """
        tried = _digest("visit", network_of(whence))
        self._hold([(tried, VISITS_AN_HOUR)], now, timedelta(hours=1))
        self._note([tried], now)
        self.forget_visitors(now - VISIT)
        address = f"{VISITOR}{secrets.token_hex(8)}"
        new = Account.insert(email=address, password_hash="none", made_at=now, units=units)  # noqa: S106 - no password opens it
        return Keeper(new.bind(self._database).execute(), address, units)

    def forget_visitors(self, before: datetime) -> None:
        """Delete every visit begun before a time, with its tanks. before: UTC without zone."""
        old = Account.email.startswith(VISITOR) & (Account.made_at < before)
        Account.delete().where(old).bind(self._database).execute()

    def calendar_link(self, account_id: int, now: datetime) -> str:
        """The token of a new calendar link; an older one stops working. now: UTC without zone."""
        token = secrets.token_urlsafe(24)
        with self._database.atomic():
            self.end_calendar(account_id)
            new = CalendarLink.insert(account=account_id, token_hash=_digest("calendar", token), made_at=now)
            new.bind(self._database).execute()
        return token

    def end_calendar(self, account_id: int) -> None:
        """Revoke the link, if there is one."""
        CalendarLink.delete().where(CalendarLink.account == account_id).bind(self._database).execute()

    def calendar_since(self, account_id: int) -> datetime | None:
        """When the link was made, aware; None without one."""
        row = CalendarLink.select().where(CalendarLink.account == account_id).bind(self._database).first()
        return row.made_at.replace(tzinfo=UTC) if row else None

    def by_calendar(self, token: str) -> Keeper | None:
        """The keeper of a calendar link; None for an invalid one."""
        row = (
            CalendarLink.select(CalendarLink, Account)
            .join(Account)
            .where(CalendarLink.token_hash == _digest("calendar", token))
            .bind(self._database)
            .first()
        )
        return Keeper(row.account.id, row.account.email, row.account.units) if row else None

    def choose_units(self, account_id: int, units: dict[str, str]) -> None:
        """Store the units of this keeper. units: as chosen."""
        Account.update(units=units).where(Account.id == account_id).bind(self._database).execute()

    def _hold(self, limits: list[tuple[str, int]], now: datetime, window: timedelta) -> None:
        for who, limit in limits:
            recent = (
                SignInFailure.select(SignInFailure.at)
                .where((SignInFailure.who == who) & (SignInFailure.at > now - window))
                .order_by(SignInFailure.at)
            )
            times = [row.at for row in recent.bind(self._database)]
            if len(times) >= limit:
                raise TooManyAttempts(max(int((times[-limit] + window - now).total_seconds()), 1))

    def _note(self, whom: list[str], now: datetime) -> None:
        SignInFailure.insert_many([{"who": who, "at": now} for who in whom]).bind(self._database).execute()
        SignInFailure.delete().where(SignInFailure.at < now - WINDOW * 4).bind(self._database).execute()

    def _row(self, which: peewee.Expression) -> Account | None:
        row: Account | None = Account.select().where(which).bind(self._database).first()
        return row

    def _verify(self, stored: str, password: str) -> bool:
        try:
            return self._hasher.verify(stored, password)
        except (VerificationError, InvalidHashError):
            return False


def _letters(count: int) -> str:
    return "".join(secrets.choice(CODE_LETTERS) for _ in range(count))


def _bare(code: str) -> str:
    """Normalized form of a code: people leave dashes out and write capitals."""
    return "".join(letter for letter in code.lower() if letter.isalnum())


def network_of(address: str) -> str:
    """The network of an address: a household has a whole /64 of IPv6, within which it can change freely."""
    try:
        parsed = ip_address(address)
    except ValueError:
        return address
    return str(parsed) if parsed.version == 4 else str(ip_network(f"{parsed}/64", strict=False))


def _limits(email: str, address: str) -> tuple[list[tuple[str, int]], str]:
    """Counters of a failed attempt with their limits, and the one a correct password resets."""
    network = network_of(address)
    own = _digest("account-here", f"{email} {network}")
    everywhere = (_digest("account", email), FAILURES_PER_ACCOUNT)
    return [(own, FAILURES_HERE), everywhere, (_digest("address", network), FAILURES_PER_ADDRESS)], own


def _digest(kind: str, value: str) -> str:
    return hashlib.sha256(f"{kind}:{value}".encode()).hexdigest()
