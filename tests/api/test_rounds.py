"""A room's round over HTTP: proposed, taken on, walked, rolled on; nobody else's business."""

from datetime import UTC, date, datetime, timedelta

import pytest
import time_machine

from reedmace.demo.sample_boxes import SAMPLE_BOXES

SPONGE = next(f for f in SAMPLE_BOXES if f.id == "burreed-20").model_dump(mode="json")
NOW = datetime.now(UTC).replace(microsecond=0)
TODAY = NOW.date()
EVERY_DAY = {"weekdays": [0, 1, 2, 3, 4, 5, 6], "people_count": 1, "change_lph": 600}


@pytest.fixture
def rack(keeper):
    """A room of four tanks with sponges, guppies and forty days of history, and its number."""
    ids, long_ago = [], (NOW - timedelta(days=40)).isoformat()
    for n in range(4):
        tank = keeper.tank(f"Rack {n + 1}")
        for body in (
            {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}},
            {"kind": "filter-plan", "filters": [{"key": "f1", "filter": SPONGE}]},
            {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 6}]},
            {"kind": "situation", "stands": "running", "since": ago(200)},
        ):
            keeper.write(tank, body, at=long_ago)
        reading = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 15, "ph": 7.6, "kh_dkh": 6}
        keeper.write(tank, reading, at=ago(4))
        keeper.write(tank, {"kind": "water-change", "share": 0.25}, at=ago(7))
        ids.append(tank)
    return ids, keeper.send("POST", "/api/rooms", {"name": "Rack", "tank_ids": ids}).json["id"]


def ago(days: float) -> str:
    return (NOW - timedelta(days=days)).isoformat()


def seen(keeper, room: int, day: date) -> dict:
    answer = keeper.get(f"/api/rooms/{room}/round?today={day}")
    assert answer.status_code == 200, answer.json
    return answer.json


def take(keeper, room: int, *, habits: dict = EVERY_DAY, take: bool = True, today: date = TODAY):
    body = {"habits": habits, "today": str(today), "take": take}
    return keeper.send("PUT", f"/api/rooms/{room}/round", body)


def open_tasks(day: dict) -> list[tuple[int, str]]:
    return [
        (stop["tank_id"], walk["task"]["what"])
        for stop in day["stops"]
        for walk in stop["tasks"]
        if walk["state"] == "open"
    ]


def test_a_week_is_laid_out_shown_with_other_habits_and_nothing_is_written(keeper, rack) -> None:
    ids, room = rack
    first = seen(keeper, room, TODAY)
    assert first["taken_on"] is None
    assert "4 water changes" in first["verdict"]
    assert {stop["tank_id"] for d in first["days"] for stop in d["stops"]} == set(ids)
    body = {"habits": {**EVERY_DAY, "weekdays": [(TODAY.weekday() + 3) % 7]}, "today": str(TODAY)}
    other = keeper.send("POST", f"/api/rooms/{room}/round/view", body).json
    assert [d["day"] for d in other["days"]] == [str(TODAY + timedelta(days=3))]
    assert seen(keeper, room, TODAY) == first


def test_what_is_done_is_off_the_walk_and_what_is_left_rolls_on(keeper, rack) -> None:
    _, room = rack
    taken = take(keeper, room).json
    assert taken["taken_on"] == str(TODAY)
    todo = open_tasks(taken["days"][0])
    assert todo
    tank, what = todo[0]
    walk = next(w for s in taken["days"][0]["stops"] if s["tank_id"] == tank for w in s["tasks"])
    assert keeper.write(tank, walk["task"]["done"]).status_code == 201
    after = seen(keeper, room, TODAY)
    assert (tank, what) not in open_tasks(after["days"][0])
    assert after["days"][0]["done_count"] == 1
    with time_machine.travel(NOW + timedelta(days=1), tick=False):
        tomorrow = seen(keeper, room, TODAY + timedelta(days=1))
    left = [w for s in tomorrow["days"][0]["stops"] for w in s["tasks"] if w["left_from"] == str(TODAY)]
    assert len(left) == len(todo) - 1
    assert set(todo[1:]) <= set(open_tasks(tomorrow["days"][0]))


