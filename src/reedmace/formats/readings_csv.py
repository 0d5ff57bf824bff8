"""Readings as CSV. One header names every unit; untested cells are empty; "5+" is off the scale."""

import csv
import hashlib
import io
from collections.abc import Iterable, Iterator
from datetime import UTC, datetime, timedelta

from pydantic import ValidationError

from reedmace.core.quantity import formatting
from reedmace.core.registry import issues_of
from reedmace.core.water_parameters import COLOUR_READ, WATER_PARAMETERS
from reedmace.formats.csv_rows import RowError, column_of, read_rows
from reedmace.logbook.replay.entries import NewEntry, Reading
from reedmace.logbook.times import in_our_time

_FIGURES = tuple(one.field for one in WATER_PARAMETERS)
_OTHER_KIT = "other_kit"
"""Column that says "yes" of a test read with another kit than those before it."""
COLUMNS = ("at", "basis", *_FIGURES, _OTHER_KIT)
_KEYED = 8
"""Columns of the first version: they stand in a row's key read or not, later ones where they were read."""
_COLOURS = {one.field: one.key for one in COLOUR_READ}
"""Columns read against a colour scale: "5+" is off it, "0.25-1" stands between two steps."""
_IN_F = "temperature_f"
"""Temperature column in degrees Fahrenheit, written for readers of °F and accepted from anyone."""
MOST_ROWS = 2000
PIECE = 64_000
"""Characters written at once."""


def csv_parts(readings: Iterable[tuple[datetime, Reading]]) -> Iterator[str]:
    """CSV text of readings and when they were made, in their order and in pieces.

    Times in ISO 8601 with zone; temperature in the keeper's unit, as chosen at the call.
    """
    return _parts(readings, formatting.celsius.unit())


def _parts(readings: Iterable[tuple[datetime, Reading]], warmth: formatting.Unit) -> Iterator[str]:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    own = _IN_F if warmth.offset else "temperature_c"
    writer.writerow([own if c == "temperature_c" else c for c in COLUMNS])
    for at, r in readings:
        if out.tell() > PIECE:
            yield out.getvalue()
            out.seek(0)
            out.truncate()
        row: list[str] = [at.isoformat(), r.basis]
        for column in _FIGURES:
            value = getattr(r, column)
            if column == "temperature_c" and value is not None:
                value = value * warmth.factor + warmth.offset
            row.append("" if value is None else _cell(r, column.removesuffix("_ppm"), value))
        row.append("yes" if r.other_kit else "")
        writer.writerow(row)
    yield out.getvalue()


def _cell(reading: Reading, what: str, value: float) -> str:
    """A figure with "+" where it is off the scale, or its range: "0.25-0.5"."""
    span = next((b for b in reading.between if b.what == what), None)
    if span:
        return f"{span.low_ppm:g}-{span.high_ppm:g}"
    return f"{value:g}" + ("+" if what in reading.off_scale else "")


def reading_key(at: datetime, reading: Reading) -> str:
    """A key made of a reading's content, so that one test is one entry however often it is sent.

    at: aware time; reading: as kept or as read from a row.
    """
    read = [getattr(reading, column) for column in _FIGURES]
    figures = [f"{value:g}" if value is not None else "" for value in read[:_KEYED]]
    later = zip(_FIGURES[_KEYED:], read[_KEYED:], strict=True)
    figures += [f"{column}{value:g}" for column, value in later if value is not None]
    ranges = (f"{b.what}{b.low_ppm:g}-{b.high_ppm:g}" for b in reading.between)
    said = [at.astimezone(UTC).isoformat(), reading.basis, *figures, *sorted(reading.off_scale), *sorted(ranges)]
    return "csv-" + hashlib.sha256("|".join(said).encode()).hexdigest()[:40]


def read_csv(text: str, now: datetime) -> tuple[list[NewEntry], list[RowError]]:
    """Readings of a CSV, or the faults of each faulty row.

    text: with a header of COLUMNS in any order (`at` needed, `basis` taken as "ion" when left out); semicolons
    are taken too. now: aware time; a reading from more than a day ahead is refused. The key of an entry is made
    from its row, so the same file twice adds nothing.
    """
    return read_rows(text, (*COLUMNS, _IN_F), ("at",), MOST_ROWS, lambda line, cells: _row(line, cells, now))


def _range(cell: str) -> tuple[float, float] | None:
    """(low, high) of "0.25-0.5"; None for anything else. Raises ValueError where an end is no figure."""
    low, dash, high = cell.replace(",", ".").partition("-")
    return (float(low), float(high)) if dash and low else None


def _figure(column: str, cell: str) -> dict[str, float]:
    span = _range(cell) if column in _COLOURS else None
    if span:
        return {column: (span[0] + span[1]) / 2}
    figure = float(cell.rstrip("+").replace(",", "."))
    # Rounded as stored, so that 25.6 °C survives a round trip.
    return {"temperature_c": round((figure - 32) / 1.8, 3)} if column == _IN_F else {column: figure}


def _figures_of(line: int, cells: dict[str, str]) -> tuple[dict[str, object], list[RowError]]:
    """A reading's fields as its cells give them, and what is no figure."""
    errors: list[RowError] = []
    off: list[str] = []
    between: list[dict[str, object]] = []
    body: dict[str, object] = {"kind": "reading", "basis": cells.get("basis") or "ion"}
    for column in (*_FIGURES, _IN_F):
        cell = cells.get(column, "")
        if not cell:
            continue
        if cell.endswith("+") and column in _COLOURS:
            off.append(_COLOURS[column])
        try:
            body |= _figure(column, cell)
            if column in _COLOURS and (span := _range(cell)):
                between.append({"what": _COLOURS[column], "low_ppm": span[0], "high_ppm": span[1]})
        except ValueError:
            errors.append(RowError(line, column, f'"{cell}" is not a figure.'))
    other = cells.get(_OTHER_KIT, "").lower()
    if other not in ("", "yes", "no"):
        errors.append(RowError(line, _OTHER_KIT, f'"{other}" is neither yes nor no.'))
    return {**body, "off_scale": off, "between": between, "other_kit": other == "yes"}, errors


def _row(line: int, cells: dict[str, str], now: datetime) -> tuple[NewEntry | None, list[RowError]]:
    errors: list[RowError] = []
    at = None
    try:
        at = in_our_time(datetime.fromisoformat(cells["at"]))
        at = at if at.tzinfo else at.replace(tzinfo=now.tzinfo)
        if at > now + timedelta(days=1):
            errors.append(RowError(line, "at", "lies in the future."))
    except ValueError:
        errors.append(RowError(line, "at", f'"{cells["at"]}" is not a time; write it as 2026-02-14T07:40.'))
    body, faults = _figures_of(line, cells)
    errors += faults
    if not errors and not any(c in body for c in _FIGURES):
        errors.append(RowError(line, "", "has no figure."))
    if errors or at is None:
        return None, errors
    try:
        reading = Reading.model_validate(body)
        return NewEntry(key=reading_key(at, reading), at=at, body=reading), []
    except ValidationError as error:
        return None, [RowError(line, column_of(c.where, COLUMNS), f"{c.what} {c.remedy}") for c in issues_of(error)]
