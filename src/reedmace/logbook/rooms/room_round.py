"""A room's round: the week's work proposed or taken on, day by day, and what is done of it."""

from collections.abc import Mapping, Sequence
from datetime import UTC, date, datetime, time, timedelta
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.quantity import formatting
from reedmace.core.upkeep import RoomRoundAnswer, RoomRoundQuestion, RoundTask, room_round
from reedmace.core.upkeep.room_round import WEEK_DAYS, duration_words, minutes_with_pump
from reedmace.logbook.plans.room_plan import RoomPlan, RoundHabits, TakenRound, TakenTask
from reedmace.logbook.replay.breeding_entries import OnRound, TaskOnRound
from reedmace.logbook.rooms.round_tasks import TankTask

LEAST_EVERY_DAYS = 0.05


class RoundTank(Part):
    """A tank of the round: what the walk must know of it."""

    tank_id: Annotated[int, whole(1, 2**53)]
    name: Name
    quarantined: bool = Field(description="Last, with its own net and bucket")
    air: bool = Field(description="Driven by air: its bubbles are looked at in passing")
    urgent: str | None = Field(description="What cannot wait there")
    tasks: list[TankTask]


class WalkTask(Part):
    """One task on the walk."""

    task: TankTask
    state: Literal["open", "done", "waits"]
    left_from: date | None = Field(description="The day it was meant for, where that is over")


class Stop(Part):
    """A tank on the walk, with what is done there that day."""

    tank_id: Annotated[int, whole(1, 2**53)]
    name: Name
    shelf: Annotated[int, whole(0, 39, "From below, 0 for the first")]
    quarantined: bool
    air: bool
    urgent: str | None
    tasks: list[WalkTask]


class WalkDay(Part):
    """One walking day."""

    day: date
    stops: list[Stop]
    minutes: Annotated[float, number("min", 0, 1e6, "What is still open")]
    open_count: Annotated[int, whole(0, 3000)]
    done_count: Annotated[int, whole(0, 3000)]


class RoundView(Part):
    """The round of a room."""

    verdict: str
    habits: RoundHabits
    taken_on: date | None = Field(description="First day of the round that was taken on; none of one proposed")
    proposed: RoomRoundAnswer | None = Field(description="The week as it would be taken on")
    days: list[WalkDay] = Field(description="Today first, with what an earlier day left")
    shelves: list[Stop] = Field(description="Every tank in the order of the walk, for looking at a whole shelf")


def walk_order(plan: RoomPlan) -> list[tuple[int, int]]:
    """(tank id, shelf) along each shelf from the left, the lowest shelf first. plan: the room's."""
    heights = [shelf.y_cm for shelf in plan.shelves]
    spots = sorted(plan.spots, key=lambda s: (heights[s.shelf] if s.shelf < len(heights) else 0.0, s.shelf, s.x_cm))
    return [(s.tank_id, s.shelf) for s in spots]


def _walk_days(habits: RoundHabits, today: date) -> list[int]:
    """Days from today on which the room is walked."""
    return [n for n in range(WEEK_DAYS) if (today + timedelta(days=n)).weekday() in habits.weekdays]


def round_question(
    habits: RoundHabits, plan: RoomPlan, tanks: Mapping[int, RoundTank], now: datetime, today: date
) -> RoomRoundQuestion:
    """Input of the week's round.

    habits: of the walk; plan: the room's; tanks: those in it, by id; now: aware time; today: the keeper's day.
    """
    places = {tank_id: n for n, (tank_id, _) in enumerate(walk_order(plan))}
    tasks = [
        RoundTask(
            key=task.key,
            tank=tank.name,
            place_count=places[tank.tank_id],
            what=task.what,
            every_days=max(task.every_days, LEAST_EVERY_DAYS),
            next_day=_days(task.due_at - now),
            not_before_day=max(_days(task.not_before_at - now), 0.0),
            minutes=task.minutes,
            litres=min(task.litres, 1e5),
            sponge=task.sponge,
            last=tank.quarantined,
        )
        for tank in tanks.values()
        for task in tank.tasks
    ]
    return RoomRoundQuestion(
        tasks=tasks[:1600],
        walk_days=_walk_days(habits, today),
        people_count=habits.people_count,
        change_lph=habits.change_lph,
    )


