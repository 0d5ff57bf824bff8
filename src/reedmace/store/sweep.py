"""Deletion of what has had its time, by the worker: removed tanks, visits, guests, sessions, counters, kept answers."""

import time
from datetime import UTC, datetime

import peewee

from reedmace.store.accounts import GUEST_FOR, SIGNED_IN_FOR, VISIT
from reedmace.store.attempts import WINDOW
from reedmace.store.idempotency import KEPT as ANSWER_KEPT
from reedmace.store.keepers import GUEST, VISITOR
from reedmace.store.models import Account, IdempotentAnswer, PracticeClass, SignedIn, SignInFailure, Tank
from reedmace.store.notice_models import NoticeRow
from reedmace.store.notices import KEPT_FOR as NOTICE_KEPT
from reedmace.store.practice_classes import KEPT_FOR as CLASS_KEPT
from reedmace.store.removal import CLOSED, delete_account
from reedmace.store.tanks import KEPT_FOR as REMOVED_KEPT

AT_ONCE = 500
"""Rows of one kind that one sweep deletes at most with one statement."""
COUNTED = WINDOW * 4
"""Longest window of a counter of attempts."""


def sweep(database: peewee.Database, now: datetime, within_s: float = 5.0) -> int:
    """Delete what has had its time; the number of rows, 0 when nothing is left.

    database: patient, since the years of readings of one tank go with one statement; now: aware time; within_s: s after
    which nothing more is begun. Safe to run twice at once.
    """
    at, until = now.astimezone(UTC).replace(tzinfo=None), time.monotonic() + within_s
    gone = _rows(database, at)
    gone += _accounts(database, VISITOR, at - VISIT, until)
    gone += _accounts(database, GUEST, at - GUEST_FOR, until)
    gone += _tanks(database, at, until)
    return gone + _emptied(database)


def _rows(database: peewee.Database, at: datetime) -> int:
    old: list[tuple[type[peewee.Model], peewee.Expression]] = [
        (SignedIn, SignedIn.made_at < at - SIGNED_IN_FOR),
        (SignInFailure, SignInFailure.at < at - COUNTED),
        (IdempotentAnswer, IdempotentAnswer.made_at < at - ANSWER_KEPT),
        (PracticeClass, PracticeClass.made_at < at - CLASS_KEPT),
        (NoticeRow, (NoticeRow.state != "waiting") & (NoticeRow.done_at < at - NOTICE_KEPT)),
    ]
    return sum(int(kind.delete().where(over).limit(AT_ONCE).bind(database).execute()) for kind, over in old)


def _accounts(database: peewee.Database, prefix: str, before: datetime, until: float) -> int:
    over = Account.email.startswith(prefix) & (Account.made_at < before)
    gone = 0
    for row in Account.select(Account.id).where(over).order_by(Account.id).limit(AT_ONCE).bind(database):
        if time.monotonic() > until:
            break
        delete_account(database, row.id)
        gone += 1
    return gone


def _tanks(database: peewee.Database, at: datetime, until: float) -> int:
    over = (Tank.aside == "removed") & (Tank.aside_at < at - REMOVED_KEPT)
    gone = 0
    for row in Tank.select(Tank.id).where(over).order_by(Tank.id).limit(AT_ONCE).bind(database):
        if time.monotonic() > until:
            break
        gone += int(Tank.delete().where(Tank.id == row.id).bind(database).execute())
    return gone


def _emptied(database: peewee.Database) -> int:
    """Closed accounts whose last logbook has gone."""
    left = Tank.select(peewee.SQL("1")).where(Tank.account == Account.id)
    empty = Account.email.startswith(CLOSED) & ~peewee.fn.EXISTS(left)
    rows = [row.id for row in Account.select(Account.id).where(empty).limit(AT_ONCE).bind(database)]
    return int(Account.delete().where(Account.id.in_(rows)).bind(database).execute()) if rows else 0
