"""Shared CSV reader: delimiter, header, faults by row, all or nothing."""

import csv
import io
from collections.abc import Callable, Collection
from dataclasses import dataclass
from typing import TypeVar

from reedmace.core.contract import Issue
from reedmace.core.registry import WHOLE_INPUT

T = TypeVar("T")
MOST_COLUMNS, MOST_FAULTS = 100, 200
"""Most columns of an accepted file, and most faults reported."""


@dataclass(frozen=True)
class RowError:
    """One rejected row: its line in the file, the column, and the fault."""

    line: int
    column: str
    what: str

    def issue(self) -> Issue:
        """The same for the sender, with the remedy."""
        where = f"line {self.line}{', ' + self.column if self.column else ''}"
        return Issue(where=where, what=self.what, remedy="Correct it and send the file again.")


def column_of(where: str, columns: Collection[str]) -> str:
    """The column of a fault; "" where the row as a whole is at fault.

    where: as an Issue names it, a field that is no column by its own name; columns: all.
    """
    named = [piece for piece in where.split(".") if not piece.isdecimal()]
    if named[-1:] == [WHOLE_INPUT]:
        return ""
    return next((piece for piece in reversed(named) if piece in columns), named[-1] if named else "")


def read_rows(
    text: str,
    columns: tuple[str, ...],
    needed: tuple[str, ...],
    most_rows: int,
    take: Callable[[int, dict[str, str]], tuple[T | None, list[RowError]]],
) -> tuple[list[T], list[RowError]]:
    """Every row of a CSV converted by `take`, or the faults of each faulty row.

    text: with a header of `columns` in any order, of which `needed` must be there; semicolons are taken too.
    take: line number and cells to a thing, or its faults. With any fault nothing is returned but the faults.
    """
    text = text.lstrip("\ufeff")
    first_line = text.split("\n", 1)[0]
    rows = csv.DictReader(io.StringIO(text), delimiter=";" if first_line.count(";") > first_line.count(",") else ",")
    errors = _header(rows, columns, needed)
    if errors:
        return [], errors
    found: list[T] = []
    try:
        for number, row in enumerate(rows, start=2):
            if number > most_rows + 1:
                return [], [RowError(number, "", f"is one too many; send at most {most_rows} rows at a time.")]
            if not any(isinstance(v, str) and v.strip() for v in row.values()):
                continue
            if None in row:
                errors.append(RowError(number, "", "has more fields than the header."))
                continue
            if len(errors) >= MOST_FAULTS:
                return [], errors
            one, wrong = take(number, {k: (v or "").strip() for k, v in row.items()})
            errors += wrong
            if one is not None:
                found.append(one)
    except csv.Error as error:
        return [], [*errors, RowError(rows.line_num, "", f"cannot be read as CSV: {error}.")]
    return ([] if errors else found), errors


def _header(rows: "csv.DictReader[str]", columns: tuple[str, ...], needed: tuple[str, ...]) -> list[RowError]:
    """Faults of the header, which is matched without case and surrounding blanks."""
    try:
        names = [(n or "").strip().lower() for n in rows.fieldnames or []]
    except csv.Error as error:
        return [RowError(1, "", f"cannot be read as CSV: {error}.")]
    if len(names) > MOST_COLUMNS:
        return [RowError(1, "", f"has {len(names)} columns; there can be {len(columns)}.")]
    rows.fieldnames = names
    errors = [
        RowError(1, n or "(blank)", f"is not a column; the columns are {', '.join(columns)}.")
        for n in names
        if n not in columns
    ]
    return errors + [RowError(1, n, "is missing; give it a column.") for n in needed if n not in names]
