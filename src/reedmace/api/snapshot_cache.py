"""The web process's cache of tank snapshots."""

from collections.abc import Sequence
from typing import cast

from flask import current_app, g

from reedmace.api.session import tanks
from reedmace.logbook.rooms.tank_snapshot import TankSnapshot
from reedmace.store import SnapshotCache, TankName


def _kept() -> SnapshotCache:
    return cast(SnapshotCache, current_app.extensions.setdefault("snapshots", SnapshotCache()))


def snapshots(some: Sequence[TankName]) -> dict[int, TankSnapshot]:
    """Snapshots of tanks, by id. some: the keeper's own, or of a household the keeper helps in."""
    return _kept().of(tanks(), some, g.now)
