"""Snapshots of an account's tanks, cached by logbook content, so that no other process can hold a different one."""

from collections import OrderedDict
from collections.abc import Sequence
from datetime import datetime
from threading import Lock

from reedmace.core.quantity import formatting
from reedmace.logbook.replay.state import replay
from reedmace.logbook.rooms.shared_resources import RoomTank
from reedmace.logbook.rooms.tank_snapshot import TankSnapshot, tank_snapshot
from reedmace.store.tank_queries import TankName
from reedmace.store.tanks import Tanks

KEPT = 600
"""Snapshots kept in one process, least recently used dropped (each about 0.1 MB)."""
Key = tuple[int, int, formatting.Units]


class SnapshotCache:
    """Snapshots by tank, number of writes, and units; equal keys give equal snapshots."""

    def __init__(self) -> None:
        self._kept: OrderedDict[Key, TankSnapshot] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Key, now: datetime) -> TankSnapshot | None:
        """The cached snapshot; None where there is none, or it has expired. now: aware time."""
        with self._lock:
            found = self._kept.get(key)
            if found is None or not found.holds(now):
                return None
            self._kept.move_to_end(key)
            return found

    def put(self, key: Key, made: TankSnapshot) -> None:
        """Store a snapshot; the least recently used one is dropped."""
        with self._lock:
            self._kept[key] = made
            self._kept.move_to_end(key)
            while len(self._kept) > KEPT:
                self._kept.popitem(last=False)

    def of(self, mine: Tanks, some: Sequence[TankName], now: datetime) -> dict[int, TankSnapshot]:
        """Snapshots of tanks, by id and in the units chosen, in a constant number of queries.

        mine: the keeper's; some: of them, or of a household the keeper helps in; now: aware time.
        """
        units = formatting.chosen()
        writes = mine.writes_of([t.id for t in some])
        keys: dict[int, Key] = {t.id: (t.id, writes.get(t.id, 0), units) for t in some}
        found = {t.id: one for t in some if (one := self.get(keys[t.id], now)) is not None}
        missing = [t for t in some if t.id not in found]
        entries = mine.recent_of([t.id for t in missing])
        for t in missing:
            found[t.id] = tank_snapshot(RoomTank(t.id, t.name, replay(entries.get(t.id, []))), now)
            self.put(keys[t.id], found[t.id])
        # The tank may have been renamed since.
        return {
            t.id: one._replace(row=one.row.model_copy(update={"name": t.name})) if one.row.name != t.name else one
            for t in some
            for one in [found[t.id]]
        }
