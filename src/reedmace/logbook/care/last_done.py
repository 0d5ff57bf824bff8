"""When each task of a tank was last done, from its logbook."""

from datetime import datetime

from reedmace.core.upkeep.care_schemas import CareWhat
from reedmace.logbook.replay.entries import AirSeen, CareDone, Entry, MediaWork
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.state import LogbookState

LONGEST = 36500.0
"""Days past which it does not matter how long ago something was."""


def cleanings(state: LogbookState, key: str) -> list[datetime]:
    """When a filter's media were rinsed or replaced, oldest first. state: the tank's; key: of the filter."""
    return [
        e.at
        for e in state.events
        if isinstance(e.body, MediaWork)
        and e.body.what in ("rinsed", "rinsed-tap", "replaced")
        and e.body.filter_key in (None, key)
    ]


def cleaned_at(state: LogbookState, key: str) -> datetime | None:
    """When a filter's media were last rinsed or replaced. state: the tank's; key: of the filter."""
    return max(cleanings(state, key), default=None)


def days_since(now: datetime, at: datetime | None) -> float | None:
    """Days from a time until now, None without a time. now, at: aware times."""
    return None if at is None else min(max((now - at).total_seconds() / 86400, 0.0), LONGEST)


def newest(entries: list[Entry]) -> datetime | None:
    """Time of the newest of some entries; None where there are none. entries: in any order."""
    return max((e.at for e in entries), default=None)


def done_at(state: LogbookState, what: str, key: str | None) -> datetime | None:
    """When a small task was last written down as done; None where never.

    state: the tank's; what: the task, as an entry names it; key: of its filter, None for the whole tank.
    """
    return max(
        (
            e.at
            for e in state.events
            if isinstance(e.body, CareDone) and e.body.what == what and e.body.filter_key in (None, key)
        ),
        default=None,
    )


def last_done(state: LogbookState, what: CareWhat, key: str | None) -> datetime | None:
    """When a task of the care plan was last done; None where never.

    state: the tank's; what: the task; key: of its filter, None for one of the whole tank.
    """
    of_water: dict[CareWhat, list[Entry]] = {
        "change": state.changes,
        "test": state.readings,
        "soda": state.alkalinity,
    }
    if what in of_water:
        return newest(of_water[what])
    if what == "clean":
        return cleaned_at(state, key or "")
    if what == "look":
        return looked_at(state, key or "")
    if what == "flow-test":
        return max((at for at, _ in all_flows(state, key or "")), default=None)
    return done_at(state, what, key)


def looked_at(state: LogbookState, key: str) -> datetime | None:
    """When a filter's bubbles were last looked at; hanging it, timing it or cleaning it was a look as well.

    state: the tank's; key: of the filter.
    """
    seen = [e for e in state.events if isinstance(e.body, AirSeen) and e.body.filter_key in (None, key)]
    flows = all_flows(state, key)
    at = (newest(seen), cleaned_at(state, key), flows[-1][0] if flows else None, state.hung_since.get(key))
    return max([t for t in at if t is not None], default=None)
