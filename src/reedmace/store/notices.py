"""The queue of notices: made once, claimed by row so that of any number of workers one sends, kept until it is done."""

import secrets
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any, Literal

import peewee

from reedmace.database import written_together
from reedmace.store.models import Account
from reedmace.store.notice_models import JobRow, NoticeChoiceRow, NoticeRow

LEASE = timedelta(minutes=2)
"""How long a claimed notice is its worker's; one that died leaves it to the others then."""
AT_ONCE = 20
"""Notices, or accounts, that one worker claims at a time."""
FIRST_WAIT, LONGEST_WAIT = timedelta(minutes=1), timedelta(hours=1)
"""Wait after a first failure, doubled by each further one, and its limit."""
MOST_TRIES = 30
"""Tries before a notice is given up as dead: about a day."""
KEPT_FOR = timedelta(days=60)
"""How long what was sent stays on record, so that it is not sent again."""
LONGEST_ERROR = 300
Ended = Literal["sent", "dropped", "dead"]


@dataclass(frozen=True)
class Notice:
    """One notice as a worker has it."""

    id: int
    account_id: int
    once_key: str
    kind: str
    tank_id: int | None
    body: dict[str, Any]
    due_at: datetime
    tries: int
    state: str = "waiting"
    error: str = ""
    done_at: datetime | None = None


def _naive(at: datetime) -> datetime:
    return at.astimezone(UTC).replace(tzinfo=None)


def _notice(row: NoticeRow) -> Notice:
    done_at = None if row.done_at is None else row.done_at.replace(tzinfo=UTC)
    due_at = row.due_at.replace(tzinfo=UTC)
    return Notice(
        row.id, row.account_id, row.once_key, row.kind, row.tank_id, row.body, due_at, row.tries, row.state, row.error,
        done_at,
    )  # fmt: skip


