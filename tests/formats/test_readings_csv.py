"""Readings out to CSV and back in."""

from datetime import UTC, datetime

import pytest

from reedmace.core.quantity import formatting
from reedmace.formats import MappedCsv, read_mapped
from reedmace.formats.readings_csv import csv_parts, read_csv, reading_key
from reedmace.logbook.replay.entries import Reading
from tests.support.entries import NOW, entry

AT = datetime(2026, 3, 1, 8, tzinfo=UTC)


def reading(**more: object) -> Reading:
    return Reading.model_validate({"kind": "reading", "ammonia_ppm": 0.625, "nitrite_ppm": 5, "ph": 7.4, **more})


def test_a_range_and_a_figure_off_the_scale_come_back_as_they_were() -> None:
    made = reading(off_scale=["nitrite"], between=[{"what": "ammonia", "low_ppm": 0.25, "high_ppm": 1}])
    text = "".join(csv_parts([(AT, made)]))
    assert "0.25-1" in text
    assert "5+" in text
    entries, errors = read_csv(text, AT)
    assert not errors
    assert entries[0].body == made
    assert entries[0].key == reading_key(AT, made)
    assert reading_key(AT, made) != reading_key(AT, reading(off_scale=["nitrite"]))


def test_a_range_that_falls_or_is_no_figure_is_told_with_its_row() -> None:
    _, errors = read_csv("at,ammonia_ppm\n2026-03-01T08:00Z,1-0.25\n2026-03-01T09:00Z,1-x\n", AT)
    assert [e.line for e in errors] == [2, 3]
    assert "must be at most high_ppm" in errors[0].what
    assert "is not a figure" in errors[1].what


def test_readings_are_written_in_the_degrees_their_keeper_reads_and_come_back_as_they_were() -> None:
    body = {"kind": "reading", "basis": "ion", "ammonia_ppm": 0.25, "temperature_c": 25.6}
    with formatting.in_units(formatting.Units(temperature="°F")):
        text = "".join(csv_parts([(NOW, entry(1, body, NOW).body)]))
    assert "temperature_f" in text.splitlines()[0]
    assert "temperature_c" not in text
    assert ",78.08," in text
    found, wrong = read_csv(text, NOW)
    assert wrong == []
    assert found[0].body.temperature_c == 25.6
    mapped = read_mapped(MappedCsv(text=text), NOW)
    assert mapped.faults == []
    assert mapped.entries[0][1].body.temperature_c == pytest.approx(25.6, abs=0.01)
