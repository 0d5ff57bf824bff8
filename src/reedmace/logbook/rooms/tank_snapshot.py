"""A tank at a glance: what Today and a room's board say of it, and for how long that may be said again unchanged."""

from datetime import datetime, timedelta
from typing import NamedTuple

from reedmace.logbook.care.spare_sponges import Seed, seeds
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.rooms.room_view import BoardRow, RoomTank, board_row
from reedmace.logbook.stages.stage_rows import Stage
from reedmace.logbook.stages.today import TodayView, today_view

_LOOKED_AT = ("readings", "timed_flows", "flow_tests", "doses", "changes", "alkalinity")
PRESSES, QUIET = timedelta(minutes=2), timedelta(minutes=30)
"""A tank in which something presses, or whose cycle is under way, is looked at again so soon; a settled one so late at the most."""


class Glance(NamedTuple):
    """One tank: its plans and happenings, Today's view, its stages, its row on the board, its spare sponges, and until when all that holds."""

    state: LogbookState
    view: TodayView
    stages: list[Stage]
    row: BoardRow
    seeds: list[Seed]
    made_at: datetime
    good_until: datetime

    def holds(self, now: datetime) -> bool:
        """Whether it may still be said. now: aware time."""
        return self.made_at <= now < self.good_until


def glance(tank: RoomTank, now: datetime) -> Glance:
    """A tank at a glance. tank: its id, name and state; now: aware time.

    It holds until the next thing falls due, and for minutes only while something presses or a cycle is under way.
    """
    view, stages = today_view(tank.state, now)
    row = board_row(tank, now)
    presses = view.urgent or view.advice is not None or view.stop is not None or view.illness is not None
    ahead = [d.at for d in [*view.due, *row.next] if d.at > now]
    until = min([now + (PRESSES if presses else QUIET), *ahead])
    # Its tests, doses and changes have been looked at; to keep them for every tank would take a gigabyte.
    slim = tank.state.model_copy(update={name: [] for name in _LOOKED_AT})
    return Glance(slim, view, stages, row, seeds(tank.state, now), now, until)
