"""Classes on a practice lesson: opened and led by a teacher, joined with a code, looked at on a board."""

import secrets
from functools import lru_cache
from statistics import median

from apiflask import APIBlueprint
from flask import g, request
from pydantic import TypeAdapter

from reedmace.api.class_schemas import (
    Board,
    ClassList,
    ClassOut,
    ClassSeen,
    Closed,
    Control,
    Controlled,
    Course,
    JoinClass,
    Joined,
    Learner,
    OpenClass,
    Spread,
    TrueNow,
)
from reedmace.api.practice import lesson_rows
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting
from reedmace.core.quantity.formatting import Units
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import replay
from reedmace.practice.begin import begin
from reedmace.practice.decisions import advice_at
from reedmace.practice.equipment import believed_of_filters, equipment_words, tests_made
from reedmace.practice.judgement import read_points, true_points
from reedmace.practice.lesson import lessons, words_of
from reedmace.practice.mishaps import TITLES, SentMishap
from reedmace.practice.record import Practice
from reedmace.practice.truth import given_of, true_run
from reedmace.store import Tanks
from reedmace.store.practice_classes import KEPT_FOR, MOST_SEATS, ClassRow, PracticeClasses, Seat

blueprint = APIBlueprint("practice_classes", __name__, url_prefix="/api/practice", tag="Practice")

REFUSED = {401: "Not signed in", 403: "CSRF token missing", 404: "No such class", 422: "Not usable"}
MISHAP_AHEAD_MINUTES = 60.0
NOT_BEGUN = "Nothing is begun yet."
_ENTRIES = TypeAdapter(list[Entry])


def _classes() -> PracticeClasses:
    return PracticeClasses(g.database)


def _out(row: ClassRow, learners_count: int) -> ClassOut:
    lesson = lesson_rows(alone=True)[row.lesson]
    return ClassOut(
        id=row.id, code=row.code, lesson=lesson, alike=row.seed is not None, coach=row.coach,
        stopped=row.stopped, uncovered=row.uncovered, until=row.made_at + KEPT_FOR, learners_count=learners_count,
    )  # fmt: skip


@blueprint.get("/classes")
@blueprint.output(ClassList)
@blueprint.doc(responses={401: "Not signed in"})
def list_classes() -> ClassList:
    """Your classes."""
    rows = _classes().all(keeper().id)
    return ClassList(classes=[_out(row, len(_classes().seats(row.id))) for row in rows])


@blueprint.post("/classes")
@blueprint.input(OpenClass)
@blueprint.output(ClassOut, status_code=201)
@blueprint.doc(responses={**REFUSED, 409: "Too many classes"})
def open_class(json_data: OpenClass) -> ClassOut:
    """Open a class on a lesson: a code for the wall, kept for 30 days."""
    if json_data.lesson not in lessons() or json_data.lesson == "free":
        raise CannotAnswer(
            "lesson", f"there is none of the name {json_data.lesson} for a class.", "Choose one of the list."
        )
    seed = secrets.randbelow(2**31) if json_data.alike else None
    row = _classes().open(keeper().id, json_data.lesson, seed, json_data.coach, g.now)
    return _out(row, 0)


@blueprint.get("/classes/<int:class_id>")
@blueprint.output(Board)
@blueprint.doc(responses={401: "Not signed in", 404: "No such class"})
def read_board(class_id: int) -> Board:
    """The board of a class: every learner's tank, its day, and what its keeper believes."""
    row = _classes().get(keeper().id, class_id)
    seats = _classes().seats(row.id)
    learners = [_learner(seat, uncovered=row.uncovered) for seat in seats]
    return Board(
        of_class=_out(row, len(seats)),
        learners=learners,
        mishaps=TITLES,
        spreads=_spreads(learners) if row.uncovered else [],
    )


def _learner(seat: Seat, *, uncovered: bool) -> Learner:
    entries = Tanks(g.database, seat.account_id).entries(seat.tank_id)
    # A board is asked for every few seconds: only tanks that changed are worked out again.
    looked = _looked(
        formatting.chosen(), seat.practice.model_dump_json(), "[" + ",".join(e.model_dump_json() for e in entries) + "]"
    )
    believed, alive, tests, truth = looked
    return Learner(
        id=seat.id, name=seat.name, day=seat.practice.day, believed=believed, alive_count=alive, tests_count=tests,
        ended=seat.practice.ended, truth=truth if uncovered else None,
    )  # fmt: skip


@lru_cache(maxsize=400)
def _looked(_units: Units, practice_text: str, entries_text: str) -> tuple[str, int, int, TrueNow]:
    """What a learner believes, animals alive, tests made, and the truth. _units: in which its sentence is written."""
    practice, entries = Practice.model_validate_json(practice_text), _ENTRIES.validate_json(entries_text)
    state = replay(entries)
    run = true_run(practice, entries)
    last = run.samples[-1]
    filters = lessons()[practice.lesson].opens in ("filter", "fit")
    truth = TrueNow(
        ammonia_mg_n_l=last.tan, nitrite_mg_n_l=last.no2, clears_mg_n_l_day=min(last.clears, last.clears_nitrite),
        lost_count=run.lost,
        equipment=equipment_words(practice, given_of(practice), entries, run) if filters else [],
    )  # fmt: skip
    if filters:
        return believed_of_filters(state), last.alive, tests_made(state), truth
    advice = advice_at(practice, entries, practice.minutes)
    believed = NOT_BEGUN if advice is None else advice.verdict
    return believed, last.alive, len(state.readings), truth


