"""Accounts: sign-up, password check, change, and the limit on failed attempts."""

import secrets
from datetime import UTC, datetime, timedelta

import peewee
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from reedmace.store.attempts import (
    FAILURES_PER_ADDRESS,
    WINDOW,
    Attempts,
    digest,
    limits_of,
    network_of,
)
from reedmace.store.keepers import GUEST, VISITOR, Device, EmailTaken, Keeper
from reedmace.store.models import Account, CalendarLink, RecoveryCode, SignedIn
from reedmace.store.recovery_codes import bare_code, new_codes
from reedmace.store.removal import delete_account

SIGN_UPS_AN_HOUR = 30
"""Sign-ups an hour from one address."""
VISITS_AN_HOUR, VISIT = 600, timedelta(days=1)
"""Demo visits an hour from one address, and the lifetime of a visit."""
GUESTS_AN_HOUR, GUEST_FOR = 60, timedelta(days=30)
"""Guests an hour from one address, and how long what a guest made is kept."""
MAILS_TO_AN_HOUR, MAILS_FROM_AN_HOUR = 4, 20
"""Mails an hour to one address, and asked for from one network."""
FOUND_AGAIN_FOR = timedelta(minutes=10)
"""How long a guest whose first answer was lost is found again by its key."""
SIGNED_IN_FOR = timedelta(days=60)


