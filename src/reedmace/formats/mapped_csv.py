"""Past readings from any CSV: columns mapped, units stated, every fault shown before anything is written."""

import csv
import io
import re
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta, timezone
from itertools import islice
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field, ValidationError

from reedmace.core.contract import Part, whole
from reedmace.core.registry import issues_of
from reedmace.core.water_parameters import WATER_PARAMETERS, ColumnUnit
from reedmace.formats.csv_rows import MOST_COLUMNS, MOST_FAULTS, RowError
from reedmace.formats.readings_csv import MOST_ROWS, reading_key
from reedmace.logbook.replay.entries import NewEntry, Reading
from reedmace.logbook.times import in_our_time

_BY_KEY = {one.key: one for one in WATER_PARAMETERS}
TARGETS = ("skip", "date", "time", "basis", *_BY_KEY)
UNITS: dict[str, tuple[ColumnUnit, ...]] = {key: one.units for key, one in _BY_KEY.items() if one.units}
_CHOICES = ("", *dict.fromkeys(unit.unit for units in UNITS.values() for unit in units))
DateOrder = Literal["year-first", "day-first", "month-first"]


def _among(choices: tuple[str, ...]) -> Callable[[str], str]:
    """A check that a text is one of some choices."""

    def check(value: str) -> str:
        if value not in choices:
            raise ValueError(f"is none of {', '.join(filter(None, choices))}")
        return value

    return check


Target = Annotated[str, AfterValidator(_among(TARGETS)), Field(json_schema_extra={"enum": [*TARGETS]})]
Unit = Annotated[str, AfterValidator(_among(_CHOICES)), Field(json_schema_extra={"enum": [*_CHOICES]})]

_GUESS: tuple[tuple[str, str], ...] = (
    *((one.header, key) for key, one in _BY_KEY.items()),
    (r"date|\bat\b|\bwhen\b|\bday\b", "date"),
    (r"time|hour", "time"),
    (r"\bbasis\b", "basis"),
)
"""How a column is recognised by its name; the first that fits."""
_DATES: dict[DateOrder, tuple[str, ...]] = {
    "year-first": ("%Y-%m-%d", "%Y/%m/%d", "%Y.%m.%d"),
    "day-first": ("%d/%m/%Y", "%d.%m.%Y", "%d-%m-%Y", "%d/%m/%y", "%d.%m.%y"),
    "month-first": ("%m/%d/%Y", "%m-%d-%Y", "%m/%d/%y"),
}


class ColumnUse(Part):
    """Meaning of one column of the file."""

    column: Annotated[str, Field(max_length=200)]
    target: Target = "skip"
    unit: Unit = ""


class MappedCsv(Part):
    """A file and its mapping; columns left out are guessed."""

    text: Annotated[str, Field(min_length=1, max_length=1_000_000)]
    columns: Annotated[list[ColumnUse], Field(max_length=60)] | None = None
    date_order: DateOrder | None = None
    zone_offset_minutes: Annotated[int, whole(-840, 840)] = 0


class FoundColumn(Part):
    """One column, its guessed meaning, and its first figures."""

    column: str
    target: Target
    unit: Unit
    examples: list[str]


class FoundRow(Part):
    """One row as it would be written."""

    line: Annotated[int, whole(1, 10_000_000)]
    at: str
    reading: Reading


@dataclass
class Mapped:
    """Content of a file: columns, entries with their lines, faults."""

    columns: list[FoundColumn]
    date_order: DateOrder
    entries: list[tuple[int, NewEntry]] = field(default_factory=list)
    faults: list[RowError] = field(default_factory=list)


def read_mapped(question: MappedCsv, now: datetime) -> Mapped:
    """Every row as a reading, or its fault. question: file and mapping; now: aware time."""
    rows, fault = _rows(question.text.lstrip("\ufeff"))
    if fault is not None:
        return Mapped([], "year-first", faults=[fault])
    header = [h.strip()[:200] for h in rows[0]] if rows else []
    body = [
        (n, [c.strip() for c in row]) for n, row in enumerate(rows[1:], start=2) if any(cell.strip() for cell in row)
    ]
    uses = _uses(question, header, body)
    order = question.date_order or _date_order(uses, header, body)
    columns = [
        FoundColumn(
            column=name, target=use.target, unit=use.unit,
            examples=[row[i] for _, row in body[:30] if i < len(row) and row[i]][:3],
        )
        for i, (name, use) in enumerate(zip(header, uses, strict=True))
    ]  # fmt: skip
    found = Mapped(columns, order)
    found.faults = _misfits(uses, body)
    if found.faults:
        return found
    zone = timezone(timedelta(minutes=question.zone_offset_minutes))
    for line, cells in body:
        if len(found.faults) >= MOST_FAULTS:
            break
        _row(found, line, cells, uses, order, zone, now)
    return found


