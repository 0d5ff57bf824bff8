"""Shared resources of a room's tanks: settings, a sump, quarantine, a meter, one bundle, one calendar, one bill."""

import json
from datetime import UTC, datetime, timedelta

import icalendar
import pytest

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.api.test_rooms import SPONGE, rack, save  # noqa: F401 - rack is a fixture

NOW = datetime.now(UTC)
BOX = next(f for f in SAMPLE_BOXES if f.kind == "hang-on").model_dump(mode="json")
SUMP = {
    "x_cm": 0,
    "y_cm": 0,
    "pump_lph": 4000,
    "pump_head_m": 4,
    "bore_mm": 16,
    "sump": {"length_cm": 80, "width_cm": 40, "height_cm": 40, "level_cm": 20},
}


def settings(keeper, ids: list[int], key: str = "set-00001", **what: object):
    body = {"key": key, "at": datetime.now(UTC).isoformat(), "tank_ids": ids, **what}
    return keeper.send("POST", "/api/settings/many", body)


def view_of(keeper, room: dict) -> dict:
    return keeper.get(f"/api/rooms/{room['id']}").json["view"]


def latest(keeper, tank: int, kind: str) -> dict:
    return keeper.get(f"/api/tanks/{tank}/entries?kind={kind}").json["entries"][0]["body"]


def test_one_setting_is_written_in_many_tanks_and_a_repeated_send_writes_nothing(keeper, rack) -> None:  # noqa: F811
    ids, _ = rack
    priorities = {"quiet": 5, "price": 1}
    answer = settings(keeper, ids, priorities=priorities, price_per_kwh=0.41, change_weekday=5, room_c=18)
    assert answer.status_code == 201, answer.json
    assert len(answer.json["entries"]) == 6
    for tank in ids:
        plan, place = latest(keeper, tank, "filter-plan"), latest(keeper, tank, "tank-plan")["surroundings"]
        assert plan["priorities"]["quiet"] == 5
        assert plan["filters"][0]["filter"]["id"] == SPONGE["id"]
        assert (place["change_weekday"], place["room_c"]) == (5, 18)
    assert settings(keeper, ids, price_per_kwh=0.41).json["entries"] == []


def test_settings_are_all_or_none_and_something(keeper, sign_up, rack) -> None:  # noqa: F811
    ids, _ = rack
    theirs = sign_up().tank("Theirs")
    assert settings(keeper, [*ids, theirs], room_c=18).status_code == 422
    assert latest(keeper, ids[0], "tank-plan")["surroundings"]["room_c"] is None
    nothing = settings(keeper, ids)
    assert nothing.status_code == 422
    assert "give one of" in nothing.text
    assert settings(keeper, ids, change_weekday=7).status_code == 422


def test_water_is_changed_on_the_day_the_keeper_chose(keeper, rack) -> None:  # noqa: F811
    ids, _ = rack
    tank = ids[0]
    keeper.write(tank, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 6}]})
    keeper.write(tank, {"kind": "situation", "stands": "running"}, at=(NOW - timedelta(days=90)).isoformat())
    keeper.write(tank, {"kind": "water-change", "share": 0.25}, at=(NOW - timedelta(days=1)).isoformat())
    weekday = (NOW + timedelta(days=4)).weekday()
    settings(keeper, ids, change_weekday=weekday)
    rows = keeper.get(f"/api/tanks/{tank}/views/keep").json["rows"]
    changes = [datetime.fromisoformat(r["at"]).weekday() for r in rows if r["task"]["what"] == "change"]
    assert len(changes) > 5
    assert set(changes) == {weekday}


def test_a_shared_sump_splits_its_return_and_takes_what_all_tanks_send_back(keeper, rack) -> None:  # noqa: F811
    ids, room = rack
    assert view_of(keeper, room)["sump"] is None
    seen = save(keeper, room, sump={**SUMP, "tank_ids": ids}).json["view"]["sump"]
    assert [t["name"] for t in seen["tanks"]] == ["Rack 1", "Rack 2", "Rack 3"]
    assert seen["return_lph"] == pytest.approx(sum(t["flow_lph"] for t in seen["tanks"]))
    held = 80 * 40 * 20 / 1000
    litres = sum(keeper.get(f"/api/tanks/{i}/views/keep").json["volume"]["net_l"] for i in ids)
    assert seen["water_l"] == pytest.approx(held + litres, rel=0.01)
    keeper.write(ids[1], {"kind": "quarantine", "days": 28})
    assert "Rack 2 is in quarantine" in view_of(keeper, room)["sump"]["cautions"][0]


