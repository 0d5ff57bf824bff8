"""Events of a tank as CSV, out and in: notes, water changes, doses and cleanings.

One header; amounts carry their unit beside them, so that a keeper's own notebook is soon written so.
"""

import csv
import hashlib
import io
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any

from pydantic import ValidationError

from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import L_PER_IMP_GAL, L_PER_US_GAL, as_nitrogen
from reedmace.core.registry import issues_of
from reedmace.formats.csv_rows import RowError, column_of, read_rows
from reedmace.formats.shopping_csv import plain
from reedmace.logbook.replay.entries import Dose, Entry, MediaWork, NewEntry, Note, WaterChange
from reedmace.logbook.times import in_our_time

COLUMNS = ("at", "what", "amount", "unit", "filter", "text")
WHAT = ("note", "change", "dose", "cleaning")
MOST_ROWS = 2000
_LITRES = {"l": 1.0, "us gal": L_PER_US_GAL, "gal": L_PER_US_GAL, "imp gal": L_PER_IMP_GAL}
_TAP = "rinsed at the tap"


@dataclass(frozen=True)
class Tank:
    """Context for reading a row: the tank's water in L, and its filters' keys by name."""

    net_l: float
    filters: Mapping[str, str] = field(default_factory=dict)


def write_events(entries: Iterable[Entry], filters: Mapping[str, str]) -> str:
    """CSV text of events, in the order of `entries`.

    filters: names by key. Changes in % of the water and doses in mg N/L.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for e in entries:
        cells = _cells(e.body, filters)
        if cells is not None:
            writer.writerow([e.at.isoformat(), *cells])
    return out.getvalue()


def _cells(body: Any, filters: Mapping[str, str]) -> list[str] | None:
    """Type, amount, unit, filter and text of an entry; None for other entries."""
    if isinstance(body, Note):
        return ["note", "", "", "", plain(body.text)]
    if isinstance(body, WaterChange):
        return ["change", f"{100 * body.share:g}", "%", "", "" if body.treated else "untreated"]
    if isinstance(body, Dose):
        return ["dose", f"{body.raise_mg_n_l:g}", "mg N/L", "", ""]
    if isinstance(body, MediaWork) and body.what in ("rinsed", "rinsed-tap"):
        name = filters.get(body.filter_key or "", "")
        said = body.text or (_TAP if body.what == "rinsed-tap" else "")
        return ["cleaning", f"{100 * body.share:g}", "%", plain(name), plain(said)]
    return None


def read_events(text: str, now: datetime, tank: Tank) -> tuple[list[NewEntry], list[RowError]]:
    """Events of a CSV, or the faults of each faulty row.

    text: with a header of COLUMNS in any order, `at` and `what` needed; now: aware time, from which nothing lies more
    than a day ahead; tank: what amounts and filters are read against. The key of an entry is made from its row, so the
    same file twice adds nothing.
    """
    return read_rows(text, COLUMNS, ("at", "what"), MOST_ROWS, lambda line, cells: _row(line, cells, now, tank))


def event_key(at: datetime, body: Any, filters: Mapping[str, str]) -> str:
    """A key made of an entry's content, so that one event is one entry.

    at: aware time; body: of it; filters: names by key.
    """
    said = [at.astimezone(UTC).isoformat(), *(_cells(body, filters) or [])]
    return "csv-" + hashlib.sha256("|".join(said).encode()).hexdigest()[:40]


def _row(line: int, cells: dict[str, str], now: datetime, tank: Tank) -> tuple[NewEntry | None, list[RowError]]:
    try:
        at = in_our_time(datetime.fromisoformat(cells["at"]))
        at = at if at.tzinfo else at.replace(tzinfo=now.tzinfo)
    except ValueError:
        return None, [RowError(line, "at", f'"{cells["at"]}" is not a time; write it as 2026-02-14T07:40.')]
    if at > now + timedelta(days=1):
        return None, [RowError(line, "at", "lies in the future.")]
    what = cells["what"].lower()
    if what not in _READ:
        return None, [RowError(line, "what", f'"{cells["what"]}" is none of {", ".join(WHAT)}.')]
    try:
        body = _READ[what](cells, tank)
        names = {key: name for name, key in tank.filters.items()}
        return NewEntry(key=event_key(at, body, names), at=at, body=body), []
    except CannotAnswer as error:
        return None, [RowError(line, error.where, error.what)]
    except ValidationError as error:
        return None, [RowError(line, column_of(c.where, COLUMNS), f"{c.what} {c.remedy}") for c in issues_of(error)]


def _amount(cells: dict[str, str]) -> float:
    cell = cells.get("amount", "")
    try:
        return float(cell.replace(",", "."))
    except ValueError:
        raise CannotAnswer("amount", f'"{cell}" is not a figure.', "Write it as 25 or 2.5.") from None


def _note(cells: dict[str, str], _: Tank) -> Note:
    if not cells.get("text"):
        raise CannotAnswer("text", "a note without words.", "Write what was seen.")
    return Note(kind="note", text=cells["text"])


def _change(cells: dict[str, str], tank: Tank) -> WaterChange:
    amount, unit = _amount(cells), (cells.get("unit") or "%").lower()
    treated = cells.get("text", "").lower() != "untreated"
    if unit == "%":
        return WaterChange(kind="water-change", share=amount / 100, treated=treated)
    if unit not in _LITRES:
        raise CannotAnswer("unit", f'"{cells["unit"]}" is none of %, L, US gal, imp gal.', "Give one of them.")
    litres = amount * _LITRES[unit]
    if litres > tank.net_l:
        raise CannotAnswer(
            "amount", f"is more than the tank holds, {formatting.litres(tank.net_l)}.", "Give what was changed."
        )
    return WaterChange(kind="water-change", share=litres / tank.net_l, litres=litres, treated=treated)


def _dose(cells: dict[str, str], _: Tank) -> Dose:
    amount, unit = _amount(cells), (cells.get("unit") or "ppm").lower()
    if unit not in ("ppm", "mg n/l"):
        raise CannotAnswer("unit", f'"{cells["unit"]}" is none of ppm, mg N/L.', "Give what it raised the water by.")
    raised = amount if unit == "mg n/l" else as_nitrogen(amount, "ammonia", "ion")
    return Dose(kind="dose", raise_mg_n_l=raised)


def _cleaning(cells: dict[str, str], tank: Tank) -> MediaWork:
    share = _amount(cells) / 100 if cells.get("amount") else 1.0
    name = cells.get("filter", "")
    if name and name not in tank.filters:
        known = ", ".join(tank.filters) or "none"
        raise CannotAnswer("filter", f'"{name}" hangs on this tank by no such name; there are: {known}.', "Use one.")
    said = cells.get("text", "")
    what = "rinsed-tap" if said == _TAP else "rinsed"
    return MediaWork(
        kind="media-work", what=what, share=share, filter_key=tank.filters.get(name), text="" if said == _TAP else said
    )


_READ: dict[str, Callable[[dict[str, str], Tank], Note | WaterChange | Dose | MediaWork]] = {
    "note": _note,
    "change": _change,
    "dose": _dose,
    "cleaning": _cleaning,
}
