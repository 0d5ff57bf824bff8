"""Tanks of one lesson side by side: begun together, on one clock, and with one filter's media to share."""

from collections.abc import Sequence
from datetime import datetime
from typing import NamedTuple

from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import replay
from reedmace.practice.begin import begin
from reedmace.practice.clock import Jump, Until, jump
from reedmace.practice.lesson import Lesson, Stage, lessons
from reedmace.practice.record import Coach, Practice, SidePlace, TakenMedia
from reedmace.practice.truth import brings_film, standing_entries

SEED_STEP = 7919
"""Between the seeds of tanks side by side."""


class Member(NamedTuple):
    """One of the tanks: its record, its logbook, and when the next thing is to be done on it, aware time."""

    practice: Practice
    entries: Sequence[Entry]
    next_due: datetime | None = None


def begin_side_by_side(
    lesson: Lesson, seed: int, now: datetime, coach: Coach, group: str
) -> list[tuple[str, Practice, list[Entry]]]:
    """Each tank's label, record and first entries.

    seed: of the play; now: aware time at which all clocks stand; group: a name for the play of its own.
    """
    found = []
    for place, one in enumerate(lesson.side_by_side):
        side = SidePlace(group=group, place=place, seed=seed)
        found.append((one.label, *begin(lesson, (seed + SEED_STEP * place) % 2**31, now, coach, side)))
    return found


def label_of(practice: Practice) -> str:
    """What a tank is called beside the others; empty for one that stands alone."""
    side = practice.side
    return lessons()[practice.lesson].side_by_side[side.place].label if side else ""


def opens_in(practice: Practice) -> Stage:
    """The stage a tank begins in."""
    lesson, side = lessons()[practice.lesson], practice.side
    return (lesson.side_by_side[side.place].opens if side else None) or lesson.opens


def jump_together(members: Sequence[Member], until: Until) -> list[Jump]:
    """Let time pass for all of them; the first that stops, stops all, and each says which it was.

    members: in any order; until: how far. Returns a jump each, to the same minute.
    """
    # What was done took a minute each, so that their clocks differ by minutes.
    base = max(m.practice.minutes for m in members)
    level = [m._replace(practice=m.practice.model_copy(update={"minutes": base})) for m in members]
    jumps = [jump(m.practice, m.entries, until, m.next_due) for m in level]
    first = min(range(len(jumps)), key=lambda n: jumps[n].minutes)
    minutes, stopped, danger = jumps[first].minutes, jumps[first].stopped, jumps[first].danger
    if stopped is not None:
        label = label_of(members[first].practice)
        stopped = f"{label}: {stopped}" if label else stopped
    again = [
        j if j.minutes <= minutes else jump(m.practice, m.entries, until, m.next_due, minutes)
        for m, j in zip(level, jumps, strict=True)
    ]
    told = {"stopped": stopped, "danger": danger, "minutes": minutes}
    return [j.model_copy(update=told) for j in again]


def with_shared_media(members: Sequence[Member]) -> list[Member]:
    """The same, each with what was truly moved between them.

    members: by place. The first is the one whose filter is shared out; nobody gets more than is left of it.
    """
    if not members or not lessons()[members[0].practice.lesson].shares_media:
        return list(members)
    asked = sorted((minute, n, share) for n, m in enumerate(members[1:], 1) for minute, share in _seeds(m))
    left, taken, got = 1.0, [], dict.fromkeys(range(1, len(members)), 0.0)
    for minute, n, share in asked:
        moved = min(share, left)
        if moved > 0:
            taken.append(TakenMedia(minute=minute, share=moved / left))
        left, got[n] = left - moved, moved
    old = members[0]._replace(practice=members[0].practice.model_copy(update={"taken": taken}))
    new = [
        m._replace(practice=m.practice.model_copy(update={"most_seed": got[n]})) for n, m in enumerate(members[1:], 1)
    ]
    return [old, *new]


def _seeds(member: Member) -> list[tuple[float, float]]:
    """(minute, share of a mature filter) that a tank's plan moves into it."""
    practice = member.practice
    state = replay(standing_entries(member.entries, practice))
    plan = state.cycle_plan.body if state.cycle_plan else None
    if not isinstance(plan, CyclePlan) or not brings_film(plan):
        return []
    return [(max(practice.minute_of(plan.started_at), 0.0), plan.seed_share)]
