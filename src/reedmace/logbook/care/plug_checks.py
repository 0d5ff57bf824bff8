"""Reminder after work in a tank: is everything plugged in again?"""

from datetime import datetime, timedelta

from pydantic import AwareDatetime

from reedmace.core.contract import Part
from reedmace.logbook.replay.entries import CareDone, Entry, FlowTest, MediaWork, Outage, TimedFlow, WaterChange
from reedmace.logbook.replay.state import LogbookState

ASKED_FOR = timedelta(days=2)
"""Time after the work during which the reminder is shown."""


class PlugCheck(Part):
    """The work, its time, and the filters that were stopped for it."""

    after: str
    at: AwareDatetime
    filters: list[str]


def plug_check(state: LogbookState, now: datetime) -> PlugCheck | None:
    """Filters not yet seen running after the last work in the tank; None where all were.

    state: the tank's; now: aware time. Seen is: said so, a flow timed since, or a stop written down.
    """
    work = [e for e in [*state.changes, *state.events] if _is_work(e) and now - ASKED_FOR <= e.at <= now]
    filters = [f.filter.name for f in state.filters()]
    if not work or not filters:
        return None
    last = max(work, key=lambda e: e.at)
    seen = [e for e in [*state.events, *state.flow_tests, *state.timed_flows] if _is_look(e) and e.at >= last.at]
    if seen:
        return None
    after = "the water change" if isinstance(last.body, WaterChange) else "the work on the filter"
    return PlugCheck(after=after, at=last.at, filters=filters)


def _is_work(e: Entry) -> bool:
    return isinstance(e.body, WaterChange) or (isinstance(e.body, MediaWork) and e.body.what != "seeding-started")


def _is_look(e: Entry) -> bool:
    return isinstance(e.body, FlowTest | TimedFlow | Outage) or (
        isinstance(e.body, CareDone) and e.body.what == "plugs"
    )
