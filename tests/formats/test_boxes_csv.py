"""Boxes as CSV, out and in again."""

import pytest

from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.typical import typical_box
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.formats.boxes_csv import read_boxes, write_boxes


def test_what_was_written_is_read_as_it_was() -> None:
    found, errors = read_boxes(write_boxes(SAMPLE_BOXES))
    assert errors == []
    assert found == list(SAMPLE_BOXES)


def test_three_columns_are_enough_and_the_rest_is_as_usual() -> None:
    found, errors = read_boxes("name,kind,box_lph\nPond's Own 900!,canister,900\n")
    assert errors == []
    usual = typical_box(kind_of("canister"), 900)
    assert (found[0].id, found[0].media_l, found[0].price_known) == ("own-pond-s-own-900", usual.media_l, False)


@pytest.mark.parametrize(
    ("row", "column"),
    [
        ("A,canister,fast,", "box_lph"),
        ("A,kettle,900,", "kind"),
        ("A,canister,900,0:1.4 broken", "curve"),
        ("A,canister,-5,", "box_lph"),
    ],
)
def test_each_fault_is_told_by_its_column(row: str, column: str) -> None:
    found, errors = read_boxes(f"name,kind,box_lph,curve\n{row}\n")
    assert found == []
    assert [e.column for e in errors] == [column]


def test_a_fault_of_the_row_as_a_whole_is_told_too() -> None:
    found, errors = read_boxes("name,kind,box_lph,max_head_m\nGood,canister,700,1.3\nA,canister,800,\n")
    assert found == []
    assert [(e.line, e.column) for e in errors] == [(3, "")]
    assert "max_head_m" in errors[0].what


def test_two_of_one_id_are_refused() -> None:
    _, errors = read_boxes("id,name,kind,box_lph\nx1,A,sponge,200\nx1,B,sponge,300\n")
    assert errors[0].what == '"x1" stands on line 2 already.'
