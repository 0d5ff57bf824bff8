"""Practice tanks over the API: their own clock, out of everything real, to the page at the end."""

import io
import zipfile
from collections.abc import Callable
from datetime import UTC, datetime, timedelta

import pytest
from apiflask import APIFlask
from werkzeug.test import TestResponse

from reedmace.practice.lesson import lessons
from tests.api.conftest import Keeper


@pytest.fixture
def at_practice(keeper: Keeper) -> tuple[Keeper, int]:
    """A keeper at the first cycle, with a tank of a fixed seed."""
    made = keeper.send("POST", "/api/practice/tanks", {"lesson": "first-cycle", "seed": 5})
    assert made.status_code == 201
    return keeper, made.json["tank_id"]


def passed(keeper: Keeper, tank: int, until: str) -> dict:
    answer = keeper.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": until})
    assert answer.status_code == 200, answer.json
    return answer.json


def test_a_practice_tank_lives_by_its_own_clock(at_practice: tuple[Keeper, int]) -> None:
    keeper, tank = at_practice
    begun = datetime.fromisoformat(keeper.get(f"/api/practice/tanks/{tank}").json["now"])
    after = passed(keeper, tank, "week")
    assert len(after["passed"]["days"]) == 7
    assert after["practice"]["day"] == pytest.approx(7, abs=0.01)
    # What is written is written now, whatever time a browser sends.
    entry = keeper.write(tank, {"kind": "note", "text": "A week later"}, at="2020-01-01T00:00:00Z").json
    assert abs(datetime.fromisoformat(entry["at"]) - begun - timedelta(days=7)) < timedelta(minutes=5)
    assert keeper.get(f"/api/tanks/{tank}").json["tank"]["practice"] is True


def test_the_kit_shows_what_the_lesson_put_into_the_water(at_practice: tuple[Keeper, int]) -> None:
    keeper, tank = at_practice
    before = keeper.get(f"/api/practice/tanks/{tank}/vials").json
    assert before["vials"]["ammonia"] < 0.2
    assert before["entered"] is None
    keeper.write(tank, {"kind": "dose", "raise_mg_n_l": 1.55})
    passed(keeper, tank, "day")
    keeper.send("POST", f"/api/practice/tanks/{tank}/settings", {"reads_vials": False})
    after = keeper.get(f"/api/practice/tanks/{tank}/vials").json
    assert after["vials"]["ammonia"] > 3
    assert after["entered"]["ammonia_ppm"] >= 1


def test_the_clock_stops_where_animals_are_in_danger(at_practice: tuple[Keeper, int]) -> None:
    keeper, tank = at_practice
    keeper.write(tank, {"kind": "stocking", "species_id": "neon-tetra", "count": 24})
    for _ in range(5):
        after = passed(keeper, tank, "week")
        if after["passed"]["danger"]:
            break
    assert after["passed"]["danger"]
    assert after["passed"]["stopped"]
    assert after["practice"]["day"] < 28


def test_the_end_uncovers_the_truth_once_and_counts(at_practice: tuple[Keeper, int]) -> None:
    keeper, tank = at_practice
    assert keeper.get(f"/api/practice/tanks/{tank}/end").status_code == 404
    keeper.write(tank, {"kind": "stocking", "species_id": "neon-tetra", "count": 24})
    for _ in range(4):
        passed(keeper, tank, "week")
    page = keeper.send("POST", f"/api/practice/tanks/{tank}/end", {}).json
    assert page["lost_count"] > 0
    assert not page["won"]
    assert len(page["truth"]) > 50
    assert keeper.get(f"/api/practice/tanks/{tank}/end").json == page
    assert keeper.write(tank, {"kind": "note", "text": "Too late"}).status_code == 409
    assert keeper.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "day"}).status_code == 409
    row = next(x for x in keeper.get("/api/practice/lessons").json["lessons"] if x["id"] == "first-cycle")
    assert (row["tried_count"], row["won_count"], row["done"], row["tank_id"]) == (1, 0, False, None)


