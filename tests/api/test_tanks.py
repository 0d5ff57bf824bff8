"""Tanks and the logbook: isolation, idempotence, conflict, correction, CSV, bad input."""

import csv
import re
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from reedmace.database import connect
from reedmace.demo.sample_boxes import SAMPLE_BOXES

TANK_PLAN: dict[str, Any] = {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}}
READING = {"kind": "reading", "ammonia_ppm": 0.5, "nitrite_ppm": 1, "ph": 7.4}


def routes_of_a_tank(app):
    for rule in app.url_map.iter_rules():
        if "<int:tank_id>" in rule.rule:
            for method in sorted(rule.methods & {"GET", "POST", "PUT", "PATCH", "DELETE"}):
                yield method, rule.rule


def address(rule: str, tank: int) -> str:
    """An address of a route. rule: of it; tank: whose; all else is number 1."""
    where = re.sub(r"<int:\w+>", "1", rule.replace("<int:tank_id>", str(tank)))
    return f"{where}?key=intruder-9&at=2026-01-01T00:00:00Z" if where.endswith("/photos") else where


def test_no_route_lets_one_account_see_or_touch_anothers_tank(app, sign_up) -> None:
    owner, other = sign_up(), sign_up()
    tank = owner.tank()
    owner.write(tank, READING)
    before = owner.get(f"/api/tanks/{tank}/entries").json
    routes = list(routes_of_a_tank(app))
    assert len(routes) >= 8
    bodies = {
        "devices": {"name": "Mine now", "kind": "smart-plug"},
        "entries": {"key": "intruder-1", "at": datetime.now(UTC).isoformat(), "body": READING},
        "tank_id>": {"name": "Mine now"},
        "readings/preview": {"text": "date,ammonia\n2026-01-01,1\n"},
        "readings/import": {"text": "date,ammonia\n2026-01-01,1\n"},
        "views/tank": {},
        "views/stock": {},
        "views/filter": {},
        "views/fit": {},
        "views/begin": {},
        "copy": {"name": "Mine now"},
        "again": {"key": "intruder-2"},
        "pass": {"until": "day"},
        "settings": {"feed": 0},
        "photo_id>": {"shown": True},
    }
    for method, rule in routes:
        body = next((b for end, b in bodies.items() if rule.endswith(end)), None)
        response = other.send(
            method,
            address(rule, tank),
            body if method != "GET" else None,
        )
        assert response.status_code == 404, (method, rule, response.status_code)
        assert "Shelf" not in response.text
    assert owner.get(f"/api/tanks/{tank}/entries").json == before
    assert all(t["id"] != tank for t in other.get("/api/tanks").json["tanks"])
    assert all(r["tank"]["id"] != tank for r in other.get("/api/today").json["rows"])


def test_no_route_answers_a_stranger(app, visitor) -> None:
    for method, rule in routes_of_a_tank(app):
        assert visitor().send(
            method,
            address(rule, 1),
            {"name": "x"},
        ).status_code in (401, 422)
    for path in ("/api/tanks", "/api/today"):
        assert visitor().get(path).status_code == 401


def test_the_same_send_twice_makes_one_entry(keeper) -> None:
    tank = keeper.tank()
    first, second = (keeper.write(tank, READING, key="the-same-key-1") for _ in range(2))
    assert first.status_code == second.status_code == 201
    assert first.json["id"] == second.json["id"]
    assert len(keeper.get(f"/api/tanks/{tank}/entries").json["entries"]) == 1


def test_a_key_belongs_to_its_tank(keeper) -> None:
    one, two = keeper.tank(), keeper.tank()
    assert (
        keeper.write(one, READING, key="shared-key-1").json["id"]
        != keeper.write(two, READING, key="shared-key-1").json["id"]
    )


def test_a_correction_supersedes_and_the_first_is_still_there(keeper) -> None:
    tank = keeper.tank()
    wrong = keeper.write(tank, READING).json
    keeper.write(tank, {**READING, "ammonia_ppm": 0.25}, supersedes=wrong["id"])
    readings = keeper.get(f"/api/tanks/{tank}").json["state"]["readings"]
    assert [r["body"]["ammonia_ppm"] for r in readings] == [0.25]
    assert len(keeper.get(f"/api/tanks/{tank}/entries").json["entries"]) == 2


