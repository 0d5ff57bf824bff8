"""A tank's snapshot and how long it holds."""

from datetime import timedelta

from reedmace.logbook.rooms.shared_resources import RoomTank
from reedmace.logbook.rooms.tank_snapshot import PRESSES, QUIET, tank_snapshot
from tests.support.fitting import BY_ID, NOW, state_of

SETTLED = (
    (300, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BY_ID["burreed-20"].model_dump()}]}),
    (300, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 6}]}),
    (299, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=600)).isoformat()}),
    (2, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 10, "ph": 7.4, "kh_dkh": 6}),
    (2, {"kind": "water-change", "share": 0.25}),
)


def snapshot(*more: tuple[float, dict]):
    return tank_snapshot(RoomTank(5, "Rack", state_of(*SETTLED, *more)), NOW)


def test_it_holds_for_minutes_while_something_presses_and_longer_in_quiet() -> None:
    quiet = snapshot()
    assert quiet.good_until <= NOW + QUIET
    alarm = snapshot((0.01, {"kind": "reading", "ammonia_ppm": 4, "nitrite_ppm": 0, "ph": 8.2}))
    assert alarm.view.urgent
    assert alarm.good_until <= NOW + PRESSES
    assert quiet.good_until > alarm.good_until


def test_it_is_valid_from_when_it_was_made_until_its_end() -> None:
    one = snapshot()
    assert one.holds(NOW)
    assert not one.holds(NOW - timedelta(seconds=1))
    assert not one.holds(one.good_until)


def test_what_grows_by_thousands_is_not_kept_with_it() -> None:
    one = snapshot()
    assert one.state.readings == []
    assert one.state.changes == []
    assert one.row.tank_id == 5
    assert one.tasks