def _rows(text: str) -> tuple[list[list[str]], RowError | None]:
    """The cells of a file, or why it cannot be read."""
    delimiter = max(",;\t", key=text.split("\n", 1)[0].count)
    try:
        # One row past the limit is enough to report too many.
        rows = list(islice(csv.reader(io.StringIO(text), delimiter=delimiter), MOST_ROWS + 3))
    except csv.Error as error:
        return [], RowError(1, "", f"cannot be read as CSV: {error}.")
    if rows and len(rows[0]) > MOST_COLUMNS:
        return [], RowError(1, "", f"has {len(rows[0])} columns; send at most {MOST_COLUMNS}.")
    return rows, None


def _misfits(uses: list[ColumnUse], body: list[tuple[int, list[str]]]) -> list[RowError]:
    """Faults of the mapping, or of the size of the file, before any row is read."""
    faults: list[RowError] = []
    targets = [u.target for u in uses if u.target not in ("skip",)]
    for target in sorted({t for t in targets if targets.count(t) > 1}):
        faults.append(RowError(1, "", f"two columns are mapped to {target}; keep one."))
    if "date" not in targets:
        faults.append(RowError(1, "", "no column is mapped to the date."))
    if not any(t in _BY_KEY for t in targets):
        faults.append(RowError(1, "", "no column is mapped to a test."))
    if len(body) > MOST_ROWS:
        faults.append(RowError(MOST_ROWS + 2, "", f"is one too many; send at most {MOST_ROWS} rows at a time."))
    for use in uses:
        allowed = [unit.unit for unit in UNITS.get(use.target, ())]
        if allowed and use.unit not in allowed:
            faults.append(RowError(1, use.column, f"is in {' or '.join(allowed)}; say which."))
    return faults


def _uses(question: MappedCsv, header: list[str], body: list[tuple[int, list[str]]]) -> list[ColumnUse]:
    given = {c.column: c for c in question.columns or []}
    taken: set[str] = set()
    uses = []
    for name in header:
        if question.columns is not None:
            uses.append(given.get(name, ColumnUse(column=name)))
            continue
        low = name.lower().replace("_", " ")
        target = next((key for pattern, key in _GUESS if re.search(pattern, low)), "skip")
        unit = _unit_of(low, UNITS.get(target, ()))
        if target in taken:
            target, unit = "skip", ""
        taken.add(target)
        uses.append(ColumnUse.model_validate({"column": name, "target": target, "unit": unit}))
    return uses


def _unit_of(name: str, units: tuple[ColumnUnit, ...]) -> str:
    """The unit a column's name speaks of, otherwise the field's own. name: in small letters."""
    told = [unit for unit in units[1:] if re.search(unit.header, name)]
    return (told[-1] if told else units[0]).unit if units else ""


def _date_order(uses: list[ColumnUse], header: list[str], body: list[tuple[int, list[str]]]) -> DateOrder:
    at = next((i for i, u in enumerate(uses) if u.target == "date"), None)
    cells = [row[at] for _, row in body if at is not None and at < len(row) and row[at]]
    orders: tuple[DateOrder, ...] = ("year-first", "day-first", "month-first")
    return max(orders, key=lambda o: sum(_date(c, o) is not None for c in cells), default="year-first")


def _date(cell: str, order: DateOrder) -> datetime | None:
    """A cell's date, with its time of day where present."""
    if order == "year-first":
        try:
            return in_our_time(datetime.fromisoformat(cell))
        except ValueError:
            pass
    day, _, clock = cell.replace("T", " ").partition(" ")
    for pattern in _DATES[order]:
        try:
            found = in_our_time(datetime.strptime(day, pattern))
        except ValueError:
            continue
        moment = _clock(clock) if clock else (0, 0)
        return None if moment is None else found.replace(hour=moment[0], minute=moment[1])
    return None


