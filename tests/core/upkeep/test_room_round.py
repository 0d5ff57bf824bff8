"""Rounds through random rooms: films rest a fortnight, nothing is forgotten, weeks come out even."""

from dataclasses import dataclass, field

import numpy as np
import pytest

from reedmace.core.upkeep import RoomRoundQuestion, RoundTask, room_round
from reedmace.core.upkeep.room_round import FORGOTTEN_SHARE, minutes_of
from tests.support.bounds import bounded

FORTNIGHT = 14.0
WEEKS = 52


def task(key: str, what: str = "change", tank: str | None = None, **changes) -> RoundTask:
    usual = {"every_days": 7.0, "next_day": 0.0, "minutes": 5.0, "place_count": 0}
    return RoundTask.model_validate({"key": key, "tank": tank or key, "what": what, **usual, **changes})


def week(tasks: list[RoundTask], walk_days=(0, 2, 4), **more):
    return room_round(RoomRoundQuestion(tasks=tasks, walk_days=list(walk_days), **more))


def test_a_third_of_the_sponges_at_most_and_the_most_overdue_first() -> None:
    sponges = [
        task(f"s{i}", "clean", every_days=21, next_day=-float(i), minutes=3, place_count=i, sponge=True)
        for i in range(9)
    ]
    answer = week(sponges)
    assert sorted(k for d in answer.days for k in d.keys) == ["s6", "s7", "s8"]
    assert "squeeze a third of the rack (s6, s7 and s8)" in answer.verdict
    assert answer.later_count == 6
    assert "6 more that are due can wait for next week." in answer.verdict


def test_a_walk_goes_along_the_shelves_and_quarantine_comes_last() -> None:
    tasks = [task(f"t{i}", place_count=i, last=i == 0) for i in range(6)]
    answer = week(tasks)
    assert [k for d in answer.days for k in d.keys] == ["t1", "t2", "t3", "t4", "t5", "t0"]
    assert [d.minutes for d in answer.days] == [10, 10, 10]


def test_what_rests_waits_and_what_was_forgotten_goes_first() -> None:
    rests = task("rests", "clean", every_days=30, next_day=-15, not_before_day=3.5, place_count=0)
    forgotten = task("forgotten", "test", every_days=10, next_day=-12, place_count=9)
    answer = week([rests, forgotten, *(task(f"t{i}", place_count=i) for i in range(1, 9))])
    on = {k: d.day for d in answer.days for k in d.keys}
    assert on["rests"] == 4
    assert on["forgotten"] == 0


def test_several_times_a_week_comes_on_every_walk_it_is_due() -> None:
    answer = week([task("top", "top-up", every_days=2, next_day=1)], walk_days=range(7))
    assert [d.day for d in answer.days if d.keys] == [1, 3, 5]


def test_hands_and_pump_shorten_the_week() -> None:
    tasks = [task(f"t{i}", litres=60, place_count=i) for i in range(6)]
    one, two = week(tasks), week(tasks, people_count=2)
    assert one.week_minutes == pytest.approx(6 * (5 + 12))
    assert one.longest_day_minutes == pytest.approx(34)
    assert one.one_more_day_minutes == pytest.approx(two.longest_day_minutes) == pytest.approx(17)
    assert one.twice_the_pump_minutes == pytest.approx(week(tasks, change_lph=1200).week_minutes) == pytest.approx(66)


def test_an_empty_room_has_nothing_due() -> None:
    assert week([]).verdict == "Nothing falls due in this room this week."


@dataclass
class Room:
    """A room lived in week by week: when each task was last done."""

    seed: int
    last: dict[str, float] = field(default_factory=dict)

    def __post_init__(self) -> None:
        rng = self.rng = np.random.default_rng(self.seed)
        tanks = int(rng.integers(12, 61))
        self.tasks: dict[str, RoundTask] = {}
        for n in range(tanks):
            sponge = bool(rng.random() < 0.7)
            self.add(n, "clean", float(rng.uniform(18, 60)), 4 if sponge else 20, sponge=sponge)
            self.add(n, "change", float(rng.choice([7, 7, 10, 14])), 5, litres=float(rng.uniform(5, 60)))
            self.add(n, "test", 30.0, 10)
        walks = int(rng.integers(2, 8))
        self.walk_days = sorted(rng.choice(7, walks, replace=False).tolist())

    def add(self, place: int, what: str, every: float, minutes: float, **more) -> None:
        key = f"{what}-{place}"
        self.tasks[key] = task(key, what, f"T{place}", every_days=every, minutes=minutes, place_count=place, **more)
        self.last[key] = -float(self.rng.uniform(0, every))

    def walk(self, monday: float) -> float:
        """One week by the round. Returns its minutes."""
        asked = [
            t.model_copy(
                update={
                    "next_day": self.last[k] + t.every_days - monday,
                    "not_before_day": max(self.last[k] + FORTNIGHT - monday, 0.0) if t.what == "clean" else 0.0,
                }
            )
            for k, t in self.tasks.items()
        ]
        answer = week(asked, self.walk_days)
        for d in answer.days:
            for key in d.keys:
                since, every = monday + d.day - self.last[key], self.tasks[key].every_days
                assert since <= FORGOTTEN_SHARE * every + 1e-9, (self.seed, monday, key, since)
                if self.tasks[key].what == "clean":
                    assert since >= FORTNIGHT, (self.seed, key, since)
                self.last[key] = monday + d.day
        return answer.week_minutes


def test_a_year_in_random_rooms_keeps_films_apart_forgets_nothing_and_is_even() -> None:
    uneven, weeks = 0, 0
    for seed in range(bounded(2000, 60)):
        room = Room(seed)
        even = sum(minutes_of(t, 600) * 7 / t.every_days for t in room.tasks.values())
        for n in range(WEEKS):
            minutes = room.walk(7.0 * n)
            assert all(7 * (n + 1) - at <= 2 * room.tasks[k].every_days + 7 for k, at in room.last.items())
            uneven += abs(minutes - even) > 0.1 * even
            weeks += 1
    assert uneven <= 0.05 * weeks
