"""All of an account as tidy tables, in Parquet or CSV, with a dictionary of every column.

Units are those of the columns' names, whatever the keeper reads on screen; times are UTC.
"""

import csv
import io
import shutil
import zipfile
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping
from contextlib import ExitStack
from dataclasses import dataclass
from datetime import datetime
from tempfile import TemporaryFile
from typing import IO, Any, Literal, NamedTuple

import pyarrow as pa
import pyarrow.parquet as pq
from pydantic import BaseModel, TypeAdapter

from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.water_parameters import WATER_PARAMETERS
from reedmace.logbook.replay.entries import (
    AlkalinityAdded,
    Body,
    Dose,
    Entry,
    FlowTest,
    MediaWork,
    Outage,
    Reading,
    Stocking,
    StoredReading,
    TimedFlow,
    WaterChange,
)
from reedmace.logbook.replay.measured_flows import body_lph

Format = Literal["parquet", "csv"]
AT_ONCE = 20_000
"""Rows of one table held before they are written."""


class Column(NamedTuple):
    """One column. unit: "" where it has none."""

    name: str
    kind: Literal["whole", "number", "text", "yes_no", "time"]
    unit: str
    words: str


_TYPES: dict[str, pa.DataType] = {
    "whole": pa.int64(),
    "number": pa.float64(),
    "text": pa.string(),
    "yes_no": pa.bool_(),
    "time": pa.timestamp("us", tz="UTC"),
}
_TANK = Column("tank_id", "whole", "", "Tank, as in the table tanks")
_AT = Column("at", "time", "UTC", "When it was done or read")
_FILTER = Column("filter_key", "text", "", "Which filter of the tank; empty for all of them")
Row = dict[str, Any]


def _reading(body: Reading) -> Row:
    figures = {one.field: getattr(body, one.field) for one in WATER_PARAMETERS}
    nitrogen = {
        f"{what}_mg_n_l": None if (ppm := figures[f"{what}_ppm"]) is None else ppm * _share(body, ion)
        for what, ion in (("ammonia", "NH4"), ("nitrite", "NO2"), ("nitrate", "NO3"))
    }
    return {
        **figures,
        **nitrogen,
        "basis": body.basis,
        "off_scale": ", ".join(sorted(body.off_scale)) or None,
        "other_kit": body.other_kit,
    }


def _share(body: Reading, ion: str) -> float:
    return 1.0 if body.basis == "N" else NITROGEN_SHARE[ion]


@dataclass(frozen=True)
class Table:
    """One table: its columns, and the row of an entry that belongs in it."""

    name: str
    words: str
    columns: tuple[Column, ...]
    of: type[BaseModel] | tuple[type[BaseModel], ...]
    row: Callable[[Any], Row]

    def schema(self) -> pa.Schema:
        """Its Arrow schema, each field with its unit and words."""
        return pa.schema(
            [pa.field(c.name, _TYPES[c.kind], metadata={"unit": c.unit, "description": c.words}) for c in self.columns]
        )


def _fields(*names: str) -> Callable[[Any], Row]:
    """Rows whose columns are fields of the entry's body."""
    return lambda body: {name: getattr(body, name) for name in names}


TANKS = Table(
    "tanks",
    "Every tank, archived ones too",
    (
        _TANK,
        Column("name", "text", "", "As its keeper calls it"),
        Column("archived", "yes_no", "", "Put away by its keeper"),
    ),
    (),
    _fields(),
)
TABLES: tuple[Table, ...] = (
    Table(
        "readings",
        "Every test that counts: corrected and withdrawn ones are left out",
        (
            _TANK,
            _AT,
            *(Column(one.field, "number", one.unit, one.label) for one in WATER_PARAMETERS),
            *(
                Column(
                    f"{what}_mg_n_l", "number", "mg N/L", f"{what.capitalize()} as nitrogen, whatever the kit's basis"
                )
                for what in ("ammonia", "nitrite", "nitrate")
            ),
            Column("basis", "text", "", "What the kit's ppm count: the ion, or nitrogen (N)"),
            Column("off_scale", "text", "", "Which were off the kit's scale: so much or more"),
            Column("other_kit", "yes_no", "", "Read with another kit than the one before"),
        ),
        Reading,
        _reading,
    ),
    Table(
        "doses",
        "Ammonia added",
        (_TANK, _AT, Column("raise_mg_n_l", "number", "mg N/L", "By how much it raises ammonia")),
        Dose,
        _fields("raise_mg_n_l"),
    ),
    Table(
        "alkalinity",
        "Bicarbonate added",
        (_TANK, _AT, Column("raise_dkh", "number", "dKH", "By how much it raises KH")),
        AlkalinityAdded,
        _fields("raise_dkh"),
    ),
    Table(
        "changes",
        "Water changes",
        (
            _TANK,
            _AT,
            Column("share", "number", "share", "Of the tank's water"),
            Column("litres", "number", "L", "Where they were written down"),
            Column("treated", "yes_no", "", "For chlorine and chloramine"),
        ),
        WaterChange,
        _fields("share", "litres", "treated"),
    ),
    Table(
        "flows",
        "Measured flows, by jug or otherwise",
        (_TANK, _AT, _FILTER, Column("flow_lph", "number", "L/h", "As measured")),
        (FlowTest, TimedFlow),
        lambda body: {"filter_key": body.filter_key, "flow_lph": body_lph(body)},
    ),
    Table(
        "media",
        "Work on filter media",
        (
            _TANK,
            _AT,
            _FILTER,
            Column("what", "text", "", "What was done"),
            Column("share", "number", "share", "Of the media touched"),
        ),
        MediaWork,
        _fields("filter_key", "what", "share"),
    ),
    Table(
        "stops",
        "Filters that stopped or ran again",
        (_TANK, _AT, _FILTER, Column("running", "yes_no", "", "Whether it runs from then on")),
        Outage,
        _fields("filter_key", "running"),
    ),
    Table(
        "animals",
        "Animals that came or went",
        (
            _TANK,
            _AT,
            Column("species_id", "text", "", "Which, as in the species list"),
            Column("count", "whole", "animals", "Under 0 for those that went"),
            Column("moved", "yes_no", "", "From or to another tank or home, not lost"),
        ),
        Stocking,
        _fields("species_id", "count", "moved"),
    ),
    Table(
        "entries",
        "The whole logbook, entry by entry, corrected and withdrawn ones too",
        (
            _TANK,
            Column("entry_id", "whole", "", "In the order written"),
            _AT,
            Column("written_at", "time", "UTC", "When it was written down"),
            Column("kind", "text", "", "What it is"),
            Column("supersedes_id", "whole", "", "The entry it corrects or withdraws"),
            Column("body", "text", "JSON", "All of it, as in the bundle's schema"),
        ),
        (),
        _fields(),
    ),
)
ENTRIES = TABLES[-1]
_BODY: TypeAdapter[Body] = TypeAdapter(Body)


