"""An account as tables: what is written is read back, in Parquet by another program, in CSV, and every column told."""

import csv
import io
import json
import zipfile
from datetime import UTC, datetime, timedelta
from typing import Any

import pyarrow.parquet as pq
import pytest

from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.formats.account_tables import TABLES, TANKS, Format, TankRecord, dictionary, write_account_tables
from reedmace.logbook.replay.entries import Entry, StoredReading

AT = datetime(2026, 11, 3, 8, 30, tzinfo=UTC)
BODIES: list[dict[str, Any]] = [
    {"kind": "reading", "ammonia_ppm": 1.5, "nitrite_ppm": 5, "off_scale": ["nitrite"], "ph": 7.4},
    {"kind": "dose", "raise_mg_n_l": 1.6},
    {"kind": "alkalinity", "raise_dkh": 2},
    {"kind": "water-change", "share": 0.25, "treated": False},
    {"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [10, 10, 10]},
    {"kind": "timed-flow", "filter_key": "f2", "method": "meter", "measured_lph": 640},
    {"kind": "media-work", "what": "rinsed", "share": 0.5, "filter_key": "f1"},
    {"kind": "outage", "running": False},
    {"kind": "stocking", "species_id": "guppy", "count": -2},
    {"kind": "note", "text": 'a "quoted", line\nand another'},
    {"kind": "dose", "raise_mg_n_l": 9},
]


def entry(n: int, body: dict[str, Any], **more: Any) -> Entry:
    at = AT + timedelta(hours=n)
    return Entry.model_validate({"id": n + 1, "key": f"k{n}", "at": at, "written_at": at, "body": body, **more})


def written(form: Format) -> zipfile.ZipFile:
    entries: list[Entry | StoredReading] = [entry(n, body) for n, body in enumerate(BODIES)]
    # A meter's line is kept as its text, and the last dose was withdrawn.
    entries.append(StoredReading(40, "k40", AT, AT, None, json.dumps({"kind": "reading", "temperature_c": 24.5})))
    entries.append(entry(50, {"kind": "withdrawal"}, supersedes=len(BODIES)))
    out = io.BytesIO()
    tanks = [TankRecord(7, "Söderns »Ö«", False, entries, {len(BODIES)}), TankRecord(9, "Old", True, [], set())]
    write_account_tables(out, tanks, form)
    return zipfile.ZipFile(out)


def rows_of(form: Format) -> dict[str, list[dict[str, Any]]]:
    packed = written(form)
    if form == "parquet":
        return {
            t.name: pq.read_table(io.BytesIO(packed.read(f"{t.name}.parquet"))).to_pylist() for t in (TANKS, *TABLES)
        }
    return {
        t.name: list(csv.DictReader(io.StringIO(packed.read(f"{t.name}.csv").decode(), newline="")))
        for t in (TANKS, *TABLES)
    }


def test_parquet_is_read_back_equal_with_types_and_units() -> None:
    rows = rows_of("parquet")
    assert [(r["tank_id"], r["name"], r["archived"]) for r in rows["tanks"]] == [
        (7, "Söderns »Ö«", False), (9, "Old", True)
    ]  # fmt: skip
    first, metered = rows["readings"]
    assert first["at"] == AT
    assert first["ammonia_ppm"] == 1.5
    assert first["ammonia_mg_n_l"] == pytest.approx(1.5 * NITROGEN_SHARE["NH4"])
    assert first["off_scale"] == "nitrite"
    assert first["nitrate_ppm"] is None
    assert metered["temperature_c"] == 24.5
    # Withdrawn: in the logbook, not among what counts.
    assert [r["raise_mg_n_l"] for r in rows["doses"]] == [1.6]
    assert [r["flow_lph"] for r in rows["flows"]] == [pytest.approx(720), 640]
    assert [r["count"] for r in rows["animals"]] == [-2]
    assert len(rows["entries"]) == len(BODIES) + 2
    assert [json.loads(r["body"])["kind"] for r in rows["entries"]] == [r["kind"] for r in rows["entries"]]
    assert rows["entries"][-1]["supersedes_id"] == len(BODIES)
    schema = pq.read_schema(io.BytesIO(written("parquet").read("doses.parquet")))
    assert schema.field("raise_mg_n_l").metadata[b"unit"] == b"mg N/L"


def test_csv_says_the_same_in_text() -> None:
    as_text, typed = rows_of("csv"), rows_of("parquet")
    for table in (TANKS, *TABLES):
        assert [list(r) for r in as_text[table.name]] == [[c.name for c in table.columns]] * len(typed[table.name])
        for text, row in zip(as_text[table.name], typed[table.name], strict=True):
            for column in table.columns:
                said, value = text[column.name], row[column.name]
                if value is None:
                    assert said == ""
                elif column.kind == "time":
                    assert datetime.fromisoformat(said) == value
                elif column.kind == "yes_no":
                    assert said == ("yes" if value else "no")
                elif column.kind == "number":
                    assert float(said) == value
                else:
                    assert said == str(value)


@pytest.mark.parametrize("form", ["parquet", "csv"])
def test_the_dictionary_names_every_column_there_is(form: Format) -> None:
    told = list(csv.DictReader(io.StringIO(written(form).read("dictionary.csv").decode())))
    assert told == [{k: str(v) for k, v in row.items()} for row in dictionary()]
    assert {(r["table"], r["column"]) for r in told} == {(t.name, c.name) for t in (TANKS, *TABLES) for c in t.columns}
    assert all(r["description"] for r in told)