class Notices:
    """Queries on notices. Times are aware.

    lease, first_wait: how long a claim lasts, and the wait after a first failure; trials have less patience.
    """

    def __init__(self, database: peewee.Database, lease: timedelta = LEASE, first_wait: timedelta = FIRST_WAIT) -> None:
        self._database, self._lease, self._first_wait = database, lease, first_wait

    def choice(self, account_id: int) -> dict[str, Any] | None:
        """What an account chose, None where it never did."""
        row = NoticeChoiceRow.select().where(NoticeChoiceRow.account == account_id).bind(self._database).first()
        return None if row is None else dict(row.body)

    def choose(self, account_id: int, body: dict[str, Any], now: datetime) -> None:
        """Store a choice; it is looked at next by the worker's next round."""
        mine = NoticeChoiceRow.insert(account=account_id, body=body, next_check=_naive(now))
        kept = mine.on_conflict(preserve=[NoticeChoiceRow.body, NoticeChoiceRow.next_check])
        kept.bind(self._database).execute()

    def claim_choices(self, now: datetime, every: timedelta) -> list[int]:
        """Accounts whose choice is to be looked at now, each claimed for one worker until it is due again."""
        at = _naive(now)
        due = NoticeChoiceRow.select().where(NoticeChoiceRow.next_check <= at).order_by(NoticeChoiceRow.next_check)
        mine = []
        for row in list(due.limit(AT_ONCE).bind(self._database)):
            same = (NoticeChoiceRow.account == row.account_id) & (NoticeChoiceRow.next_check == row.next_check)
            claim = NoticeChoiceRow.update(next_check=at + every).where(same).bind(self._database)
            if written_together(self._database, claim.execute):
                mine.append(row.account_id)
        return mine

    def add(
        self,
        account_id: int,
        once_key: str,
        kind: str,
        now: datetime,
        *,
        due_at: datetime | None = None,
        tank_id: int | None = None,
        body: dict[str, Any] | None = None,
    ) -> bool:
        """Queue a notice, unless one of its key is there; whether it is new."""
        new = NoticeRow.insert(
            account=account_id,
            once_key=once_key,
            kind=kind,
            tank_id=tank_id,
            body=body or {},
            state="waiting",
            due_at=_naive(due_at or now),
            made_at=_naive(now),
        )
        return bool(new.on_conflict_ignore().bind(self._database).as_rowcount().execute())

    def open_keys(self, account_id: int, prefix: str) -> set[str]:
        """Keys of an account that begin so."""
        mine = (NoticeRow.account == account_id) & NoticeRow.once_key.startswith(prefix)
        return {row.once_key for row in NoticeRow.select(NoticeRow.once_key).where(mine).bind(self._database)}

    def release(self, account_id: int, once_key: str) -> None:
        """Free a key for the next time: what it was about is over. A notice still waiting is dropped."""
        mine = (NoticeRow.account == account_id) & (NoticeRow.once_key == once_key)
        waiting = mine & (NoticeRow.state == "waiting")
        NoticeRow.update(state="dropped", error="over before it was sent").where(waiting).bind(self._database).execute()
        freed = peewee.fn.CONCAT("over:", NoticeRow.id)
        NoticeRow.update(once_key=freed).where(mine).bind(self._database).execute()

    def claim(self, now: datetime) -> list[Notice]:
        """Notices to send now, claimed for this worker alone until their lease ends."""
        at, token = _naive(now), secrets.token_hex(16)
        free = NoticeRow.claimed_until.is_null() | (NoticeRow.claimed_until < at)
        due = (NoticeRow.state == "waiting") & (NoticeRow.due_at <= at) & free
        claim = NoticeRow.update(claim=token, claimed_until=at + self._lease, tries=NoticeRow.tries + 1).where(due)
        claim = claim.order_by(NoticeRow.due_at, NoticeRow.id).limit(AT_ONCE)
        if not written_together(self._database, claim.bind(self._database).execute):
            return []
        mine = NoticeRow.select().where(NoticeRow.claim == token).order_by(NoticeRow.due_at, NoticeRow.id)
        return [_notice(row) for row in mine.bind(self._database)]

    def end(self, notice: Notice, how: Ended, now: datetime, error: str = "") -> None:
        """Done with one: it was sent, there was nothing left to say, or it could not be sent."""
        values: dict[str, Any] = {"state": how, "claim": None, "claimed_until": None, "done_at": _naive(now)}
        # A body may hold an invitation's link, which nobody needs to find later.
        values |= {"body": {}, "error": error[:LONGEST_ERROR]}
        NoticeRow.update(values).where(NoticeRow.id == notice.id).bind(self._database).execute()

    def again(self, notice: Notice, now: datetime, error: str) -> None:
        """Put one back after a failure, for later; given up after many."""
        if notice.tries >= MOST_TRIES:
            self.end(notice, "dead", now, error)
            return
        wait = min(self._first_wait * 2.0 ** (notice.tries - 1), LONGEST_WAIT)
        values = {"claim": None, "claimed_until": None, "due_at": _naive(now + wait), "error": error[:LONGEST_ERROR]}
        NoticeRow.update(values).where(NoticeRow.id == notice.id).bind(self._database).execute()

    def latest(self, account_id: int, limit: int = 10) -> list[Notice]:
        """The newest notices of an account that are done with, newest first."""
        mine = (NoticeRow.account == account_id) & (NoticeRow.state != "waiting")
        rows = NoticeRow.select().where(mine).order_by(NoticeRow.done_at.desc(), NoticeRow.id.desc()).limit(limit)
        return [_notice(row) for row in rows.bind(self._database)]

    def counts(self) -> dict[str, int]:
        """Number of notices by state, for the operator."""
        rows: Any = NoticeRow.select(NoticeRow.state, peewee.fn.COUNT(NoticeRow.id)).group_by(NoticeRow.state)
        return {str(state): int(n) for state, n in rows.tuples().bind(self._database)}

    def dead(self, limit: int = 50) -> list[tuple[str, Notice]]:
        """What could not be sent, newest first, with the address, for the operator."""
        rows = NoticeRow.select(NoticeRow, Account).join(Account).where(NoticeRow.state == "dead")
        rows = rows.order_by(NoticeRow.id.desc()).limit(limit)
        return [(row.account.email, _notice(row)) for row in rows.bind(self._database)]


def is_due(database: peewee.Database, name: str, now: datetime, every: timedelta) -> bool:
    """Whether this worker does a job now; of all workers one is told so, once in every interval."""
    at = _naive(now)
    JobRow.insert(name=name, due_at=at).on_conflict_ignore().bind(database).execute()
    mine = JobRow.update(due_at=at + every).where((JobRow.name == name) & (JobRow.due_at <= at)).bind(database)
    return bool(written_together(database, mine.execute))
