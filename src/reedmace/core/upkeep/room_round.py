"""A week's round through a room of tanks: what is done, on which walking day, in the order of the shelves."""

import math
from collections.abc import Iterable, Sequence
from itertools import groupby
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Working, computation, number, whole
from reedmace.core.upkeep.care_schemas import CareWhat

WEEK_DAYS = 7
EARLY_SHARE = 0.25
"""Part of its interval by which a task may be done early, so that weeks come out even (a stated judgement)."""
LATEST_SHARE = 1.75
"""Part of its interval past which nothing is left for another week (a stated judgement)."""
FORGOTTEN_SHARE = 2.0
"""Part of its interval past which a task counts as forgotten: it goes to the first day (common practice)."""
MOST_FILM_SHARE = 1 / 3
"""Largest share of a room's sponges squeezed in a week, so that work and film come out even (common practice)."""
CHANGE_SETUP_MIN = 5.0
"""Minutes of a water change besides the pumping: hoses, treatment, wiping up (memory)."""
MEAL_MIN = 2.0
"""Minutes one meal of one brood takes (memory)."""
USUAL_PUMP_LPH = 600.0
"""Litres an hour through a hose or from buckets, out or in (memory)."""
NAMED = 4
"""Tanks named in the sentence; more are counted."""

Minutes = Annotated[float, number("min", 0, 1e6)]


class RoundTask(Part):
    """One task of one tank that comes back."""

    key: Name
    tank: Name
    place_count: Annotated[int, whole(0, 10000, "Places before it on the walk, along one shelf after the other")]
    what: CareWhat
    every_days: Annotated[float, number("days", 0.05, 4000)]
    next_day: Annotated[float, number("days", -40000, 4000, "Until it is due by the tank's own care plan")]
    not_before_day: Annotated[float, number("days", 0, 4000, "While film settles, or its keeper is away")] = 0
    minutes: Annotated[float, number("min", 0, 600, "A water change: besides the pumping")]
    litres: Annotated[float, number("L", 0, 1e5, "Of a water change")] = 0
    sponge: bool = Field(default=False, description="The squeeze of an air-driven filter")
    last: bool = Field(default=False, description="In quarantine: walked last, with its own net and bucket")


class RoomRoundQuestion(Question):
    """Every recurring task of a room, and the days on which somebody walks it."""

    tasks: Annotated[list[RoundTask], Field(max_length=1600)]
    walk_days: Annotated[
        list[Annotated[int, whole(0, 6, "Days from now")]],
        Field(min_length=1, max_length=7, description="Days of the coming week on which the room is walked"),
    ]
    people_count: Annotated[int, whole(1, 20)] = 1
    change_lph: Annotated[float, number("L/h", 20, 50000, "Pump or hose for changes, out and in alike")] = (
        USUAL_PUMP_LPH
    )


class RoundDay(Part):
    """One walking day: its tasks in the order of the walk."""

    day: Annotated[int, whole(0, 6, "Days from now")]
    keys: list[Name]
    minutes: Minutes


class RoomRoundAnswer(Answer):
    """The week, day by day, and what would make it shorter."""

    days: list[RoundDay]
    week_minutes: Minutes
    even_minutes: Annotated[Minutes, Field(description="Of an ordinary week, everything at its own interval")]
    later_count: Annotated[int, whole(0, 3000, "Due, and left for next week so that film and work come out even")]
    longest_day_minutes: Minutes
    one_more_day_minutes: Annotated[Minutes, Field(description="The longest day with one more pair of hands")]
    twice_the_pump_minutes: Annotated[Minutes, Field(description="The week with a pump twice as large for changes")]


def minutes_with_pump(minutes: float, litres: float, change_lph: float) -> float:
    """Minutes one task takes: a change is pumped out and in.

    minutes: besides the pumping; litres: changed, 0 for any other task; change_lph: the pump's L/h.
    """
    return minutes + 2 * 60 * litres / change_lph


def minutes_of(task: RoundTask, change_lph: float) -> float:
    """Minutes of one task. task: it; change_lph: the pump's L/h."""
    return minutes_with_pump(task.minutes, task.litres, change_lph)


def _cannot_wait(task: RoundTask) -> bool:
    """Whether it would be far past its interval by the end of next week, or keeps the water's pH from falling."""
    if task.what == "soda" and task.next_day < WEEK_DAYS:
        return True
    return task.next_day + (LATEST_SHARE - 1) * task.every_days < 2 * WEEK_DAYS - 1


