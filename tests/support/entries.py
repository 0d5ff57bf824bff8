"""Entries of a logbook and a simulated tank that tests share."""

from datetime import UTC, datetime
from typing import Any

from reedmace.logbook.replay.entries import Entry

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


def entry(n: int, body: dict, at: datetime = NOW) -> Any:
    return Entry.model_validate({"id": n, "key": f"entry-{n:04d}", "at": at, "written_at": at, "body": body})