def _spreads(learners: list[Learner]) -> list[Spread]:
    """Least, median and largest of each figure over the learners."""
    found = []
    columns: list[tuple[str, list[float]]] = [
        ("days passed", [one.day for one in learners]),
        ("tests made", [float(one.tests_count) for one in learners]),
        ("animals lost", [float(one.truth.lost_count) for one in learners if one.truth]),
        ("ammonia and nitrite, mg N/L", [t.ammonia_mg_n_l + t.nitrite_mg_n_l for one in learners if (t := one.truth)]),
        ("what the filter bacteria clear, mg N/L a day", [t.clears_mg_n_l_day for one in learners if (t := one.truth)]),
    ]
    for what, figures in columns:
        if figures:
            found.append(Spread(what=what, least=min(figures), middle=median(figures), most=max(figures)))
    return found


@blueprint.post("/classes/<int:class_id>")
@blueprint.input(Control)
@blueprint.output(Controlled)
@blueprint.doc(responses=REFUSED)
def control_class(class_id: int, json_data: Control) -> Controlled:
    """Stop the clock of all, send a mishap to all, uncover the truth."""
    classes = _classes()
    classes.get(keeper().id, class_id)
    classes.control(class_id, stopped=json_data.stopped, uncovered=json_data.uncovered)
    sent, kind = 0, json_data.mishap
    if kind is not None:
        # An hour ahead on each tank's own clock, so that it is met and not found.
        sent = classes.send(
            class_id,
            lambda p: SentMishap(
                kind=kind,
                minute=p.minutes + MISHAP_AHEAD_MINUTES,
                feed_share=p.setting("feed", 1.0),
                heater_c=p.setting("heater", given_of(p).setup.warmth_c),
            ),
        )
    row = classes.get(keeper().id, class_id)
    return Controlled(of_class=_out(row, len(classes.seats(class_id))), sent_count=sent)


@blueprint.get("/classes/<int:class_id>/learners/<int:seat_id>")
@blueprint.output(Course)
@blueprint.doc(responses={401: "Not signed in", 404: "No such learner", 409: "Not uncovered"})
def read_course(class_id: int, seat_id: int) -> Course:
    """A learner's whole course, to lay beside another's; once the class is uncovered."""
    row = _classes().get(keeper().id, class_id)
    if not row.uncovered:
        raise ProblemError(409, "Not uncovered", "Uncover the class first: until then nobody sees what is true.")
    seat = next((s for s in _classes().seats(row.id) if s.id == seat_id), None)
    if seat is None:
        raise ProblemError(404, "No such learner", "There is none of that number in this class.")
    entries = Tanks(g.database, seat.account_id).entries(seat.tank_id)
    run = true_run(seat.practice, entries)
    return Course(
        name=seat.name, days=seat.practice.day, truth=true_points(run), read=read_points(seat.practice, entries)
    )


@blueprint.delete("/classes/<int:class_id>")
@blueprint.output(Closed)
@blueprint.doc(responses=REFUSED)
def close_class(class_id: int) -> Closed:
    """Forget a class at once; the learners keep their tanks."""
    _classes().close(keeper().id, class_id)
    return Closed(removed=True)


def _by_code(code: str) -> ClassRow:
    """The class of a code; wrong ones are counted by where they come from."""
    found = _classes().by_code(code, g.now)
    if found is None:
        at = g.now.replace(tzinfo=None)
        g.accounts.reject_guessing(request.remote_addr or "", at)
        g.accounts.count_guess(request.remote_addr or "", at)
        raise ProblemError(404, "No such class", "No class has this code: look again, or ask whether it is over.")
    return found


@blueprint.get("/join/<code>")
@blueprint.output(ClassSeen)
@blueprint.doc(responses={404: "No such class", 429: "Paused"})
def look_at_class(code: str) -> ClassSeen:
    """What a class is about, for whoever has its code."""
    row = _by_code(code)
    lesson = lessons()[row.lesson]
    task, goal = words_of(lesson, alone=True)
    return ClassSeen(title=lesson.title, task=task, goal=goal, full=len(_classes().seats(row.id)) >= MOST_SEATS)


@blueprint.post("/join/<code>")
@blueprint.input(JoinClass)
@blueprint.output(Joined, status_code=201)
@blueprint.doc(responses={**REFUSED, 409: "The class is full", 429: "Paused"})
def join_class(code: str, json_data: JoinClass) -> Joined:
    """Join a class under a name: a tank of one's own, the same again for whoever has joined before."""
    row = _by_code(code)
    lesson = lessons()[row.lesson]

    def make() -> tuple[str, Practice, list[Entry]]:
        seed = secrets.randbelow(2**31) if row.seed is None else row.seed
        practice, entries = begin(lesson, seed, g.now, row.coach)
        return f"Class: {lesson.title}", practice, entries

    return Joined(tank_id=_classes().join(row, keeper().id, json_data.name, make), opens=lesson.opens)