def test_a_quarantine_counts_its_days_and_begins_anew_with_new_animals_and_with_a_loss(keeper, rack) -> None:  # noqa: F811
    ids, room = rack
    tank = ids[0]

    def words() -> str:
        return next(r for r in view_of(keeper, room)["rows"] if r["tank_id"] == tank)["quarantine"]

    def write(body: dict, days_ago: float) -> None:
        assert keeper.write(tank, body, at=(NOW - timedelta(days=days_ago)).isoformat()).status_code == 201

    assert words() is None
    write({"kind": "stocking", "species_id": "guppy", "count": 6}, 20)
    write({"kind": "quarantine", "days": 28}, 20)
    assert words() == "quarantine, day 21 of 28"
    write({"kind": "stocking", "species_id": "guppy", "count": 2}, 9)
    assert "day 10 of 28, anew since new animals came in" in words()
    write({"kind": "stocking", "species_id": "guppy", "count": -1, "moved": True}, 5)
    assert "day 10" in words()
    write({"kind": "stocking", "species_id": "guppy", "count": -1}, 2)
    assert "day 3 of 28, anew since one was unwell or lost" in words()
    due = keeper.get(f"/api/tanks/{tank}/calendar.ics").text
    assert "The quarantine ends" in due
    write({"kind": "quarantine", "days": 0}, 0)
    assert words() is None


def test_animals_moved_are_not_animals_lost(keeper, rack) -> None:  # noqa: F811
    ids, room = rack
    keeper.write(ids[0], {"kind": "stocking", "species_id": "guppy", "count": 6})
    move = {
        "key": "move-0001",
        "at": datetime.now(UTC).isoformat(),
        "from_id": ids[0],
        "to_id": ids[1],
        "species_id": "guppy",
        "count": 3,
    }
    assert keeper.send("POST", "/api/animals/move", move).status_code == 201
    assert keeper.get(f"/api/tanks/{ids[0]}/views/keep").json["illness"] is None
    rows = {r["tank_id"]: r for r in view_of(keeper, room)["rows"]}
    assert "lost" not in rows[ids[0]]["verdict"]


def test_one_meter_on_the_rooms_pump_stops_and_starts_every_tank_on_its_air(keeper, rack) -> None:  # noqa: F811
    ids, room = rack
    own = keeper.get(f"/api/tanks/{ids[2]}/entries?kind=filter-plan").json["entries"][0]
    plan = {**own["body"], "air": {**own["body"]["air"], "source": "own"}}
    assert keeper.write(ids[2], plan, based_on=own["id"]).status_code == 201
    made = keeper.send("POST", f"/api/rooms/{room['id']}/devices", {"name": "Pump meter"}).json
    headers = {"Authorization": f"Bearer {made['token']}"}

    def send(watts: float, key: str) -> bool:
        body = {"key": key, "at": datetime.now(UTC).isoformat(), "watts": watts}
        return keeper.client.post("/api/device/readings", json=body, headers=headers).json["written"]

    def stands(tank: int) -> bool:
        return bool(keeper.get(f"/api/tanks/{tank}").json["state"]["stopped"])

    assert send(8, "meter-00001") is False
    assert send(0, "meter-00002") is True
    assert [stands(i) for i in ids] == [True, True, False]
    assert send(0, "meter-00003") is False
    assert send(8, "meter-00004") is True
    assert [stands(i) for i in ids] == [False, False, False]
    assert [d["name"] for d in keeper.get(f"/api/rooms/{room['id']}/devices").json["devices"]] == ["Pump meter"]
    keeper.send("DELETE", f"/api/rooms/{room['id']}/devices/{made['device']['id']}")
    body = {"key": "meter-00005", "at": datetime.now(UTC).isoformat(), "watts": 0}
    assert keeper.client.post("/api/device/readings", json=body, headers=headers).status_code == 401