def _days(span: timedelta) -> float:
    return min(max(span.total_seconds() / 86400, -4000.0), 4000.0)


def taken_on(answer: RoomRoundAnswer, now: datetime, today: date) -> TakenRound:
    """A proposed week as taken on. answer: the proposal; now: aware time; today: the keeper's day."""
    tasks = [TakenTask(key=key, day=today + timedelta(days=d.day)) for d in answer.days for key in d.keys]
    return TakenRound(taken_at=now, from_day=today, tasks=tasks[:1600])


def round_entries(taken: TakenRound | None, tanks: Mapping[int, RoundTank], today: date) -> dict[int, OnRound]:
    """What each tank's logbook gets when a round is taken on or given back, by tank.

    taken: the round, None when it is given back; tanks: in the room, by id; today: the keeper's day.
    """
    days: dict[str, list[date]] = {}
    for task in taken.tasks if taken else []:
        days.setdefault(task.key, []).append(task.day)
    ends = today + timedelta(days=WEEK_DAYS)
    return {
        tank_id: OnRound(
            kind="on-round",
            from_day=today,
            tasks=[
                TaskOnRound(what=t.what, filter_key=t.filter_key, due_at=t.due_at, days=sorted(days.get(t.key, []))[:7])
                for t in tank.tasks
                if taken is not None and (t.key in days or t.due_at.date() < ends)
            ][:100],
        )
        for tank_id, tank in tanks.items()
    }


def stands(taken: TakenRound | None, today: date) -> TakenRound | None:
    """The round taken on, while its week lasts. taken: as stored; today: the keeper's day."""
    return taken if taken is not None and 0 <= (today - taken.from_day).days < WEEK_DAYS else None


def round_view(
    plan: RoomPlan, habits: RoundHabits, tanks: Mapping[int, RoundTank], now: datetime, today: date
) -> RoundView:
    """The round of a room: the one taken on, or else the week as it would be.

    plan: the room's; habits: as chosen on the page; tanks: those in it, by id; now: aware time; today: the keeper's
    day.
    """
    order = [(i, shelf) for i, shelf in walk_order(plan) if i in tanks]
    shelves = sorted((_stop(tanks[i], shelf, []) for i, shelf in order), key=lambda s: s.quarantined)
    # No routine speaks before what is urgent.
    urgent = [tanks[i].name for i, _ in order if tanks[i].urgent]
    cannot_wait = f"{_named(urgent)} cannot wait. " if urgent else ""
    taken = stands(plan.taken, today)
    if taken is None:
        answer = room_round(round_question(habits, plan, {i: tanks[i] for i, _ in order}, now, today))
        days = _taken_days(taken_on(answer, now, today), tanks, order, habits, now, today)
        return RoundView(
            verdict=cannot_wait + answer.verdict,
            habits=habits,
            taken_on=None,
            proposed=answer,
            days=[d for d in days if d.stops],
            shelves=shelves,
        )
    days = _taken_days(taken, tanks, order, habits, now, today)
    return RoundView(
        verdict=cannot_wait + _verdict(days, today),
        habits=habits,
        taken_on=taken.from_day,
        proposed=None,
        days=days,
        shelves=shelves,
    )


