"""A tank's recurring tasks for its room's round."""

from datetime import timedelta

import pytest

from reedmace.core.upkeep.room_round import CHANGE_SETUP_MIN, MEAL_MIN
from reedmace.logbook.rooms.round_tasks import TankTask, round_tasks
from reedmace.logbook.rooms.shared_resources import RoomTank
from tests.support.fitting import BY_ID, NOW, state_of

SPONGE = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BY_ID["burreed-20"].model_dump()}]}
LIVED_IN = (
    (300, SPONGE),
    (300, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 8}]}),
    (299, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=600)).isoformat()}),
)


def tasks(*more: tuple[float, dict]) -> dict[str, TankTask]:
    return {t.what: t for t in round_tasks(RoomTank(5, "Rack", state_of(*LIVED_IN, *more)), NOW)}


def step(what: str, days: float, brood: str = "brood-1", **more: object):
    return (days, {"kind": "brood", "brood": brood, "species_id": "angelfish", "what": what, **more})


SWIM = (step("pair", 12), step("spawned", 9), step("hatched", 7), step("free-swimming", 2))


def test_nothing_is_asked_where_nothing_lives_and_a_look_is_in_passing() -> None:
    assert round_tasks(RoomTank(5, "Rack", state_of((300, SPONGE))), NOW) == []
    assert "look" not in tasks()


def test_a_change_is_set_up_and_pumped_and_a_squeeze_is_of_a_sponge() -> None:
    found = tasks()
    assert found["change"].minutes == CHANGE_SETUP_MIN
    assert found["change"].litres > 0
    assert found["clean"].sponge
    assert found["clean"].key == "5:clean:f1"
    assert not found["change"].sponge


def test_young_are_fed_from_when_they_swim_until_they_are_gone() -> None:
    assert "feed-young" not in tasks(*SWIM[:3])
    fed = tasks(*SWIM)["feed-young"]
    assert fed.due_at == NOW
    assert fed.minutes % MEAL_MIN == 0
    assert "feed-young" not in tasks(*SWIM, step("counted", 1, count=30), step("sold", 0.5, count=30))


def test_fed_today_is_due_tomorrow_and_missed_days_do_not_add_up() -> None:
    press = {"kind": "care", "what": "feed-young"}
    assert tasks(*SWIM, (0.25, press))["feed-young"].due_at == NOW + timedelta(days=0.75)
    assert tasks(*SWIM, (1.9, press))["feed-young"].due_at == NOW - timedelta(days=0.9)
    assert tasks(*SWIM, (30, press))["feed-young"].due_at == NOW - timedelta(days=1)


def test_two_broods_are_one_task_that_takes_twice_as_long() -> None:
    second = [(days, body | {"brood": "brood-2"}) for days, body in SWIM]
    one, two = tasks(*SWIM)["feed-young"], tasks(*SWIM, *second)["feed-young"]
    assert two.minutes == pytest.approx(2 * one.minutes)
    assert two.why.count("Angelfish") == 2


def test_young_that_nobody_described_are_fed_too() -> None:
    unknown = (2, {"kind": "brood", "brood": "brood-3", "species_id": "pond-shrimp", "what": "free-swimming"})
    alone, beside = tasks(unknown)["feed-young"], tasks(*SWIM, unknown)["feed-young"]
    assert alone.title == "Feed the young"
    assert "Nobody has described pond-shrimp" in alone.why
    assert alone.minutes == MEAL_MIN
    assert "Angelfish" in beside.why
    assert "pond-shrimp" in beside.why
