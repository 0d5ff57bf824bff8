"""A care plan on a room's round: walking days, what is left, and what has become due sooner since."""

from typing import Any

from reedmace.core.upkeep import CarePlanQuestion, care_plan
from reedmace.core.upkeep.care_schemas import CareTask, CareWhat, RoundVisit, RoundWeek
from reedmace.core.upkeep.on_round import LEFT, ON_ROUND, on_round


def task(what: CareWhat, in_days: float, **more: Any) -> CareTask:
    return CareTask(
        **{
            "what": what, "filter_key": None, "title": "Work", "why": "", "in_days": in_days, "late_days": 0,
            "moved": None, "film_left_share": 1, "every_days": 7, "not_before_days": 0, "minutes": 5, **more,
        }
    )  # fmt: skip


def visit(what: CareWhat, due_day: float, *walk_days: float) -> RoundVisit:
    return RoundVisit(what=what, due_day=due_day, walk_days=list(walk_days))


def moved(tasks: list[CareTask], *visits: RoundVisit, until: float = 6) -> list[tuple[str, float, str | None]]:
    found = on_round(tasks, RoundWeek(until_days=until, visits=list(visits)))
    return [(t.what, t.in_days, t.moved) for t in found]


def test_a_task_is_on_its_walking_day_and_the_next_keeps_its_interval() -> None:
    assert moved([task("change", 0.4), task("change", 7.4)], visit("change", 0.4, 3)) == [
        ("change", 3, ON_ROUND),
        ("change", 10, None),
    ]


def test_what_the_round_leaves_comes_after_its_week_or_on_its_own_later_day() -> None:
    assert moved([task("clean", 2.0)], visit("clean", 2.0)) == [("clean", 6, LEFT)]
    assert moved([task("clean", 6.5)], visit("clean", 6.5)) == [("clean", 6.5, None)]


def test_what_has_become_due_sooner_since_is_not_held_back() -> None:
    late = task("clean", 0.0, late_days=2.0)
    assert on_round([late], RoundWeek(until_days=6, visits=[visit("clean", 4.0)])) == [late]
    assert moved([task("test", 1.0), task("soda", 0.0)], visit("test", 1.0, 2)) == [
        ("test", 2, ON_ROUND),
        ("soda", 0.0, None),
    ]


def test_a_film_that_must_rest_waits_past_its_walk_and_a_missed_walk_is_late() -> None:
    assert moved([task("clean", 5.0, not_before_days=5.0)], visit("clean", 3.0, 1)) == [("clean", 5.0, None)]
    (found,) = on_round([task("change", 0.0, late_days=1.0)], RoundWeek(until_days=3, visits=[visit("change", -1, -2)]))
    assert (found.in_days, found.late_days) == (0, 1)


def test_what_comes_several_times_a_week_is_done_on_the_first_walk_from_its_day_on() -> None:
    often = task("top-up", 2.5, every_days=3)
    assert moved([often], visit("top-up", 2.5, 0, 2, 5)) == [("top-up", 2, ON_ROUND)]
    assert moved([task("top-up", 6.0, every_days=3)], visit("top-up", 6.0, 0, 2, 5)) == [("top-up", 6.0, None)]


def test_a_care_plan_has_its_tasks_in_the_order_of_the_round() -> None:
    week = {"until_days": 6, "visits": [{"what": "change", "due_day": 0, "walk_days": [4]}]}
    plan = care_plan(CarePlanQuestion(since_change_days=7, since_test_days=28, round_week=week))
    assert [(t.what, t.in_days) for t in plan.tasks[:2]] == [("test", 2), ("change", 4)]
    assert plan.verdict.startswith("Next: test ammonia")