def _taken_days(
    taken: TakenRound,
    tanks: Mapping[int, RoundTank],
    order: Sequence[tuple[int, int]],
    habits: RoundHabits,
    now: datetime,
    today: date,
) -> list[WalkDay]:
    """The rest of the week: what was not done on its day is on today's walk."""
    known = {task.key: task for tank in tanks.values() for task in tank.tasks}
    on: dict[date, dict[str, list[WalkTask]]] = {today: {}}
    for meant in sorted(taken.tasks, key=lambda t: t.day):
        task = known.get(meant.key)
        # What the tank's own rules no longer ask for, while poison is watched for instance, is on no walk.
        if task is None:
            continue
        state = _state(task, meant, taken, now)
        if state == "done" and meant.day < today:
            continue
        day = max(meant.day, today)
        of_tank = on.setdefault(day, {}).setdefault(str(task.tank_id), [])
        if all(w.task.key != task.key for w in of_tank):
            of_tank.append(WalkTask(task=task, state=state, left_from=meant.day if meant.day < day else None))
    return [_walk_day(day, on[day], tanks, order, habits) for day in sorted(on)]


def _state(task: TankTask, meant: TakenTask, taken: TakenRound, now: datetime) -> Literal["open", "done", "waits"]:
    """Whether a task of the round is done, still open, or has to wait by its tank's own rules."""
    # What comes back within the week is done once for each of its days.
    since = taken.taken_at
    if task.every_days < WEEK_DAYS:
        begun = datetime.combine(meant.day, time(), UTC)
        since = max(since, begun - timedelta(days=max(task.every_days - 1, 0.0) / 2))
    if task.done_at is not None and task.done_at >= since:
        return "done"
    return "waits" if task.not_before_at > now + timedelta(days=1) else "open"


def _walk_day(
    day: date,
    work: Mapping[str, list[WalkTask]],
    tanks: Mapping[int, RoundTank],
    order: Sequence[tuple[int, int]],
    habits: RoundHabits,
) -> WalkDay:
    stops = [_stop(tanks[i], shelf, work[str(i)]) for i, shelf in order if str(i) in work]
    tasks = [w for stop in stops for w in stop.tasks]
    open_ = [w.task for w in tasks if w.state == "open"]
    return WalkDay(
        day=day,
        stops=sorted(stops, key=lambda s: s.quarantined),
        minutes=sum(minutes_with_pump(t.minutes, t.litres, habits.change_lph) for t in open_) / habits.people_count,
        open_count=len(open_),
        done_count=sum(w.state == "done" for w in tasks),
    )


def _stop(tank: RoundTank, shelf: int, work: list[WalkTask]) -> Stop:
    return Stop(
        tank_id=tank.tank_id,
        name=tank.name,
        shelf=min(shelf, 39),
        quarantined=tank.quarantined,
        air=tank.air,
        urgent=tank.urgent,
        tasks=work,
    )


def _verdict(days: list[WalkDay], today: date) -> str:
    """What is left of today's walk, or when the next one is."""
    now = next(d for d in days if d.day == today)
    if now.open_count:
        left = sum(w.left_from is not None and w.state == "open" for s in now.stops for w in s.tasks)
        names = [s.name for s in now.stops if any(w.state == "open" for w in s.tasks)]
        rest = f" {left} of them {'is' if left == 1 else 'are'} left from an earlier day." if left else ""
        things = formatting.opening(_things(now.open_count))
        return f"{things} to do today in {_named(names)}, about {duration_words(now.minutes)}.{rest}"
    ahead = next((d for d in days if d.day > today and d.open_count), None)
    done = "Today's walk is done. " if now.done_count else ""
    if ahead is None:
        return f"{done}Nothing is left of this week's round."
    when = "tomorrow" if (ahead.day - today).days == 1 else f"on {ahead.day:%A}"
    return f"{done}The next walk is {when}: {_things(ahead.open_count)}, about {duration_words(ahead.minutes)}."


def _things(count: int) -> str:
    return "one thing" if count == 1 else f"{count} things"


def _named(names: list[str]) -> str:
    """Tanks by name, or counted where they are many."""
    if len(names) > 3:
        return f"{len(names)} tanks"
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


__all__ = ["RoundTank", "RoundView", "round_entries", "round_question", "round_view", "taken_on"]