def test_a_withdrawal_takes_back_and_can_be_taken_back(keeper) -> None:
    tank = keeper.tank()
    entry = keeper.write(tank, READING).json
    keeper.write(tank, {"kind": "withdrawal"}, supersedes=entry["id"])
    assert keeper.get(f"/api/tanks/{tank}").json["state"]["readings"] == []


def test_only_an_entry_of_this_tank_can_be_corrected(keeper) -> None:
    one, two = keeper.tank(), keeper.tank()
    other = keeper.write(two, READING).json["id"]
    assert keeper.write(one, READING, supersedes=other).status_code == 404


def test_the_second_tab_is_told_and_shown_what_stands(keeper) -> None:
    tank = keeper.tank()
    base = keeper.write(tank, TANK_PLAN).json["id"]
    mine = {**TANK_PLAN, "tank": {**TANK_PLAN["tank"], "height_cm": 50}}
    theirs = {**TANK_PLAN, "tank": {**TANK_PLAN["tank"], "height_cm": 40}}
    assert keeper.write(tank, theirs, based_on=base).status_code == 201
    refused = keeper.write(tank, mine, based_on=base)
    assert refused.status_code == 409
    assert refused.json["current"]["body"]["tank"]["height_cm"] == 40
    assert refused.json["differences"] == [{"field": "Height", "theirs": "40 cm", "mine": "50 cm"}]
    assert keeper.write(tank, mine, based_on=refused.json["current"]["id"]).status_code == 201
    assert keeper.get(f"/api/tanks/{tank}").json["state"]["tank_plan"]["body"]["tank"]["height_cm"] == 50


def test_a_first_plan_meets_a_first_plan(keeper) -> None:
    tank = keeper.tank()
    assert keeper.write(tank, TANK_PLAN).status_code == 201
    assert keeper.write(tank, TANK_PLAN).status_code == 409


def test_a_plan_sent_again_after_a_lost_answer_is_not_a_conflict(keeper) -> None:
    tank = keeper.tank()
    first = keeper.write(tank, TANK_PLAN, key="plan-key-0001")
    assert keeper.write(tank, TANK_PLAN, key="plan-key-0001").json == first.json


def test_steps_are_remembered_and_unticked(keeper) -> None:
    tank = keeper.tank()
    keeper.write(tank, {"kind": "step-done", "step_id": "canister-feet"})
    keeper.write(tank, {"kind": "step-done", "step_id": "canister-media"})
    keeper.write(tank, {"kind": "step-done", "step_id": "canister-feet", "done": False})
    assert list(keeper.get(f"/api/tanks/{tank}").json["state"]["steps_done"]["f1"]) == ["canister-media"]


def test_rename_and_remove(keeper) -> None:
    tank = keeper.tank()
    keeper.write(tank, READING)
    assert keeper.send("PATCH", f"/api/tanks/{tank}", {"name": "  Landing "}).json["name"] == "Landing"
    assert keeper.send("DELETE", f"/api/tanks/{tank}").status_code == 200
    assert keeper.get(f"/api/tanks/{tank}").status_code == 404


def test_pages_follow_each_other_without_gap_or_repeat(keeper) -> None:
    tank = keeper.tank()
    for i in range(7):
        keeper.write(tank, {"kind": "note", "text": f"note {i}"})
    seen, before = [], None
    while True:
        page = keeper.get(f"/api/tanks/{tank}/entries?limit=3" + (f"&before={before}" if before else "")).json
        seen += [e["body"]["text"] for e in page["entries"]]
        before = page["next_before"]
        if before is None:
            break
    assert seen == [f"note {i}" for i in range(6, -1, -1)]


