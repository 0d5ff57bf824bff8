"""Share of the film each filter holds, and the stops of filters."""

from datetime import datetime

from reedmace.logbook.replay.entries import Outage
from reedmace.logbook.replay.state import LogbookState, shares_of


def film_shares(state: LogbookState, at: datetime) -> dict[str, float]:
    """Share of the total film each filter holds, or held until it was removed, by its key.

    state: the tank's; at: aware time.
    """
    return {**{t.key: t.share for t in state.taken_off}, **shares_of(state.filters(), state.hung_since, at)}


def stretches(state: LogbookState, now: datetime) -> list[tuple[datetime, datetime | None, str]]:
    """Every stop of every filter: (from, until, key), until None while it lasts; a stop of all is one of each.

    state: the tank's; now: aware time; "*" stands for the filter of a tank that lists none. A stop lasts while its end
    lies ahead.
    """
    bodies = [f.key for f in state.filters()]
    gone = {t.key: t.at for t in state.taken_off}
    found: list[tuple[datetime, datetime | None, str]] = []
    since: dict[str, datetime] = {}
    for e in state.events:
        if not isinstance(e.body, Outage):
            continue
        for key in [e.body.filter_key] if e.body.filter_key else bodies or ["*"]:
            if not e.body.running:
                since.setdefault(key, e.at)
            elif key in since:
                found.append((since.pop(key), e.at, key))
    # A filter that was removed is no longer stopped.
    found += [(at, gone.get(key) if key not in bodies else None, key) for key, at in since.items() if now > at]
    begun = [(at, until if until is not None and until <= now else None, key) for at, until, key in found if at <= now]
    return sorted(begun, key=lambda s: (s[0], s[2]))
