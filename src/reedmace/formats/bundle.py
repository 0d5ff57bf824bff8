"""A tank's whole logbook as one JSON bundle, out and in. Its schema is published at /api/bundle/schema."""

import json
import re
from collections.abc import Iterable, Iterator
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AwareDatetime, Field, model_validator

from reedmace.core.contract import Part
from reedmace.logbook.replay.entries import Entry, StoredReading

MOST_ENTRIES = 100_000
LINES_A_PIECE = 500
"""Entries written at once."""
KEY = re.compile(r"[A-Za-z0-9_-]{1,64}")


class Bundle(Part):
    """One tank and every entry of its logbook in the order written, withdrawn and corrected ones included.

    Version 1 is that of 0.1; its bodies are read as today's (see `logbook.upcast`).
    """

    format: Literal["reedmace-bundle"] = "reedmace-bundle"
    version: Literal[1, 2] = 2
    written_at: AwareDatetime
    tank: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    entries: Annotated[list[Entry], Field(max_length=MOST_ENTRIES)]

    @model_validator(mode="after")
    def _entries_are_consistent(self) -> "Bundle":
        seen: set[int] = set()
        keys: set[str] = set()
        for entry in self.entries:
            if entry.id in seen or entry.key in keys:
                raise ValueError(f"entry {entry.id} is there twice; every id and key may stand once")
            if not KEY.fullmatch(entry.key):
                raise ValueError(f"entry {entry.id} has a key that is none: 1 to 64 letters, digits, - and _")
            if entry.supersedes is not None and entry.supersedes not in seen:
                raise ValueError(
                    f"entry {entry.id} supersedes {entry.supersedes}, which does not come before it; keep the order"
                    " written"
                )
            if not 1990 <= entry.at.year <= 2200:
                raise ValueError(f"entry {entry.id} is of the year {entry.at.year}; it must lie between 1990 and 2200")
            seen.add(entry.id)
            keys.add(entry.key)
        return self


def bundle_parts(name: str, entries: Iterable[Entry | StoredReading], now: datetime) -> Iterator[str]:
    """JSON text of a tank's bundle in pieces, an entry a line.

    name: of the tank; entries: all of them in the order written; now: aware time of writing.
    """
    head = Bundle.model_construct(format="reedmace-bundle", version=2, written_at=now, tank=name, entries=[])
    start, end = head.model_dump_json(indent=1).split("[]")
    yield start + "["
    lines: list[str] = []
    first = True
    for entry in entries:
        lines.append(_line(entry))
        if len(lines) == LINES_A_PIECE:
            yield _joined(lines, first=first)
            lines, first = [], False
    if lines:
        yield _joined(lines, first=first)
    yield "\n ]" + end


def _joined(lines: list[str], *, first: bool) -> str:
    return ("\n" if first else ",\n") + ",\n".join(lines)


def _line(entry: Entry | StoredReading) -> str:
    if isinstance(entry, Entry):
        return f"  {entry.model_dump_json()}"
    head = {"id": entry.id, "key": entry.key, "at": entry.at.isoformat(), "written_at": entry.written_at.isoformat()}
    # The body is stored as JSON and goes out as it is.
    return f'  {json.dumps(head)[:-1]}, "supersedes": {json.dumps(entry.supersedes)}, "body": {entry.body}}}'


def bundle_schema() -> dict[str, Any]:
    """JSON Schema of a bundle."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "urn:reedmace:bundle:2",
        **Bundle.model_json_schema(),
    }