def test_nothing_of_practice_shows_in_anything_real(at_practice: tuple[Keeper, int]) -> None:
    keeper, tank = at_practice
    real = keeper.tank("Real")
    keeper.write(tank, {"kind": "flow-test", "container_l": 2, "times_s": [20], "computed_lph": 500})
    assert [t["id"] for t in keeper.get("/api/tanks").json["tanks"]] == [real]
    assert [r["tank"]["id"] for r in keeper.get("/api/today").json["rows"]] == [real]
    for address in ("/api/ahead", "/api/calendar.ics", "/api/tanks/aside", "/api/everything.json", "/api/shelf"):
        assert f'"{tank}"' not in keeper.get(address).text
        assert "Practice" not in keeper.get(address).text
    refused = [
        keeper.send("POST", f"/api/tanks/{tank}/link"),
        keeper.send("POST", f"/api/tanks/{tank}/archive"),
        keeper.send("POST", f"/api/tanks/{tank}/copy", {"name": "Real now"}),
        keeper.send("POST", f"/api/tanks/{tank}/devices", {"name": "Probe", "kind": "ph-probe"}),
        keeper.send("POST", f"/api/tanks/{tank}/readings.csv", None),
    ]
    assert [r.status_code for r in refused] == [409] * 5
    many = {"key": "many-0001", "at": datetime.now(UTC).isoformat(), "tank_ids": [tank, real]}
    answer = keeper.send("POST", "/api/entries/many", {**many, "body": {"kind": "note", "text": "Both"}})
    assert answer.status_code >= 400
    assert "Both" not in keeper.get(f"/api/tanks/{tank}/entries").text
    assert keeper.send("POST", "/api/rooms", {"name": "Rack", "tank_ids": [tank, real]}).status_code >= 400


def text_of(answer: TestResponse) -> str:
    """All text of an answer; of a zip, of every file in it."""
    if answer.mimetype != "application/zip":
        return answer.get_data(as_text=True)
    packed = zipfile.ZipFile(io.BytesIO(answer.data))
    return "".join(packed.read(name).decode(errors="replace") for name in packed.namelist())


def test_no_address_without_a_tank_in_it_tells_of_practice(at_practice: tuple[Keeper, int], app: APIFlask) -> None:
    keeper, tank = at_practice
    keeper.write(tank, {"kind": "note", "text": "Seen nowhere but here"})
    asked = 0
    for rule in app.url_map.iter_rules():
        # The lessons and their tanks are this module's own.
        if "GET" not in (rule.methods or ()) or rule.arguments or rule.rule.startswith("/api/practice"):
            continue
        text = text_of(keeper.get(f"{rule.rule}{'?as=csv' if rule.rule.endswith('/tables.zip') else ''}"))
        asked += 1
        assert "Practice: The first cycle" not in text, rule.rule
        assert "Seen nowhere but here" not in text, rule.rule
    assert asked > 20


def test_another_keeper_reaches_none_of_it(at_practice: tuple[Keeper, int], sign_up: Callable[[], Keeper]) -> None:
    _, tank = at_practice
    other = sign_up()
    posted = [("POST", path) for path in ("/pass", "/settings", "/end")]
    for method, path in [("GET", ""), ("GET", "/vials"), ("GET", "/end"), ("DELETE", ""), *posted]:
        body = {"until": "day"} if path == "/pass" else {}
        assert other.send(method, f"/api/practice/tanks/{tank}{path}", body).status_code == 404


@pytest.mark.parametrize("lesson", list(lessons()))
def test_every_lesson_begins_and_every_stage_of_it_opens(keeper: Keeper, lesson: str) -> None:
    tank = keeper.send("POST", "/api/practice/tanks", {"lesson": lesson, "seed": 11}).json["tank_id"]
    state = keeper.get(f"/api/tanks/{tank}").json
    assert state["fault"] is None
    assert keeper.get(f"/api/tanks/{tank}/cycle").status_code == 200
    assert keeper.get(f"/api/tanks/{tank}/views/keep").status_code == 200
    for stage in ("tank", "stock", "filter", "fit"):
        assert keeper.send("POST", f"/api/tanks/{tank}/views/{stage}", {}).status_code == 200
    assert keeper.send("DELETE", f"/api/practice/tanks/{tank}").status_code == 200
    assert keeper.get(f"/api/tanks/{tank}").status_code == 404


def test_bad_asks_are_told_what_is_wrong(keeper: Keeper) -> None:
    answer = keeper.send("POST", "/api/practice/tanks", {"lesson": "no-such"})
    assert answer.status_code == 422
    assert "no-such" in answer.json["detail"]
    real = keeper.tank("Real")
    assert keeper.send("POST", f"/api/practice/tanks/{real}/pass", {"until": "day"}).status_code == 404


def test_a_practice_tank_lives_four_hundred_days_and_says_so(at_practice: tuple[Keeper, int]) -> None:
    keeper, tank = at_practice
    for _ in range(70):
        answer = keeper.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "week"})
        if answer.status_code == 409:
            break
    assert answer.status_code == 409
    assert "400 days" in answer.json["detail"]
    assert keeper.get(f"/api/practice/tanks/{tank}").json["day"] == 400
    assert keeper.send("POST", f"/api/practice/tanks/{tank}/end", {}).status_code == 200


