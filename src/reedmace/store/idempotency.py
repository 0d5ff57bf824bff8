"""Answers of creating calls by their client's key, so that a call repeated after a lost answer makes nothing twice."""

from datetime import UTC, datetime, timedelta

import peewee

from reedmace.store.models import IdempotentAnswer

KEPT = timedelta(days=1)


def kept_answer(database: peewee.Database, account_id: int, key: str, path: str) -> tuple[int, str] | None:
    """(status, JSON text) answered before to this key at this path; None for a new one."""
    mine = (
        (IdempotentAnswer.account == account_id)
        & (IdempotentAnswer.client_key == key)
        & (IdempotentAnswer.path == path)
    )
    row = IdempotentAnswer.select().where(mine).bind(database).first()
    return None if row is None else (row.status, row.body)


def claim(database: peewee.Database, account_id: int, key: str, path: str, now: datetime) -> bool:
    """Take a key for a call about to be made, inside its transaction; False where another call has it.

    A call at the same time with the same key waits here until the first is over. now: aware time.
    """
    at = now.astimezone(UTC).replace(tzinfo=None)
    values = {"account": account_id, "client_key": key, "path": path, "status": 0, "body": "", "made_at": at}
    try:
        IdempotentAnswer.insert(values).bind(database).execute()
    except peewee.IntegrityError:
        return False
    return True


def keep_answer(database: peewee.Database, account_id: int, key: str, status: int, body: str) -> None:
    """Write the answer down, inside the call's transaction. body: JSON text."""
    mine = (IdempotentAnswer.account == account_id) & (IdempotentAnswer.client_key == key)
    IdempotentAnswer.update(status=status, body=body).where(mine).bind(database).execute()
