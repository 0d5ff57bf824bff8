"""Filter catalogue as CSV: one filter a row, units in the header, inapplicable cells empty."""

import csv
import io
import re
from collections.abc import Iterable

from pydantic import ValidationError

from reedmace.core.filter import Filter
from reedmace.core.registry import issues_of
from reedmace.formats.csv_rows import RowError, read_rows

COLUMNS: tuple[str, ...] = tuple(name for name in Filter.model_fields)
NEEDED = ("name", "kind", "box_lph", "watts", "price")
MOST_ROWS = 200
_YES, _NO = ("yes", "true", "1"), ("no", "false", "0")
_WORDS = ("id", "name", "kind", "media_path", "priming")
_SO_OR_NOT = frozenset(name for name, field in Filter.model_fields.items() if field.annotation in (bool, bool | None))
_DEFAULTS: dict[str, object] = {
    # Values a box seldom gives, for a filter of middling size (common practice); a row's own values take precedence.
    "face_cm2": 200.0,
    "media_l": 2.0,
    "height_cm": 30.0,
    "width_cm": 18.0,
    "depth_cm": 16.0,
    "noise": 3,
    "tank_up_to_l": 200.0,
}


def write_catalogue(filters: Iterable[Filter]) -> str:
    """CSV text of some filters, in their order.

    A curve is written as flow:head pairs, L/h and m, separated by spaces.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for f in filters:
        row: list[str] = []
        for column in COLUMNS:
            value = getattr(f, column)
            if column == "curve":
                row.append(" ".join(f"{p.flow_lph:g}:{p.head_m:g}" for p in value))
            elif isinstance(value, bool):
                row.append("yes" if value else "no")
            else:
                row.append("" if value is None else f"{value:g}" if isinstance(value, float) else str(value))
        writer.writerow(row)
    return out.getvalue()


def read_catalogue(text: str) -> tuple[list[Filter], list[RowError]]:
    """Filters of a CSV, or the faults of each faulty row; never both.

    text: with a header of COLUMNS in any order; name, kind, box_lph, watts and price are needed. An id left out is
    made from the name; what a box seldom says may be left out.
    """
    found, errors = read_rows(text, COLUMNS, NEEDED, MOST_ROWS, _row)
    seen: dict[str, int] = {}
    for number, f in enumerate(found, start=2):
        if f.id in seen:
            errors.append(RowError(number, "id", f'"{f.id}" stands on line {seen[f.id]} already.'))
        seen[f.id] = number
    return ([] if errors else found), errors


def _row(line: int, cells: dict[str, str]) -> tuple[Filter | None, list[RowError]]:
    data: dict[str, object] = dict(_DEFAULTS)
    errors: list[RowError] = []
    for column, cell in cells.items():
        if not cell:
            continue
        if column in _WORDS:
            data[column] = cell
        elif column == "curve":
            points = [p.split(":") for p in cell.split()]
            try:
                data[column] = [{"flow_lph": float(q), "head_m": float(h)} for q, h in points]
            except ValueError:
                errors.append(RowError(line, column, f'"{cell[:30]}" is not a curve; write 0:1.4 400:1.1 800:0.'))
        elif cell.lower() in _YES + _NO and column in _SO_OR_NOT:
            data[column] = cell.lower() in _YES
        else:
            try:
                figure = float(cell.replace(",", "."))
                data[column] = int(figure) if column == "noise" and figure == int(figure) else figure
            except (ValueError, OverflowError):
                errors.append(RowError(line, column, f'"{cell[:30]}" is not a figure.'))
    data.setdefault("id", "own-" + re.sub(r"[^a-z0-9]+", "-", str(data.get("name", "")).lower()).strip("-")[:70])
    if errors:
        return None, errors
    try:
        return Filter.model_validate(data), []
    except ValidationError as error:
        return None, [RowError(line, c.where.rsplit(".", 1)[-1], f"{c.what} {c.remedy}") for c in issues_of(error)]
