"""Replayed states of tanks, cached by logbook content, so that no other process can hold a different one."""

from collections import OrderedDict
from threading import Lock

from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.store.tanks import Tanks

MOST_TANKS_KEPT = 200
MOST_ENTRIES_KEPT = 20_000
"""Entries of all states kept in one process together (about 55 MB where they are tests)."""
Key = tuple[int, int]
"""Tank, and number of writes to it."""


class StateCache:
    """States by tank and number of writes, the least recently used dropped first."""

    def __init__(self) -> None:
        self._kept: OrderedDict[Key, tuple[LogbookState, int]] = OrderedDict()
        self._entries = 0
        self._lock = Lock()

    def of(self, mine: Tanks, tank_id: int) -> LogbookState:
        """State of a tank; a copy of its own for each call, without memoized results. Raises NoSuchTank.

        mine: tanks the caller may see; tank_id: one of them.
        """
        # The number of writes is read first: a write in between only stores newer entries under an old key.
        key = (tank_id, mine.writes(tank_id))
        with self._lock:
            found = self._kept.get(key)
            if found is not None:
                self._kept.move_to_end(key)
        if found is None:
            entries = mine.recent(tank_id)
            found = replay(entries), len(entries)
            self._put(key, *found)
        # Results hang on the time of the request and the keeper's units, so each request has its own.
        return found[0].model_copy()

    def _put(self, key: Key, state: LogbookState, entries: int) -> None:
        if entries > MOST_ENTRIES_KEPT:
            return
        with self._lock:
            # Of one tank the newest is enough.
            for older in [k for k in self._kept if k[0] == key[0]]:
                self._entries -= self._kept.pop(older)[1]
            self._kept[key] = state, entries
            self._entries += entries
            while len(self._kept) > MOST_TANKS_KEPT or self._entries > MOST_ENTRIES_KEPT:
                self._entries -= self._kept.popitem(last=False)[1][1]
