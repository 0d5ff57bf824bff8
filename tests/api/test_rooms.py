"""Rooms over HTTP: the board, the air, one thing for many tanks, a room from a table, another's rooms, two savers at
once.
"""

from datetime import UTC, datetime
from itertools import pairwise
from threading import Thread

import pytest

from reedmace.demo.sample_boxes import SAMPLE_BOXES

SPONGE = next(f for f in SAMPLE_BOXES if f.id == "burreed-20").model_dump(mode="json")
READING = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0}
PUMP = {"key": "p", "name": "Pump", "l_min": 9, "kpa": 20}


def many(keeper, ids: list[int], body: dict, key: str = "many-0001"):
    return keeper.send(
        "POST",
        "/api/entries/many",
        {"key": key, "at": datetime.now(UTC).isoformat(), "tank_ids": ids, "body": body},
    )


@pytest.fixture
def rack(keeper):
    """A room of three tanks, each with a sponge, and its number."""
    ids = []
    for n in range(3):
        tank = keeper.tank(f"Rack {n + 1}")
        keeper.write(tank, {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}})
        keeper.write(tank, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": SPONGE}]})
        ids.append(tank)
    room = keeper.send("POST", "/api/rooms", {"name": "Rack", "tank_ids": ids}).json
    return ids, room


def save(keeper, room: dict, **plan: object):
    body = {"name": room["name"], "version": room["version"], "plan": {**room["plan"], **plan}}
    return keeper.send("PUT", f"/api/rooms/{room['id']}", body)


def test_tanks_are_placed_beside_each_other_on_shelves_long_enough_for_them(rack) -> None:
    ids, room = rack
    assert [s["tank_id"] for s in room["plan"]["spots"]] == ids
    by_shelf: dict[int, list[float]] = {}
    for spot in room["plan"]["spots"]:
        by_shelf.setdefault(spot["shelf"], []).append(spot["x_cm"])
        shelf = room["plan"]["shelves"][spot["shelf"]]
        assert spot["x_cm"] + 60 <= shelf["x_cm"] + shelf["length_cm"]
    assert all(b - a >= 60 for xs in by_shelf.values() for a, b in pairwise(xs))


def test_the_board_shows_what_cannot_wait_first(keeper, rack) -> None:
    ids, room = rack
    keeper.write(ids[2], {"kind": "stocking", "species_id": "guppy", "count": 6})
    keeper.write(ids[2], {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 4, "ph": 7.6})
    view = keeper.get(f"/api/rooms/{room['id']}").json["view"]
    assert view["rows"][0]["tank_id"] == ids[2]
    assert view["rows"][0]["urgent"] is True
    assert "Rack 3 cannot wait" in view["verdict"]
    assert view["rows"][0]["who"] == "6 Guppy"
    assert [r["lived_in"] for r in view["rows"]] == [True, False, False]


def test_the_air_is_asked_for_until_there_is_a_pump_and_then_reckoned_for_each_tank(keeper, rack) -> None:
    ids, room = rack
    before = keeper.get(f"/api/rooms/{room['id']}").json["view"]
    assert before["air"] is None
    assert "air pump" in before["air_words"]
    seen = save(keeper, room, pumps=[{"x_cm": 280, "y_cm": 200, "pump": PUMP}]).json
    air = seen["view"]["air"]
    assert [o["key"] for o in air["outlets"]] == [f"{i}-f1" for i in ids]
    assert all(o["water_lph"] > 0 for o in air["outlets"])
    assert air["carries"] is True


def test_a_shut_valve_and_a_blocked_stone_are_seen_in_the_rooms_air(keeper, rack) -> None:
    ids, room = rack
    room = save(keeper, room, pumps=[{"x_cm": 280, "y_cm": 200, "pump": PUMP}], open_shares={f"{ids[0]}-f1": 0}).json[
        "room"
    ]
    keeper.write(ids[1], {"kind": "air-seen", "bubbles": "none"})
    view = keeper.get(f"/api/rooms/{room['id']}").json["view"]
    air = {o["key"]: o for o in view["air"]["outlets"]}
    assert air[f"{ids[0]}-f1"]["air_l_min"] == 0
    assert air[f"{ids[1]}-f1"]["blocked"] is True
    assert "blocked" in view["verdict"]


def test_what_is_typed_is_seen_and_not_written(keeper, rack) -> None:
    _, room = rack
    plan = {**room["plan"], "pumps": [{"x_cm": 0, "y_cm": 200, "pump": PUMP}]}
    assert keeper.send("POST", f"/api/rooms/{room['id']}/view", plan).json["air"] is not None
    assert keeper.get(f"/api/rooms/{room['id']}").json["view"]["air"] is None


def test_two_who_save_one_room_are_told_and_the_first_stands(keeper, rack) -> None:
    _, room = rack
    assert save(keeper, room, width_cm=400).status_code == 200
    late = save(keeper, room, width_cm=500)
    assert late.status_code == 409
    assert late.json["current"]["plan"]["width_cm"] == 400


def test_one_thing_is_written_in_every_tank_once_however_often_it_is_sent(keeper, rack) -> None:
    ids, _ = rack
    first, again = many(keeper, ids, READING), many(keeper, ids, READING)
    assert first.status_code == 201
    assert [e["id"] for e in first.json["entries"]] == [e["id"] for e in again.json["entries"]]
    for tank in ids:
        kinds = [e["body"]["kind"] for e in keeper.get(f"/api/tanks/{tank}/entries").json["entries"]]
        assert kinds.count("reading") == 1


def test_one_tank_of_anothers_and_nothing_is_written_anywhere(keeper, sign_up, rack) -> None:
    ids, _ = rack
    other = sign_up()
    theirs = other.tank("Theirs")
    assert many(keeper, [*ids, theirs], READING, "many-0002").status_code == 422
    for tank in ids:
        assert "reading" not in [e["body"]["kind"] for e in keeper.get(f"/api/tanks/{tank}/entries").json["entries"]]
    assert other.get(f"/api/tanks/{theirs}/entries").json["entries"] == []


def test_a_plan_is_not_for_many_tanks(keeper, rack) -> None:
    ids, _ = rack
    answer = many(keeper, ids, {"kind": "stock-plan", "animals": []}, "many-0003")
    assert answer.status_code == 422
    assert "stock-plan" in answer.json["detail"]


def test_two_hands_that_log_at_once_lose_and_double_nothing(app, keeper, rack) -> None:
    ids, _ = rack
    codes: list[int] = []

    def hand(name: str) -> None:
        with app.test_client() as client:
            cookie = keeper.client.get_cookie("reedmace")
            client.set_cookie("reedmace", cookie.value)
            for n in range(5):
                body = {"key": f"{name}-{n:06d}", "at": datetime.now(UTC).isoformat(), "tank_ids": ids, "body": READING}
                codes.append(
                    client.post("/api/entries/many", json=body, headers={"X-CSRF-Token": keeper.token}).status_code
                )

    threads = [Thread(target=hand, args=(name,)) for name in ("left", "right")]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    assert codes == [201] * 10
    for tank in ids:
        kinds = [e["body"]["kind"] for e in keeper.get(f"/api/tanks/{tank}/entries").json["entries"]]
        assert kinds.count("reading") == 10


def test_anothers_room_is_not_there(sign_up, visitor, keeper, rack) -> None:
    _, room = rack
    other, path = sign_up(), f"/api/rooms/{room['id']}"
    body = {"name": "Mine", "version": 1, "plan": room["plan"]}
    for method, where, sent in (
        ("GET", path, None),
        ("PUT", path, {**body, "plan": {}}),
        ("POST", f"{path}/view", {}),
        ("DELETE", path, None),
    ):
        answer = other.send(method, where, sent)
        assert answer.status_code == 404, (method, where)
        assert "Rack" not in answer.text
        assert visitor().send(method, where, sent).status_code == 401
    assert other.get("/api/rooms").json["rooms"] == []
    assert keeper.get(path).status_code == 200
    # Nor can a tank of another's be set on a plan of one's own.
    assert (
        other.send(
            "POST", "/api/rooms", {"name": "Mine", "tank_ids": [room["plan"]["spots"][0]["tank_id"]]}
        ).status_code
        == 422
    )


def test_a_room_taken_away_leaves_its_tanks(keeper, rack) -> None:
    ids, room = rack
    assert keeper.send("DELETE", f"/api/rooms/{room['id']}").json == {"removed": True}
    assert keeper.get(f"/api/rooms/{room['id']}").status_code == 404
    assert all(keeper.get(f"/api/tanks/{i}").status_code == 200 for i in ids)


def test_a_tank_put_aside_leaves_the_board(keeper, rack) -> None:
    ids, room = rack
    keeper.send("POST", f"/api/tanks/{ids[0]}/archive")
    view = keeper.get(f"/api/rooms/{room['id']}").json["view"]
    assert ids[0] not in [r["tank_id"] for r in view["rows"]]


TABLE = """name,length_cm,width_cm,height_cm,filter,animals,stands
Low 1,60,30,36,Sponge,12 guppy; 6 cherry shrimp,running
Low 2,"45,5",28,30,,,
"""


def test_a_room_comes_from_a_table_with_sizes_filters_and_animals(keeper) -> None:
    room = keeper.send("POST", "/api/rooms/import", {"name": "Table", "text": TABLE}).json
    rows = keeper.get(f"/api/rooms/{room['id']}").json["view"]["rows"]
    assert {r["name"] for r in rows} == {"Low 1", "Low 2"}
    first = next(r for r in rows if r["name"] == "Low 1")
    assert first["who"] == "12 Guppy, 6 Cherry shrimp"
    assert len(first["air_keys"]) == 1
    plan = keeper.get(f"/api/tanks/{first['tank_id']}").json["state"]["plans"]["filter"]
    # A kind by its name is the usual box for that tank.
    assert [f["filter"]["kind"] for f in plan["filters"]] == ["sponge"]
    assert 40 <= plan["filters"][0]["filter"]["tank_up_to_l"] <= 100
    state = keeper.get(f"/api/tanks/{next(r for r in rows if r['name'] == 'Low 2')['tank_id']}").json["state"]
    assert state["plans"]["tank"]["tank"]["length_cm"] == 45.5


def test_a_table_takes_filters_from_the_keepers_shelf_by_name(keeper) -> None:
    label = {"name": "Attic find", "kind": "hang-on", "box_lph": 300}
    keeper.send("POST", "/api/shelf", {"boxes": [{"key": "attic-find", "box": {"label": label}}]})
    text = "name,length_cm,width_cm,height_cm,filter\nA,60,30,36,attic find\n"
    room = keeper.send("POST", "/api/rooms/import", {"name": "Shelf", "text": text}).json
    (spot,) = room["plan"]["spots"]
    plan = keeper.get(f"/api/tanks/{spot['tank_id']}").json["state"]["plans"]["filter"]
    assert [f["filter"]["name"] for f in plan["filters"]] == ["Attic find"]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "holds no tank"),
        ("name,length_cm,width_cm,height_cm\nA,x,30,30\n", "line 2: length_cm"),
        ("name,length_cm,width_cm,height_cm\n,40,30,30\n", "line 2: has no name"),
        ("name,length_cm,width_cm,height_cm,animals\nA,40,30,30,some fish\n", "not understood"),
        ("name,length_cm,width_cm,height_cm,filter\nA,40,30,30,Teapot\n", "no filter"),
        ("name,length_cm,width_cm,height_cm\nA,40,30,99999\n", "line 2"),
        ("name,length_cm,width_cm,height_cm,stands\nA,40,30,30,dancing\n", "line 2"),
    ],
    ids=["nothing", "no figure", "no name", "no count", "no such filter", "too large", "no such state"],
)
def test_a_table_that_cannot_be_read_says_the_line_and_writes_nothing(keeper, text: str, words: str) -> None:
    before = len(keeper.get("/api/tanks").json["tanks"])
    answer = keeper.send("POST", "/api/rooms/import", {"name": "Table", "text": text})
    assert answer.status_code == 422
    assert words in answer.json["detail"]
    assert len(keeper.get("/api/tanks").json["tanks"]) == before
    assert keeper.get("/api/rooms").json["rooms"] == []