def test_readings_go_out_as_csv_and_come_in_again(keeper) -> None:
    one, two = keeper.tank(), keeper.tank()
    at = datetime(2026, 11, 1, 7, 40, tzinfo=UTC)
    keeper.write(one, {**READING, "nitrite_ppm": 5, "off_scale": ["nitrite"], "temperature_c": 25.5}, at=at.isoformat())
    keeper.write(one, {**READING, "basis": "N"}, at=(at + timedelta(days=1)).isoformat())
    text = keeper.get(f"/api/tanks/{one}/readings.csv").text
    assert (
        text.splitlines()[0]
        == "at,basis,ammonia_ppm,nitrite_ppm,nitrate_ppm,ph,kh_dkh,temperature_c,phosphate_ppm,salinity_g_kg,gh_dgh,"
        "oxygen_mg_l,other_kit"
    )
    assert "5+" in text
    taken = keeper.client.post(f"/api/tanks/{two}/readings.csv", data=text, headers={"X-CSRF-Token": keeper.token})
    assert taken.json == {"added": 2, "known": 0}
    again = keeper.client.post(f"/api/tanks/{two}/readings.csv", data=text, headers={"X-CSRF-Token": keeper.token})
    assert again.json == {"added": 0, "known": 2}
    assert keeper.get(f"/api/tanks/{two}/readings.csv").text == text


@pytest.mark.parametrize(
    ("text", "where"),
    [
        ("at,ammonia_ppm\n2026-01-01T08:00,0.5\n2026-01-02T08:00,lots\nyesterday,1\n", "line 3, ammonia_ppm"),
        ("when,ammonia_ppm\n2026-01-01,1\n", "line 1, when"),
        ("at,ph\n2026-01-01T08:00,77\n", "line 2, ph"),
        ("at,ph\n2126-01-01T08:00,7\n", "line 2, at"),
        ("at,ph\n2026-01-01T08:00,7,8,9\n", "line 2"),
        ("at,ph\n2026-01-01T08:00,\n", "line 2"),
        ("at,ph,basis\n2026-01-01T08:00,7,moon\n", "line 2"),
    ],
    ids=[
        "word for a figure",
        "unknown column",
        "out of range",
        "future",
        "too many fields",
        "no figure",
        "unknown basis",
    ],
)
def test_a_faulty_csv_imports_nothing_and_names_each_row(keeper, text: str, where: str) -> None:
    tank = keeper.tank()
    response = keeper.client.post(f"/api/tanks/{tank}/readings.csv", data=text, headers={"X-CSRF-Token": keeper.token})
    assert response.status_code == 422
    assert any(e["where"].startswith(where) for e in response.json["errors"])
    assert keeper.get(f"/api/tanks/{tank}/entries").json["entries"] == []


def test_a_semicolon_csv_with_decimal_commas_is_taken(keeper) -> None:
    tank = keeper.tank()
    response = keeper.client.post(
        f"/api/tanks/{tank}/readings.csv",
        data="at;ammonia_ppm\n2026-01-01T08:00;0,5\n",
        headers={"X-CSRF-Token": keeper.token},
    )
    assert response.json == {"added": 1, "known": 0}
    assert keeper.get(f"/api/tanks/{tank}").json["state"]["readings"][0]["body"]["ammonia_ppm"] == 0.5


def test_the_cycle_is_asked_of_the_logbook(keeper) -> None:
    tank = keeper.tank()
    assert keeper.get(f"/api/tanks/{tank}/cycle").json["log"] is None
    start = datetime.now(UTC) - timedelta(days=10)
    keeper.write(tank, {"kind": "cycle-plan", "started_at": start.isoformat(), "start_kh_dkh": 6})
    keeper.write(tank, {"kind": "dose", "raise_mg_n_l": 1.5}, at=start.isoformat())
    keeper.write(tank, {**READING, "kh_dkh": 5, "ammonia_ppm": 1.2878}, at=(start + timedelta(days=9)).isoformat())
    cycle = keeper.get(f"/api/tanks/{tank}/cycle").json
    assert cycle["log"]["day_now"] == pytest.approx(10, abs=0.01)
    assert cycle["log"]["readings"][0]["ammonia_mg_n_l"] == pytest.approx(1, rel=1e-3)
    assert cycle["log"]["doses"][0]["raise_mg_n_l"] == 1.5
    assert cycle["readiness"]["ready"] is False
    assert cycle["forecast"]["outcome"] == "range"
    assert cycle["advice"]["first"]["title"]


