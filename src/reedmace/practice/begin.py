"""A practice tank at its start: its record and the entries its logbook begins with."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from reedmace.logbook.replay.entries import Entry
from reedmace.practice.lesson import Given, Lesson, given
from reedmace.practice.record import Coach, Practice, SidePlace


def begin(
    lesson: Lesson, seed: int, now: datetime, coach: Coach = "beside", side: SidePlace | None = None
) -> tuple[Practice, list[Entry]]:
    """Begin a lesson on one tank.

    seed: of the tank; now: aware time at which its clock stands; coach: how loud it is; side: which of several it is.
    """
    start = given(lesson, seed, side)
    began_at = now - timedelta(minutes=start.minute)
    practice = Practice(
        lesson=lesson.id, seed=seed, began_at=began_at, minutes=start.minute, coach=coach, visits=[start.minute],
        side=side,
    )  # fmt: skip
    return practice, first_entries(start, began_at)


def first_entries(start: Given, began_at: datetime) -> list[Entry]:
    """The logbook of a start, in order. began_at: when its clock began."""
    found = []
    for n, one in enumerate(start.entries, 1):
        at = began_at + timedelta(minutes=one.minute)
        body = dict(one.body)
        if body["kind"] == "cycle-plan":
            body.setdefault("started_at", began_at.isoformat())
        if body["kind"] == "situation":
            body.setdefault("since", (began_at - timedelta(days=365)).isoformat())
        found.append(
            Entry.model_validate({"id": n, "key": f"practice-{n:04d}", "at": at, "written_at": at, "body": body})
        )
    return found


def animals_added(entries: Sequence[Entry]) -> int:
    """Animals put in so far. entries: of the logbook."""
    return sum(max(e.body.count, 0) for e in entries if e.body.kind == "stocking")
