"""Snapshot of a tank for Today and the room's board, with its expiry."""

from datetime import datetime, timedelta
from typing import NamedTuple

from reedmace.core.errors import CannotAnswer
from reedmace.logbook.care.spare_sponges import Seed, seeds
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.rooms.room_view import BoardRow, RoomTank, board_row
from reedmace.logbook.rooms.round_tasks import TankTask, round_tasks
from reedmace.logbook.stages.stage_rows import Stage
from reedmace.logbook.stages.today import TodayView, today_view

_LOOKED_AT = ("readings", "timed_flows", "flow_tests", "doses", "changes", "alkalinity")
PRESSES, QUIET = timedelta(minutes=2), timedelta(minutes=30)
"""Lifetime of a snapshot: with something urgent or a running cycle, and of a settled tank."""


class TankSnapshot(NamedTuple):
    """One tank: plans and events, Today's view, stages, board row, spare sponges, round, and the expiry."""

    state: LogbookState
    view: TodayView
    stages: list[Stage]
    row: BoardRow
    seeds: list[Seed]
    tasks: list[TankTask]
    made_at: datetime
    good_until: datetime

    def holds(self, now: datetime) -> bool:
        """Whether it is still valid. now: aware time."""
        return self.made_at <= now < self.good_until


def tank_snapshot(tank: RoomTank, now: datetime) -> TankSnapshot:
    """Snapshot of a tank. tank: its id, name and state; now: aware time.

    It holds until the next thing falls due, and for minutes only while something presses or a cycle is under way.
    """
    view, stages = today_view(tank.state, now)
    row = board_row(tank, now)
    presses = view.urgent or view.advice is not None or view.stop is not None or view.illness is not None
    ahead = [d.at for d in [*view.due, *row.next] if d.at > now]
    until = min([now + (PRESSES if presses else QUIET), *ahead])
    # Its readings, doses and changes are dropped: storing them for every tank would take a gigabyte.
    slim = tank.state.model_copy(update={name: [] for name in _LOOKED_AT})
    return TankSnapshot(slim, view, stages, row, seeds(tank.state, now), _tasks(tank, now), now, until)


def _tasks(tank: RoomTank, now: datetime) -> list[TankTask]:
    """Its recurring tasks; none of a tank whose figures do not agree."""
    try:
        return round_tasks(tank, now)
    except CannotAnswer:
        return []
