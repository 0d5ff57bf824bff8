"""Today, Keep, Cycle, the care plan, the calendar and the command line say the same at every step of a tank's life."""

import itertools
from datetime import datetime, timedelta

import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle import (
    CycleReadinessQuestion,
    cycle_readiness,
    emergency_today,
    in_danger_now,
    needs_watching,
    water_note,
)
from reedmace.logbook.care.ahead import calendar_rows
from reedmace.logbook.care.due import IN_CALENDAR
from reedmace.logbook.care.upkeep_log import care
from reedmace.logbook.replay.cycle_log import care_log, cycle_log
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.stages import keep_view, today_view
from reedmace.logbook.stages.stage_rows import stage_rows
from tests.logbook.stages.test_today import COMING, CYCLING, HARM, KINDS, NOTED, NOW, SETTLED, WELL, Case
from tests.support.lives import Row, lived

CASES = [*HARM, *WELL, *CYCLING, *SETTLED, *NOTED, *KINDS, *COMING]


def moments(rows: list[Row]) -> list[tuple[LogbookState, datetime]]:
    """The state after each row that brings something new, looked at an hour later."""
    ordered = sorted(rows, key=lambda row: -row[0])
    found = []
    for i in range(1, len(ordered) + 1):
        if i < len(ordered) and ordered[i][0] == ordered[i - 1][0]:
            continue
        at = NOW - timedelta(days=ordered[i - 1][0]) + timedelta(hours=1)
        found.append((lived(*ordered[:i]), at))
    return found[-8:]


STEPS = list(itertools.chain.from_iterable(((case, *step) for step in moments(case.rows)) for case in CASES))


@pytest.mark.parametrize(
    ("case", "state", "at"), STEPS, ids=[f"{case.name}, step {i}" for i, (case, *_) in enumerate(STEPS)]
)
def test_every_voice_says_the_same(case: Case, state: LogbookState, at: datetime) -> None:
    view, rows = today_view(state, at)
    log = care_log(state, at) or cycle_log(state, at)
    kept, calendar, plan = keep_view(state, at), calendar_rows(state, at), care(state, at)
    if log is None:
        assert view.advice is None
        return
    by_command = compute("cycle-advice", {"log": log.model_dump()})
    if view.advice is not None:
        assert (by_command.verdict, by_command.first) == (view.advice.verdict, view.advice.first)
        first = view.advice.first
        if first.do in IN_CALENDAR and first.when == "now":
            assert any(row.at <= at + timedelta(hours=1) and row.stage == "cycle" for row in calendar)
    danger = log.animals_are_in() and in_danger_now(log)
    assert (kept.danger is not None) == danger
    if danger:
        assert view.urgent
        emergency = emergency_today(log)
        assert emergency is None or emergency.in_danger or "ntreated" in view.verdict
    ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready
    adds = any(a.do == "add-animals" for a in (by_command.first, *by_command.then))
    if not log.animals_are_in():
        assert adds == ready
        assert ("may be added" in next(r.words for r in rows if r.stage == "cycle")) <= ready
    assert not (adds and danger)
    asks = needs_watching(log) or water_note(log) is not None
    # Only one voice asks for a test: the advice while it speaks, otherwise the care plan.
    if asks and plan is not None:
        assert "test" not in {task.what for task in plan.tasks}
    soon = [row for row in calendar if "Test" in row.title and row.at <= at + timedelta(hours=1)]
    assert len({row.title for row in soon if "KH" not in row.title}) <= 1


def test_the_stage_list_and_the_cycle_agree_on_its_day() -> None:
    for case in CYCLING:
        state = lived(*case.rows)
        log = cycle_log(state, NOW)
        words = next(s.words for s in stage_rows(state, NOW) if s.stage == "cycle")
        assert log is None or f"day {log.day_now:.0f}" in words or log.day_now < 1