def test_a_tank_is_copied_so_many_times_into_its_room_or_not_at_all(keeper, rack) -> None:
    ids, room = rack
    seen = keeper.send("POST", f"/api/rooms/{room['id']}/copies", {"tank_id": ids[0], "count": 4}).json
    assert len(seen["view"]["rows"]) == 7
    assert {f"Rack 1, {n}" for n in range(2, 6)} <= {r["name"] for r in seen["view"]["rows"]}
    assert len({(s["shelf"], s["x_cm"]) for s in seen["room"]["plan"]["spots"]}) == 7
    assert len([r for r in seen["view"]["rows"] if r["air_keys"]]) == 7
    before = len(keeper.get("/api/tanks").json["tanks"])
    assert keeper.send("POST", f"/api/rooms/{room['id']}/copies", {"tank_id": ids[0], "count": 51}).status_code == 422
    assert len(keeper.get("/api/tanks").json["tanks"]) == before


def move(keeper, **asked: object):
    body = {"key": "moving-0001", "at": datetime.now(UTC).isoformat(), "species_id": "guppy", **asked}
    return keeper.send("POST", "/api/animals/move", body)


def test_animals_moved_are_written_in_both_tanks_once(keeper, rack) -> None:
    ids, room = rack
    keeper.write(ids[0], {"kind": "stocking", "species_id": "guppy", "count": 6})
    for _ in range(2):
        assert move(keeper, from_id=ids[0], to_id=ids[1], count=4).status_code == 201
    who = {r["tank_id"]: r["who"] for r in keeper.get(f"/api/rooms/{room['id']}").json["view"]["rows"]}
    assert (who[ids[0]], who[ids[1]]) == ("2 Guppy", "4 Guppy")