def _earliest(task: RoundTask) -> float:
    return max(task.not_before_day, task.next_day - EARLY_SHARE * task.every_days, 0.0)


def _pressing(task: RoundTask) -> tuple[float, int, str]:
    """Sorts what is longest past its interval first."""
    return (task.next_day / task.every_days, task.place_count, task.key)


def _chosen(q: RoomRoundQuestion, quota: float) -> list[RoundTask]:
    """Tasks of the week that come once: what cannot wait, then the soonest due until an ordinary week is full."""
    last_day = max(q.walk_days)
    open_ = sorted((t for t in q.tasks if t.every_days >= WEEK_DAYS and _earliest(t) <= last_day), key=_pressing)
    sponges_most = math.ceil(MOST_FILM_SHARE * sum(t.sponge for t in q.tasks) - 1e-9)
    found: list[RoundTask] = []
    squeezed, touched, minutes = 0, set[str](), 0.0
    for must in (True, False):
        for task in open_:
            if _cannot_wait(task) is not must:
                continue
            takes = minutes_of(task, q.change_lph)
            if not must and minutes + takes / 2 > quota:
                continue
            film = task.what == "clean"
            # Never two films of one tank in a week, nor more than a third of the room's sponges.
            if film and (task.tank in touched or (task.sponge and squeezed >= sponges_most)):
                continue
            found.append(task)
            minutes += takes
            squeezed += task.sponge
            if film:
                touched.add(task.tank)
    return found


def _order(task: RoundTask) -> tuple[bool, int, str]:
    return (task.last, task.place_count, task.key)


def _walked(q: RoomRoundQuestion, chosen: Iterable[RoundTask]) -> list[tuple[int, RoundTask]]:
    """Each task with its day: the walk is cut into stretches of equal minutes, a tank's tasks on one day."""
    days = sorted(set(q.walk_days))
    stops = [list(tasks) for _, tasks in groupby(sorted(chosen, key=_order), key=lambda t: (t.last, t.place_count))]
    whole_walk = sum(minutes_of(t, q.change_lph) for stop in stops for t in stop)
    found, before = [], 0.0
    for stop in stops:
        part = before / whole_walk if whole_walk else 0.0
        before += sum(minutes_of(t, q.change_lph) for t in stop)
        usual = days[min(int(part * len(days)), len(days) - 1)]
        found += [(_moved(task, usual, days), task) for task in stop]
    return found


def _moved(task: RoundTask, usual: int, days: Sequence[int]) -> int:
    """Day of one task: the tank's, later where it must wait, the first where it is long overdue."""
    forgotten = usual > task.next_day + (FORGOTTEN_SHARE - 1) * task.every_days
    return next((d for d in days if d >= _earliest(task) and (forgotten or d >= usual)), days[-1])


def _often(q: RoomRoundQuestion) -> list[tuple[int, RoundTask]]:
    """Tasks that come several times a week, each time on the first walking day on which they are due."""
    found = []
    for task in (t for t in q.tasks if t.every_days < WEEK_DAYS):
        due = max(task.not_before_day, task.next_day, 0.0)
        for day in sorted(set(q.walk_days)):
            if day >= math.floor(due):
                found.append((day, task))
                due = day + task.every_days
    return found


