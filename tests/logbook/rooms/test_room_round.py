"""A room's round: its walk, what is taken on, what is done, and what an earlier day left."""

from datetime import UTC, date, datetime, timedelta

import pytest

from reedmace.logbook.plans.room_plan import RoomPlan, RoundHabits, Shelf, Spot, TakenRound, TakenTask
from reedmace.logbook.rooms.room_round import (
    RoundTank,
    round_entries,
    round_question,
    round_view,
    stands,
    taken_on,
    walk_order,
)
from reedmace.logbook.rooms.round_tasks import TankTask

TODAY = date(2026, 3, 4)  # a Wednesday
NOW = datetime(2026, 3, 4, 9, tzinfo=UTC)
PLAN = RoomPlan(
    shelves=[Shelf(y_cm=120, length_cm=300), Shelf(y_cm=30, length_cm=300)],
    spots=[
        Spot(tank_id=1, x_cm=200, shelf=1),
        Spot(tank_id=2, x_cm=10, shelf=1),
        Spot(tank_id=3, x_cm=10, shelf=0),
    ],
)
HABITS = RoundHabits(weekdays=[0, 2, 5])


def a_task(tank_id: int, what: str = "change", **more: object) -> TankTask:
    usual = {
        "key": f"{tank_id}:{what}:",
        "tank_id": tank_id,
        "what": what,
        "filter_key": None,
        "title": "Change water",
        "why": "",
        "every_days": 7.0,
        "due_at": NOW,
        "not_before_at": NOW - timedelta(days=1),
        "waits": None,
        "done_at": None,
        "minutes": 5.0,
        "litres": 20.0,
        "sponge": False,
        "done": None,
        "stage": None,
        "pour": None,
    }
    return TankTask.model_validate({**usual, **more})


def a_tank(tank_id: int, *tasks: TankTask, **more: object) -> RoundTank:
    usual = {"quarantined": False, "air": True, "urgent": None}
    return RoundTank.model_validate(
        {"tank_id": tank_id, "name": f"Tank {tank_id}", "tasks": tasks or [a_task(tank_id)], **usual, **more}
    )


def tanks(*found: RoundTank) -> dict[int, RoundTank]:
    return {one.tank_id: one for one in found}


def taken(*days: int, key: str = "1:change:", ago: int = 2) -> TakenRound:
    """A round taken on some days ago, with one task on days counted from today."""
    tasks = [TakenTask(key=key, day=TODAY + timedelta(days=d)) for d in days]
    return TakenRound(taken_at=NOW - timedelta(days=ago), from_day=TODAY - timedelta(days=ago), tasks=tasks)


def view(round_: TakenRound | None, *found: RoundTank):
    return round_view(PLAN.model_copy(update={"taken": round_}), HABITS, tanks(*found), NOW, TODAY)


def test_the_walk_goes_along_each_shelf_the_lowest_first() -> None:
    assert walk_order(PLAN) == [(2, 1), (1, 1), (3, 0)]


def test_quarantined_tanks_come_last_wherever_they_stand() -> None:
    found = view(None, a_tank(1), a_tank(2, quarantined=True), a_tank(3))
    assert [s.tank_id for s in found.shelves] == [1, 3, 2]
    question = round_question(HABITS, PLAN, tanks(a_tank(1), a_tank(2, quarantined=True), a_tank(3)), NOW, TODAY)
    assert [t.last for t in question.tasks] == [False, True, False]


def test_only_walking_days_of_the_coming_week_are_asked() -> None:
    # From a Wednesday: today, Saturday, Monday.
    assert round_question(HABITS, PLAN, tanks(a_tank(1)), NOW, TODAY).walk_days == [0, 3, 5]


def test_a_proposed_week_is_taken_on_as_it_was_shown() -> None:
    found = view(None, a_tank(1), a_tank(2), a_tank(3))
    assert found.taken_on is None
    assert found.proposed is not None
    round_ = taken_on(found.proposed, NOW, TODAY)
    assert {t.key for t in round_.tasks} == {"1:change:", "2:change:", "3:change:"}
    again = view(round_, a_tank(1), a_tank(2), a_tank(3))
    assert again.taken_on == TODAY
    shown = {(d.day, w.task.key) for d in found.days for s in d.stops for w in s.tasks}
    kept = {(d.day, w.task.key) for d in again.days for s in d.stops for w in s.tasks}
    assert kept == shown == {(t.day, t.key) for t in round_.tasks}


