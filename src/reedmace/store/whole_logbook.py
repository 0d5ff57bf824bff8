"""A tank's whole logbook a piece at a time, so that years of device readings need no more memory than a day's."""

import json
from collections.abc import Iterator, Sequence
from datetime import UTC, datetime
from typing import Any

import peewee

from reedmace.logbook.replay.entries import Entry, Reading, StoredReading
from reedmace.store.models import EntryRow
from reedmace.store.recent_entries import RARE, entry_of_row

AT_ONCE = 2000
"""Rows of one query."""
_TEXT = peewee.SQL("t1.body").alias("stored")
"""The body as it is stored: parsing half a million of them only to write them again costs a minute."""


def each_entry(database: peewee.Database, tank_id: int) -> Iterator[Entry | StoredReading]:
    """Every entry in the order written. tank_id: already allowed.

    Readings and timed flows come as stored; all else in the present version.
    """
    columns: tuple[Any, ...] = (
        EntryRow.id,
        EntryRow.client_key,
        EntryRow.at,
        EntryRow.written_at,
        EntryRow.supersedes_id,
    )
    page = EntryRow.select(*columns, EntryRow.series, _TEXT).where(EntryRow.tank == tank_id).order_by(EntryRow.id)
    last = 0
    while True:
        rows: list[Any] = list(page.where(EntryRow.id > last).limit(AT_ONCE).tuples().bind(database))
        for key, client_key, at, written_at, supersedes, series, body in rows:
            stored = StoredReading(key, client_key, _aware(at), _aware(written_at), supersedes, body)
            yield _present(stored) if series == RARE else stored
        if len(rows) < AT_ONCE:
            return
        last = rows[-1][0]


def superseded_ids(database: peewee.Database, tank_id: int) -> set[int]:
    """Ids of the entries that later ones corrected or withdrew. tank_id: already allowed."""
    corrects = (EntryRow.tank == tank_id) & EntryRow.supersedes_id.is_null(False)
    rows: Any = EntryRow.select(EntryRow.supersedes_id).where(corrects).tuples().bind(database)
    return {one for (one,) in rows}


def each_reading(database: peewee.Database, tank_id: int) -> Iterator[tuple[datetime, Reading]]:
    """Every reading that counts and when it was made, by time. tank_id: already allowed."""
    readings = _live(tank_id, EntryRow.at, EntryRow.id, _TEXT).order_by(EntryRow.at, EntryRow.id)
    after: tuple[datetime, int] | None = None
    while True:
        page = readings
        if after is not None:
            page = page.where((EntryRow.at >= after[0]) & ((EntryRow.at > after[0]) | (EntryRow.id > after[1])))
        rows = list(page.limit(AT_ONCE).tuples().bind(database))
        yield from ((_aware(at), Reading.model_validate_json(body)) for at, _, body in rows)
        if len(rows) < AT_ONCE:
            return
        after = rows[-1][0], rows[-1][1]


def readings_at(database: peewee.Database, tank_id: int, times: Sequence[datetime]) -> list[Entry]:
    """The readings that count and were made at one of some times. times: aware; tank_id: already allowed."""
    naive = {at.astimezone(UTC).replace(tzinfo=None) for at in times}
    if not naive:
        return []
    return [entry_of_row(row) for row in _live(tank_id, EntryRow).where(EntryRow.at.in_(naive)).bind(database)]


def _live(tank_id: int, *columns: Any) -> Any:
    """Readings of a tank that nothing supersedes."""
    later = EntryRow.alias()
    replacing = later.select(peewee.SQL("1")).where((later.tank == tank_id) & (later.supersedes_id == EntryRow.id))
    mine = (EntryRow.tank == tank_id) & (EntryRow.kind == "reading")
    return EntryRow.select(*columns).where(mine & ~peewee.fn.EXISTS(replacing))


def _present(stored: StoredReading) -> Entry:
    return Entry.model_validate({**stored._asdict(), "body": json.loads(stored.body)})


def _aware(at: datetime) -> datetime:
    return at.replace(tzinfo=UTC)
