"""Labels of a room's tanks over HTTP: in the order of the walk, by the address the keeper came by."""

import zxingcpp

from reedmace.formats.address_code import AddressCode
from tests.formats.test_address_code import picture


def test_each_tank_has_a_label_whose_code_opens_it(keeper) -> None:
    ids = [keeper.tank("Low"), keeper.tank("High, with a very long name")]
    for tank in ids:
        keeper.write(tank, {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}})
    keeper.write(ids[0], {"kind": "stocking", "species_id": "guppy", "count": 6})
    room = keeper.send("POST", "/api/rooms", {"name": "Rack", "tank_ids": ids}).json["id"]
    sheet = keeper.get(f"/api/rooms/{room}/labels").json
    assert sheet["room"] == "Rack"
    assert [label["tank_id"] for label in sheet["labels"]] == ids
    first, second = sheet["labels"]
    assert first["words"].startswith("5")
    assert first["words"].endswith(" L. 6 Guppy")
    assert second["name"] == "High, with a very long name"
    for label in sheet["labels"]:
        (found,) = zxingcpp.read_barcodes(picture(AddressCode(label["path"], label["side"])))
        assert found.text == label["address"]
        assert label["address"].endswith(f"/tanks/{label['tank_id']}/cycle")
    assert sheet["own_machine"] is True


def test_nobody_elses_room_has_labels(keeper) -> None:
    assert keeper.get("/api/rooms/999999/labels").status_code == 404