def test_what_an_earlier_day_left_is_on_todays_walk_and_said() -> None:
    found = view(taken(-2), a_tank(1))
    (today,) = found.days
    (left,) = today.stops[0].tasks
    assert (left.state, left.left_from) == ("open", TODAY - timedelta(days=2))
    assert found.verdict.startswith("One thing to do today in Tank 1, about")
    assert found.verdict.endswith("1 of them is left from an earlier day.")


def test_what_was_done_is_done_and_not_carried_over() -> None:
    done = a_task(1, done_at=NOW - timedelta(hours=1))
    assert view(taken(0), a_tank(1, done)).days[0].stops[0].tasks[0].state == "done"
    earlier = a_task(1, done_at=NOW - timedelta(days=1))
    found = view(taken(-1), a_tank(1, earlier))
    assert found.days[0].stops == []
    assert found.verdict == "Nothing is left of this week's round."


def test_what_comes_back_within_the_week_is_done_once_for_each_day() -> None:
    daily = a_task(1, "feed-young", every_days=1.0, done_at=NOW - timedelta(hours=1))
    states = {
        d.day: w.state
        for d in view(taken(0, 1, key="1:feed-young:"), a_tank(1, daily)).days
        for s in d.stops
        for w in s.tasks
    }
    assert states == {TODAY: "done", TODAY + timedelta(days=1): "open"}


def test_what_its_tank_no_longer_asks_for_is_on_no_walk_and_what_must_wait_waits() -> None:
    assert view(taken(0, key="1:clean:f1"), a_tank(1)).days[0].stops == []
    waits = a_task(1, not_before_at=NOW + timedelta(days=3))
    found = view(taken(0), a_tank(1, waits))
    assert found.days[0].stops[0].tasks[0].state == "waits"
    assert found.days[0].open_count == 0


def test_minutes_count_the_pumping_and_are_shared_among_people() -> None:
    alone = view(taken(0), a_tank(1)).days[0].minutes
    two = round_view(
        PLAN.model_copy(update={"taken": taken(0)}),
        HABITS.model_copy(update={"people_count": 2}),
        tanks(a_tank(1)),
        NOW,
        TODAY,
    )
    # A change is pumped out and in again.
    assert alone == pytest.approx(5 + 2 * 20 / HABITS.change_lph * 60)
    assert two.days[0].minutes == pytest.approx(alone / 2)


def test_what_cannot_wait_is_said_before_any_routine() -> None:
    found = view(taken(0), a_tank(1, urgent="Ammonia stands high."), a_tank(2))
    assert found.verdict.startswith("Tank 1 cannot wait. ")
    proposed = view(None, a_tank(1, urgent="Ammonia stands high."))
    assert proposed.verdict.startswith("Tank 1 cannot wait. ")


def test_the_next_walk_is_named_where_today_has_none() -> None:
    assert view(taken(1), a_tank(1)).verdict.startswith("The next walk is tomorrow: one thing, about")
    assert view(taken(3), a_tank(1)).verdict.startswith("The next walk is on Saturday")


@pytest.mark.parametrize(("ago", "lasts"), [(0, True), (6, True), (7, False), (-1, False)])
def test_a_round_lasts_its_seven_days(ago: int, lasts: bool) -> None:
    round_ = taken(0, ago=ago)
    assert (stands(round_, TODAY) is round_) == lasts
    assert stands(None, TODAY) is None


def test_each_logbook_gets_its_days_and_what_was_due_but_left_out() -> None:
    round_ = taken(0, 3, ago=0)
    here = tanks(a_tank(1, a_task(1), a_task(1, "clean", due_at=NOW + timedelta(days=30))), a_tank(2))
    entries = round_entries(round_, here, TODAY)
    assert [(t.what, t.days) for t in entries[1].tasks] == [("change", [TODAY, TODAY + timedelta(days=3)])]
    # Due within the week and on no walk: it stands there with no day, so that nobody calls it late.
    assert [(t.what, t.days) for t in entries[2].tasks] == [("change", [])]
    assert all(entry.tasks == [] for entry in round_entries(None, here, TODAY).values())