def test_a_round_is_over_after_its_week_and_given_back_by_a_press(keeper, rack) -> None:
    _, room = rack
    take(keeper, room)
    assert take(keeper, room, take=False).json["taken_on"] is None
    take(keeper, room)
    with time_machine.travel(NOW + timedelta(days=7), tick=False):
        assert seen(keeper, room, TODAY + timedelta(days=7))["taken_on"] is None


def test_poison_takes_a_tank_off_the_routine_and_says_so_at_its_place(keeper, rack) -> None:
    ids, room = rack
    take(keeper, room)
    keeper.write(ids[1], {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 5, "ph": 7.6})
    view = seen(keeper, room, TODAY)
    (shelf,) = [s for s in view["shelves"] if s["tank_id"] == ids[1]]
    assert shelf["urgent"]
    assert view["verdict"].startswith("Rack 2 cannot wait. ")
    assert take(keeper, room, take=False).json["verdict"].startswith("Rack 2 cannot wait. This week: ")
    view = take(keeper, room).json
    assert (ids[1], "change") not in [t for d in view["days"] for t in open_tasks(d)]


def test_film_that_must_rest_waits_whatever_was_taken_on(keeper, rack) -> None:
    ids, room = rack
    taken = take(keeper, room).json
    squeezed = [t for d in taken["days"] for t, what in open_tasks(d) if what == "clean"]
    assert squeezed
    assert len(squeezed) <= 2
    keeper.write(squeezed[0], {"kind": "stocking", "species_id": "guppy", "count": 8})
    view = seen(keeper, room, TODAY)
    states = {
        walk["state"]
        for d in view["days"]
        for s in d["stops"]
        if s["tank_id"] == squeezed[0]
        for walk in s["tasks"]
        if walk["task"]["what"] == "clean"
    }
    assert states == {"waits"}
    assert ids


@pytest.mark.parametrize(
    ("habits", "day"),
    [
        ({**EVERY_DAY, "weekdays": []}, str(TODAY)),
        ({**EVERY_DAY, "weekdays": [7]}, str(TODAY)),
        ({**EVERY_DAY, "people_count": 0}, str(TODAY)),
        ({**EVERY_DAY, "change_lph": 1e9}, str(TODAY)),
        (EVERY_DAY, "2031-01-01"),
        (EVERY_DAY, "9999-12-31"),
        (EVERY_DAY, "no day"),
    ],
)
def test_habits_and_days_that_cannot_be_are_told_and_nothing_is_kept(keeper, rack, habits: dict, day: str) -> None:
    _, room = rack
    answer = keeper.send("PUT", f"/api/rooms/{room}/round", {"habits": habits, "today": day, "take": True})
    assert answer.status_code == 422, answer.json
    assert seen(keeper, room, TODAY)["taken_on"] is None


def test_another_keepers_room_is_none(keeper, rack, visitor) -> None:
    _, room = rack
    other = visitor()
    other.enter("POST", "/api/session/guest", {})
    assert other.get(f"/api/rooms/{room}/round?today={TODAY}").status_code == 404
    assert take(other, room).status_code == 404


def days_of(keeper, tank: int) -> dict[str, str]:
    """The day Keep has for the next of each task of a tank."""
    rows = keeper.get(f"/api/tanks/{tank}/views/keep").json["rows"]
    return {row["task"]["what"]: row["at"][:10] for row in reversed(rows)}


def on_calendar(keeper, tank: int) -> dict[str, str]:
    """The day Today has for what it lists of a tank, by title, and how it says so."""
    (one,) = [t for t in keeper.get("/api/today").json["rows"] if t["tank"]["id"] == tank]
    return {d["title"]: d["at"][:10] + d["detail"] for d in one["due"]}


