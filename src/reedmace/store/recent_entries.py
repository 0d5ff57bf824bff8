"""Entries that determine where tanks stand: every rare one, and the newest of each series that grows by thousands."""

from collections import defaultdict
from collections.abc import Sequence
from datetime import UTC, datetime
from functools import reduce
from operator import or_

import peewee

from reedmace.logbook.replay.entries import Entry
from reedmace.store.models import EntryRow

SERIES = ("test", "probe", "flow")
"""Frequent series, as the database derives them: tests of a kit, readings of a thermometer or pH probe, timed flows.

A probe that writes every minute must not push the last ammonia test out, so each has a number of its own.
"""
RARE = ""
NEWEST = 400
"""How many of each frequent series are read."""
TANKS_AT_ONCE = 500
"""Tanks of one query: more ranges than this the optimizer no longer follows through the index."""


def entry_of_row(row: EntryRow) -> Entry:
    """The entry a row stores."""
    return Entry.model_validate(
        {
            "id": row.id,
            "key": row.client_key,
            "at": row.at.replace(tzinfo=UTC),
            "written_at": row.written_at.replace(tzinfo=UTC),
            "supersedes": row.supersedes_id,
            "body": row.body,
        }
    )


def recent_entries(database: peewee.Database, tank_ids: Sequence[int]) -> dict[int, list[Entry]]:
    """Entries by tank id, in the order written: all rare ones, the `NEWEST` of each frequent series.

    Two queries for every `TANKS_AT_ONCE` tanks, whatever stands in their logbooks. tank_ids: which, already allowed.
    """
    found: dict[int, list[Entry]] = {}
    for start in range(0, len(tank_ids), TANKS_AT_ONCE):
        some = tank_ids[start : start + TANKS_AT_ONCE]
        for tank_id, rows in _rows(database, some).items():
            found[tank_id] = [entry_of_row(row) for row in sorted(rows, key=lambda r: r.id)]
    return found


def _rows(database: peewee.Database, tank_ids: Sequence[int]) -> dict[int, list[EntryRow]]:
    oldest = _oldest_wanted(database, tank_ids)
    ranges = [EntryRow.tank.in_(list(tank_ids)) & (EntryRow.series == RARE)]
    for series in SERIES:
        whole = [t for t in tank_ids if oldest[t, series] is None]
        if whole:
            ranges.append(EntryRow.tank.in_(whole) & (EntryRow.series == series))
        ranges += [
            (EntryRow.tank == t) & (EntryRow.series == series) & (EntryRow.at >= since)
            for t in tank_ids
            if (since := oldest[t, series]) is not None
        ]
    by_series: dict[tuple[int, str], list[EntryRow]] = defaultdict(list)
    for row in EntryRow.select().where(reduce(or_, ranges)).bind(database):
        by_series[row.tank_id, row.series].append(row)
    found: dict[int, list[EntryRow]] = defaultdict(list)
    for (tank_id, series), rows in by_series.items():
        if series != RARE and len(rows) > NEWEST:
            # Several entries may share the oldest time.
            rows = sorted(rows, key=lambda r: (r.at, r.id))[-NEWEST:]
        found[tank_id] += rows
    return found


def _oldest_wanted(database: peewee.Database, tank_ids: Sequence[int]) -> dict[tuple[int, str], datetime | None]:
    """Time of the oldest entry wanted, by tank and series; None where the series is shorter than `NEWEST`."""
    places = ", ".join(
        "(SELECT e.at FROM entry e WHERE e.tank_id = t.id AND e.series = %s ORDER BY e.at DESC LIMIT 1 OFFSET %s)"
        for _ in SERIES
    )
    marks = ", ".join(["%s"] * len(tank_ids))
    # Only the number of placeholders depends on the input.
    sql = f"SELECT t.id, {places} FROM tank t WHERE t.id IN ({marks})"  # noqa: S608
    values = [value for series in SERIES for value in (series, NEWEST - 1)]
    found = database.execute_sql(sql, (*values, *tank_ids))  # type: ignore[no-untyped-call] # peewee has no types
    times = {(row[0], series): row[n + 1] for row in found for n, series in enumerate(SERIES)}
    return defaultdict(lambda: None, times)
