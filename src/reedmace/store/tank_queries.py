"""Parameters, results and errors of queries on tanks and entries."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal, NamedTuple

from reedmace.logbook.replay.entries import Entry, NewEntry

Aside = Literal["archived", "removed"]


class NoSuchTank(LookupError):
    """No tank of that id in this account."""


class NotAllowed(Exception):
    """The tank belongs to another account, whose role for this one does not allow the operation."""


class NoSuchEntry(LookupError):
    """No entry of that id in this tank."""


class PlanMoved(Exception):
    """The plan was saved elsewhere since; `current` is the present version, `mine` the rejected one.

    filters: names of what hangs on the tank, by key.
    """

    def __init__(self, current: Entry | None, mine: NewEntry, filters: dict[str, str]) -> None:
        super().__init__("the plan was saved elsewhere since")
        self.current = current
        self.mine = mine
        self.filters = filters


@dataclass(frozen=True)
class ArchivedTank:
    """An archived or removed tank: how, and since when."""

    id: int
    name: str
    how: Aside
    since: datetime


@dataclass(frozen=True)
class TankName:
    """A tank's id, name and creation time."""

    id: int
    name: str
    made_at: datetime
    owner_id: int = 0


class EntryFilter(NamedTuple):
    """Filter for entries of a tank; a field that is None matches everything."""

    kind: str | None = None
    words: str | None = None
    until: datetime | None = None