class Accounts:
    """Queries on accounts. Times are UTC without zone, as stored."""

    def __init__(
        self, database: peewee.Database, hasher: PasswordHasher | None = None, sign_ups: int = SIGN_UPS_AN_HOUR
    ) -> None:
        self._database = database
        self._sign_ups = sign_ups
        self._hasher = hasher or PasswordHasher()
        self._attempts = Attempts(database)

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
            self.count_sign_up(whence, now)
        try:
            address = email.strip().lower()
            new = Account.insert(email=address, password_hash=self._hasher.hash(password), made_at=now, units=units)
            return Keeper(new.bind(self._database).execute(), address, units)
        except peewee.IntegrityError as error:
            raise EmailTaken from error

    def count_sign_up(self, whence: str, now: datetime) -> None:
        """Count a sign-up from an address. Raises TooManyAttempts."""
        tried = digest("sign-up", network_of(whence))
        self._attempts.hold([(tried, self._sign_ups)], now, timedelta(hours=1))
        # Addresses already taken count too: otherwise trying them would reveal who has an account.
        self._attempts.note([tried], now)

    def sign_in(
        self, email: str, password: str, address: str, now: datetime, device: Device | None = None
    ) -> Keeper | None:
        """The keeper if the password is right, otherwise None. Raises TooManyAttempts before any check.

        address: the sender's; device: where this one was signed in before.
        """
        row = self._row(Account.email == email.strip().lower())
        tried = self._attempts.begin(email, address, now, device_of(device, row))
        if row is not None and self._verify(row.password_hash, password):
            self._attempts.succeeded(tried)
            return Keeper(row.id, row.email, row.units)
        if row is None:
            # Take the same time as for a known address, so that timing does not reveal who has an account.
            self._hasher.hash(password)
        return None

    def begin(self, keeper: Keeper, now: datetime) -> str:
        """The token of a new session; only its hash is stored. now: UTC without zone."""
        token = secrets.token_urlsafe(24)
        new = SignedIn.insert(account=keeper.id, token_hash=digest("session", token), made_at=now)
        new.bind(self._database).execute()
        return token

    def end(self, token: str) -> None:
        """End a session; an unknown token is ignored."""
        SignedIn.delete().where(SignedIn.token_hash == digest("session", token)).bind(self._database).execute()

    def find(self, token: str, now: datetime) -> Keeper | None:
        """The keeper of a session; None once signed out, expired or after a change of password."""
        row = (
            SignedIn.select(SignedIn, Account)
            .join(Account)
            .where((SignedIn.token_hash == digest("session", token)) & (SignedIn.made_at > now - SIGNED_IN_FOR))
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
        codes = new_codes()
        rows = [{"account": account_id, "code_hash": digest("recovery", bare_code(c)), "made_at": now} for c in codes]
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

    def recover(
        self, email: str, code: str, new: str, address: str, now: datetime, device: Device | None = None
    ) -> Keeper | None:
        """Set a new password by a recovery code, which is used up; None when it is invalid. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone. A guess at a code is one at signing in.
        """
        known = self._row(Account.email == email.strip().lower())
        tried = self._attempts.begin(email, address, now, device_of(device, known))
        own = (RecoveryCode.account == (known.id if known else 0)) & (
            RecoveryCode.code_hash == digest("recovery", bare_code(code))
        )
        # The number of deleted rows tells whether the code was still valid, so it cannot be used twice at once.
        if known is None or not RecoveryCode.delete().where(own).bind(self._database).execute():
            return None
        self._attempts.succeeded(tried)
        self._set_password(known, new)
        return Keeper(known.id, known.email, known.units)

    def _set_password(self, known: Account, new: str) -> None:
        """Change the password and end every session."""
        with self._database.atomic():
            change = Account.update(password_hash=self._hasher.hash(new)).where(Account.id == known.id)
            change.bind(self._database).execute()
            SignedIn.delete().where(SignedIn.account == known.id).bind(self._database).execute()

    def change_email(self, account_id: int, password: str, email: str, address: str, now: datetime) -> Keeper | None:
        """Change the email address and end every session; None when the password is wrong.

        address: the sender's; now: UTC without zone. Raises EmailTaken, TooManyAttempts.
        """
        known = self._checked(account_id, password, address, now)
        if known is None:
            return None
        new = email.strip().lower()
        try:
            with self._database.atomic():
                change = Account.update(email=new, confirmed_at=None).where(Account.id == account_id)
                change.bind(self._database).execute()
                # Whoever else is signed in came by the old address.
                SignedIn.delete().where(SignedIn.account == account_id).bind(self._database).execute()
        except peewee.IntegrityError as error:
            # Who looks for addresses by trying to take them is counted as one who guesses passwords.
            self._attempts.note([limit.who for limit in limits_of(known.email, address)], now)
            raise EmailTaken from error
        return Keeper(known.id, new, known.units)

    def close(self, account_id: int, password: str, address: str, now: datetime) -> bool:
        """Delete the account with everything in it; False when the password is wrong. Raises TooManyAttempts.

        address: the sender's; now: UTC without zone.
        """
        if self._checked(account_id, password, address, now) is None:
            return False
        delete_account(self._database, account_id)
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
        tried = self._attempts.begin(known.email if known else "", address, now)
        if known is None or not self._verify(known.password_hash, password):
            return None
        self._attempts.succeeded(tried)
        return known

    def by_id(self, account_id: int) -> Keeper | None:
        """The keeper of an account; None when it is gone."""
        row = self._row(Account.id == account_id)
        return Keeper(row.id, row.email, row.units) if row else None

    def reject_guessing(self, address: str, now: datetime) -> None:
        """Reject an address that has tried too many invalid links. Raises TooManyAttempts."""
        self._attempts.hold([(digest("link", network_of(address)), FAILURES_PER_ADDRESS)], now, WINDOW)

    def count_guess(self, address: str, now: datetime) -> None:
        """Count an invalid link."""
        self._attempts.note([digest("link", network_of(address))], now)

    def count_mail(self, email: str, address: str, now: datetime) -> None:
        """Count a mail asked for without signing in, to an address and from one. Raises TooManyAttempts."""
        to, whence = digest("mail-to", email.strip().lower()), digest("mail-from", network_of(address))
        limits = [(to, MAILS_TO_AN_HOUR), (whence, MAILS_FROM_AN_HOUR)]
        self._attempts.hold(limits, now, timedelta(hours=1))
        self._attempts.note([to, whence], now)

    def by_email(self, email: str) -> Keeper | None:
        """The keeper of an email address, None when there is none (for the demo)."""
        row = self._row(Account.email == email.strip().lower())
        return Keeper(row.id, row.email, row.units) if row else None

    def visitor(self, now: datetime, whence: str, units: dict[str, str] | None = None) -> Keeper:
        """An account for one visit of the demo, without sign-in, for a day.

        now: UTC without zone; whence: the sender's address, whose visits are counted; units: as chosen.
        Raises TooManyAttempts.
        """
        return self._nobody(VISITOR, VISITS_AN_HOUR, now, whence, units)

    def guest(self, now: datetime, whence: str, units: dict[str, str] | None = None, key: str | None = None) -> Keeper:
        """An account without address or password, for 30 days. Raises TooManyAttempts.

        now: UTC without zone; whence: the sender's address, whose guests are counted; units: as chosen; key: secret and
        random, by which one whose first answer was lost is found again for a while.
        """
        if key is None:
            return self._nobody(GUEST, GUESTS_AN_HOUR, now, whence, units)
        name = digest(GUEST, key)[:32]
        found = self._newly_made(f"{GUEST}{name}", now)
        if found is not None:
            return found
        try:
            return self._nobody(GUEST, GUESTS_AN_HOUR, now, whence, units, name)
        except peewee.IntegrityError:
            # The same call came twice at once, or the key is an old one.
            return self._newly_made(f"{GUEST}{name}", now) or self._nobody(GUEST, GUESTS_AN_HOUR, now, whence, units)

    def _newly_made(self, address: str, now: datetime) -> Keeper | None:
        row = self._row((Account.email == address) & (Account.made_at > now - FOUND_AGAIN_FOR))
        return None if row is None else Keeper(row.id, row.email, row.units)

    def _nobody(
        self, prefix: str, most: int, now: datetime, whence: str, units: dict[str, str] | None, name: str | None = None
    ) -> Keeper:
        """An account without password, counted by where it comes from. most: an hour from one network."""
        tried = digest(prefix, network_of(whence))
        self._attempts.hold([(tried, most)], now, timedelta(hours=1))
        self._attempts.note([tried], now)
        address = f"{prefix}{name or secrets.token_hex(8)}"
        new = Account.insert(email=address, password_hash="none", made_at=now, units=units)  # noqa: S106 - no password opens it
        return Keeper(new.bind(self._database).execute(), address, units)

    def made_at(self, account_id: int) -> datetime | None:
        """When an account was made, aware; None when it is gone."""
        return row.made_at.replace(tzinfo=UTC) if (row := self._row(Account.id == account_id)) else None

    def claim(self, account_id: int, email: str, password: str) -> Keeper | None:
        """Give a guest's or a visit's account an address and a password; None where it has them. Raises EmailTaken."""
        nobodys = Account.email.startswith(GUEST) | Account.email.startswith(VISITOR)
        values = {"email": email.strip().lower(), "password_hash": self._hasher.hash(password)}
        claimed = Account.update(values).where((Account.id == account_id) & nobodys)
        try:
            done = claimed.bind(self._database).execute()
        except peewee.IntegrityError as error:
            raise EmailTaken from error
        return self.by_id(account_id) if done else None

    def forget_visitors(self, before: datetime) -> None:
        """Delete every visit begun before a time, with its tanks. before: UTC without zone."""
        old = Account.email.startswith(VISITOR) & (Account.made_at < before)
        Account.delete().where(old).bind(self._database).execute()

    def calendar_link(self, account_id: int, now: datetime) -> str:
        """The token of a new calendar link; an older one stops working. now: UTC without zone."""
        token = secrets.token_urlsafe(24)
        with self._database.atomic():
            self.end_calendar(account_id)
            new = CalendarLink.insert(account=account_id, token_hash=digest("calendar", token), made_at=now)
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
            .where(CalendarLink.token_hash == digest("calendar", token))
            .bind(self._database)
            .first()
        )
        return Keeper(row.account.id, row.account.email, row.account.units) if row else None

    def choose_units(self, account_id: int, units: dict[str, str]) -> None:
        """Store the units of this keeper. units: as chosen."""
        Account.update(units=units).where(Account.id == account_id).bind(self._database).execute()

    def _row(self, which: peewee.Expression) -> Account | None:
        row: Account | None = Account.select().where(which).bind(self._database).first()
        return row

    def _verify(self, stored: str, password: str) -> bool:
        try:
            return self._hasher.verify(stored, password)
        except (VerificationError, InvalidHashError):
            return False


def device_of(device: Device | None, account: Account | None) -> str | None:
    """Secret of a device that this account was signed in on before; None for any other."""
    return device.secret if device is not None and account is not None and device.account_id == account.id else None