@computation("room-round", "What is done in a room this week, day by day, in the order of the walk")
def room_round(question: RoomRoundQuestion) -> RoomRoundAnswer:
    """A week's round, so that films, hours and buckets come out even.

    question: tasks with their intervals and days until due, and the walking days. What would be past 1.75 times its
    interval by the end of next week is done this week; other tasks come up to a quarter of their interval early until
    the week is as long as an ordinary one. Source: a third of the sponges a week at most is common practice.
    """
    q, w = question, Working()
    once = [t for t in q.tasks if t.every_days >= WEEK_DAYS]
    quota = _week(once, q.change_lph)
    even = w.line(
        "even",
        "Σ minutes / interval × 7",
        f"{len(q.tasks)} tasks",
        _week(q.tasks, q.change_lph),
        "min a week",
        "arithmetic",
    )
    dated = [*_walked(q, _chosen(q, quota)), *_often(q)]
    total = w.line("week", "Σ minutes", f"{len(dated)} tasks this week", _all(dated, q.change_lph), "min", "arithmetic")
    days = [_day(day, dated, q.change_lph) for day in sorted(set(q.walk_days))]
    longest = max(d.minutes for d in days) / q.people_count
    w.line("longest", "minutes / people", f"longest day / {q.people_count}", longest, "min", "arithmetic")
    dated_keys = {t.key for _, t in dated}
    later = sum(1 for t in q.tasks if t.next_day <= max(q.walk_days) and t.key not in dated_keys)
    return RoomRoundAnswer(
        verdict=_verdict(q, [t for _, t in dated], total, longest, later),
        working=w.lines,
        days=days,
        week_minutes=total,
        even_minutes=even,
        later_count=later,
        longest_day_minutes=longest,
        one_more_day_minutes=longest * q.people_count / (q.people_count + 1),
        twice_the_pump_minutes=_all(dated, 2 * q.change_lph),
    )


def _week(tasks: Iterable[RoundTask], change_lph: float) -> float:
    return sum(minutes_of(t, change_lph) * WEEK_DAYS / t.every_days for t in tasks)


def _all(dated: Iterable[tuple[int, RoundTask]], change_lph: float) -> float:
    return sum(minutes_of(task, change_lph) for _, task in dated)


def _day(day: int, dated: Sequence[tuple[int, RoundTask]], change_lph: float) -> RoundDay:
    here = sorted((t for d, t in dated if d == day), key=_order)
    return RoundDay(day=day, keys=[t.key for t in here], minutes=sum(minutes_of(t, change_lph) for t in here))


COUNTED: dict[CareWhat, tuple[str, str]] = {
    "clean": ("filter to clean", "filters to clean"),
    "change": ("water change", "water changes"),
    "test": ("test", "tests"),
    "flow-test": ("flow to time", "flows to time"),
    "guard": ("guard sponge", "guard sponges"),
    "socks": ("sock to wash", "socks to wash"),
    "carbon": ("carbon to change", "carbons to change"),
    "soda": ("dose of soda", "doses of soda"),
    "top-up": ("top-up", "top-ups"),
    "feed-young": ("feeding of young", "feedings of young"),
}
"""What a week's tasks are called, one and several; looks in passing are not counted."""


def duration_words(minutes: float) -> str:
    """A length of work, "25 min" or "1 h 50 min". minutes: it."""
    whole_min = round(minutes)
    return f"{whole_min} min" if whole_min < 60 else f"{whole_min // 60} h {whole_min % 60:02d} min"


def _verdict(q: RoomRoundQuestion, tasks: list[RoundTask], total: float, longest: float, later: int) -> str:
    parts = []
    squeezed = [t.tank for t in tasks if t.sponge]
    if squeezed:
        of = sum(t.sponge for t in q.tasks)
        share = "a third of the rack" if 3 * len(squeezed) == of else f"{len(squeezed)} of {of} sponges"
        parts.append(f"squeeze {share} ({_names(squeezed)})")
    for what, (one, several) in COUNTED.items():
        count = sum(1 for t in tasks if t.what == what and not t.sponge)
        if count:
            parts.append(f"{count} {one if count == 1 else several}")
    if not parts:
        return "Nothing falls due in this room this week."
    each = f", at most {duration_words(longest)} on a day" if len(set(q.walk_days)) > 1 else ""
    hands = " each" if q.people_count > 1 else ""
    waits = f" {later} more that {'is' if later == 1 else 'are'} due can wait for next week." if later else ""
    work = parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"
    return f"This week: {work}. About {duration_words(total)}{each}{hands}.{waits}"


def _names(names: list[str]) -> str:
    unlike = list(dict.fromkeys(names))
    if len(unlike) > NAMED:
        return f"{', '.join(unlike[:NAMED])} and {len(unlike) - NAMED} more"
    return unlike[0] if len(unlike) == 1 else f"{', '.join(unlike[:-1])} and {unlike[-1]}"


__all__ = [
    "CHANGE_SETUP_MIN",
    "USUAL_PUMP_LPH",
    "RoomRoundAnswer",
    "RoomRoundQuestion",
    "RoundDay",
    "RoundTask",
    "duration_words",
    "minutes_of",
    "minutes_with_pump",
    "room_round",
]
