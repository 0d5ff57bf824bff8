"""The map of kinds and sizes, row by row."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.filter.choice.kind_map import DOES, MOST_DO, TO_SPARE, most_said
from tests.support.ranking import ROOM, SHOAL


@pytest.fixture(scope="module")
def found():
    return compute("type-and-size", {"site": ROOM, "animals": SHOAL})


def test_the_commonest_sentence_is_said_and_silence_is_no_sentence() -> None:
    assert most_said(["", "too slow", "too large", "too slow"]) == "too slow"
    assert most_said(["", ""]) == ""
    assert most_said([]) == ""


def test_a_row_that_fits_has_its_ends_and_recommends_between_them(found) -> None:
    rows = [row for row in found.kinds if row.fits]
    assert rows
    for row in rows:
        assert row.low_lph <= row.size_lph <= row.high_lph
        assert row.does_share >= DOES
        assert row.ask_for
        assert row.barred is None


def test_the_bar_holds_the_sizes_most_makes_fill(found) -> None:
    for row in found.kinds:
        inside = [p for p in row.sizes if row.fits and row.low_lph <= p.box_lph <= row.high_lph]
        assert all(p.does_share >= DOES for p in inside)
        assert [p.box_lph for p in row.sizes] == sorted(p.box_lph for p in row.sizes)


def test_a_row_that_does_not_fit_says_why_and_what_would_help(found) -> None:
    barred = [row for row in found.kinds if row.barred is not None]
    assert barred
    assert all(not row.fits and row.remedy for row in barred)


def test_two_are_asked_for_where_one_may_fail() -> None:
    spare = compute("type-and-size", {"site": ROOM, "animals": SHOAL, "priorities": {"redundant": 5}})
    fitting = [row for row in spare.kinds if row.fits]
    assert any(row.count > 1 for row in fitting)
    assert DOES < MOST_DO < 1 < TO_SPARE
