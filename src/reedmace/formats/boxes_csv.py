"""Filter boxes as CSV: one box a row, units in the header, inapplicable cells empty."""

import csv
import io
import re
from collections.abc import Iterable

from pydantic import ValidationError

from reedmace.core.filter import Filter
from reedmace.core.filter.kind_parts.traits import kind_traits
from reedmace.core.filter.typical import LEAST_LPH, MOST_LPH, typical_box
from reedmace.core.registry import issues_of
from reedmace.formats.csv_rows import RowError, column_of, read_rows

COLUMNS: tuple[str, ...] = tuple(name for name in Filter.model_fields)
NEEDED = ("name", "kind", "box_lph")
MOST_ROWS = 5000
_YES, _NO = ("yes", "true", "1"), ("no", "false", "0")
_MAY_LACK = ("max_head_m", "air_l_min", "tube_bore_mm", "hose_bore_mm", "pump_in_water", "noise_db")
_WORDS = ("id", "name", "kind", "media_path", "priming")
_SO_OR_NOT = frozenset(name for name, field in Filter.model_fields.items() if field.annotation in (bool, bool | None))


def write_boxes(filters: Iterable[Filter]) -> str:
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


def read_boxes(text: str) -> tuple[list[Filter], list[RowError]]:
    """Filters of a CSV, or the faults of each faulty row; never both.

    text: with a header of COLUMNS in any order; name, kind and box_lph are needed. An id left out is made from the
    name; what else is left out is as usual for that kind and size.
    """
    found, errors = read_rows(text, COLUMNS, NEEDED, MOST_ROWS, _row)
    seen: dict[str, int] = {}
    for number, f in enumerate(found, start=2):
        if f.id in seen:
            errors.append(RowError(number, "id", f'"{f.id}" stands on line {seen[f.id]} already.'))
        seen[f.id] = number
    return ([] if errors else found), errors


def _row(line: int, cells: dict[str, str]) -> tuple[Filter | None, list[RowError]]:
    # An empty cell of what a kind may lack says that this box lacks it.
    data: dict[str, object] = {column: None for column in _MAY_LACK if cells.get(column) == ""}
    errors: list[RowError] = []
    for column, cell in cells.items():
        try:
            if cell:
                data[column] = _cell(column, cell)
        except (ValueError, OverflowError) as error:
            errors.append(RowError(line, column, f'"{cell[:30]}" is not a {error}'))
    data.setdefault("id", "own-" + re.sub(r"[^a-z0-9]+", "-", str(data.get("name", "")).lower()).strip("-")[:70])
    if errors:
        return None, errors
    usual = _usual(data)
    try:
        return Filter.model_validate(usual | data), []
    except ValidationError as error:
        wrong = [RowError(line, column_of(c.where, COLUMNS), f"{c.what} {c.remedy}") for c in issues_of(error)]
        # Of a kind or size that is not understood nothing usual is known: only what was typed or is needed is at fault.
        own = wrong if usual else [one for one in wrong if one.column in data or one.column in NEEDED]
        return None, own or wrong


def _cell(column: str, cell: str) -> object:
    """The value of a cell. Raises ValueError that says what it should be. column: its header; cell: not empty."""
    if column in _WORDS:
        return cell
    if column == "curve":
        try:
            return [{"flow_lph": float(q), "head_m": float(h)} for q, h in (p.split(":") for p in cell.split())]
        except ValueError as error:
            raise ValueError("curve; write 0:1.4 400:1.1 800:0.") from error
    if cell.lower() in _YES + _NO and column in _SO_OR_NOT:
        return cell.lower() in _YES
    try:
        figure = float(cell.replace(",", "."))
        return int(figure) if column == "noise" and figure == int(figure) else figure
    except (ValueError, OverflowError) as error:
        raise ValueError("figure.") from error


def _usual(data: dict[str, object]) -> dict[str, object]:
    """What a box of that kind and flow usually has; empty where either is not understood. data: of a row."""
    kind, lph = kind_traits().get(str(data.get("kind"))), data.get("box_lph")
    if kind is None or kind.typical is None or not isinstance(lph, float) or not LEAST_LPH <= lph <= MOST_LPH:
        return {}
    return typical_box(kind, lph).model_dump() | {"price_known": "price" in data}
