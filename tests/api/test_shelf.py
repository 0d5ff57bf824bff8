"""The shelf: boxes in and out, its link, whose it is, and what a tank says of them."""

import csv
import io
from pathlib import Path

import pytest

from reedmace.api.shelf import read_given
from reedmace.core.filter.shelf_box import box_of_filter
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.formats import write_boxes

LABEL = {"name": "Osier 300", "box_us_gal_per_hour": 264, "watts": 20, "max_head_m": 1.6}


def put(keeper, *labels: dict, key: str = "box"):
    boxes = [{"key": f"{key}-{n:08d}", "box": {"label": label}} for n, label in enumerate(labels)]
    return keeper.send("POST", "/api/shelf", {"boxes": boxes})


def numbers(keeper) -> list[int]:
    return [item["id"] for item in keeper.get("/api/shelf").json["items"]]


def test_a_box_stands_on_the_shelf_once_however_often_it_is_sent(keeper) -> None:
    first = put(keeper, LABEL)
    assert first.status_code == 201
    again = put(keeper, LABEL)
    assert again.json == first.json
    assert numbers(keeper) == [first.json["items"][0]["id"]]


def test_a_box_is_written_anew_and_taken_off(keeper) -> None:
    (item,) = put(keeper, LABEL).json["items"]
    changed = {**item["box"], "seen_where": "Weir street", "bought": True}
    assert keeper.send("PUT", f"/api/shelf/{item['id']}", changed).status_code == 200
    assert keeper.get("/api/shelf").json["items"][0]["box"]["seen_where"] == "Weir street"
    assert keeper.send("DELETE", f"/api/shelf/{item['id']}").json["items"] == []
    assert keeper.send("DELETE", f"/api/shelf/{item['id']}").status_code == 404


def test_a_box_that_cannot_be_judged_is_refused_and_none_of_the_others_is_kept(keeper) -> None:
    refused = put(keeper, LABEL, {"name": "No flow", "watts": 5})
    assert refused.status_code == 422
    assert "needs its flow" in str(refused.json["errors"])
    assert numbers(keeper) == []


def test_another_account_sees_and_changes_nothing_of_it(sign_up) -> None:
    mine, other = sign_up(), sign_up()
    (item,) = put(mine, LABEL).json["items"]
    assert numbers(other) == []
    assert other.send("PUT", f"/api/shelf/{item['id']}", item["box"]).status_code == 404
    assert other.send("DELETE", f"/api/shelf/{item['id']}").status_code == 404
    assert numbers(mine) == [item["id"]]


def test_a_link_shows_the_boxes_without_notes_until_it_is_revoked(keeper, visitor) -> None:
    put(keeper, LABEL)
    (item,) = keeper.get("/api/shelf").json["items"]
    keeper.send("PUT", f"/api/shelf/{item['id']}", {**item["box"], "note": "ask again", "seen_where": "Weir street"})
    token = keeper.send("POST", "/api/shelf/link").json["token"]
    shown = visitor().get(f"/api/shelf/shown/{token}")
    assert shown.json["items"][0]["box"]["label"]["name"] == "Osier 300"
    assert "ask again" not in shown.text
    assert "Weir street" not in shown.text
    newer = keeper.send("POST", "/api/shelf/link").json["token"]
    assert visitor().get(f"/api/shelf/shown/{token}").status_code == 404
    assert keeper.send("DELETE", "/api/shelf/link").json == {"made_at": None}
    assert visitor().get(f"/api/shelf/shown/{newer}").status_code == 404


def test_a_shelf_goes_out_as_csv_and_comes_back_as_it_was(sign_up) -> None:
    one, two = sign_up(), sign_up()
    text = write_boxes(SAMPLE_BOXES)
    headers = {"X-CSRF-Token": one.token}
    assert one.client.post("/api/shelf.csv", data=text, content_type="text/csv", headers=headers).status_code == 201
    out = one.get("/api/shelf.csv").text
    rows = list(csv.DictReader(io.StringIO(out)))
    assert [r["name"] for r in rows] == [f.name for f in SAMPLE_BOXES]
    headers = {"X-CSRF-Token": two.token}
    for _ in range(2):  # The same file again adds nothing.
        two.client.post("/api/shelf.csv", data=out, content_type="text/csv", headers=headers)
    back = [item["box"]["filter"] for item in two.get("/api/shelf").json["items"]]
    assert [{**f, "id": ""} for f in back] == [{**f.model_dump(mode="json"), "id": ""} for f in SAMPLE_BOXES]


@pytest.mark.parametrize(
    ("row", "column", "words"),
    [
        ("A,canister,many,14,99,1.4", "box_lph", "not a figure"),
        ("A,teapot,800,14,99,1.4", "kind", "sponge"),
        ("A,canister,800,14,99,", "", "max_head_m"),
        ("A,canister,5,14,99,1.4", "box_lph", "at least 10"),
        ("A,canister,800,14,99,1.4,7", "", "more fields"),
    ],
    ids=["text", "kind", "no lift", "too small", "too many"],
)
def test_a_faulty_row_is_named_and_nothing_is_taken(keeper, row: str, column: str, words: str) -> None:
    text = f"name,kind,box_lph,watts,price,max_head_m\nGood,canister,700,12,80,1.3\n{row}\n"
    headers = {"X-CSRF-Token": keeper.token}
    answer = keeper.client.post("/api/shelf.csv", data=text, content_type="text/csv", headers=headers)
    assert answer.status_code == 422
    assert answer.json["title"] == "Nothing was imported"
    fault = answer.json["errors"][0]
    assert fault["where"].startswith("line 3")
    assert column in fault["where"]
    assert words in fault["what"]
    assert numbers(keeper) == []


