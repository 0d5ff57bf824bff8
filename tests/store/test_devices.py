"""Devices of tanks and rooms, by their token."""

import peewee
import pytest

from reedmace.logbook.plans.room_plan import RoomPlan
from reedmace.store import Rooms, Tanks
from reedmace.store.devices import Devices, NoSuchDevice, by_token
from reedmace.store.quotas import MOST_DEVICES, OverQuota
from reedmace.store.rooms import NoSuchRoom
from reedmace.store.tank_queries import NoSuchTank, NotAllowed
from tests.store.conftest import NOW


def devices(database: peewee.Database, account_id: int, tanks: Tanks | None = None) -> Devices:
    return Devices(database, account_id, tanks or Tanks(database, account_id))


def test_a_token_leads_to_its_tank_until_the_device_is_removed(database: peewee.Database, account) -> None:
    owner = account()
    tank = Tanks(database, owner).make("Metered", NOW).id
    mine = devices(database, owner)
    made, token = mine.make(tank, "Meter", "flow-meter", NOW, "f1")
    assert mine.all(tank) == [made]
    found = by_token(database, token)
    assert (found.device, found.tank_id, found.room) == (made, tank, None)
    assert found.tanks.get(tank).name == "Metered"
    with pytest.raises(NoSuchDevice):
        by_token(database, token[:-1])
    mine.remove(tank, made.id)
    with pytest.raises(NoSuchDevice):
        by_token(database, token)
    with pytest.raises(NoSuchDevice):
        mine.remove(tank, made.id)


def test_one_of_a_room_writes_in_the_room(database: peewee.Database, account) -> None:
    owner = account()
    room = Rooms(database, owner).make("Cellar", RoomPlan(), NOW)
    mine = devices(database, owner)
    made, token = mine.make_for_room(room.id, "Plug", "smart-plug", NOW)
    found = by_token(database, token)
    assert (found.tank_id, found.room) == (None, room)
    assert mine.all_of_room(room.id) == [made]
    mine.remove_from_room(room.id, made.id)
    assert mine.all_of_room(room.id) == []


def test_anothers_tanks_and_rooms_take_none_and_a_helper_may_not_make_one(database: peewee.Database, account) -> None:
    owner, other = account(), account()
    tank = Tanks(database, owner).make("Mine", NOW).id
    room = Rooms(database, owner).make("Mine", RoomPlan(), NOW)
    theirs = devices(database, other)
    with pytest.raises(NoSuchTank):
        theirs.make(tank, "Meter", "flow-meter", NOW)
    with pytest.raises(NoSuchRoom):
        theirs.make_for_room(room.id, "Plug", "smart-plug", NOW)
    helping = devices(database, other, Tanks(database, other, {owner: "helper"}))
    with pytest.raises(NotAllowed):
        helping.make(tank, "Meter", "flow-meter", NOW)


def test_a_tank_has_so_many(database: peewee.Database, account) -> None:
    owner = account()
    tank = Tanks(database, owner).make("Full", NOW).id
    mine = devices(database, owner)
    for n in range(MOST_DEVICES):
        mine.make(tank, f"Meter {n}", "flow-meter", NOW)
    with pytest.raises(OverQuota):
        mine.make(tank, "One more", "flow-meter", NOW)
