"""What a notice says: the same verdicts, actions and tasks as Today's, put into a letter."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from reedmace.logbook.care.due import Due
from reedmace.logbook.rooms.tank_snapshot import TankSnapshot
from reedmace.logbook.stages.today import TodayView
from reedmace.notices.choice import NoticeChoice
from reedmace.notices.picture import Outline, outline_of

WEEK = timedelta(days=7)
MOST_TASKS = 8
"""Tasks of one tank in a letter; more are counted."""


@dataclass(frozen=True)
class Task:
    """One thing to do. when: in words; empty where it is for now."""

    title: str
    detail: str
    when: str = ""


@dataclass(frozen=True)
class TankPart:
    """What a letter says of one tank.

    stage: of its page, for the link; more: tasks beyond those named; outline: of its picture, None before measuring.
    """

    tank_id: int
    name: str
    stage: str
    verdict: str
    urgent: bool
    tasks: list[Task] = field(default_factory=list)
    more: int = 0
    outline: Outline | None = None


@dataclass(frozen=True)
class Letter:
    """Subject, heading and what is said of each tank, the most urgent first."""

    subject: str
    heading: str
    tanks: list[TankPart]


def _first_of(view: TodayView) -> list[Task]:
    """The first action that Today names, with its reason."""
    if view.stop is not None:
        return [Task(view.stop.first, " ".join(view.stop.steps))]
    if view.illness is not None:
        return [Task(view.illness.first, "")]
    if view.advice is not None:
        first = view.advice.first
        return [Task(first.title, f"{first.detail} {first.reason}".strip())]
    return []


def _tank(seen: TankSnapshot, tasks: list[Task]) -> TankPart:
    view, row = seen.view, seen.row
    kept = tasks[:MOST_TASKS]
    outline = outline_of(seen.state, urgent=view.urgent)
    return TankPart(row.tank_id, row.name, view.stage, view.verdict, view.urgent, kept, len(tasks) - len(kept), outline)


def at_once_letter(seen: TankSnapshot) -> Letter | None:
    """A letter on a tank in which something cannot wait; None where somebody has dealt with it since."""
    if not seen.view.urgent:
        return None
    part = _tank(seen, _first_of(seen.view))
    first = part.tasks[0].title if part.tasks else part.verdict
    return Letter(f"{part.name}: {first}", part.verdict, [part])


def day_letter(all_seen: Sequence[TankSnapshot], choice: NoticeChoice, now: datetime) -> Letter | None:
    """The day's list; None where nothing is due until the local day is over. now: aware time."""
    until = choice.at(choice.local(now).date() + timedelta(days=1), "00:00")
    parts = []
    for seen in all_seen:
        view = seen.view
        advised = _first_of(view) if view.advice is None or view.advice.first.when in ("now", "tonight") else []
        # What the advice names is not named again by the calendar.
        due = [d for d in view.due if d.at < until and not any(d.title == one.title for one in advised)]
        late = choice.local(now).date()
        tasks = advised + [Task(d.title, d.detail, "late" if choice.local(d.at).date() < late else "") for d in due]
        if tasks or view.urgent:
            parts.append(_tank(seen, tasks))
    if not parts:
        return None
    parts.sort(key=lambda p: not p.urgent)
    count = sum(len(p.tasks) + p.more for p in parts)
    return Letter(_counted(count, len(parts), "Today"), "What is due today", parts)


def week_letter(
    all_ahead: Sequence[tuple[TankSnapshot, list[Due]]], choice: NoticeChoice, now: datetime
) -> Letter | None:
    """The coming week's list; None where nothing falls into it.

    all_ahead: each tank and its calendar; now: aware time.
    """
    parts = []
    for seen, ahead in all_ahead:
        tasks = [
            Task(d.title, "", f"{choice.local(d.at):%A}" if d.at > now else "late") for d in ahead if d.at < now + WEEK
        ]
        if tasks:
            parts.append(_tank(seen, tasks))
    if not parts:
        return None
    count = sum(len(p.tasks) + p.more for p in parts)
    return Letter(_counted(count, len(parts), "This week"), "The coming week", parts)


def _counted(tasks: int, tanks: int, when: str) -> str:
    things = "one thing" if tasks == 1 else f"{tasks} things"
    return f"{when}: {things} in {'one tank' if tanks == 1 else f'{tanks} tanks'}"
