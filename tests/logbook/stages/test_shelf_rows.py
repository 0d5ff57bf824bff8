"""A shelf in a sentence: how many do, which suits, which wait for their kind."""

import pytest

from reedmace.core.filter import RankFiltersQuestion
from reedmace.core.filter.box_label import BoxLabel
from reedmace.core.filter.shelf_box import ShelfBox, ShelfItem
from reedmace.logbook.stages.shelf_rows import ShelfVerdict, shelf_on_tank

SITE = {"net_l": 52, "water_depth_cm": 30, "length_cm": 60, "width_cm": 30, "behind_cm": 15}
SHRIMP = [{"species_id": "cherry-shrimp", "count": 10}, {"species_id": "guppy", "count": 6}]


def shelf(*labels: dict) -> ShelfVerdict:
    items = [ShelfItem(id=n, box=ShelfBox(label=BoxLabel(**label))) for n, label in enumerate(labels, 1)]
    return shelf_on_tank(RankFiltersQuestion(site=SITE, animals=SHRIMP), items)


DOES = {"name": "Reed", "kind": "sponge", "box_lph": 170}
QUIET = {"name": "Osier", "kind": "canister", "box_lph": 260}
NOT = {"name": "Torrent", "kind": "canister", "box_lph": 4000}
UNSAID = {"name": "Weir", "box_lph": 500}


def test_an_empty_shelf_says_nothing() -> None:
    assert shelf() == ShelfVerdict(words="", rows=[])


@pytest.mark.parametrize(
    ("labels", "words"),
    [
        ((DOES,), "The box you have seen does."),
        ((NOT,), "The box you have seen does not do here."),
        ((DOES, NOT), "Of the 2 boxes you have seen, one does: Reed."),
        ((NOT, NOT), "Of the 2 boxes you have seen, none does here."),
        ((DOES, QUIET, NOT), "Of the 3 boxes you have seen, 2 do; Osier is the quieter."),
    ],
)
def test_the_shelf_in_a_sentence(labels: tuple[dict, ...], words: str) -> None:
    assert shelf(*labels).words == words


def test_a_kind_not_said_is_asked_where_the_kinds_differ_and_not_where_they_agree() -> None:
    found = shelf(UNSAID, NOT)
    row = next(r for r in found.rows if r.name == "Weir")
    assert row.answer == "depends"
    assert row.words.startswith("Which kind is it? As ")
    assert "1 waits for its kind." in found.words
    far = shelf({"name": "Flood", "box_lph": 4000}).rows[0]
    assert far.answer == "no"
    assert far.words.startswith("Whichever kind it is.") or len(far.as_kinds) == 1


def test_those_that_do_come_first_and_every_box_has_its_reason() -> None:
    found = shelf(NOT, UNSAID, DOES)
    assert [row.answer for row in found.rows] == ["yes", "depends", "no"]
    assert all(row.words for row in found.rows)
    assert all(bool(k.short) != k.does for row in found.rows for k in row.as_kinds)
