"""What the round of a tank's room has for it this week, as its logbook says."""

from datetime import date, datetime

from reedmace.core.upkeep.care_schemas import RoundVisit, RoundWeek
from reedmace.core.upkeep.room_round import WEEK_DAYS
from reedmace.logbook.care.last_done import last_done
from reedmace.logbook.replay.breeding_entries import OnRound, TaskOnRound
from reedmace.logbook.replay.state import LogbookState


def round_week(state: LogbookState, now: datetime) -> RoundWeek | None:
    """The round's week for a tank's care plan; None where none stands. state: the tank's; now: aware time."""
    taken = max((e for e in state.events if isinstance(e.body, OnRound)), key=lambda e: e.id, default=None)
    if taken is None or not isinstance(body := taken.body, OnRound):
        return None
    today = now.date()
    passed = (today - body.from_day).days
    if not 0 <= passed < WEEK_DAYS:
        return None
    visits = [v for v in (_visit(state, task, taken.at, now) for task in body.tasks) if v is not None]
    return RoundWeek(until_days=WEEK_DAYS - passed, visits=visits)


def _visit(state: LogbookState, task: TaskOnRound, taken_at: datetime, now: datetime) -> RoundVisit | None:
    """One task of the round; None where all of it was done since the round was taken on."""
    done = last_done(state, task.what, task.filter_key)
    days: list[date] = task.days
    if done is not None and done >= taken_at:
        # Of what comes several times a week, the walks after the last time.
        days = [d for d in days if d > done.date()] if len(days) > 1 else []
        if not days:
            return None
    return RoundVisit(
        what=task.what,
        filter_key=task.filter_key,
        due_day=min(max((task.due_at - now).total_seconds() / 86400, -4000.0), 4000.0),
        walk_days=[float((d - now.date()).days) for d in days],
    )
