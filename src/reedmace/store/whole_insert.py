"""A whole logbook written at once, in its order."""

from collections.abc import Callable, Sequence
from typing import Any

import peewee

from reedmace.logbook.replay.entries import Entry
from reedmace.store.models import EntryRow

AT_ONCE = 500
"""Entries written in one statement."""

Columns = Callable[[Entry, int | None], dict[str, Any]]
"""Columns of an entry; the second argument is the new id of the one it supersedes."""


def insert_all(database: peewee.Database, tank_id: int, entries: Sequence[Entry], columns: Columns) -> None:
    """Write a logbook in its order, superseding entries after what they supersede. tank_id: of a tank that is new."""
    ids: dict[int, int] = {}
    waiting: list[Entry] = []
    for entry in entries:
        # A superseded entry must have its new id first: an entry is never changed once written.
        if len(waiting) >= AT_ONCE or (entry.supersedes is not None and entry.supersedes not in ids):
            ids |= _insert_many(database, tank_id, waiting, ids, columns)
            waiting = []
        waiting.append(entry)
    _insert_many(database, tank_id, waiting, ids, columns)


def _insert_many(
    database: peewee.Database, tank_id: int, some: list[Entry], ids: dict[int, int], columns: Columns
) -> dict[int, int]:
    """Write several at once; the new id of each by its old one. ids: of those written before."""
    if not some:
        return {}
    rows = [columns(e, None if e.supersedes is None else ids[e.supersedes]) for e in some]
    EntryRow.insert_many(rows).bind(database).execute()
    last = EntryRow.select(EntryRow.id).where(EntryRow.tank == tank_id).order_by(EntryRow.id.desc()).limit(len(some))
    new = sorted(row.id for row in last.bind(database))
    return {e.id: n for e, n in zip(some, new, strict=True)}
