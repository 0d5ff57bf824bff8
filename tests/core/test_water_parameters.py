"""What is measured of water: each parameter is one record, and every form of a test takes it from there."""

import re
from datetime import UTC, datetime

import pytest

from reedmace.core.cycle import LoggedReading
from reedmace.core.cycle.record.test_line import ReadTestLineAnswer, ReadTestLineQuestion, read_test_line
from reedmace.core.water_parameters import COLOUR_READ, WATER_PARAMETERS, KitFigures, WaterParameter
from reedmace.formats.mapped_csv import MappedCsv, read_mapped
from reedmace.formats.readings_csv import csv_parts, read_csv, reading_key
from reedmace.logbook.replay.device_readings import DeviceReading
from reedmace.logbook.replay.entries import Reading

NOW = datetime(2026, 6, 1, 9, tzinfo=UTC)
FIELDS = [one.field for one in WATER_PARAMETERS]


def middle(one: WaterParameter) -> float:
    """A figure within its range that no rounding moves."""
    return round(one.low + (one.high - one.low) / 4, 1)


def whole_test() -> Reading:
    """A reading of everything."""
    return Reading.model_validate({"kind": "reading", **{one.field: middle(one) for one in WATER_PARAMETERS}})


def test_every_figure_has_its_record_and_every_form_of_a_test_has_every_figure() -> None:
    assert sorted(FIELDS) == sorted(KitFigures.model_fields)
    for form in (Reading, DeviceReading, ReadTestLineAnswer):
        assert set(FIELDS) <= set(form.model_fields)
    assert set(FIELDS) - set(LoggedReading.model_fields) == {one.field for one in COLOUR_READ}


def test_no_two_are_called_alike() -> None:
    letters = [letter for one in WATER_PARAMETERS for letter in one.letters]
    assert len(letters) == len(set(letters))
    assert len({one.key for one in WATER_PARAMETERS}) == len(FIELDS)


@pytest.mark.parametrize("one", WATER_PARAMETERS, ids=FIELDS)
def test_each_is_read_by_each_of_its_letters_and_refused_outside_its_range(one: WaterParameter) -> None:
    for letter in one.letters:
        found = read_test_line(ReadTestLineQuestion(text=f"{letter} {middle(one):g}"))
        assert getattr(found, one.field) == pytest.approx(middle(one))
    with pytest.raises(Exception, match="is outside"):
        read_test_line(ReadTestLineQuestion(text=f"{one.letters[0]} {one.high + 1:g}"))


@pytest.mark.parametrize("one", WATER_PARAMETERS, ids=FIELDS)
def test_a_column_named_as_it_is_labelled_is_recognised_as_it_and_in_each_of_its_units(one: WaterParameter) -> None:
    for name in (one.label, one.field):
        guesses = [other.key for other in WATER_PARAMETERS if re.search(other.header, name.lower().replace("_", " "))]
        assert guesses[0] == one.key
    for unit in one.units:
        figure = middle(one) * unit.per + unit.offset
        columns = [{"column": "date", "target": "date"}, {"column": "x", "target": one.key, "unit": unit.unit}]
        text = f"date,x\n2026-05-30,{figure}\n"
        found = read_mapped(MappedCsv.model_validate({"text": text, "columns": columns}), NOW)
        assert found.faults == []
        assert getattr(found.entries[0][1].body, one.field) == pytest.approx(middle(one))


def test_a_whole_test_goes_through_csv_and_comes_back_as_it_was() -> None:
    text = "".join(csv_parts([(NOW, whole_test())]))
    entries, errors = read_csv(text, NOW)
    assert errors == []
    assert entries[0].body == whole_test()


def test_which_kit_read_a_test_goes_through_csv_too() -> None:
    other = whole_test().model_copy(update={"other_kit": True})
    entries, errors = read_csv("".join(csv_parts([(NOW, other), (NOW, whole_test())])), NOW)
    assert errors == []
    assert [entry.body.other_kit for entry in entries] == [True, False]
    _, (fault,) = read_csv("at,ph,other_kit\n2026-05-01T08:00,7,perhaps\n", NOW)
    assert "neither yes nor no" in fault.what


def test_a_row_written_before_the_later_columns_has_the_key_it_had() -> None:
    # Frozen: a file of readings that is read in again adds nothing.
    old = Reading(kind="reading", ammonia_ppm=0.5, nitrite_ppm=1, nitrate_ppm=20, ph=7.4, kh_dkh=4, temperature_c=26)
    assert reading_key(NOW, old) == "csv-76a54cdf7fa56abcd914cc1efd125a3cb71f787b"
    assert reading_key(NOW, old.model_copy(update={"gh_dgh": 6.0})) != reading_key(NOW, old)
