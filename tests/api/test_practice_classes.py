"""Classes: opened, joined by code without an account, led, uncovered, forgotten; nobody else's business."""

import itertools
from datetime import UTC, datetime, timedelta

import pytest
import time_machine

from tests.api.conftest import Keeper


@pytest.fixture(autouse=True)
def same_tanks(monkeypatch: pytest.MonkeyPatch) -> None:
    # What four weeks bring differs by seed: every run has the same tanks.
    seeds = itertools.count(12)
    monkeypatch.setattr("reedmace.api.practice_classes.secrets.randbelow", lambda most: next(seeds) % most)


@pytest.fixture
def teacher(keeper: Keeper) -> Keeper:
    return keeper


def opened(teacher, **more) -> dict:
    answer = teacher.send("POST", "/api/practice/classes", {"lesson": "first-cycle", **more})
    assert answer.status_code == 201, answer.json
    return answer.json


def joined(visitor, code: str, name: str):
    learner = visitor()
    learner.enter("POST", "/api/session/guest", {})
    answer = learner.send("POST", f"/api/practice/join/{code}", {"name": name})
    assert answer.status_code == 201, answer.json
    return learner, answer.json["tank_id"]


def board(teacher, one: dict) -> dict:
    return teacher.get(f"/api/practice/classes/{one['id']}").json


def test_learners_join_by_code_as_guests_and_get_the_same_tank(teacher, visitor) -> None:
    one = opened(teacher)
    assert visitor().get(f"/api/practice/join/{one['code'].lower()}").json["title"] == "The first cycle"
    first, tank = joined(visitor, one["code"], "  Ada ")
    joined(visitor, one["code"], "Bo")
    # Joined twice, the same tank.
    assert first.send("POST", f"/api/practice/join/{one['code']}", {"name": "Ada"}).json["tank_id"] == tank
    seen = board(teacher, one)
    assert [x["name"] for x in seen["learners"]] == ["Ada", "Bo"]
    assert seen["of_class"]["learners_count"] == 2
    assert all(x["truth"] is None for x in seen["learners"])
    assert seen["spreads"] == []
    started = [first.get(f"/api/practice/tanks/{tank}").json]
    assert started[0]["of_class"] == {"name": "Ada", "stopped": False}


def test_one_seed_for_all_or_each_their_own(teacher, visitor) -> None:
    def kinds(alike: bool) -> set[str]:
        one = opened(teacher, alike=alike)
        found = set()
        for name in "ABCD":
            learner, tank = joined(visitor, one["code"], name)
            learner.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "week"})
        teacher.send("POST", f"/api/practice/classes/{one['id']}", {"uncovered": True})
        for x in board(teacher, one)["learners"]:
            found.add(str(x["truth"]["clears_mg_n_l_day"]))
        return found

    assert len(kinds(alike=True)) == 1
    assert len(kinds(alike=False)) > 1


def test_the_teacher_stops_the_clock_sends_a_mishap_and_uncovers(teacher, visitor) -> None:
    one = opened(teacher)
    learner, tank = joined(visitor, one["code"], "Ada")
    lead = lambda **what: teacher.send("POST", f"/api/practice/classes/{one['id']}", what).json  # noqa: E731
    assert lead(stopped=True)["of_class"]["stopped"]
    refused = learner.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "day"})
    assert refused.status_code == 409
    assert "teacher" in refused.json["detail"]
    lead(stopped=False)
    assert lead(mishap="power-cut")["sent_count"] == 1
    passed = learner.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "week"}).json
    assert "power is off" in passed["passed"]["stopped"]
    assert passed["practice"]["day"] < 1
    seat = board(teacher, one)["learners"][0]
    course = f"/api/practice/classes/{one['id']}/learners/{seat['id']}"
    assert teacher.get(course).status_code == 409
    lead(uncovered=True)
    seen = board(teacher, one)
    assert seen["learners"][0]["truth"]["lost_count"] == 0
    assert {s["what"] for s in seen["spreads"]} >= {"days passed", "animals lost"}
    assert len(teacher.get(course).json["truth"]) >= 1
    ended = learner.send("POST", f"/api/practice/tanks/{tank}/end", {}).json
    assert any("power is off" in words for words in ended["happened"])


@pytest.mark.parametrize("kind", ["power-cut", "heater-stuck", "chloramine", "friend-fish", "guest-feeds"])
def test_every_mishap_is_met_and_does_something(teacher, visitor, kind: str) -> None:
    one = opened(teacher)
    learner, tank = joined(visitor, one["code"], "Ada")
    teacher.send("POST", f"/api/practice/classes/{one['id']}", {"mishap": kind})
    passed = learner.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "day"}).json["passed"]
    assert passed["stopped"]
    assert any(passed["stopped"] in day["seen"] for day in passed["days"])


def test_a_board_is_its_teachers_alone(teacher, visitor, sign_up) -> None:
    one = opened(teacher)
    learner, _ = joined(visitor, one["code"], "Ada")
    other = sign_up()
    path = f"/api/practice/classes/{one['id']}"
    for who in (learner, other):
        assert who.get(path).status_code == 404
        assert who.send("POST", path, {"stopped": True}).status_code == 404
        assert who.send("DELETE", path, {}).status_code == 404
        assert who.get("/api/practice/classes").json["classes"] == []
    assert visitor().get(path).status_code == 401
    assert not board(teacher, one)["of_class"]["stopped"]