def test_a_row_needs_name_kind_and_flow_and_takes_the_rest_as_usual(keeper) -> None:
    headers = {"X-CSRF-Token": keeper.token}
    send = {"content_type": "text/csv", "headers": headers}
    short = keeper.client.post("/api/shelf.csv", data="name,kind\nA,canister\n", **send)
    assert {e["where"] for e in short.json["errors"]} == {"line 1, box_lph"}
    keeper.client.post("/api/shelf.csv", data="name,kind,box_lph\nA,canister,800\n", **send)
    (item,) = keeper.get("/api/shelf").json["items"]
    assert item["box"]["label"]["price"] is None
    assert item["box"]["filter"]["max_head_m"] > 0.5


def test_a_tank_says_which_boxes_do_and_which_tank_holds_one(keeper) -> None:
    tank = keeper.tank("Weir")
    keeper.write(
        tank,
        {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}, "surroundings": {}},
    )
    put(
        keeper,
        {"name": "Middling", "kind": "sponge", "box_lph": 260},
        {"name": "Torrent", "box_lph": 4000, "kind": "canister"},
        LABEL,
    )
    view = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json
    by_name = {row["name"]: row for row in view["shelf"]["rows"]}
    assert by_name["Middling"]["answer"] == "yes"
    assert by_name["Torrent"]["answer"] == "no"
    assert {k["kind"] for k in by_name["Osier 300"]["as_kinds"]} >= {"canister", "hang-on"}
    assert view["shelf"]["words"].startswith("Of the 3 boxes you have seen, one does: Middling.")
    # Looked at by its number, it is spoken of, and chosen it is named on the shelf by its tank.
    number = by_name["Middling"]["id"]
    seen = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {"seen": [f"shelf-{number}"]}).json
    assert seen["shown"]["name"] == "Middling"
    chosen = seen["shown"]["filters"][0]["installed"]["filter"]
    keeper.write(tank, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": chosen}]})
    assert keeper.get("/api/shelf").json["on_tanks"] == {str(number): ["Weir"]}


def test_a_new_keeper_meets_no_box_and_gets_kind_and_size(keeper) -> None:
    assert keeper.get("/api/shelf").json["items"] == []
    view = keeper.send("POST", f"/api/tanks/{keeper.tank()}/views/filter", {}).json
    assert view["shelf"] == {"words": "", "rows": []}
    assert all(f["typical"] for f in view["shown"]["filters"])
    text = str(view)
    assert not any(f.name in text for f in SAMPLE_BOXES)


def test_a_planned_kind_gives_way_to_the_box_bought_and_what_changes_is_told(keeper) -> None:
    tank = keeper.tank()
    shown = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json["shown"]
    planned = [{"key": f"f{n}", "filter": f["installed"]["filter"]} for n, f in enumerate(shown["filters"], 1)]
    keeper.write(tank, {"kind": "filter-plan", "filters": planned[:1]})
    fit = keeper.send("POST", f"/api/tanks/{tank}/views/fit", {})
    assert fit.json["filters"][0]["installed"]["filter"]["id"].startswith("typical-")
    items = {i["item"] for i in keeper.get(f"/api/tanks/{tank}/buying").json["items"]}
    assert not any(item.startswith("Typical") for item in items)
    kind = planned[0]["filter"]["kind"]
    (item,) = put(keeper, {"name": "Bought", "kind": kind, "box_lph": planned[0]["filter"]["box_lph"] * 1.3}).json[
        "items"
    ]
    view = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {"seen": [f"shelf-{item['id']}"]}).json
    told = {d["name"]: (d["now"], d["then"]) for d in view["differences"]}
    assert "Flow in service" in told
    assert all(now != then for now, then in told.values())


def test_an_operator_gives_every_account_a_shelf_by_a_file(tmp_path: Path) -> None:
    path = tmp_path / "boxes.csv"
    path.write_text("name,kind,box_lph\nHouse sponge,sponge,200\n")
    (item,) = read_given(path)
    assert (item.id, item.box.label.name) == (-1, "House sponge")
    path.write_text("name,kind,box_lph\nHouse sponge,sponge,much\n")
    with pytest.raises(ValueError, match="line 2, box_lph"):
        read_given(path)
    assert read_given(None) == []


def test_the_demo_keeper_has_a_shelf_and_each_visit_its_copy(mariadb, app, visitor) -> None:
    from reedmace.database import connect
    from reedmace.demo import write_demo

    write_demo(connect(mariadb.app_url))
    guest = visitor()
    guest.enter("POST", "/api/session/demo", {})
    items = guest.get("/api/shelf").json["items"]
    assert [i["box"]["label"]["name"] for i in items] == [f.name for f in SAMPLE_BOXES]
    assert items[0]["box"] == box_of_filter(SAMPLE_BOXES[0]).model_dump(mode="json")
    guest.send("DELETE", f"/api/shelf/{items[0]['id']}")
    other = visitor()
    other.enter("POST", "/api/session/demo", {})
    assert len(other.get("/api/shelf").json["items"]) == len(SAMPLE_BOXES)
