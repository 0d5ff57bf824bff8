"""Practice: lessons, the clock of a practice tank, its vials, and the page at the end."""

import secrets
from collections.abc import Callable
from datetime import datetime
from typing import Literal

from apiflask import APIBlueprint
from flask import g, request
from flask_login import current_user

from reedmace.api.openapi_responses import READ
from reedmace.api.practice_schemas import (
    Begin,
    BesideOut,
    Ended,
    Jugs,
    LessonList,
    LessonOut,
    OwnSeat,
    Passed,
    PassTime,
    PracticeOut,
    SetTank,
    Vials,
    WhichKit,
)
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, tanks
from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.errors import CannotAnswer
from reedmace.logbook.care.due import due
from reedmace.logbook.replay.cycle_log import kit_of
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.practice.begin import begin
from reedmace.practice.clock import vial_places
from reedmace.practice.copying import copy_of
from reedmace.practice.equipment import jugs
from reedmace.practice.judgement import EndPage, end_page, ended_together
from reedmace.practice.kit import read_kit
from reedmace.practice.lesson import lessons, words_of
from reedmace.practice.record import ENTRY_MINUTES, MOST_DAYS, ChangedSetting, Coach, Practice
from reedmace.practice.side_by_side import (
    Member,
    begin_side_by_side,
    jump_together,
    label_of,
    opens_in,
    with_shared_media,
)
from reedmace.practice.truth import given_of, shown_by, true_run
from reedmace.store import PracticeTanks, practice_at
from reedmace.store.practice import PracticeTankRow
from reedmace.store.practice_classes import PracticeClasses

blueprint = APIBlueprint("practice", __name__, url_prefix="/api/practice", tag="Practice")

DONE_AFTER = 3
"""Times a lesson is to be won without a loss until it counts as done."""
REFUSED = {401: "Not signed in", 403: "CSRF token missing", 404: "No such practice tank", 422: "Not usable"}
ALLOWED = {"tanks.add_entry", "tanks.restore_plan"}
"""What may be done with a practice tank besides looking at it, and what this module does."""


def follow_practice_clock() -> None:
    """For a practice tank, the time of a request is that of its own clock; most writing from outside is refused."""
    tank_id = (request.view_args or {}).get("tank_id")
    if tank_id is None or "database" not in g or not current_user.is_authenticated:
        return
    found = practice_at(g.database, keeper().id, tank_id)
    if found is None:
        return
    g.practice, g.real_now, g.now = found, g.now, found.now()
    endpoint = request.endpoint or ""
    reads = request.method in ("GET", "HEAD", "OPTIONS") or "/views/" in request.path
    if not reads and endpoint not in ALLOWED and not request.path.startswith("/api/practice/"):
        raise ProblemError(409, "A practice tank", "This is kept for real tanks: nothing of practice leaves it.")
    if found.ended and endpoint == "tanks.add_entry":
        raise ProblemError(409, "The lesson has ended", "Begin it again, with another tank, from Practice.")


def _mine() -> PracticeTanks:
    return PracticeTanks(g.database, keeper().id)


def lesson_rows(*, alone: bool = False) -> dict[str, LessonOut]:
    """Every lesson by its id, with how far this keeper is. alone: in the words for somebody with one tank."""
    mine = _mine()
    results, under_way = mine.results(), {p.practice.lesson: p.id for p in mine.all() if not p.practice.ended}
    rows = {}
    for one in lessons().values():
        own = [r for r in results if r.lesson == one.id]
        won = sum(r.won for r in own)
        task, goal = words_of(one, alone=alone)
        rows[one.id] = LessonOut(
            id=one.id, title=one.title, opens=one.opens, task=task, teaches=one.teaches, goal=goal,
            lasts_days=one.lasts_days, won_count=won, tried_count=len(own), done=won >= DONE_AFTER,
            tank_id=under_way.get(one.id),
        )  # fmt: skip
    return rows


@blueprint.get("/lessons")
@blueprint.output(LessonList)
@blueprint.doc(responses={401: "Not signed in"})
def list_lessons() -> LessonList:
    """The lessons, and how far you are with each."""
    return LessonList(lessons=list(lesson_rows().values()))


