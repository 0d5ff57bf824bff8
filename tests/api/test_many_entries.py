"""A tank in which devices have written for years opens like any other."""

import json
from datetime import UTC, datetime, timedelta

import pytest

from reedmace.database import connect
from reedmace.store import sweep
from reedmace.store.models import Account, EntryRow, Tank
from reedmace.store.recent_entries import NEWEST
from reedmace.store.removal import CLOSED

MANY = 20_000


@pytest.fixture
def crowded(keeper, mariadb):
    """A keeper with one tank of twenty thousand tests, written past the door for speed."""
    tank = keeper.tank("Years")
    keeper.write(tank, {"kind": "tank-plan", "tank": {"length_cm": 100, "width_cm": 40, "height_cm": 45}})
    database = connect(mariadb.app_url)
    now = datetime.now(UTC).replace(tzinfo=None)
    rows = [
        {
            "tank": tank,
            "client_key": f"probe-{n:06d}",
            "kind": "reading",
            "at": now - timedelta(hours=MANY - n),
            "written_at": now,
            "body": {"kind": "reading", "temperature_c": 24 + n % 3},
        }
        for n in range(MANY)
    ]
    with database.atomic():
        for start in range(0, MANY, 1000):
            EntryRow.insert_many(rows[start : start + 1000]).bind(database).execute()
    database.close()
    return keeper, tank


def test_it_opens_with_the_newest_and_in_little(crowded) -> None:
    keeper, tank = crowded
    answer = keeper.get(f"/api/tanks/{tank}")
    assert answer.status_code == 200
    assert len(answer.get_data()) < 300_000
    readings = answer.json["state"]["readings"]
    assert len(readings) == NEWEST
    assert readings[-1]["body"]["temperature_c"] == 24 + (MANY - 1) % 3


def test_today_and_the_list_read_no_more_of_it(crowded) -> None:
    keeper, tank = crowded
    assert any(r["tank"]["id"] == tank for r in keeper.get("/api/today").json["rows"])
    assert keeper.get("/api/tanks").status_code == 200


def test_nothing_of_it_is_lost_to_those_who_take_it_out(crowded) -> None:
    keeper, tank = crowded
    bundle = json.loads(keeper.get(f"/api/tanks/{tank}/bundle.json").get_data(as_text=True))
    assert sum(e["body"]["kind"] == "reading" for e in bundle["entries"]) == MANY


def test_a_device_that_writes_reads_no_more_than_it_needs(crowded) -> None:
    keeper, tank = crowded
    made = keeper.send("POST", f"/api/tanks/{tank}/devices", {"name": "Probe", "kind": "thermometer"}).json
    reading = {"key": "probe-new-1", "at": datetime.now(UTC).isoformat(), "temperature_c": 30}
    answer = keeper.send("POST", "/api/device/readings", reading, headers={"Authorization": f"Bearer {made['token']}"})
    assert answer.status_code == 201
    assert answer.json["written"] is True


def test_a_keepers_own_logbook_comes_back_whatever_its_size(crowded) -> None:
    keeper, tank = crowded
    text = keeper.get(f"/api/tanks/{tank}/bundle.json").get_data(as_text=True)
    assert len(text) > 2_000_000
    answer = keeper.send("POST", "/api/bundles", json.loads(text))
    assert answer.status_code == 201, answer.json
    assert answer.json["entries"] == MANY + 1


def test_a_probe_never_pushes_the_last_ammonia_test_out(crowded) -> None:
    keeper, tank = crowded
    long_ago = (datetime.now(UTC) - timedelta(days=700)).isoformat()
    keeper.write(tank, {"kind": "reading", "ammonia_ppm": 0.5, "temperature_c": 25}, at=long_ago)
    readings = keeper.get(f"/api/tanks/{tank}").json["state"]["readings"]
    assert [r["body"]["ammonia_ppm"] for r in readings if r["body"]["ammonia_ppm"] is not None] == [0.5]
    assert len(readings) == NEWEST + 1


def test_any_figure_but_a_probes_makes_a_test_that_no_probe_pushes_out(crowded) -> None:
    keeper, tank = crowded
    long_ago = (datetime.now(UTC) - timedelta(days=700)).isoformat()
    keeper.write(tank, {"kind": "reading", "gh_dgh": 9}, at=long_ago)
    keeper.write(tank, {"kind": "reading", "oxygen_mg_l": 7.5}, at=long_ago)
    keeper.write(tank, {"kind": "reading", "ph": 7.5}, at=long_ago)
    readings = [r["body"] for r in keeper.get(f"/api/tanks/{tank}").json["state"]["readings"]]
    assert sum(r["gh_dgh"] == 9 for r in readings) == sum(r["oxygen_mg_l"] == 7.5 for r in readings) == 1
    assert len(readings) == NEWEST + 2


def test_every_reading_goes_out_as_csv_by_its_time_and_without_what_was_taken_back(crowded) -> None:
    keeper, tank = crowded
    wrong = keeper.write(tank, {"kind": "reading", "ph": 5.5}).json["id"]
    keeper.write(tank, {"kind": "reading", "ph": 7.7}, supersedes=wrong)
    rows = keeper.get(f"/api/tanks/{tank}/readings.csv").get_data(as_text=True).splitlines()
    assert len(rows) == 1 + MANY + 1
    assert rows[1:] == sorted(rows[1:])
    assert not any(",5.5," in row for row in rows)


def test_what_was_exported_is_known_when_it_comes_back(crowded) -> None:
    keeper, tank = crowded
    rows = keeper.get(f"/api/tanks/{tank}/readings.csv").get_data(as_text=True).splitlines()
    again = "\r\n".join([rows[0], *rows[-50:], "2026-01-02T03:04:05+00:00,ion,,,,6.9,,,,"])
    token = {"X-CSRF-Token": keeper.token, "Content-Type": "text/csv"}
    answer = keeper.client.post(f"/api/tanks/{tank}/readings.csv", data=again, headers=token)
    assert answer.json == {"added": 1, "known": 50}


def test_its_account_closes_at_once_and_nothing_of_it_is_left_after_the_sweep(crowded, mariadb) -> None:
    keeper, tank = crowded
    look = keeper.send("POST", f"/api/tanks/{tank}/link").json
    assert keeper.send("POST", "/api/account/close", {"password": "reed and water"}).status_code == 200
    assert keeper.get(f"/api/tanks/{tank}").status_code == 401
    assert keeper.get(f"/api/look/{look['url'].rsplit('/', 1)[-1]}").status_code == 404
    database = connect(mariadb.app_url)
    while sweep(database, datetime.now(UTC)):
        pass
    assert not EntryRow.select().where(EntryRow.tank == tank).bind(database).exists()
    assert not Tank.select().where(Tank.id == tank).bind(database).exists()
    assert not Account.select().where(Account.email.startswith(CLOSED)).bind(database).exists()
    database.close()


def test_nobody_else_may_send_so_much(visitor) -> None:
    stranger = visitor()
    answer = stranger.send("POST", "/api/bundles", {"entries": ["x" * 3_000_000]})
    assert answer.status_code in (401, 413)