def test_a_twin_of_a_tank_with_own_species_and_no_alkalinity_lives(keeper: Keeper) -> None:
    tank = keeper.tank("Real")
    own = {
        "id": "own-1", "common_name": "Reed darter", "scientific_name": "Darter", "group": "other",
        "adult_length_cm": 4, "body_form": "slender", "ration_percent_day": 2, "protein_percent": 40,
        "temperature_low_c": 20, "temperature_high_c": 27, "ph_low": 6, "ph_high": 8, "swims": "middle",
        "current": "gentle", "needs_guard": False, "sizing": "community",
    }  # fmt: skip
    plan = {"kind": "stock-plan", "animals": [{"species_id": "own-1", "count": 5}], "own_species": [own]}
    made = keeper.write(tank, plan)
    assert made.status_code == 201, made.json
    keeper.write(tank, {"kind": "stocking", "species_id": "own-1", "count": 5})
    keeper.write(tank, {"kind": "reading", "kh_dkh": 0, "ph": 6.2, "ammonia_ppm": 0.25})
    twin = keeper.send("POST", "/api/practice/tanks", {"lesson": "free", "tank_id": tank}).json["tank_id"]
    assert passed(keeper, twin, "week")["practice"]["day"] > 0
    assert keeper.get(f"/api/practice/tanks/{twin}/vials").status_code == 200
    assert keeper.send("POST", f"/api/practice/tanks/{twin}/end", {}).status_code == 200


@pytest.mark.parametrize("lesson", list(lessons()))
def test_a_lesson_can_be_ended_before_any_time_has_passed(keeper: Keeper, lesson: str) -> None:
    tank = keeper.send("POST", "/api/practice/tanks", {"lesson": lesson, "seed": 3}).json["tank_id"]
    page = keeper.send("POST", f"/api/practice/tanks/{tank}/end", {})
    assert page.status_code == 200
    assert page.json["decisions"] == []


def test_a_lesson_side_by_side_is_begun_passed_ended_and_left_together(keeper: Keeper) -> None:
    made = keeper.send("POST", "/api/practice/tanks", {"lesson": "power-cut", "seed": 5}).json
    ids = [one["tank_id"] for one in made["beside"]]
    assert [one["label"] for one in made["beside"]] == ["Canister", "Hang-on", "Sponge"]
    assert made["tank_id"] == ids[0]
    second = keeper.get(f"/api/practice/tanks/{ids[1]}").json
    assert (second["label"], second["beside"]) == ("Hang-on", made["beside"])
    # Something written at one of them takes a minute of its own; the next jump brings all to one moment.
    keeper.write(ids[2], {"kind": "note", "text": "Looked at the bubbles"})
    passed(keeper, ids[1], "day")
    clocks = {keeper.get(f"/api/practice/tanks/{one}").json["day"] for one in ids}
    assert len(clocks) == 1
    page = keeper.send("POST", f"/api/practice/tanks/{ids[2]}/end", {}).json
    assert page["label"] == "Sponge"
    assert [one["tank_id"] for one in page["beside"]] == ids
    assert keeper.get(f"/api/practice/tanks/{ids[0]}/end").json["label"] == "Canister"
    row = next(x for x in keeper.get("/api/practice/lessons").json["lessons"] if x["id"] == "power-cut")
    assert row["tried_count"] == 1
    assert keeper.send("DELETE", f"/api/practice/tanks/{ids[1]}", {}).status_code == 200
    assert all(keeper.get(f"/api/practice/tanks/{one}").status_code == 404 for one in ids)


def test_media_moved_into_a_new_tank_are_missing_in_the_old_one(keeper: Keeper) -> None:
    made = keeper.send("POST", "/api/practice/tanks", {"lesson": "seeded", "seed": 6}).json
    old, new = (one["tank_id"] for one in made["beside"][:2])
    assert [one["opens"] for one in made["beside"][:2]] == ["keep", "cycle"]
    began = made["now"]
    plan = {"kind": "cycle-plan", "method": "seeded-filter", "seed_share": 1.0, "started_at": began}
    keeper.write(new, plan)
    for one in (old, new):
        keeper.send("POST", f"/api/practice/tanks/{one}/settings", {"reads_vials": False})
    for _ in range(3):
        passed(keeper, new, "day")
    assert keeper.get(f"/api/practice/tanks/{old}/vials").json["entered"]["ammonia_ppm"] > 0.2
