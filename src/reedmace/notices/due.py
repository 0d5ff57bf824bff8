"""Which notices an account is owed now, by its choice and by what presses in its tanks."""

from datetime import datetime, timedelta
from typing import Literal, NamedTuple

from reedmace.notices.choice import NoticeChoice

Kind = Literal["at-once", "day", "week"]
LATE = timedelta(hours=6)
"""How long after its hour a list is still sent, where the worker or the mail server was away."""
PRESSING = "press:"
"""Prefix of the keys of what cannot wait."""


class Pressing(NamedTuple):
    """A tank in which something cannot wait; harm: living animals are in danger."""

    tank_id: int
    harm: bool

    @property
    def key(self) -> str:
        """Its key: once while it lasts, and once more where it comes to harm animals."""
        return f"{PRESSING}{'harm' if self.harm else 'stall'}:{self.tank_id}"


class Owed(NamedTuple):
    """A notice to be queued: unique key, kind, tank where it is of one, aware time from which it may go out."""

    once_key: str
    kind: Kind
    tank_id: int | None
    due_at: datetime


def owed(choice: NoticeChoice, pressing: list[Pressing], now: datetime) -> list[Owed]:
    """Notices owed now. pressing: what cannot wait; now: aware time. Those queued before are told by their key."""
    if not choice.mail:
        return []
    found = [_at_once(choice, one, now) for one in pressing] if choice.at_once else []
    today = choice.local(now).date()
    at = choice.at(today, choice.day_at)
    if at <= now < at + LATE:
        if choice.day:
            found.append(Owed(f"day:{today}", "day", None, at))
        if choice.week and today.weekday() == choice.week_on:
            found.append(Owed(f"week:{today}", "week", None, at))
    return found


def _at_once(choice: NoticeChoice, one: Pressing, now: datetime) -> Owed:
    quiet_until = None if one.harm and choice.wake_for_harm else choice.quiet_ends(now)
    return Owed(one.key, "at-once", one.tank_id, quiet_until or now)
