"""A stranger's CSV: each unit read as it is meant, each fault told with its line, nothing taken by halves."""

from datetime import UTC, datetime

import pytest

from reedmace.formats import MappedCsv, read_mapped
from reedmace.formats.readings_csv import MOST_ROWS

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


def csv_of(header: str, row: str, **more) -> MappedCsv:
    return MappedCsv.model_validate({"text": f"{header}\n{row}\n", "zone_offset_minutes": 0, **more})


@pytest.mark.parametrize(
    ("header", "cell", "field", "value"),
    [
        ("ammonia ppm", "0.5", "ammonia_ppm", 0.5),
        ("NH3-N", "0.5", "ammonia_ppm", 0.5 * 18.039 / 14.007),
        ("NO2-N", "0.1", "nitrite_ppm", 0.1 * 46.005 / 14.007),
        ("NO3-N", "5", "nitrate_ppm", 5 * 62.004 / 14.007),
        ("KH", "4", "kh_dkh", 4),
        ("KH ppm CaCO3", "71.4", "kh_dkh", 4.0),
        ("alkalinity meq/L", "1.4", "kh_dkh", 1.4 * 50.04 / 17.85),
        ("KH mmol/l", "1.4", "kh_dkh", 1.4 * 50.04 / 17.85),
        ("Temp F", "78.8", "temperature_c", 26.0),
        ("temperature C", "26", "temperature_c", 26.0),
        ("pH", "7,4", "ph", 7.4),
        ("nitrate mg/l", "40 ppm", "nitrate_ppm", 40),
    ],
)
def test_a_column_is_read_in_its_own_unit(header: str, cell: str, field: str, value: float) -> None:
    quoted = f'"{cell}"'
    found = read_mapped(csv_of(f"date,{header}", f"2026-03-04,{quoted}"), NOW)
    assert found.faults == []
    assert getattr(found.entries[0][1].body, field) == pytest.approx(value, rel=2e-3)


@pytest.mark.parametrize(
    ("header", "row", "more", "words"),
    [
        ("date,ammonia", "2026-02-30,1", {}, "is not a date"),
        ("date,time,ammonia", "2026-02-03,25:00,1", {}, "is not a time of day"),
        ("date,time,ammonia", "2026-02-03,13:00 pm,1", {}, "is not a time of day"),
        ("date,ammonia", "2026-02-03,some", {}, "is not a figure"),
        ("date,ammonia", ",1", {}, "has no date"),
        ("date,ammonia", "2026-02-03,", {}, "has no figure"),
        ("ammonia,nitrite", "1,1", {}, "no column is mapped to the date"),
        ("date,remark", "2026-02-03,x", {}, "no column is mapped to a test"),
        (
            "date,a,b",
            "2026-02-03,1,2",
            {
                "columns": (
                    [{"column": c, "target": t, "unit": "ppm"} for c, t in (("a", "ammonia"), ("b", "ammonia"))]
                    + [{"column": "date", "target": "date"}]
                )
            },
            "two columns are mapped to ammonia",
        ),
        (
            "date,a",
            "2026-02-03,1",
            {"columns": [{"column": "date", "target": "date"}, {"column": "a", "target": "kh", "unit": "F"}]},
            "say which",
        ),
        ("date,ammonia,basis", "2026-02-03,1,salt", {}, "is neither ion nor N"),
        ("date,NH4-N,basis", "2026-02-03,1,N", {}, "both say N"),
        ("date,ammonia", "2026-02-03,5000", {}, "must be at most 2000"),
        ("date,pH", "2026-02-03,70", {}, "must be at most 10"),
        ("date,ammonia", "2031-02-03,1", {}, "lies in the future"),
    ],
)
def test_each_fault_is_told_with_its_line_and_nothing_is_taken(header: str, row: str, more: dict, words: str) -> None:
    found = read_mapped(csv_of(header, row, **more), NOW)
    assert found.entries == []
    fault, *_ = found.faults
    assert words in fault.what
    assert fault.line in (1, 2)


def test_too_many_rows_are_refused_before_any_is_read() -> None:
    text = "date,ammonia\n" + "2026-02-03,1\n" * (MOST_ROWS + 1)
    found = read_mapped(MappedCsv(text=text), NOW)
    assert found.entries == []
    assert str(MOST_ROWS) in found.faults[0].what