def test_anothers_room_has_no_devices_files_or_calendar(keeper, sign_up, rack) -> None:  # noqa: F811
    _, room = rack
    other = sign_up()
    for path in ("devices", "bundle.json", "calendar.ics"):
        assert other.get(f"/api/rooms/{room['id']}/{path}").status_code == 404
    assert other.send("POST", f"/api/rooms/{room['id']}/devices", {"name": "Mine"}).status_code == 404
    assert other.send("DELETE", f"/api/rooms/{room['id']}/devices/1").status_code == 404


def test_a_hand_that_keeps_a_tank_may_give_it_a_device_and_a_helper_may_not(keeper, sign_up, rack) -> None:  # noqa: F811
    ids, _ = rack
    for role, code in (("helper", 403), ("keeper", 201)):
        other = sign_up()
        url = keeper.send("POST", "/api/household/invites", {"role": role}).json["url"]
        assert other.send("POST", f"/api/invites/{url.rsplit('/', 1)[1]}").status_code in (200, 201)
        made = other.send("POST", f"/api/tanks/{ids[0]}/devices", {"name": "Plug", "kind": "smart-plug"})
        assert made.status_code == code


def test_a_room_goes_out_as_one_bundle_and_comes_back_with_its_plan(keeper, sign_up, rack) -> None:  # noqa: F811
    ids, room = rack
    keeper.write(ids[1], {"kind": "note", "text": "the one by the door"})
    save(keeper, room, sump={**SUMP, "tank_ids": ids}, open_shares={f"{ids[0]}-f1": 0.5})
    text = keeper.get(f"/api/rooms/{room['id']}/bundle.json").text
    bundle = json.loads(text)
    assert [b["tank"] for b in bundle["tanks"]] == ["Rack 1", "Rack 2", "Rack 3"]
    other = sign_up()
    made = other.send("POST", "/api/rooms/bundle", bundle)
    assert made.status_code == 201, made.json
    new = made.json["tank_ids"]
    plan = other.get(f"/api/rooms/{made.json['room_id']}").json["room"]["plan"]
    assert [s["tank_id"] for s in plan["spots"]] == new
    assert plan["sump"]["tank_ids"] == new
    assert plan["open_shares"] == {f"{new[0]}-f1": 0.5}
    assert "the one by the door" in other.get(f"/api/tanks/{new[1]}/entries").text
    # Each tank's part is a bundle of its own.
    assert other.send("POST", "/api/bundles", bundle["tanks"][0]).status_code == 201
    broken = {**bundle, "tank_ids": bundle["tank_ids"][:-1]}
    assert other.send("POST", "/api/rooms/bundle", broken).status_code == 422


def test_a_rooms_calendar_holds_the_dates_of_its_tanks(keeper, rack) -> None:  # noqa: F811
    ids, room = rack
    for tank in ids:
        keeper.write(tank, {"kind": "quarantine", "days": 28})
    feed = icalendar.Calendar.from_ical(keeper.get(f"/api/rooms/{room['id']}/calendar.ics").text)
    titles = [str(e["SUMMARY"]) for e in feed.walk("VEVENT")]
    assert sum("quarantine" in t for t in titles) == 3
    assert all(any(f"Rack {n}" in t for t in titles) for n in (1, 2, 3))


def test_the_bill_of_a_room_is_what_its_pumps_and_heaters_take(keeper, rack) -> None:  # noqa: F811
    ids, room = rack
    save(
        keeper,
        room,
        pumps=[{"x_cm": 10, "y_cm": 150, "pump": {"key": "p", "name": "P", "l_min": 9, "kpa": 20, "watts": 8}}],
    )
    settings(keeper, ids, price_per_kwh=0.5)
    view = view_of(keeper, room)
    assert view["kwh_year"] == pytest.approx(8 * 24 * 365.25 / 1000)
    assert view["money_year"] == pytest.approx(view["kwh_year"] * 0.5)
