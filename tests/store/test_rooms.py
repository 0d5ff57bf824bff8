"""Rooms: one account's, saved over the version they were edited from."""

import peewee
import pytest

from reedmace.logbook.plans.room_plan import RoomPlan
from reedmace.store import Rooms
from reedmace.store.rooms import NoSuchRoom, RoomMoved
from tests.store.conftest import NOW


def test_a_room_is_saved_over_its_own_version_only(database: peewee.Database, account) -> None:
    mine, theirs = Rooms(database, account()), Rooms(database, account())
    plan = RoomPlan()
    room = mine.make("Cellar", plan, NOW)
    assert [one.id for one in mine.all()] == [room.id]
    assert theirs.all() == []
    saved = mine.save(room.id, "Cellar, left", plan.model_copy(update={"width_cm": 300}), room.version)
    assert (saved.name, saved.plan.width_cm, saved.version) == ("Cellar, left", 300, room.version + 1)
    with pytest.raises(RoomMoved) as moved:
        mine.save(room.id, "Other", plan, room.version)
    assert moved.value.current == saved
    for ask in (theirs.get, theirs.remove):
        with pytest.raises(NoSuchRoom):
            ask(room.id)
    mine.remove(room.id)
    with pytest.raises(NoSuchRoom):
        mine.get(room.id)
