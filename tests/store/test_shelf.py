"""Boxes on one account's shelf."""

import peewee
import pytest

from reedmace.core.filter.shelf_box import ShelfBox
from reedmace.store import quotas, shelf
from reedmace.store.shelf import NoSuchBox, Shelf, shown_shelf
from tests.store.conftest import NOW


def box(name: str) -> ShelfBox:
    return ShelfBox.model_validate({"label": {"name": name, "kind": "canister", "box_lph": 700}})


def test_a_box_sent_twice_stands_once_and_is_changed_by_its_number(database: peewee.Database, account) -> None:
    mine, theirs = Shelf(database, account()), Shelf(database, account())
    (first,) = mine.put([("box-key-1", box("Willow"))], NOW)
    again = mine.put([("box-key-1", box("Other")), ("box-key-2", box("Alder"))], NOW)
    assert [one.box.label.name for one in again] == ["Willow", "Alder"]
    assert [one.id for one in mine.all()] == [one.id for one in again]
    assert theirs.all() == []
    assert mine.save(first.id, box("Sallow")).box.label.name == "Sallow"
    for ask in (lambda: theirs.save(first.id, box("Mine now")), lambda: theirs.remove(first.id)):
        with pytest.raises(NoSuchBox):
            ask()
    mine.remove(first.id)
    assert [one.box.label.name for one in mine.all()] == ["Alder"]


def test_a_shelf_holds_so_many_and_takes_all_of_several_or_none(
    database: peewee.Database, account, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(shelf, "MOST_BOXES", 2)
    mine = Shelf(database, account())
    with pytest.raises(quotas.OverQuota):
        mine.put([(f"box-key-{n}", box(f"Box {n}")) for n in range(3)], NOW)
    assert mine.all() == []
    assert len(mine.put([(f"box-key-{n}", box(f"Box {n}")) for n in range(2)], NOW)) == 2


def test_a_link_shows_it_until_it_is_ended_or_made_anew(database: peewee.Database, account) -> None:
    mine = Shelf(database, account())
    mine.put([("box-key-1", box("Willow"))], NOW)
    assert mine.link_since() is None
    old, new = (mine.make_link(NOW) for _ in range(2))
    assert shown_shelf(database, old) is None
    seen = shown_shelf(database, new)
    assert seen is not None
    assert [one.box.label.name for one in seen.all()] == ["Willow"]
    assert mine.link_since() == NOW
    mine.end_link()
    assert shown_shelf(database, new) is None
