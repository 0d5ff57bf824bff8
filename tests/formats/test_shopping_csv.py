"""A shopping list as CSV."""

import csv
import io

import pytest

from reedmace.core.fit import ShoppingListAnswer
from reedmace.core.fit.shopping_water import ShoppingItem
from reedmace.core.quantity import formatting
from reedmace.formats.shopping_csv import plain, write_shopping

ITEMS = [
    ShoppingItem(item="Hose, 16 mm", amount=3.25, unit="m", why="both ways", need="needed"),
    ShoppingItem(item="=1+1", amount=2, unit="piece", why="@home", need="spare"),
]
LIST = ShoppingListAnswer(verdict="", working=[], money=0, items=ITEMS)


def rows(text: str) -> list[list[str]]:
    return list(csv.reader(io.StringIO(text)))


def test_a_row_an_item_and_no_cell_is_a_formula() -> None:
    assert rows(write_shopping(LIST)) == [
        ["item", "amount", "unit", "need", "why"],
        ["Hose, 16 mm", "3.25", "m", "needed", "both ways"],
        ["'=1+1", "2", "piece", "spare", "'@home"],
    ]


def test_lengths_are_in_the_keepers_units() -> None:
    with formatting.in_units(formatting.Units("US gal", "in", "°F", "")):
        amount, unit = rows(write_shopping(LIST))[1][1:3]
    assert unit == "ft"
    assert float(amount) == pytest.approx(3.25 / 0.3048, rel=1e-3)


@pytest.mark.parametrize("cell", ["=x", "+x", "-x", "@x", "\tx", "\rx"])
def test_every_start_of_a_formula_is_quoted(cell: str) -> None:
    assert plain(cell) == f"'{cell}"
    assert plain("x" + cell) == "x" + cell