def test_the_list_of_stages_says_where_each_stage_stands(keeper) -> None:
    tank = keeper.tank()
    assert [s["state"] for s in keeper.get(f"/api/tanks/{tank}").json["tank"]["stages"]] == ["open"] * 6
    keeper.write(tank, TANK_PLAN)
    keeper.write(tank, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 8}]})
    words = {s["stage"]: s["words"] for s in keeper.get(f"/api/tanks/{tank}").json["tank"]["stages"]}
    assert "L net" in words["tank"]
    assert words["stock"] == "8 animals"


def test_a_list_of_tanks_takes_as_many_queries_for_ten_as_for_one(keeper, app) -> None:
    import logging

    class Count(logging.Handler):
        def __init__(self) -> None:
            super().__init__(logging.DEBUG)
            self.seen = 0

        def emit(self, record: logging.LogRecord) -> None:
            self.seen += 1

    logger = logging.getLogger("peewee")
    counts = []
    for more in (1, 9):
        for _ in range(more):
            keeper.write(keeper.tank(), READING)
        handler = Count()
        logger.addHandler(handler)
        logger.setLevel(logging.DEBUG)
        assert keeper.get("/api/tanks").status_code == keeper.get("/api/today").status_code == 200
        logger.removeHandler(handler)
        logger.setLevel(logging.NOTSET)
        counts.append(handler.seen)
    assert counts[0] == counts[1] > 0


@pytest.mark.parametrize(
    ("body", "where"),
    [
        ({"key": "short", "at": "2026-01-01T00:00:00Z", "body": READING}, "key"),
        ({"key": "long-enough-1", "at": "2026-01-01T00:00:00", "body": READING}, "at"),
        ({"key": "long-enough-1", "at": "3026-01-01T00:00:00Z", "body": READING}, "at"),
        ({"key": "long-enough-1", "at": "2026-01-01T00:00:00Z", "body": {"kind": "poem"}}, "body"),
        ({"key": "long-enough-1", "at": "2026-01-01T00:00:00Z", "body": {**READING, "ph": 40}}, "body.reading.ph"),
        (
            {
                "key": "long-enough-1",
                "at": "2026-01-01T00:00:00Z",
                "body": {"kind": "reading", "ammonia_ppm": float("nan")},
            },
            "body.reading.ammonia_ppm",
        ),
        ({"key": "long-enough-1", "at": "2026-01-01T00:00:00Z"}, "body"),
        ([], "input"),
    ],
    ids=["short key", "no zone", "far future", "unknown kind", "ph 40", "nan", "no body", "a list"],
)
def test_an_entry_that_cannot_be_used_is_a_problem_that_says_where(keeper, body: object, where: str) -> None:
    response = keeper.send("POST", f"/api/tanks/{keeper.tank()}/entries", body)
    assert response.status_code == 422
    assert response.content_type == "application/problem+json"
    assert where in {e["where"] for e in response.json["errors"]}
    assert all(e["what"] and e["remedy"] for e in response.json["errors"])


@pytest.mark.parametrize(
    ("data", "kind", "status"),
    [
        (b"{", "application/json", 400),
        (b"\xff\xfe", "application/json", 400),
        (b"", "application/json", 400),
        (b"[" * 100_000, "application/json", 400),
        (b'"' + b"x" * 2_100_000 + b'"', "application/json", 413),
    ],
    ids=["broken json", "not text", "nothing", "deep nesting", "too large"],
)
def test_bytes_that_are_no_json_are_refused_in_words(keeper, data: bytes, kind: str, status: int) -> None:
    response = keeper.client.post("/api/tanks", data=data, content_type=kind, headers={"X-CSRF-Token": keeper.token})
    assert response.status_code == status
    assert response.json["detail"]


@pytest.mark.parametrize(
    "path",
    [
        "/api/tanks/99999999999999999999",
        "/api/tanks/0",
        "/api/tanks/-1",
        "/api/tanks/x",
        "/api/nothing",
        "/api/compute/tea-leaves/schema",
    ],
)
def test_addresses_that_lead_nowhere_are_404_problems(keeper, path: str) -> None:
    response = keeper.get(path)
    assert response.status_code == 404
    assert response.content_type == "application/problem+json"


