"""Reviews of changes to the equipment, a month later: figures before and after, and the keeper's verdict."""

from datetime import datetime, timedelta
from typing import Annotated

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Lph, Part
from reedmace.logbook.care.filter_stops import begun_with_life
from reedmace.logbook.replay.entries import Entry, MediaWork, Reading, Review
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.state import LogbookState

AFTER, NO_LONGER = timedelta(days=30), timedelta(days=180)
"""Age at which a change is asked about (common practice), and at which it is no longer."""
MEDIA = {"replaced": "Media replaced", "moved": "Media moved in", "seed-added": "Seeded media added"}


class ChangeReview(Part):
    """One change, the figures before and since, and the keeper's verdict."""

    of: str
    title: str
    at: AwareDatetime
    due_at: AwareDatetime
    flow_before_lph: Annotated[Lph | None, Field(description="Of all filters timed before; none where none was")]
    flow_after_lph: Lph | None
    trace: bool = Field(description="Ammonia or nitrite was read in the month after")
    said: Review | None


def reviews(state: LogbookState, now: datetime) -> list[ChangeReview]:
    """Changes of a running tank, newest first: those a month old without a verdict, and those with one.

    state: the tank's; now: aware time.
    """
    said = {e.body.of: e.body for e in state.events if isinstance(e.body, Review)}
    found = [
        ChangeReview(
            of=key,
            title=title,
            at=at,
            due_at=at + AFTER,
            flow_before_lph=_flow(state, None, at),
            flow_after_lph=_flow(state, at, now),
            trace=_trace(state, at),
            said=said.get(key),
        )
        for key, title, at in _changes(state)
        if begun_with_life(state, at) and at <= now and (key in said or AFTER <= now - at <= NO_LONGER)
    ]
    return sorted(found, key=lambda one: one.at, reverse=True)


def _changes(state: LogbookState) -> list[tuple[str, str, datetime]]:
    """(key, title, time) of each filter added or removed, and of media changed for other media."""
    names = {f.key: f.filter.name for f in state.filters()}
    found = [(f"hung-{key}", f"{names[key]} hung", at) for key, at in state.hung_since.items() if key in names]
    found += [(f"off-{t.key}-{t.at:%Y%m%d}", f"{t.name} taken off", t.at) for t in state.taken_off]
    found += [
        (f"media-{e.id}", MEDIA[e.body.what], e.at)
        for e in state.events
        if isinstance(e.body, MediaWork) and e.body.what in MEDIA
    ]
    return found


def _flow(state: LogbookState, after: datetime | None, until: datetime) -> float | None:
    """Sum of the last timed flow of every filter between two times, L/h; None without one."""
    last = []
    for key in dict.fromkeys([*(f.key for f in state.filters()), *(t.key for t in state.taken_off)]):
        flows = [lph for at, lph in all_flows(state, key) if (after is None or at > after) and at <= until]
        last += flows[-1:]
    return sum(last) if last else None


def _trace(state: LogbookState, at: datetime) -> bool:
    def reads(e: Entry) -> bool:
        return isinstance(e.body, Reading) and ((e.body.ammonia_ppm or 0) > 0 or (e.body.nitrite_ppm or 0) > 0)

    return any(reads(e) for e in state.readings if at < e.at <= at + AFTER)
