"""A fish room as one file."""

import pytest
from pydantic import ValidationError

from reedmace.formats.room_bundle import RoomBundle, room_bundle_parts
from reedmace.logbook.plans.room_plan import RoomPlan
from tests.support.entries import NOW, entry


def test_each_tanks_logbook_comes_back_in_its_place() -> None:
    notes = [entry(n, {"kind": "note", "text": f"Note {n}"}) for n in (1, 2)]
    text = "".join(room_bundle_parts("Cellar", RoomPlan(), [(7, "Left", notes), (9, "Right", [])], NOW))
    room = RoomBundle.model_validate_json(text)
    assert (room.room, room.tank_ids) == ("Cellar", [7, 9])
    assert [(one.tank, len(one.entries)) for one in room.tanks] == [("Left", 2), ("Right", 0)]
    empty = "".join(room_bundle_parts("Empty", RoomPlan(), [], NOW))
    assert RoomBundle.model_validate_json(empty).tanks == []


@pytest.mark.parametrize("ids", [[7], [7, 7], [7, 8, 9]])
def test_every_tank_that_is_named_must_be_there_once(ids: list[int]) -> None:
    text = "".join(room_bundle_parts("Cellar", RoomPlan(), [(7, "Left", []), (9, "Right", [])], NOW))
    with pytest.raises(ValidationError, match="one each"):
        RoomBundle.model_validate(RoomBundle.model_validate_json(text).model_dump() | {"tank_ids": ids})