def test_a_database_that_is_away_is_a_503_that_says_nothing_was_saved(visitor) -> None:
    from reedmace.api import Settings, create_app

    app = create_app(Settings(database_url="mysql://a:b@127.0.0.1:9/none", secret_key="x", quick_hash=True))
    response = app.test_client().get("/api/session")
    assert response.status_code == 503
    assert "Nothing was saved" in response.json["detail"]


def test_a_wrong_database_address_is_refused_with_an_example() -> None:
    with pytest.raises(ValueError, match="mysql://user"):
        connect("http://example")


def test_a_shopping_list_is_csv_with_the_amounts_of_the_list(sign_up) -> None:
    keeper = sign_up()
    tank = chosen_tank(keeper, "sweetflag-800")
    items = {i["item"]: i["amount"] for i in keeper.get(f"/api/tanks/{tank}/buying").json["items"]}
    lines = keeper.get(f"/api/tanks/{tank}/buying.csv").text.splitlines()
    assert lines[0] == "item,amount,unit,need,why"
    assert any(line.startswith("Hose clamps,4,piece") for line in lines)
    assert items["Hose clamps"] == 4
    assert keeper.get(f"/api/tanks/{keeper.tank()}/buying").status_code == 409
    rows = csv.reader(lines[1:])
    hose = next(float(r[1]) for r in rows if r[2] == "m")
    keeper.send("PUT", "/api/account/units", {"volume": "US gal", "length": "in", "temperature": "°F"})
    in_feet = list(csv.reader(keeper.get(f"/api/tanks/{tank}/buying.csv").text.splitlines()[1:]))
    assert next(float(r[1]) for r in in_feet if r[2] == "ft") == pytest.approx(hose / 0.3048, rel=1e-3)
    assert not {r[2] for r in in_feet} & {"m", "cm", "L"}


def test_a_tank_says_what_its_filter_is_chosen_for(sign_up) -> None:
    keeper = sign_up()
    tank = keeper.tank()
    body = {
        **TANK_PLAN,
        "surroundings": {"behind_cm": 4, "stand_height_cm": 66, "cabinet_cm": 50, "water": "salt", "planted": True},
    }
    keeper.write(tank, body)
    view = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json
    room = view["shown"]["filters"][0]["installed"]["plan_question"]["site"]
    assert (room["behind_cm"], room["beneath_cm"], room["water"], room["planted"]) == (4, 50, "salt", True)
    assert room["film_here_m2"] > 0.5
    assert any("community" in a for a in view["assumed"])