def test_today_and_keep_follow_the_round_until_it_is_given_back(keeper, rack) -> None:
    ids, room = rack
    before = {tank: days_of(keeper, tank) for tank in ids}
    walk, next_week = str(TODAY + timedelta(days=1)), str(TODAY + timedelta(days=7))
    view = take(keeper, room, habits={**EVERY_DAY, "weekdays": [(TODAY.weekday() + 1) % 7]}).json
    walked = {t for d in view["days"] for t in open_tasks(d)}
    left = {t for t in ids if (t, "clean") not in walked and before[t]["clean"] < next_week}
    assert left
    assert len(left) < len(ids)
    for tank in ids:
        assert days_of(keeper, tank)["change"] == walk
        assert days_of(keeper, tank)["clean"] == (next_week if tank in left else walk)
        said = on_calendar(keeper, tank)
        (change,) = [words for title, words in said.items() if title.startswith("Change 25")]
        assert change.startswith(walk)
        assert "Moved: on the room's round." in change
    # The round itself goes on reckoning with the tanks' own days.
    assert [open_tasks(d) for d in seen(keeper, room, TODAY)["days"]] == [open_tasks(d) for d in view["days"]]
    take(keeper, room, take=False)
    assert {tank: days_of(keeper, tank) for tank in ids} == before


def test_a_test_that_reads_poison_speaks_before_the_round(keeper, rack) -> None:
    ids, room = rack
    take(keeper, room, habits={**EVERY_DAY, "weekdays": [(TODAY.weekday() + 3) % 7]})
    keeper.write(ids[0], {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 5, "ph": 7.6})
    (one,) = [t for t in keeper.get("/api/today").json["rows"] if t["tank"]["id"] == ids[0]]
    assert one["urgent"]
    assert "change" not in days_of(keeper, ids[0])


def test_a_tank_that_leaves_the_room_has_its_own_days_again(keeper, rack) -> None:
    ids, room = rack
    before = {tank: days_of(keeper, tank) for tank in ids}
    take(keeper, room, habits={**EVERY_DAY, "weekdays": [(TODAY.weekday() + 3) % 7]})
    plan = keeper.get(f"/api/rooms/{room}").json["room"]
    plan["plan"]["spots"] = [s for s in plan["plan"]["spots"] if s["tank_id"] != ids[0]]
    body = {"name": plan["name"], "plan": plan["plan"], "version": plan["version"]}
    assert keeper.send("PUT", f"/api/rooms/{room}", body).status_code == 200
    assert days_of(keeper, ids[0]) == before[ids[0]]
    assert days_of(keeper, ids[1]) != before[ids[1]]
    assert keeper.send("DELETE", f"/api/rooms/{room}", None).status_code == 200
    assert days_of(keeper, ids[1]) == before[ids[1]]


def test_young_that_swim_are_fed_on_every_walk_until_they_are_gone(keeper, rack) -> None:
    ids, room = rack
    steps: tuple[tuple[str, int, dict[str, int]], ...] = (
        ("pair", 12, {}),
        ("spawned", 9, {}),
        ("hatched", 7, {}),
        ("free-swimming", 2, {}),
        ("counted", 1, {"count": 80}),
    )
    for what, days, more in steps:
        body = {"kind": "brood", "brood": "brood-1", "species_id": "angelfish", "what": what, **more}
        assert keeper.write(ids[1], body, at=ago(days)).status_code == 201
    take(keeper, room)
    days = seen(keeper, room, TODAY)["days"]
    assert [(ids[1], "feed-young") in open_tasks(day) for day in days] == [True] * 7
    today = next(
        walk["task"] for stop in days[0]["stops"] for walk in stop["tasks"] if walk["task"]["what"] == "feed-young"
    )
    assert today["title"] == "Feed the young 4 times"
    assert today["why"].startswith("Angelfish: ")
    assert today["minutes"] == 8
    assert keeper.write(ids[1], today["done"]).status_code == 201
    after = seen(keeper, room, TODAY)["days"]
    assert (ids[1], "feed-young") not in open_tasks(after[0])
    assert (ids[1], "feed-young") in open_tasks(after[1])
    sold = {"kind": "brood", "brood": "brood-1", "species_id": "angelfish", "what": "sold", "count": 80}
    assert keeper.write(ids[1], sold).status_code == 201
    assert all((ids[1], "feed-young") not in open_tasks(day) for day in seen(keeper, room, TODAY)["days"])