def test_a_full_class_and_a_wrong_code_are_refused_in_words(teacher, visitor, monkeypatch) -> None:
    monkeypatch.setattr("reedmace.store.practice_classes.MOST_SEATS", 1)
    one = opened(teacher)
    joined(visitor, one["code"], "Ada")
    late = visitor()
    late.enter("POST", "/api/session/guest", {})
    full = late.send("POST", f"/api/practice/join/{one['code']}", {"name": "Bo"})
    assert full.status_code == 409
    assert "40 places" in full.json["detail"]
    assert late.send("POST", "/api/practice/join/XXXXXX", {"name": "Bo"}).status_code == 404
    assert late.send("POST", f"/api/practice/join/{one['code']}", {"name": "   "}).status_code == 422
    assert teacher.send("POST", "/api/practice/classes", {"lesson": "free"}).status_code == 422


def test_guessing_codes_is_stopped_and_a_right_one_still_opens(teacher, visitor) -> None:
    one = opened(teacher)
    guesser = visitor()
    codes = [guesser.get(f"/api/practice/join/GUESS{chr(65 + n % 26)}").status_code for n in range(80)]
    assert codes[0] == 404
    assert codes[-1] == 429
    assert guesser.get(f"/api/practice/join/{one['code']}").status_code == 200


def test_a_class_is_forgotten_after_a_month_and_learners_keep_their_tanks(teacher, visitor) -> None:
    one = opened(teacher)
    learner, tank = joined(visitor, one["code"], "Ada")
    with time_machine.travel(datetime.now(UTC) + timedelta(days=29)):
        assert visitor().get(f"/api/practice/join/{one['code']}").status_code == 200
    with time_machine.travel(datetime.now(UTC) + timedelta(days=31)):
        assert visitor().get(f"/api/practice/join/{one['code']}").status_code == 404
    closed = teacher.send("DELETE", f"/api/practice/classes/{one['id']}", {})
    assert closed.json == {"removed": True}
    assert learner.get(f"/api/practice/tanks/{tank}").json["of_class"] is None


def test_a_class_about_boxes_shows_what_each_chose_and_timed_and_uncovers_what_truly_comes(teacher, visitor) -> None:
    one = opened(teacher, lesson="box-label")
    learner, tank = joined(visitor, one["code"], "Ada")
    assert board(teacher, one)["learners"][0]["believed"] == "No filter is chosen yet."
    ranked = learner.send("POST", f"/api/tanks/{tank}/views/filter", {}).json["ranking"]["ranked"]
    boxes = [row for row in ranked if row["filter_id"].startswith("shelf-")]
    assert len(boxes) >= 2
    seen = learner.send("POST", f"/api/tanks/{tank}/views/filter", {"seen": [boxes[0]["filter_id"]]}).json["shown"]
    (box,) = (f["installed"]["filter"] for f in seen["filters"])
    learner.write(tank, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": box}]})
    (jug,) = learner.get(f"/api/practice/tanks/{tank}/jugs").json["jugs"]
    assert (jug["filter_key"], len(jug["times_s"])) == ("f1", 3)
    learner.write(tank, {"kind": "flow-test", **{k: jug[k] for k in ("filter_key", "container_l", "times_s")}})
    shown = board(teacher, one)["learners"][0]
    assert "timed at" in shown["believed"]
    assert (shown["tests_count"], shown["truth"]) == (1, None)
    teacher.send("POST", f"/api/practice/classes/{one['id']}", {"uncovered": True})
    lines = board(teacher, one)["learners"][0]["truth"]["equipment"]
    assert sum("its label promises" in line for line in lines) == 3
    # Nobody else holds a jug under it.
    assert teacher.get(f"/api/practice/tanks/{tank}/jugs").status_code == 404


def test_in_a_class_a_lesson_side_by_side_is_played_on_one_tank_each(teacher, visitor) -> None:
    one = opened(teacher, lesson="power-cut")
    assert "A tank that runs well" in visitor().get(f"/api/practice/join/{one['code']}").json["task"]
    learner, tank = joined(visitor, one["code"], "Ida")
    played = learner.get(f"/api/practice/tanks/{tank}").json
    assert played["beside"] == []
    assert played["lesson"]["goal"] == "All alive twelve days on."


def test_a_nitrite_test_gone_blind_is_seen_by_a_borrowed_kit(teacher, visitor) -> None:
    one = opened(teacher, lesson="saturdays-fish")
    learner, tank = joined(visitor, one["code"], "Ida")
    learner.send("POST", f"/api/practice/tanks/{tank}/settings", {"reads_vials": False})
    for _ in range(4):
        learner.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "week"})
    at = f"/api/practice/tanks/{tank}/vials"
    assert learner.get(at).json["entered"]["nitrite_ppm"] > 0
    teacher.send("POST", f"/api/practice/classes/{one['id']}", {"mishap": "nitrite-blind"})
    learner.send("POST", f"/api/practice/tanks/{tank}/pass", {"until": "day"})
    assert learner.get(at).json["entered"]["nitrite_ppm"] == 0
    borrowed = learner.get(f"{at}?other=true").json["entered"]
    assert borrowed["nitrite_ppm"] > 0
    assert borrowed["other_kit"]
