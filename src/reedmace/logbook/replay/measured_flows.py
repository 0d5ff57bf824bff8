"""Measured flows of each filter."""

from datetime import datetime

from reedmace.core.flow.bucket_test import bucket_lph
from reedmace.logbook.replay.entries import Body, Entry, FlowTest, TimedFlow
from reedmace.logbook.replay.state import LogbookState


def measured_lph(entry: Entry) -> float | None:
    """The flow of a test, L/h, None for another kind of entry. entry: of a tank."""
    return body_lph(entry.body)


def body_lph(body: Body) -> float | None:
    """The flow a body tells, L/h; None for another kind. body: of an entry."""
    if isinstance(body, FlowTest):
        return bucket_lph(body.container_l, body.times_s)
    return body.measured_lph if isinstance(body, TimedFlow) else None


def _tests(state: LogbookState, key: str) -> list[Entry]:
    """Flow tests of one filter by any method, oldest first."""
    found = [e for e in [*state.flow_tests, *state.timed_flows] if getattr(e.body, "filter_key", None) == key]
    return sorted(found, key=lambda e: (e.at, e.id))


def all_flows(state: LogbookState, key: str) -> list[tuple[datetime, float]]:
    """All measured flows of one filter, oldest first: (time, L/h). state: the tank's; key: of the filter."""
    found = [(e.at, measured_lph(e)) for e in _tests(state, key)]
    return [(at, flow) for at, flow in found if flow is not None and flow >= 1]


def calibration(state: LogbookState, key: str) -> float | None:
    """Measured over computed flow of a filter's newest test with both, a ratio; None without one.

    state: the tank's; key: of the filter.
    """
    tests = [
        (e.at, (measured_lph(e) or 0.0) / e.body.computed_lph)
        for e in _tests(state, key)
        if isinstance(e.body, FlowTest | TimedFlow) and e.body.computed_lph
    ]
    return max(tests)[1] if tests else None
