"""What is asked of tanks and their entries, what comes back, and why it may not."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal, NamedTuple

from reedmace.logbook.replay.entries import Entry, NewEntry

Aside = Literal["archived", "removed"]


class NoSuchTank(LookupError):
    """No tank of that id in this account."""


class NotAllowed(Exception):
    """The tank is another's, who has not given this hand so much to do."""


class NoSuchEntry(LookupError):
    """No entry of that id in this tank."""


class PlanMoved(Exception):
    """The plan was saved elsewhere since; `current` is what stands now, `mine` what was to be written.

    filters: names of what hangs on the tank, by key.
    """

    def __init__(self, current: Entry | None, mine: NewEntry, filters: dict[str, str]) -> None:
        super().__init__("the plan was saved elsewhere since")
        self.current = current
        self.mine = mine
        self.filters = filters


@dataclass(frozen=True)
class TankAside:
    """A tank out of sight: how, and since when."""

    id: int
    name: str
    how: Aside
    since: datetime


@dataclass(frozen=True)
class TankName:
    """A tank's id, name and birthday."""

    id: int
    name: str
    made_at: datetime
    owner_id: int = 0


class Wanted(NamedTuple):
    """Which entries of a tank are looked for; what is None does not matter."""

    kind: str | None = None
    words: str | None = None
    until: datetime | None = None