def test_more_than_there_are_or_into_the_same_tank_is_refused(keeper, rack) -> None:
    ids, _ = rack
    keeper.write(ids[0], {"kind": "stocking", "species_id": "guppy", "count": 2})
    many = move(keeper, from_id=ids[0], to_id=ids[1], count=3)
    assert many.status_code == 422
    assert "2 of them are in that tank" in many.json["detail"]
    assert move(keeper, from_id=ids[0], to_id=ids[0], count=1).status_code == 422


def test_animals_go_into_no_tank_of_anothers(keeper, sign_up, rack) -> None:
    ids, _ = rack
    keeper.write(ids[0], {"kind": "stocking", "species_id": "guppy", "count": 2})
    theirs = sign_up().tank("Theirs")
    assert move(keeper, from_id=ids[0], to_id=theirs, count=1).status_code == 422


def test_a_room_of_two_hundred_tanks_is_placed_and_opens(keeper) -> None:
    tank = keeper.tank("Rack")
    size = {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}}
    keeper.write(tank, size)
    room = keeper.send("POST", "/api/rooms", {"name": "Fish house", "tank_ids": [tank]}).json["id"]
    for count in (50, 50, 50, 49):
        answer = keeper.send("POST", f"/api/rooms/{room}/copies", {"tank_id": tank, "count": count})
        assert answer.status_code == 201
    seen = keeper.get(f"/api/rooms/{room}")
    assert seen.status_code == 200
    plan = seen.json["room"]["plan"]
    assert len(plan["spots"]) == len(seen.json["view"]["rows"]) == 200
    # Every shelf is under the roof, no tank stands in another or over the end of its shelf.
    assert all(s["y_cm"] + 36 <= plan["height_cm"] for s in plan["shelves"])
    for n, shelf in enumerate(plan["shelves"]):
        at = sorted(s["x_cm"] for s in plan["spots"] if s["shelf"] == n)
        assert all(b - a >= 60 for a, b in pairwise(at))
        assert at[-1] + 60 <= shelf["x_cm"] + shelf["length_cm"] + 1e-6 <= plan["width_cm"] + 1e-6
    more = keeper.send("POST", f"/api/rooms/{room}/copies", {"tank_id": tank, "count": 1})
    assert more.status_code == 422


def test_a_tank_whose_figures_do_not_agree_leaves_the_room_open(keeper, rack, mariadb) -> None:
    from reedmace.database import connect
    from reedmace.logbook.replay.entries import NewEntry
    from reedmace.store import Accounts, Tanks

    ids, room = rack
    save(keeper, room, pumps=[{"x_cm": 10, "y_cm": 150, "pump": PUMP}])
    email = keeper.get("/api/session").json["email"]
    database = connect(mariadb.owner_url)
    with database.connection_context():
        mine, now = Tanks(database, Accounts(database).by_email(email).id), datetime.now(UTC)
        body = {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36, "counted_l": 900}}
        based = mine.entries(ids[1])[0].id
        mine.add(
            ids[1], NewEntry.model_validate({"key": "stored-before", "at": now, "body": body, "based_on": based}), now
        )
    view = keeper.get(f"/api/rooms/{room['id']}").json["view"]
    rows = {r["tank_id"]: r for r in view["rows"]}
    assert rows[ids[1]]["at_odds"]
    assert "do not agree" in rows[ids[1]]["verdict"]
    assert [o["name"] for o in view["air"]["outlets"]] == ["Rack 1", "Rack 3"]
