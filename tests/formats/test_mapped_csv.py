"""A stranger's CSV: each unit read as it is meant, each fault told with its line, nothing taken by halves."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from reedmace.formats import MappedCsv, csv_parts, read_mapped
from reedmace.formats.readings_csv import MOST_ROWS
from tests.support.entries import NOW, entry


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


ppm = st.one_of(st.none(), st.sampled_from([0, 0.25, 0.5, 1, 2, 4, 8]), st.floats(0, 200).map(lambda v: round(v, 3)))


reading = st.fixed_dictionaries(
    {
        "kind": st.just("reading"),
        "basis": st.sampled_from(["ion", "N"]),
        "ammonia_ppm": st.floats(0, 50).map(lambda v: round(v, 3)),
        "nitrite_ppm": ppm,
        "nitrate_ppm": ppm,
        "ph": st.one_of(st.none(), st.floats(4, 10).map(lambda v: round(v, 2))),
        "kh_dkh": st.one_of(st.none(), st.floats(0, 40).map(lambda v: round(v, 2))),
        "temperature_c": st.one_of(st.none(), st.floats(0.5, 40).map(lambda v: round(v, 2))),
        "phosphate_ppm": st.one_of(st.none(), st.floats(0, 100).map(lambda v: round(v, 3))),
    }
)


@settings(max_examples=60)
@given(st.lists(reading, min_size=1, max_size=12))
def test_readings_written_out_and_taken_in_by_guessed_columns_are_the_same(bodies: list[dict]) -> None:
    entries = [entry(n, b, NOW - timedelta(hours=n)) for n, b in enumerate(bodies, start=1)]
    found = read_mapped(MappedCsv(text="".join(csv_parts((e.at, e.body) for e in entries))), NOW)
    assert found.faults == []
    for (_, got), wanted in zip(found.entries, entries, strict=True):
        assert got.at == wanted.at
        for name, value in wanted.body.model_dump().items():
            back = getattr(got.body, name)
            assert back == (pytest.approx(value, rel=1e-5) if isinstance(value, float) else value)


@settings(max_examples=150)
@given(st.text(max_size=400))
def test_any_text_is_answered_with_rows_or_faults_and_never_breaks(text: str) -> None:
    if not text:
        return
    found = read_mapped(MappedCsv(text=text), NOW)
    assert found.entries or found.faults or "\n" not in text.strip() or not text.strip().split("\n", 1)[1].strip()


@pytest.mark.parametrize(
    ("cell", "order", "clock", "at"),
    [
        ("2026-03-04", "year-first", "", "2026-03-04T00:00"),
        ("2026-03-04T07:40", "year-first", "", "2026-03-04T07:40"),
        ("04/03/2026", "day-first", "19:05", "2026-03-04T19:05"),
        ("4.3.26", "day-first", "7h40", "2026-03-04T07:40"),
        ("03/04/2026 6:30 pm", "month-first", "", "2026-03-04T18:30"),
        ("3/4/26", "month-first", "12:10 am", "2026-03-04T00:10"),
    ],
)
def test_dates_and_times_as_people_write_them(cell: str, order: str, clock: str, at: str) -> None:
    text = f"date,time,ammonia\n{cell},{clock},1\n"
    question = MappedCsv.model_validate({"text": text, "date_order": order, "zone_offset_minutes": 0})
    ((_, found),) = read_mapped(question, NOW).entries
    assert found.at == datetime.fromisoformat(at).replace(tzinfo=UTC)
