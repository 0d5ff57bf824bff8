"""The shared CSV reader: header, rows, faults."""

import pytest

from reedmace.formats.csv_rows import MOST_COLUMNS, MOST_FAULTS, RowError, column_of, read_rows

COLUMNS, NEEDED = ("name", "litres"), ("name",)


def read(text: str, most: int = 50):
    def take(line: int, cells: dict[str, str]):
        litres = cells.get("litres", "")
        if litres and not litres.isdigit():
            return None, [RowError(line, "litres", "is no number.")]
        return (cells["name"], litres), []

    return read_rows(text, COLUMNS, NEEDED, most, take)


@pytest.mark.parametrize(
    "text",
    [
        "name,litres\nA,5\nB,\n",
        "\ufeffname;litres\nA;5\nB;\n",
        " Litres , NAME \n5,A\n,B\n",
        "name,litres\r\nA,5\r\n\r\n , \r\nB,\r\n",
    ],
    ids=["plain", "semicolons", "other order and case", "blank rows"],
)
def test_a_table_is_read_however_it_is_written(text: str) -> None:
    assert read(text) == ([("A", "5"), ("B", "")], [])


def test_one_fault_and_nothing_is_taken_and_every_fault_is_told() -> None:
    found, errors = read("name,litres\nA,5\nB,x\nC,y\nD,1,2\n")
    assert found == []
    assert [(e.line, e.column) for e in errors] == [(3, "litres"), (4, "litres"), (5, "")]
    assert errors[0].issue().where == "line 3, litres"


def test_the_header_is_held_to_its_columns() -> None:
    assert [e.column for e in read("litres,size\n5,6\n")[1]] == ["size", "name"]
    assert "has 101 columns" in read(",".join(["x"] * (MOST_COLUMNS + 1)) + "\n")[1][0].what


def test_too_many_rows_and_too_many_faults_end_it() -> None:
    assert "at most 3 rows" in read("name\n" + "A\n" * 4, most=3)[1][0].what
    assert len(read("name,litres\n" + "A,x\n" * (MOST_FAULTS + 50), most=10**6)[1]) == MOST_FAULTS


def test_what_csv_itself_refuses_is_a_fault_of_its_line() -> None:
    found, errors = read("name,litres\nA," + "9" * 200_000 + "\n")
    assert found == []
    assert "cannot be read as CSV" in errors[0].what


@pytest.mark.parametrize(
    ("where", "column"),
    [("litres", "litres"), ("input", ""), ("reading.litres.1", "litres"), ("share", "share"), ("ranges.0.low", "low")],
)
def test_a_fault_stands_in_its_column_or_is_the_rows(where: str, column: str) -> None:
    assert column_of(where, COLUMNS) == column
