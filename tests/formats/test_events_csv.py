"""Notes, changes, doses and cleanings as CSV."""

from datetime import UTC, datetime, timedelta

import pytest

from reedmace.formats.events_csv import MOST_ROWS, Tank, event_key, read_events, write_events
from tests.support.entries import NOW, entry

TANK = Tank(net_l=100, filters={"Pond sponge": "f1"})
HEAD = "at,what,amount,unit,filter,text\n"
DAY = "2026-11-20T08:00:00+00:00"


def read(row: str, header: str = HEAD):
    return read_events(f"{header}{row}\n", NOW, TANK)


def body_of(row: str) -> dict:
    found, errors = read(row)
    assert errors == []
    return found[0].body.model_dump(exclude_none=True)


def test_what_was_written_is_read_as_it_was() -> None:
    bodies: list[dict] = [
        {"kind": "note", "text": "A cloudy morning, cleared by noon"},
        {"kind": "water-change", "share": 0.25, "treated": False},
        {"kind": "dose", "raise_mg_n_l": 1.5},
        {"kind": "media-work", "what": "rinsed", "share": 0.5, "filter_key": "f1"},
        {"kind": "media-work", "what": "rinsed-tap", "share": 1.0, "filter_key": "f1"},
    ]
    entries = [entry(n, body, NOW - timedelta(days=n)) for n, body in enumerate(bodies, 1)]
    found, errors = read_events(write_events(entries, {"f1": "Pond sponge"}), NOW, TANK)
    assert errors == []
    assert [(e.at, e.body) for e in found] == [(e.at, e.body) for e in entries]


def test_other_entries_have_no_row() -> None:
    assert write_events([entry(1, {"kind": "reading", "ammonia_ppm": 1})], {}).splitlines() == [HEAD.strip()]


@pytest.mark.parametrize(
    ("amount", "unit", "share"),
    [("25", "%", 0.25), ("25", "", 0.25), ("20", "L", 0.2), ("10", "US gal", 0.3785412), ("10", "imp gal", 0.454609)],
)
def test_a_change_is_read_in_each_unit(amount: str, unit: str, share: float) -> None:
    assert body_of(f"{DAY},change,{amount},{unit},,")["share"] == pytest.approx(share, rel=1e-6)


def test_water_is_treated_unless_the_row_says_otherwise() -> None:
    assert body_of(f"{DAY},change,25,%,,")["treated"] is True
    assert body_of(f"{DAY},change,25,%,,Untreated")["treated"] is False


def test_a_dose_in_ppm_is_of_the_ion() -> None:
    # 14.007 / 18.038 of ammonium's mass is nitrogen (atomic masses, IUPAC 2021).
    assert body_of(f"{DAY},dose,2,ppm,,")["raise_mg_n_l"] == pytest.approx(2 * 14.007 / 18.038, rel=1e-3)
    assert body_of(f'{DAY},dose,"1,5",mg N/L,,')["raise_mg_n_l"] == pytest.approx(1.5)


@pytest.mark.parametrize(
    ("row", "column", "words"),
    [
        ("yesterday,note,,,,seen", "at", "write it as"),
        ("2026-12-02T08:00:00+00:00,note,,,,seen", "at", "future"),
        (f"{DAY},party,,,,", "what", "note, change, dose, cleaning"),
        (f"{DAY},note,,,,", "text", "without words"),
        (f"{DAY},change,much,%,,", "amount", "not a figure"),
        (f"{DAY},change,200,L,,", "amount", "more than the tank holds"),
        (f"{DAY},change,2,buckets,,", "unit", "US gal"),
        (f"{DAY},dose,2,drops,,", "unit", "mg N/L"),
        (f"{DAY},cleaning,50,%,Old box,", "filter", "Pond sponge"),
    ],
)
def test_each_fault_says_where_and_what(row: str, column: str, words: str) -> None:
    found, errors = read(row)
    assert found == []
    assert [(e.line, e.column) for e in errors] == [(2, column)]
    assert words in errors[0].what


def test_one_faulty_row_stops_the_file() -> None:
    found, errors = read(f"{DAY},note,,,,seen\n{DAY},party,,,,")
    assert (found, len(errors)) == ([], 1)


def test_too_many_rows_are_refused() -> None:
    found, errors = read("\n".join([f"{DAY},note,,,,seen"] * (MOST_ROWS + 1)))
    assert found == []
    assert "too many" in errors[0].what


def test_the_same_row_has_the_same_key_whatever_its_zone() -> None:
    one, _ = read(f"{DAY},note,,,,seen")
    two, _ = read("2026-11-20T09:00:00+01:00,note,,,,seen")
    other, _ = read(f"{DAY},note,,,,not seen")
    assert one[0].key == two[0].key != other[0].key
    at = datetime(2026, 11, 20, 8, tzinfo=UTC)
    assert event_key(at, one[0].body, {}) == one[0].key