def chosen_tank(keeper, filter_id: str) -> int:
    chosen = next(f for f in SAMPLE_BOXES if f.id == filter_id).model_dump(mode="json")
    tank = keeper.tank()
    keeper.write(tank, TANK_PLAN)
    keeper.write(tank, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": chosen}]})
    return tank


def test_the_plumbing_out_gives_epanet_the_flow_on_screen(sign_up, tmp_path) -> None:
    import wntr

    keeper = sign_up()
    tank = chosen_tank(keeper, "sweetflag-800")
    file = tmp_path / "plumbing.inp"
    file.write_text(keeper.get(f"/api/tanks/{tank}/plumbing.inp").text)
    network = wntr.network.WaterNetworkModel(str(file))
    solved = wntr.sim.EpanetSimulator(network).run_sim(file_prefix=str(tmp_path / "run"), version=2.2)
    # What Fit shows: the flow through the hoses as they are laid out on this tank.
    fit = keeper.send("POST", f"/api/tanks/{tank}/views/fit", {}).json
    shown = fit["filters"][0]["installed"]["flow"]["delivered_lph"]
    assert float(solved.link["flowrate"]["pump"].iloc[0]) * 3.6e6 == pytest.approx(shown, rel=0.005)
    # And its table of heads, worked out from what the screen holds, names the points of that file.
    path = fit["filters"][0]["installed"]["flow"]["path"]
    heads = keeper.send("POST", "/api/compute/plumbing-heads", path).json
    found = solved.node["head"].iloc[0]
    assert {node["name"] for node in heads["nodes"]} < set(found.index)
    for node in heads["nodes"]:
        assert node["clean_m"] == pytest.approx(float(found[node["name"]]), rel=0.005, abs=0.003), node


def test_the_plumbing_out_has_three_states_and_knows_no_fourth(sign_up) -> None:
    keeper = sign_up()
    tank = chosen_tank(keeper, "sweetflag-800")
    titles = {
        state: keeper.get(f"/api/tanks/{tank}/plumbing.inp?state={state}").text.splitlines()[1]
        for state in ("clean", "serviced", "dirty")
    }
    assert titles["serviced"] == "Reedmace plumbing, with the dirt a service leaves"
    assert len(set(titles.values())) == 3
    assert keeper.get(f"/api/tanks/{tank}/plumbing.inp?state=filthy").status_code == 422


def test_air_driven_filters_have_no_plumbing_to_give(sign_up) -> None:
    keeper = sign_up()
    answer = keeper.get(f"/api/tanks/{chosen_tank(keeper, 'burreed-20')}/plumbing.inp")
    assert answer.status_code == 409
    assert "air-driven" in answer.json["detail"]


def test_leak_checks_are_a_calendar_two_parsers_read(sign_up) -> None:
    from icalendar import Calendar

    keeper = sign_up()
    tank = chosen_tank(keeper, "sweetflag-800")
    keeper.write(tank, {"kind": "step-done", "step_id": "canister-power"})
    text = keeper.get(f"/api/tanks/{tank}/calendar.ics").text
    events = [e for e in Calendar.from_ical(text).walk("VEVENT") if "Leak check" in str(e["summary"])]
    assert len(events) == 3
    # The second parser: unfold, and read by hand as RFC 5545 says.
    lines = text.replace("\r\n ", "").split("\r\n")
    starts = sorted(line.split(":", 1)[1] for line in lines if line.startswith("DTSTART"))
    assert starts == sorted(e["dtstart"].dt.strftime("%Y%m%dT%H%M%SZ") for e in Calendar.from_ical(text).walk("VEVENT"))
    assert lines[0] == "BEGIN:VCALENDAR"
    assert lines.count("BEGIN:VEVENT") == lines.count("END:VEVENT")
    assert len({line for line in lines if line.startswith("UID")}) == lines.count("BEGIN:VEVENT")
    today = keeper.get("/api/today").json["rows"][0]
    assert {"Leak check after five minutes", "Leak check after an hour"} <= {d["title"] for d in today["due"]}


def test_an_older_plan_is_taken_up_again_and_what_was_hung_since_keeps_its_history(sign_up) -> None:
    keeper = sign_up()
    tank = keeper.tank()
    one, two = (
        {"key": key, "filter": f.model_dump(mode="json")} for key, f in zip(("f1", "f2"), SAMPLE_BOXES, strict=False)
    )
    old = keeper.write(tank, {"kind": "filter-plan", "filters": [one]}).json["id"]
    new = keeper.write(tank, {"kind": "filter-plan", "filters": [one, two]}, based_on=old).json["id"]
    test = {"kind": "flow-test", "filter_key": "f2", "container_l": 2, "times_s": [10], "computed_lph": 700}
    keeper.write(tank, test)
    path, body = f"/api/tanks/{tank}/entries/{old}/again", {"key": "again-0001"}
    written = keeper.send("POST", path, body)
    assert written.status_code == 201
    assert keeper.send("POST", path, body).json["id"] == written.json["id"]
    plan = keeper.get(f"/api/tanks/{tank}").json["state"]["filter_plan"]
    assert plan["id"] == written.json["id"] > new
    assert [(f["key"], f["retired"]) for f in plan["body"]["filters"]] == [("f1", False), ("f2", True)]
    note = keeper.write(tank, {"kind": "note", "text": "No plan"}).json["id"]
    assert keeper.send("POST", f"/api/tanks/{tank}/entries/{note}/again", {"key": "again-0002"}).status_code == 409
    assert keeper.send("POST", f"/api/tanks/{tank}/entries/999999/again", {"key": "again-0003"}).status_code == 404
    other = sign_up()
    assert other.send("POST", path, {"key": "again-0004"}).status_code == 404