@blueprint.post("/tanks")
@blueprint.input(Begin)
@blueprint.output(PracticeOut, status_code=201)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"})
def begin_lesson(json_data: Begin) -> PracticeOut:
    """Begin a lesson on a tank of its own."""
    lesson = lessons().get(json_data.lesson)
    if lesson is None:
        raise CannotAnswer("lesson", f"there is none of the name {json_data.lesson}.", "Choose one of the list.")
    seed = secrets.randbelow(2**31) if json_data.seed is None else json_data.seed
    if json_data.tank_id is not None:
        return _begin_copy(json_data.tank_id, seed, json_data.coach)
    if lesson.side_by_side:
        begun = begin_side_by_side(lesson, seed, g.now, json_data.coach, secrets.token_hex(8))
        made = _mine().make_together(
            [(f"Practice: {lesson.title}, {label}"[:80], practice, entries) for label, practice, entries in begun]
        )
        return _out(made[0], begun[0][1])
    practice, entries = begin(lesson, seed, g.now, json_data.coach)
    return _out(_mine().make(f"Practice: {lesson.title}", practice, entries), practice)


def _begin_copy(tank_id: int, seed: int, coach: Coach) -> PracticeOut:
    """A practice twin of a real tank, logbook and all."""
    mine = tanks()
    tank, entries = mine.get(tank_id), mine.recent(tank_id)
    if practice_at(g.database, keeper().id, tank_id) is not None:
        raise CannotAnswer("tank_id", "is a practice tank itself.", "Choose a real one.")
    practice = copy_of(entries, seed, g.now, coach)
    return _out(_mine().make(f"Practice: {tank.name}"[:80], practice, entries), practice)


@blueprint.get("/tanks/<int:tank_id>")
@blueprint.output(PracticeOut)
@blueprint.doc(responses=READ)
def read_practice(tank_id: int) -> PracticeOut:
    """A practice tank's lesson, clock and settings."""
    return _out(tank_id, _mine().get(tank_id))


def _out(tank_id: int, practice: Practice) -> PracticeOut:
    return PracticeOut(
        tank_id=tank_id,
        lesson=lesson_rows(alone=practice.side is None)[practice.lesson],
        now=practice.now(),
        day=practice.day,
        coach=practice.coach,
        reads_vials=practice.reads_vials,
        feed=practice.setting("feed", 1.0),
        air_stone=practice.setting("air-stone", 0.0) > 0,
        heater_c=practice.setting("heater", given_of(practice).setup.warmth_c),
        ended=practice.ended,
        label=label_of(practice),
        beside=[]
        if practice.side is None
        else [
            BesideOut(tank_id=row.id, label=label_of(row.practice), opens=opens_in(row.practice))
            for row in _mine().together(tank_id)
        ],
        of_class=_seat(tank_id),
    )


def _seat(tank_id: int) -> OwnSeat | None:
    found = PracticeClasses(g.database).of_tank(tank_id)
    return None if found is None else OwnSeat(name=found[1], stopped=found[0].stopped)


@blueprint.post("/tanks/<int:tank_id>/pass")
@blueprint.input(PassTime)
@blueprint.output(Passed)
@blueprint.doc(responses=REFUSED)
def pass_time(tank_id: int, json_data: PassTime) -> Passed:
    """Let time pass on a practice tank; it stops by itself when animals are in danger."""
    mine = _mine()
    practice = mine.get(tank_id)
    _refuse_ended(practice)
    if (seat := _seat(tank_id)) is not None and seat.stopped:
        raise ProblemError(409, "The clock is stopped", "Your teacher has stopped it for all. Try again in a while.")
    if practice.day >= MOST_DAYS:
        raise ProblemError(409, "A long life", f"A practice tank lives {MOST_DAYS} days. End the lesson.")
    rows = mine.together(tank_id)
    members = _members(rows)
    jumps = jump_together(members, json_data.until)

    def pass_to(before: Practice, minutes: float) -> Callable[[Practice], Practice]:
        # Two presses at once pass the time once.
        return lambda p: p if p.minutes > before.minutes + ENTRY_MINUTES else p.passed(minutes)

    moved, own = practice, jumps[0]
    for row, passed in zip(rows, jumps, strict=True):
        changed = mine.change(row.id, pass_to(row.practice, passed.minutes))
        if row.id == tank_id:
            moved, own = changed, passed
    return Passed(passed=own, practice=_out(tank_id, moved))


def _members(rows: list[PracticeTankRow]) -> list[Member]:
    """Tanks side by side, or one alone, with their logbooks and what was moved between them."""
    found = []
    for row in rows:
        entries = tanks().entries(row.id)
        found.append(Member(row.practice, entries, _next_due(replay(entries), row.practice.now())))
    return with_shared_media(found)


