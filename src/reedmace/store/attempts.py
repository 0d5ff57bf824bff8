"""Counters of failed attempts to sign in: whose they are, how many are allowed, and the pause after them."""

import hashlib
import math
from dataclasses import dataclass
from datetime import datetime, timedelta
from ipaddress import IPv6Address, ip_address, ip_network

import peewee

from reedmace.database import written_together
from reedmace.store.models import SignInFailure

WINDOW = timedelta(minutes=15)
FAILURES_HERE, FAILURES_PER_ACCOUNT, FAILURES_PER_ADDRESS = 8, 40, 60
"""Failed attempts allowed for one account from one address, for the account from everywhere (high enough that nobody
can lock its keeper out), and for the address.
"""

FIRST_WAIT_S = 4.0
"""First wait of a counter that is not closed when it is full, s; each further failure doubles it."""


def network_of(address: str) -> str:
    """The network of an address: a household has a whole /64 of IPv6, within which it can change freely.

    IPv4 written as IPv6 counts as the IPv4 address that it is.

    >>> network_of("::ffff:192.0.2.7")
    '192.0.2.7'
    """
    try:
        parsed = ip_address(address)
    except ValueError:
        return address
    if isinstance(parsed, IPv6Address):
        if parsed.ipv4_mapped is None:
            return str(ip_network(f"{parsed}/64", strict=False))
        parsed = parsed.ipv4_mapped
    return str(parsed)


@dataclass
class TooManyAttempts(Exception):
    """Signing in is paused for `wait_s` seconds."""

    wait_s: int


@dataclass(frozen=True)
class Limit:
    """A counter and how many failures in a quarter of an hour it allows.

    `grows`: past them each further failure doubles a wait that begins at four seconds, instead of closing it:
    whoever guesses from everywhere must not keep the account's keeper out.
    """

    who: str
    most: int
    grows: bool = False

    def wait_s(self, times: list[datetime], now: datetime) -> int:
        """Seconds to wait, 0 for none. times: of the failures counted, oldest first."""
        over = len(times) - self.most
        if over < 0:
            return 0
        until = (
            times[-1] + timedelta(seconds=FIRST_WAIT_S * 2.0 ** min(over, 20))
            if self.grows
            else times[-self.most] + WINDOW
        )
        left = min(until - now, WINDOW).total_seconds()
        return max(math.ceil(left), 0 if self.grows else 1)


def limits_of(email: str, address: str) -> list[Limit]:
    """Counters of a failed attempt; a right password resets the first.

    email: in small letters; address: the sender's.
    """
    network = network_of(address)
    return [
        Limit(digest("account-here", f"{email} {network}"), FAILURES_HERE),
        Limit(digest("account", email), FAILURES_PER_ACCOUNT, grows=True),
        Limit(digest("address", network), FAILURES_PER_ADDRESS),
    ]


def limits_of_device(device: str) -> list[Limit]:
    """The counter of a device that has been signed in before: nobody else's failures count. device: its own secret."""
    return [Limit(digest("device", device), FAILURES_HERE)]


def digest(kind: str, value: str) -> str:
    """What is stored of a value that must not be: its hash. kind: of the value, so that two kinds never meet."""
    return hashlib.sha256(f"{kind}:{value}".encode()).hexdigest()


class Attempts:
    """Failures as counted in the database, so that every process and machine sees them. Times are UTC without zone."""

    def __init__(self, database: peewee.Database) -> None:
        self._database = database

    def begin(self, email: str, address: str, now: datetime, device: str | None = None) -> list[Limit]:
        """Count an attempt before it is checked, so that many at once do not pass together. Raises TooManyAttempts.

        address: the sender's; device: secret of one that was signed in to this account before.
        """
        limits = limits_of(email.strip().lower(), address) if device is None else limits_of_device(device)
        noted = self.note([limit.who for limit in limits], now)
        for limit in limits:
            # Itself was counted as well.
            if wait_s := limit.wait_s(self._times(limit.who, now, WINDOW)[:-1], now):
                # What was refused unchecked is no failure: it must not lengthen the pause.
                SignInFailure.delete().where(SignInFailure.id.in_(noted)).bind(self._database).execute()
                raise TooManyAttempts(wait_s)
        return limits

    def succeeded(self, limits: list[Limit]) -> None:
        """Take back the attempt just counted, and all of this place or device. limits: as counted."""
        first, *others = (limit.who for limit in limits)
        SignInFailure.delete().where(SignInFailure.who == first).bind(self._database).execute()
        for who in others:
            newest = SignInFailure.select(SignInFailure.id).where(SignInFailure.who == who)
            row = newest.order_by(SignInFailure.id.desc()).bind(self._database).first()
            if row is not None:
                SignInFailure.delete().where(SignInFailure.id == row.id).bind(self._database).execute()

    def hold(self, limits: list[tuple[str, int]], now: datetime, window: timedelta) -> None:
        """Raises TooManyAttempts where a counter is full. limits: (counter, most in the window)."""
        for who, most in limits:
            times = self._times(who, now, window)
            if len(times) >= most:
                raise TooManyAttempts(max(int((times[-most] + window - now).total_seconds()), 1))

    def note(self, whom: list[str], now: datetime) -> list[int]:
        """Count one more at each counter; ids of what was counted."""

        def work() -> list[int]:
            new = (SignInFailure.insert(who=who, at=now).bind(self._database) for who in whom)
            return [one.execute() for one in new]

        return written_together(self._database, work)

    def _times(self, who: str, now: datetime, window: timedelta) -> list[datetime]:
        recent = (
            SignInFailure.select(SignInFailure.at)
            .where((SignInFailure.who == who) & (SignInFailure.at > now - window))
            .order_by(SignInFailure.at, SignInFailure.id)
        )
        return [row.at for row in recent.bind(self._database)]
