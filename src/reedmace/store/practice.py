"""Practice tanks of one account: rows of `tank` that every query on real tanks leaves out, and how lessons ended."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

import peewee
from pydantic import ValidationError

from reedmace.database import written_together
from reedmace.logbook.replay.entries import Entry
from reedmace.practice.judgement import EndPage
from reedmace.practice.record import Practice
from reedmace.store.models import PracticeResult, Tank
from reedmace.store.quotas import MOST_PRACTICE_TANKS
from reedmace.store.tank_queries import NoSuchTank
from reedmace.store.tanks import Tanks


@dataclass(frozen=True)
class PracticeTankRow:
    """A practice tank that is kept: its id, name and record."""

    id: int
    name: str
    practice: Practice


@dataclass(frozen=True)
class LessonResult:
    """How one lesson ended: whether it was won, and animals lost."""

    lesson: str
    won: bool
    lost: int


class PracticeTanks:
    """Queries on one account's practice tanks. Nobody helps in another's."""

    def __init__(self, database: peewee.Database, account_id: int) -> None:
        self._database = database
        self._account_id = account_id

    def _mine(self) -> peewee.Expression:
        return (Tank.account == self._account_id) & Tank.practice.is_null(False) & Tank.aside.is_null()

    def all(self) -> list[PracticeTankRow]:
        """Every practice tank, newest first."""
        rows = Tank.select().where(self._mine()).order_by(Tank.id.desc()).bind(self._database)
        return [PracticeTankRow(r.id, r.name, Practice.model_validate(r.practice)) for r in rows]

    def get(self, tank_id: int) -> Practice:
        """The record of a practice tank. Raises NoSuchTank, also for a real one."""
        row = Tank.select().where(self._mine() & (Tank.id == tank_id)).bind(self._database).first()
        if row is None:
            raise NoSuchTank
        return Practice.model_validate(row.practice)

    def make(self, name: str, practice: Practice, entries: Sequence[Entry]) -> int:
        """A new practice tank with the logbook its lesson begins with; its id. The oldest beyond the quota go."""
        return self.make_together([(name, practice, entries)])[0]

    def make_together(self, begun: Sequence[tuple[str, Practice, Sequence[Entry]]]) -> list[int]:
        """Tanks of one lesson, all or none; their ids. begun: each one's name, record and first entries."""

        def write() -> list[int]:
            for old in self.all()[MOST_PRACTICE_TANKS - len(begun) :]:
                Tank.delete().where(Tank.id == old.id).bind(self._database).execute()
            mine = Tanks(self._database, self._account_id)
            # Before its keeper came to it, so that what is given is no decision of theirs.
            return [
                mine.bring_practice(name, entries, practice.now() - timedelta(minutes=1), practice).id
                for name, practice, entries in begun
            ]

        return written_together(self._database, write)

    def together(self, tank_id: int) -> list[PracticeTankRow]:
        """A practice tank and those beside it in the same play, by place. Raises NoSuchTank."""
        own = self.get(tank_id)
        if own.side is None:
            return [row for row in self.all() if row.id == tank_id]
        play = [
            (row.practice.side.place, row)
            for row in self.all()
            if row.practice.side is not None and row.practice.side.group == own.side.group
        ]
        return [row for _, row in sorted(play, key=lambda one: one[0])]

    def change(self, tank_id: int, how: Callable[[Practice], Practice]) -> Practice:
        """Change the record of a practice tank; two at once follow one another. Raises NoSuchTank."""

        def write() -> Practice:
            chosen = Tank.select().where(self._mine() & (Tank.id == tank_id)).for_update().bind(self._database).first()
            if chosen is None:
                raise NoSuchTank
            changed = how(Practice.model_validate(chosen.practice))
            Tank.update(practice=changed.model_dump(mode="json")).where(Tank.id == tank_id).bind(
                self._database
            ).execute()
            return changed

        return written_together(self._database, write)

    def remove(self, tank_id: int) -> None:
        """Delete a practice tank at once. Raises NoSuchTank."""
        self.get(tank_id)
        Tank.delete().where(self._mine() & (Tank.id == tank_id)).bind(self._database).execute()

    def end(self, tank_id: int, practice: Practice, page: EndPage, now: datetime) -> None:
        """Keep how a lesson ended; the first end of a tank counts, of several the first tank's. now: aware time."""
        PracticeResult.insert(
            account=self._account_id,
            tank_id=tank_id,
            lesson=practice.lesson,
            seed=practice.seed,
            won=page.won,
            lost=sum(one.lost_count for one in page.beside) if page.beside else page.lost_count,
            page=page.model_dump(mode="json"),
            made_at=now.astimezone(UTC).replace(tzinfo=None),
            counts=practice.side is None or practice.side.place == 0,
        ).on_conflict_ignore().bind(self._database).execute()

    def page(self, tank_id: int) -> EndPage:
        """The page at the end of a tank's lesson. Raises NoSuchTank where it has not ended."""
        row = (
            PracticeResult.select()
            .where((PracticeResult.account == self._account_id) & (PracticeResult.tank_id == tank_id))
            .bind(self._database)
            .first()
        )
        try:
            return EndPage.model_validate(row.page if row is not None else None)
        except ValidationError:
            raise NoSuchTank from None

    def results(self) -> list[LessonResult]:
        """How lessons ended, oldest first."""
        rows = (
            PracticeResult.select(PracticeResult.lesson, PracticeResult.won, PracticeResult.lost)
            .where((PracticeResult.account == self._account_id) & PracticeResult.counts)
            .order_by(PracticeResult.id)
            .bind(self._database)
        )
        return [LessonResult(r.lesson, bool(r.won), r.lost) for r in rows]


def practice_at(database: peewee.Database, account_id: int, tank_id: int) -> Practice | None:
    """The record of a tank where it is a practice tank of this account. tank_id: any."""
    mine = (Tank.id == tank_id) & (Tank.account == account_id) & Tank.practice.is_null(False)
    row = Tank.select(Tank.practice).where(mine).bind(database).first()
    return None if row is None else Practice.model_validate(row.practice)