class _Writer:
    """Writes one table's rows, in pieces."""

    def __init__(self, table: Table, out: IO[bytes], form: Format) -> None:
        self._table, self._rows, self._out = table, list[Row](), out
        self._names = [c.name for c in table.columns]
        self._schema = table.schema()
        self._parquet = pq.ParquetWriter(out, self._schema, compression="zstd") if form == "parquet" else None
        if self._parquet is None:
            out.write((",".join(self._names) + "\r\n").encode())

    def add(self, row: Row) -> None:
        self._rows.append(row)
        if len(self._rows) >= AT_ONCE:
            self.flush()

    def flush(self) -> None:
        if self._parquet is not None:
            if self._rows:
                self._parquet.write_table(pa.Table.from_pylist(self._rows, schema=self._schema))
        else:
            text = io.StringIO()
            writer = csv.DictWriter(text, self._names, lineterminator="\r\n", extrasaction="ignore")
            writer.writerows({k: _cell(v) for k, v in row.items()} for row in self._rows)
            self._out.write(text.getvalue().encode())
        self._rows = []

    def close(self) -> None:
        self.flush()
        if self._parquet is not None:
            self._parquet.close()


def _cell(value: Any) -> Any:
    """A CSV cell: times in ISO 8601, yes and no, nothing where it is not known."""
    if isinstance(value, datetime):
        return value.isoformat()
    if isinstance(value, bool):
        return "yes" if value else "no"
    return "" if value is None else value


def dictionary() -> Iterator[Row]:
    """Every column of every table: table, column, type, unit, words."""
    for table in (TANKS, *TABLES):
        for c in table.columns:
            yield {"table": table.name, "column": c.name, "type": c.kind, "unit": c.unit, "description": c.words}


@dataclass(frozen=True)
class TankRecord:
    """One tank to be written: its entries in the order written, and the ids of those corrected or withdrawn since."""

    id: int
    name: str
    archived: bool
    entries: Iterable[Entry | StoredReading]
    superseded: Collection[int]


def write_account_tables(out: IO[bytes], tanks: Iterable[TankRecord], form: Format) -> None:
    """Write all of an account as one zip: a file a table, and `dictionary.csv`.

    out: seekable; tanks: of the account; form: of the tables.
    """
    with ExitStack() as files, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        # A zip holds one open file at a time, and rows of every table come mixed.
        pieces = {t.name: files.enter_context(TemporaryFile()) for t in (TANKS, *TABLES)}
        writers = {t.name: _Writer(t, pieces[t.name], form) for t in (TANKS, *TABLES)}
        for tank in tanks:
            writers[TANKS.name].add({"tank_id": tank.id, "name": tank.name, "archived": tank.archived})
            for entry in tank.entries:
                _write_entry(writers, tank, entry)
        for name, writer in writers.items():
            writer.close()
            pieces[name].seek(0)
            with packed.open(f"{name}.{form}", "w") as member:
                shutil.copyfileobj(pieces[name], member)
        packed.writestr("dictionary.csv", _dictionary_text())


def _write_entry(writers: Mapping[str, _Writer], tank: TankRecord, stored: Entry | StoredReading) -> None:
    """Write one entry as it is, and into its own table where it counts."""
    body = _BODY.validate_json(stored.body) if isinstance(stored, StoredReading) else stored.body
    text = stored.body if isinstance(stored, StoredReading) else body.model_dump_json()
    writers[ENTRIES.name].add({
        "tank_id": tank.id,
        "entry_id": stored.id,
        "at": stored.at,
        "written_at": stored.written_at,
        "kind": body.kind,
        "supersedes_id": stored.supersedes,
        "body": text,
    })  # fmt: skip
    if stored.id in tank.superseded:
        return
    for table in TABLES[:-1]:
        if isinstance(body, table.of):
            writers[table.name].add({"tank_id": tank.id, "at": stored.at, **table.row(body)})


def _dictionary_text() -> str:
    text = io.StringIO()
    rows = list(dictionary())
    writer = csv.DictWriter(text, list(rows[0]), lineterminator="\r\n")
    writer.writeheader()
    writer.writerows(rows)
    return text.getvalue()


__all__ = ["TABLES", "TANKS", "Format", "TankRecord", "dictionary", "write_account_tables"]
