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