def _clock(cell: str) -> tuple[int, int] | None:
    match = re.fullmatch(r"\s*(\d{1,2})[:.h](\d{2})(?::\d{2})?\s*([ap]m)?\s*", cell.lower())
    if not match:
        return None
    hour, minute = int(match[1]), int(match[2])
    if match[3] and not 1 <= hour <= 12:
        return None
    if match[3]:
        hour = hour % 12 + (12 if match[3] == "pm" else 0)
    return (hour, minute) if hour < 24 and minute < 60 else None


@dataclass
class _Line:
    """One line as far as its cells have been read."""

    body: dict[str, Any] = field(default_factory=lambda: {"kind": "reading", "basis": "ion"})
    off: list[str] = field(default_factory=list)
    at: datetime | None = None
    clock: tuple[int, int] | None = None


def _cell(row: _Line, use: ColumnUse, cell: str, order: DateOrder) -> str | None:
    """Read one cell into the row; its fault, or None."""
    if use.target == "date":
        row.at = _date(cell, order)
        return None if row.at else f'"{cell[:40]}" is not a date written {order.replace("-", " ")}.'
    if use.target == "basis":
        row.body["basis"] = "N" if cell.lower() == "n" else "ion"
        return None if cell.lower() in ("n", "ion") else f'"{cell[:40]}" is neither ion nor N.'
    if use.target == "time":
        row.clock = _clock(cell)
        return None if row.clock else f'"{cell[:40]}" is not a time of day; write it as 07:40.'
    value, plus = _figure(cell)
    if value is None:
        return f'"{cell[:40]}" is not a figure.'
    one = _BY_KEY[use.target]
    if plus and one.ion:
        row.off.append(use.target)
    row.body[one.field] = _converted(value, use)
    return None


def _whole(row: _Line, uses: list[ColumnUse]) -> str | None:
    """Fault of a row whose cells are each valid, or None."""
    if row.at is None:
        return "has no date."
    if not any(one.field in row.body for one in WATER_PARAMETERS):
        return "has no figure."
    if row.body["basis"] == "N" and any(u.unit == "ppm-N" for u in uses):
        return "the row's basis and a column's unit both say N; leave one of them."
    return None


def _row(
    found: Mapped, line: int, cells: list[str], uses: list[ColumnUse], order: DateOrder, zone: timezone, now: datetime
) -> None:
    row = _Line()
    faults: list[RowError] = []
    for use, cell in zip(uses, [*cells, *[""] * len(uses)], strict=False):
        wrong = _cell(row, use, cell, order) if use.target != "skip" and cell else None
        if wrong:
            faults.append(RowError(line, use.column, wrong))
    if not faults and (wrong := _whole(row, uses)):
        faults.append(RowError(line, "", wrong))
    found.faults += faults or _take(found, line, row, zone, now)


def _take(found: Mapped, line: int, row: _Line, zone: timezone, now: datetime) -> list[RowError]:
    """Add the row's entry to the result, or report why it cannot be one."""
    assert row.at is not None  # noqa: S101 - _whole has seen to it
    hour, minute = row.clock or (row.at.hour, row.at.minute)
    at = row.at.replace(hour=hour, minute=minute)
    at = (at if at.tzinfo else at.replace(tzinfo=zone)).astimezone(UTC)
    if at > now + timedelta(days=1):
        return [RowError(line, "", "lies in the future.")]
    try:
        reading = Reading.model_validate({**row.body, "off_scale": row.off})
        found.entries.append((line, NewEntry(key=reading_key(at, reading), at=at, body=reading)))
    except ValidationError as error:
        return [RowError(line, c.where.rsplit(".", 1)[-1], f"{c.what} {c.remedy}") for c in issues_of(error)]
    return []


def _figure(cell: str) -> tuple[float | None, bool]:
    text = cell.strip().lstrip("<").strip()
    plus = text.endswith("+") or text.startswith(">")
    text = re.sub(r"\s*(ppm|mg/l|g/kg|d[kg]h|°?[cf])$", "", text.strip("+> "), flags=re.IGNORECASE)
    try:
        return float(text.replace(",", ".")), plus
    except ValueError:
        return None, False


def _converted(value: float, use: ColumnUse) -> float:
    """In the logbook's unit: ppm of the ion, dKH, °C."""
    unit = next((one for one in UNITS.get(use.target, ()) if one.unit == use.unit), None)
    return value if unit is None else (value - unit.offset) / unit.per
