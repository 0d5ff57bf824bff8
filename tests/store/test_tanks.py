"""Tanks and entries: one account's own, written once, set aside and brought back."""

from datetime import timedelta

import peewee
import pytest

from reedmace.logbook.replay.entries import NewEntry
from reedmace.store import Tanks
from reedmace.store.roles import Role
from reedmace.store.tank_queries import EntryFilter, NoSuchEntry, NoSuchTank, NotAllowed, PlanMoved
from tests.store.conftest import NOW

NOTE = {"kind": "note", "text": "Snails"}
STOCK = {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 6}]}


def entry(key: str, body: dict, **more: object) -> NewEntry:
    return NewEntry.model_validate({"key": key, "at": NOW, "body": body, **more})


def test_anothers_tank_does_not_exist(tanks) -> None:
    mine, theirs = tanks(), tanks()
    tank = mine.make("Mine", NOW).id
    for ask in (theirs.get, theirs.entries, theirs.recent, theirs.superseded_ids, theirs.page, theirs.forget):
        with pytest.raises(NoSuchTank):
            ask(*((tank, None) if ask == theirs.page else (tank,)))
    with pytest.raises(NoSuchTank):
        theirs.add(tank, entry("foreign-key", NOTE), NOW)
    assert theirs.writes_of([tank]) == theirs.recent_of([tank]) == {}
    assert [one.id for one in mine.all()] == [tank]


def test_an_entry_sent_twice_is_written_once(tanks) -> None:
    mine = tanks()
    tank = mine.make("Twice", NOW).id
    first, new = mine.add(tank, entry("same-key-1", NOTE), NOW)
    again, newer = mine.add(tank, entry("same-key-1", {**NOTE, "text": "Other words"}), NOW)
    assert (new, newer, again) == (True, False, first)
    assert mine.is_written(tank, "same-key-1")
    assert not mine.is_written(tank, "same-key-2")


def test_several_are_written_or_none(tanks) -> None:
    mine = tanks()
    tank = mine.make("None", NOW).id
    with pytest.raises(NoSuchEntry):
        mine.add_many(tank, [entry("good-key-1", NOTE), entry("bad-key-01", NOTE, supersedes=10**9)], NOW)
    assert mine.entries(tank) == []


def test_a_plan_saved_elsewhere_since_is_told_with_the_present_one(tanks) -> None:
    mine = tanks()
    tank = mine.make("Plans", NOW).id
    first, _ = mine.add(tank, entry("plan-key-1", STOCK), NOW)
    second, _ = mine.add(tank, entry("plan-key-2", STOCK, based_on=first.id, supersedes=first.id), NOW)
    with pytest.raises(PlanMoved) as moved:
        mine.add(tank, entry("plan-key-3", STOCK, based_on=first.id, supersedes=first.id), NOW)
    assert moved.value.current is not None
    assert moved.value.current.id == second.id
    assert mine.superseded_ids(tank) == {first.id}


def test_each_write_counts_so_that_what_was_kept_of_it_is_out_of_date(tanks, write) -> None:
    mine = tanks()
    tank = mine.make("Counted", NOW).id
    before = mine.writes_of([tank])[tank]
    write(mine, tank, NOTE)
    assert mine.writes_of([tank])[tank] == before + 1


def test_a_page_is_the_newest_first_and_only_what_is_wanted(tanks, write) -> None:
    mine = tanks()
    tank = mine.make("Pages", NOW).id
    ids = [write(mine, tank, {**NOTE, "text": f"Snail {n} 100 %"}, NOW - timedelta(days=n)) for n in range(5)]
    reading = write(mine, tank, {"kind": "reading", "ammonia_ppm": 0.5})
    assert [e.id for e in mine.page(tank, None, 2)] == [reading, ids[4]]
    assert [e.id for e in mine.page(tank, ids[4], 2)] == [ids[3], ids[2]]
    assert [e.id for e in mine.page(tank, None, wanted=EntryFilter(kind="reading"))] == [reading]
    assert [e.id for e in mine.page(tank, None, wanted=EntryFilter(words="sNAIL 3 100 %"))] == [ids[3]]
    assert mine.page(tank, None, wanted=EntryFilter(words="sna_l")) == []
    assert [e.id for e in mine.page(tank, None, wanted=EntryFilter(until=NOW - timedelta(days=3)))] == [ids[4]]


def test_removed_it_comes_back_for_a_day_and_archived_for_ever(tanks) -> None:
    mine = tanks()
    removed, archived = mine.make("Removed", NOW).id, mine.make("Archived", NOW).id
    mine.archive(removed, "removed", NOW)
    mine.archive(archived, "archived", NOW)
    assert mine.all() == []
    assert {(one.name, one.how) for one in mine.aside(NOW)} == {("Removed", "removed"), ("Archived", "archived")}
    with pytest.raises(NoSuchTank):
        mine.get(removed)
    assert mine.get(archived).name == "Archived"
    late = NOW + timedelta(days=1, seconds=1)
    assert [one.name for one in mine.aside(late)] == ["Archived"]
    with pytest.raises(NoSuchTank):
        mine.restore(removed, late)
    assert mine.restore(removed, NOW + timedelta(hours=23)).id == removed
    assert [one.id for one in mine.all()] == [removed]


def test_roles_of_a_household_log_plan_or_look(database: peewee.Database, account) -> None:
    owner, helper = account(), account()
    mine = Tanks(database, owner)
    tank = mine.make("Shared", NOW).id
    roles: tuple[tuple[Role, bool, bool], ...] = (
        ("reader", False, False),
        ("helper", True, False),
        ("keeper", True, True),
    )
    for role, logs, plans in roles:
        theirs = Tanks(database, helper, {owner: role})
        assert theirs.role(tank) == role
        assert [one.id for one in theirs.all()] == [tank]
        for allowed, body in ((logs, NOTE), (plans, STOCK)):
            current = mine.page(tank, None, wanted=EntryFilter(kind="stock-plan"))
            based = {"based_on": current[0].id, "supersedes": current[0].id} if current and body == STOCK else {}
            new = entry(f"{role}-{body['kind']}-key", body, **based)
            if allowed:
                assert theirs.add(tank, new, NOW)[1]
            else:
                with pytest.raises(NotAllowed):
                    theirs.add(tank, new, NOW)
        with pytest.raises(NotAllowed):
            theirs.forget(tank)
    assert mine.page(tank, None)[0].who is not None


def test_a_logbook_from_elsewhere_keeps_its_order_and_its_corrections(tanks, write) -> None:
    mine = tanks()
    tank = mine.make("Here", NOW).id
    first = write(mine, tank, {"kind": "reading", "ammonia_ppm": 1}, NOW - timedelta(days=2))
    write(mine, tank, NOTE)
    write(mine, tank, {"kind": "reading", "ammonia_ppm": 2}, NOW - timedelta(days=2), supersedes=first)
    there = mine.bring("There", mine.entries(tank), NOW).id
    old, new = mine.entries(tank), mine.entries(there)
    assert [e.body for e in new] == [e.body for e in old]
    assert [e.supersedes for e in new] == [None, None, new[0].id]