def _member(tank_id: int) -> Member:
    """A practice tank as it truly stands, among those beside it. Raises NoSuchTank."""
    mine = _mine()
    rows = mine.together(tank_id)
    if not lessons()[rows[0].practice.lesson].shares_media:
        rows = [row for row in rows if row.id == tank_id]
    members = _members(rows)
    return next(m for row, m in zip(rows, members, strict=True) if row.id == tank_id)


def _next_due(state: LogbookState, now: datetime) -> datetime | None:
    """When the next thing is to be done, on the practice clock. now: on it."""
    try:
        return next((row.at for row in due(state, now) if row.at > now), None)
    except CannotAnswer:
        return None


def _refuse_ended(practice: Practice) -> None:
    if practice.ended:
        raise ProblemError(409, "The lesson has ended", "Begin it again, with another tank, from Practice.")


@blueprint.post("/tanks/<int:tank_id>/settings")
@blueprint.input(SetTank)
@blueprint.output(PracticeOut)
@blueprint.doc(responses=REFUSED)
def set_practice(tank_id: int, json_data: SetTank) -> PracticeOut:
    """Set the coach, the vials, food, air stone or heater of a practice tank."""
    asked: list[tuple[Literal["feed", "air-stone", "heater"], float | None]] = [
        ("feed", json_data.feed),
        ("air-stone", None if json_data.air_stone is None else float(json_data.air_stone)),
        ("heater", json_data.heater_c),
    ]

    def changed(p: Practice) -> Practice:
        new = [ChangedSetting(minute=p.minutes, name=name, value=value) for name, value in asked if value is not None]
        return p.set_to(new).model_copy(
            update={
                "coach": json_data.coach or p.coach,
                "reads_vials": p.reads_vials if json_data.reads_vials is None else json_data.reads_vials,
            }
        )

    return _out(tank_id, _mine().change(tank_id, changed))


@blueprint.get("/tanks/<int:tank_id>/vials")
@blueprint.input(WhichKit, location="query")
@blueprint.output(Vials)
@blueprint.doc(responses=READ)
def read_vials(tank_id: int, query_data: WhichKit) -> Vials:
    """What the kit's vials show now, or those of a kit somebody lends."""
    practice, entries, _ = _member(tank_id)
    sample = true_run(practice, entries).samples[-1]
    if not query_data.other:
        sample = shown_by(practice, sample)
    kit: KitSteps = kit_of(replay(entries), g.now)
    seen = read_kit(sample, kit, practice.seed, practice.minutes) | {"other_kit": query_data.other}
    return Vials(
        vials=vial_places(sample, kit, practice.seed, practice.minutes),
        entered=None if practice.reads_vials else seen,
    )


@blueprint.get("/tanks/<int:tank_id>/jugs")
@blueprint.output(Jugs)
@blueprint.doc(responses=READ)
def hold_jugs(tank_id: int) -> Jugs:
    """How long a jug takes to fill under each outlet of a practice tank, timed by hand."""
    practice, entries, _ = _member(tank_id)
    run = true_run(practice, entries)
    return Jugs(jugs=jugs(practice, given_of(practice), entries, run.samples[-1]))


@blueprint.post("/tanks/<int:tank_id>/end")
@blueprint.output(EndPage)
@blueprint.doc(responses=REFUSED)
def end_lesson(tank_id: int) -> EndPage:
    """End a lesson: the truth is uncovered, and what was decided is gone over."""
    mine = _mine()
    practice = mine.get(tank_id)
    if practice.ended:
        return mine.page(tank_id)
    rows = mine.together(tank_id)
    members = _members(rows)
    pages = [end_page(m.practice, m.entries) for m in members]
    if practice.side is not None:
        pages = ended_together([(row.id, page) for row, page in zip(rows, pages, strict=True)])
    for row, page in zip(rows, pages, strict=True):
        mine.end(row.id, row.practice, page, g.real_now)
        mine.change(row.id, lambda p: p.model_copy(update={"ended": True}))
    return mine.page(tank_id)


@blueprint.get("/tanks/<int:tank_id>/end")
@blueprint.output(EndPage)
@blueprint.doc(responses=READ)
def read_end(tank_id: int) -> EndPage:
    """The page at the end of a lesson that has ended."""
    return _mine().page(tank_id)


@blueprint.delete("/tanks/<int:tank_id>")
@blueprint.output(Ended)
@blueprint.doc(responses=REFUSED)
def leave_practice(tank_id: int) -> Ended:
    """Leave a practice tank: it is gone at once; how its lesson ended stays."""
    mine = _mine()
    for row in mine.together(tank_id):
        mine.remove(row.id)
    return Ended(removed=True)
