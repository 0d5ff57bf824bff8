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
"""Of one account from one address; of the account from everywhere, so that nobody locks its keeper out in eight tries; of the address."""
SIGN_UPS_AN_HOUR = 30
"""From one address."""
VISITS_AN_HOUR, VISIT = 600, timedelta(days=1)
"""Of the demo from one address; how long a visit is kept."""
VISITOR = "visitor "
"""How such an account is called. No address begins so, since none has a space: nobody can sign up as one."""
SIGNED_IN_FOR = timedelta(days=60)
CODES_COUNT, CODE_LETTERS = 8, "abcdefghjkmnpqrstuvwxyz23456789"
"""Codes to come back in with, in letters and digits nobody mistakes for another; twelve of them are 59 bits."""


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
    units: dict[str, str] | None = None
    """As chosen, or None for who never chose."""

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
            # Addresses that are taken count too: asking for them one by one would tell who has an account.
            self._note([tried], now)
        try:
            address = email.strip().lower()
            new = Account.insert(email=address, password_hash=self._hasher.hash(password), made_at=now, units=units)
            return Keeper(new.bind(self._database).execute(), address, units)
        except peewee.IntegrityError as error:
            raise EmailTaken from error

    def sign_in(self, email: str, password: str, address: str, now: datetime) -> Keeper | None:
        """The keeper if the password is right, else None. Raises TooManyAttempts before it looks at all."""
        held, own = _limits(email.strip().lower(), address)
        self._hold(held, now, WINDOW)
        row = self._row(Account.email == email.strip().lower())
        if row is not None and self._verify(row.password_hash, password):
            SignInFailure.delete().where(SignInFailure.who == own).bind(self._database).execute()
            return Keeper(row.id, row.email, row.units)
        if row is None:
            # Spend the same time as for a known address, so that timing tells nobody who has an account.
            self._hasher.hash(password)
        self._note([who for who, _ in held], now)
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
        return Keeper(row.account.id, row.account.email, row.account.units) if row else None

    def change_password(self, account_id: int, old: str, new: str, address: str, now: datetime) -> Keeper | None:
        """Change it and end every other session; None when the old one is wrong. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone. A guess at the old password is one at signing in.
        """
        known = self._checked(account_id, old, address, now)
        if known is None:
            return None
        self._set_password(known, new)
        return Keeper(known.id, known.email, known.units)

    def fresh_codes(self, account_id: int, now: datetime) -> list[str]:
        """New codes to come back in with when the password is lost; older ones are worth nothing from now on."""
        codes = ["-".join(_letters(4) for _ in range(3)) for _ in range(CODES_COUNT)]
        rows = [{"account": account_id, "code_hash": _digest("recovery", _bare(c)), "made_at": now} for c in codes]
        with self._database.atomic():
            RecoveryCode.delete().where(RecoveryCode.account == account_id).bind(self._database).execute()
            RecoveryCode.insert_many(rows).bind(self._database).execute()
        return codes

    def codes_with(self, account_id: int, password: str, address: str, now: datetime) -> list[str] | None:
        """The same for whoever shows the password; None when it is wrong. Raises TooManyAttempts."""
        known = self._checked(account_id, password, address, now)
        return None if known is None else self.fresh_codes(known.id, now)

    def codes_left(self, account_id: int) -> int:
        """How many codes are not spent."""
        return int(RecoveryCode.select().where(RecoveryCode.account == account_id).bind(self._database).count())

    def recover(self, email: str, code: str, new: str, address: str, now: datetime) -> Keeper | None:
        """A new password for whoever shows a code, which is spent by it; None when it is none. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone. A guess at a code is one at signing in.
        """
        held, _ = _limits(email.strip().lower(), address)
        self._hold(held, now, WINDOW)
        known = self._row(Account.email == email.strip().lower())
        own = (RecoveryCode.account == (known.id if known else 0)) & (
            RecoveryCode.code_hash == _digest("recovery", _bare(code))
        )
        # Deleting it tells whether it was there: two who show it at once cannot both be let in.
        if known is None or not RecoveryCode.delete().where(own).bind(self._database).execute():
            self._note([who for who, _ in held], now)
            return None
        self._set_password(known, new)
        return Keeper(known.id, known.email, known.units)

    def _set_password(self, known: Account, new: str) -> None:
        """Change it and end every sign-in."""
        with self._database.atomic():
            change = Account.update(password_hash=self._hasher.hash(new)).where(Account.id == known.id)
            change.bind(self._database).execute()
            SignedIn.delete().where(SignedIn.account == known.id).bind(self._database).execute()

    def change_email(self, account_id: int, password: str, email: str, address: str, now: datetime) -> Keeper | None:
        """Another address for this account; None when the password is wrong. Raises EmailTaken, TooManyAttempts.

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
        """Take the account away with everything in it; False when the password is wrong. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone.
        """
        if self._checked(account_id, password, address, now) is None:
            return False
        Account.delete().where(Account.id == account_id).bind(self._database).execute()
        return True

    def reset(self, email: str, password: str) -> bool:
        """A new password by the one who runs the server; every sign-in ends. False when nobody has that address."""
        known = self._row(Account.email == email.strip().lower())
        if known is None:
            return False
        self._set_password(known, password)
        return True

    def _checked(self, account_id: int, password: str, address: str, now: datetime) -> Account | None:
        """The account if its password is right. A guess here is one at signing in."""
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

    def hold_guesses(self, address: str, now: datetime) -> None:
        """Refuse an address that has tried too many links that open nothing. Raises TooManyAttempts."""
        self._hold([(_digest("link", network_of(address)), FAILURES_PER_ADDRESS)], now, WINDOW)

    def note_guess(self, address: str, now: datetime) -> None:
        """Count a link that opens nothing."""
        self._note([_digest("link", network_of(address))], now)

    def by_email(self, email: str) -> Keeper | None:
        """The keeper of an address, None when there is none (for the demo's open door)."""
        row = self._row(Account.email == email.strip().lower())
        return Keeper(row.id, row.email, row.units) if row else None

    def visitor(self, now: datetime, whence: str, units: dict[str, str] | None = None) -> Keeper:
        """An account for one visit of the demo, which nobody can sign in to again; those of a day ago are taken away.

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
        """Take away every visit begun before then, with its tanks. before: UTC without zone."""
        old = Account.email.startswith(VISITOR) & (Account.made_at < before)
        Account.delete().where(old).bind(self._database).execute()

    def calendar_link(self, account_id: int, now: datetime) -> str:
        """The token of a new calendar link; an older one is worth nothing from now on. now: UTC without zone."""
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
        """When the link was made, aware; None where there is none."""
        row = CalendarLink.select().where(CalendarLink.account == account_id).bind(self._database).first()
        return row.made_at.replace(tzinfo=UTC) if row else None

    def by_calendar(self, token: str) -> Keeper | None:
        """Whose calendar a link opens; None where it opens none."""
        row = (
            CalendarLink.select(CalendarLink, Account)
            .join(Account)
            .where(CalendarLink.token_hash == _digest("calendar", token))
            .bind(self._database)
            .first()
        )
        return Keeper(row.account.id, row.account.email, row.account.units) if row else None

    def choose_units(self, account_id: int, units: dict[str, str]) -> None:
        """What this keeper reads in. units: as chosen."""
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
    """A code as it counts: people leave dashes out and write capitals."""
    return "".join(letter for letter in code.lower() if letter.isalnum())


def network_of(address: str) -> str:
    """An address as its sender cannot change it at will: a household has a whole /64 of IPv6."""
    try:
        parsed = ip_address(address)
    except ValueError:
        return address
    return str(parsed) if parsed.version == 4 else str(ip_network(f"{parsed}/64", strict=False))


def _limits(email: str, address: str) -> tuple[list[tuple[str, int]], str]:
    """What is counted of a failed guess, each with its limit; and the one that a right password wipes out."""
    network = network_of(address)
    own = _digest("account-here", f"{email} {network}")
    everywhere = (_digest("account", email), FAILURES_PER_ACCOUNT)
    return [(own, FAILURES_HERE), everywhere, (_digest("address", network), FAILURES_PER_ADDRESS)], own


def _digest(kind: str, value: str) -> str:
    return hashlib.sha256(f"{kind}:{value}".encode()).hexdigest()
