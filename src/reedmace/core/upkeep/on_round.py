"""A care plan beside a room's round: each task on its walking day, or left for next week."""

from collections.abc import Iterable

from reedmace.core.upkeep.care_schemas import CareTask, CareWhat, RoundVisit, RoundWeek

ON_ROUND, LEFT = "on the room's round", "the room's round leaves it for next week"
SOONER_DAYS = 0.5
"""Days by which a task has become due earlier since the round was taken on, past which the round no longer holds it
back (a stated judgement)."""


def on_round(tasks: Iterable[CareTask], week: RoundWeek) -> list[CareTask]:
    """Tasks with the days of the round; one that has become due sooner since keeps its own.

    tasks: of the care plan, soonest first; week: of the round.
    """
    visits = {(v.what, v.filter_key): v for v in week.visits}
    shifts: dict[tuple[CareWhat, str | None], float] = {}
    found = []
    for task in tasks:
        key = (task.what, task.filter_key)
        visit = visits.get(key)
        if visit is None:
            found.append(task)
        elif key not in shifts:
            moved = _moved(task, visit, week.until_days)
            shifts[key] = moved.in_days - task.in_days
            found.append(moved)
        else:
            # What comes after it keeps its interval.
            found.append(task.model_copy(update={"in_days": max(task.in_days + shifts[key], 0.0)}))
    return found


def _moved(task: CareTask, visit: RoundVisit, until_days: float) -> CareTask:
    """The next occurrence of a task on the day the round has for it."""
    own = task.in_days - task.late_days
    if own < visit.due_day - SOONER_DAYS:
        return task
    if visit.walk_days:
        # What comes several times a week is done on the first walk on which it is due.
        walk = next((d for d in visit.walk_days if len(visit.walk_days) == 1 or d >= own // 1), None)
        if walk is None:
            return task
        words = ON_ROUND
    else:
        walk, words = max(until_days, own), LEFT
    day = max(walk, task.not_before_days, 0.0)
    if day == task.in_days:
        return task
    return task.model_copy(update={"in_days": day, "late_days": max(-walk, 0.0) if day <= 0 else 0.0, "moved": words})
