"""Classes on practice lessons: opened by a teacher, joined by code, looked at as a board, forgotten after a month."""

import secrets
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import cast

import peewee

from reedmace.database import written_together
from reedmace.logbook.replay.entries import Entry
from reedmace.practice.mishaps import SentMishap
from reedmace.practice.record import MOST_MISHAPS, Coach, Practice
from reedmace.store.models import PracticeClass, PracticeSeat, Tank
from reedmace.store.practice import PracticeTanks

KEPT_FOR = timedelta(days=30)
"""How long a class is kept."""
MOST_SEATS, MOST_CLASSES = 40, 20
"""Learners in a class, and classes of one teacher."""
LETTERS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"
"""Characters of a code: none that is taken for another when read off a wall."""
CODE_LENGTH = 6


class NoSuchClassError(Exception):
    """There is no such class, or it is another's."""


class ClassFullError(Exception):
    """Every place of a class is taken, or a teacher has too many classes."""


@dataclass(frozen=True)
class ClassRow:
    """A class: its id, code, lesson, the seed all share (None for each their own), coach, and how it stands."""

    id: int
    code: str
    lesson: str
    seed: int | None
    coach: Coach
    stopped: bool
    uncovered: bool
    made_at: datetime


@dataclass(frozen=True)
class Seat:
    """A learner: the seat's id, their name, their account, tank and its record."""

    id: int
    name: str
    account_id: int
    tank_id: int
    practice: Practice


def _row(one: PracticeClass) -> ClassRow:
    return ClassRow(
        one.id, one.code, one.lesson, one.seed, cast(Coach, one.coach), bool(one.stopped), bool(one.uncovered),
        one.made_at.replace(tzinfo=UTC),
    )  # fmt: skip


class PracticeClasses:
    """Queries on classes. Only their teacher sees a board; whoever has the code may join."""

    def __init__(self, database: peewee.Database) -> None:
        self._database = database

    def open(self, teacher_id: int, lesson: str, seed: int | None, coach: Coach, now: datetime) -> ClassRow:
        """A new class with a code of its own. Raises ClassFullError.

        teacher_id: of the account; lesson: its id; seed: of all tanks, None for each their own; now: aware time.
        """
        at = now.astimezone(UTC).replace(tzinfo=None)
        if len(self.all(teacher_id)) >= MOST_CLASSES:
            raise ClassFullError
        code = "".join(secrets.choice(LETTERS) for _ in range(CODE_LENGTH))
        new = PracticeClass.insert(account=teacher_id, code=code, lesson=lesson, seed=seed, coach=coach, made_at=at)
        return self.get(teacher_id, new.bind(self._database).execute())

    def all(self, teacher_id: int) -> list[ClassRow]:
        """Classes of a teacher, newest first."""
        rows = PracticeClass.select().where(PracticeClass.account == teacher_id).order_by(PracticeClass.id.desc())
        return [_row(r) for r in rows.bind(self._database)]

    def get(self, teacher_id: int, class_id: int) -> ClassRow:
        """A class of a teacher. Raises NoSuchClassError."""
        mine = (PracticeClass.id == class_id) & (PracticeClass.account == teacher_id)
        row = PracticeClass.select().where(mine).bind(self._database).first()
        if row is None:
            raise NoSuchClassError
        return _row(row)

    def by_code(self, code: str, now: datetime) -> ClassRow | None:
        """The class of a code, as long as it is kept; None where there is none. now: aware time."""
        at = now.astimezone(UTC).replace(tzinfo=None)
        which = (PracticeClass.code == code.strip().upper()) & (PracticeClass.made_at >= at - KEPT_FOR)
        row = PracticeClass.select().where(which).bind(self._database).first()
        return None if row is None else _row(row)

    def of_tank(self, tank_id: int) -> tuple[ClassRow, str] | None:
        """The class a practice tank belongs to, and its learner's name; None for one that is nobody's."""
        row = (
            PracticeSeat.select(PracticeSeat, PracticeClass)
            .join(PracticeClass)
            .where(PracticeSeat.tank == tank_id)
            .bind(self._database)
            .first()
        )
        return None if row is None else (_row(row.of_class), row.name)

    def seats(self, class_id: int) -> list[Seat]:
        """Learners of a class, in the order in which they came."""
        rows = (
            PracticeSeat.select(PracticeSeat.id, PracticeSeat.name, Tank.id, Tank.account, Tank.practice)
            .join(Tank)
            .where((PracticeSeat.of_class == class_id) & Tank.practice.is_null(False))
            .order_by(PracticeSeat.id)
            .bind(self._database)
        )
        return [
            Seat(r.id, r.name, r.tank.account_id, r.tank.id, Practice.model_validate(r.tank.practice)) for r in rows
        ]

    def join(
        self, of_class: ClassRow, account_id: int, name: str, make: Callable[[], tuple[str, Practice, list[Entry]]]
    ) -> int:
        """A place in a class with a tank of its own; the same one for whoever has one already. Raises ClassFullError.

        account_id: of the learner; name: as chosen; make: the tank's name, record and first entries. Returns its id.
        """

        def write() -> int:
            # One after the other, so that the last place is taken once.
            locked = PracticeClass.select().where(PracticeClass.id == of_class.id).for_update()
            locked.bind(self._database).first()
            seats = self.seats(of_class.id)
            mine = next((s.tank_id for s in seats if s.account_id == account_id), None)
            if mine is not None:
                return mine
            if len(seats) >= MOST_SEATS:
                raise ClassFullError
            tank_name, practice, entries = make()
            tank_id = PracticeTanks(self._database, account_id).make(tank_name, practice, entries)
            PracticeSeat.insert(of_class=of_class.id, tank=tank_id, name=name).bind(self._database).execute()
            return tank_id

        return written_together(self._database, write)

    def control(self, class_id: int, *, stopped: bool | None = None, uncovered: bool | None = None) -> None:
        """Stop or start the clock of all, uncover or cover the truth. class_id: of the teacher's own."""
        new = {k: v for k, v in (("stopped", stopped), ("uncovered", uncovered)) if v is not None}
        if new:
            PracticeClass.update(new).where(PracticeClass.id == class_id).bind(self._database).execute()

    def send(self, class_id: int, mishap: Callable[[Practice], SentMishap]) -> int:
        """Send a mishap to every tank of a class that still runs; how many got it. mishap: for one tank's clock."""

        def write() -> int:
            count = 0
            for seat in self.seats(class_id):
                row = Tank.select().where(Tank.id == seat.tank_id).for_update().bind(self._database).first()
                now = Practice.model_validate(row.practice)
                if now.ended or len(now.mishaps) >= MOST_MISHAPS:
                    continue
                changed = now.model_copy(update={"mishaps": [*now.mishaps, mishap(now)]})
                Tank.update(practice=changed.model_dump(mode="json")).where(Tank.id == seat.tank_id).bind(
                    self._database
                ).execute()
                count += 1
            return count

        return written_together(self._database, write)

    def close(self, teacher_id: int, class_id: int) -> None:
        """Forget a class; the learners keep their tanks. Raises NoSuchClassError."""
        self.get(teacher_id, class_id)
        PracticeClass.delete().where(PracticeClass.id == class_id).bind(self._database).execute()
