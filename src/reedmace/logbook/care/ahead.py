"""Everything ahead in one tank: what is due, and the coming days of its cycle."""

from datetime import datetime

from reedmace.core.cycle import (
    CycleAdviceQuestion,
    CycleForecastQuestion,
    cycle_advice,
    cycle_forecast,
    needs_watching,
    water_note,
)
from reedmace.logbook.care.due import Due, cycle_due, due
from reedmace.logbook.replay.cycle_log import care_log, cycle_log
from reedmace.logbook.replay.state import LogbookState


def calendar_rows(state: LogbookState, now: datetime, *, again: bool = False) -> list[Due]:
    """Due tasks of one tank, its cycle included. state: the tank's; now: aware time; again: all occurrences."""
    rows = due(state, now, again=again)
    log = care_log(state, now) or cycle_log(state, now)
    if log is not None and (needs_watching(log) or water_note(log) is not None):
        advice = cycle_advice(CycleAdviceQuestion(log=log))
        forecast = (
            cycle_forecast(CycleForecastQuestion(log=log))
            if state.cycle_plan is not None and not log.settled()
            else None
        )
        rows = sorted([*rows, *cycle_due(state, now, advice, forecast)], key=lambda d: (d.at, d.key))
    return rows
