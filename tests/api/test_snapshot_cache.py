"""What is kept of a tank between two looks never says anything old: an entry, a name, units, time, another process."""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine

from reedmace.api import Settings, create_app
from reedmace.logbook.rooms.tank_snapshot import PRESSES, QUIET, tank_snapshot
from reedmace.store import tank_snapshots
from tests.api.conftest import Keeper
from tests.api.test_care import living  # noqa: F401 - a fixture


@pytest.fixture
def made(monkeypatch: pytest.MonkeyPatch) -> list[int]:
    """Ids of the tanks that were worked out since."""
    found: list[int] = []
    real = tank_snapshot
    monkeypatch.setattr(tank_snapshots, "tank_snapshot", lambda tank, now: (found.append(tank.id), real(tank, now))[1])
    return found


def row_of(keeper, tank: int) -> dict:
    return next(r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank)


def test_a_tank_looked_at_twice_is_worked_out_once_for_today_and_board_alike(keeper, living, made) -> None:  # noqa: F811
    tank, _, _ = living
    room = keeper.send("POST", "/api/rooms", {"name": "Wall", "tank_ids": [tank]}).json["id"]
    first = row_of(keeper, tank)
    board = keeper.get(f"/api/rooms/{room}").json["view"]["rows"]
    assert made == [tank]
    assert row_of(keeper, tank) == first
    assert board[0]["verdict"] == first["verdict"]
    assert made == [tank]


def test_an_entry_a_name_and_units_are_seen_at_once(keeper, living, made) -> None:  # noqa: F811
    tank, write, _ = living
    row_of(keeper, tank)
    write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 3, "ph": 7.4})
    assert row_of(keeper, tank)["urgent"]
    room = keeper.send("POST", "/api/rooms", {"name": "Wall", "tank_ids": [tank]}).json["id"]
    assert keeper.send("PATCH", f"/api/tanks/{tank}", {"name": "By the door"}).status_code == 200
    assert row_of(keeper, tank)["tank"]["name"] == "By the door"
    assert keeper.get(f"/api/rooms/{room}").json["view"]["rows"][0]["name"] == "By the door"
    # A press of Undo is an entry too.
    newest = keeper.get(f"/api/tanks/{tank}/entries").json["entries"][0]
    keeper.write(tank, {"kind": "withdrawal"}, supersedes=newest["id"])
    assert not row_of(keeper, tank)["urgent"]


def test_what_is_said_of_a_quiet_tank_is_looked_at_again_in_time(keeper, living, made) -> None:  # noqa: F811
    tank, _, _ = living
    begun = datetime.now(UTC)
    row_of(keeper, tank)
    with time_machine.travel(begun + QUIET / 2, tick=False):
        row_of(keeper, tank)
        assert made == [tank]
    with time_machine.travel(begun + QUIET + timedelta(minutes=1), tick=False):
        row_of(keeper, tank)
        assert made == [tank, tank]


def test_what_presses_is_looked_at_again_within_minutes(keeper, living, made) -> None:  # noqa: F811
    tank, write, _ = living
    write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 3, "ph": 7.4})
    begun = datetime.now(UTC)
    row_of(keeper, tank)
    with time_machine.travel(begun + PRESSES + timedelta(seconds=5), tick=False):
        row_of(keeper, tank)
    assert made == [tank, tank]


def test_another_process_that_writes_is_believed(keeper, living, mariadb, made) -> None:  # noqa: F811
    tank, _, _ = living
    row_of(keeper, tank)
    other = Keeper(create_app(Settings(database_url=mariadb.app_url, secret_key="test", demo=True)).test_client())
    other.client.set_cookie("reedmace", keeper.client.get_cookie("reedmace").value)
    other.token = keeper.token
    poisoned = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 3, "ph": 7.4}
    assert other.write(tank, poisoned).status_code == 201
    assert row_of(keeper, tank)["urgent"]
    assert row_of(other, tank)["urgent"]
