"""What one account may hold: beyond it a refusal that says the remedy, and nothing half done."""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine

NOTE = {"kind": "note", "text": "another"}


def note(keeper, tank: int, key: str):
    body = {"key": f"quota-entry-{key}", "at": datetime.now(UTC).isoformat(), "body": NOTE}
    return keeper.send("POST", f"/api/tanks/{tank}/entries", body)


def test_a_tank_written_to_without_end_waits_a_day_and_loses_nothing(keeper, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("reedmace.store.tanks.ENTRIES_A_DAY", 5)
    tank, other = keeper.tank("Busy"), keeper.tank("Quiet")
    assert [note(keeper, tank, f"{n}").status_code for n in range(5)] == [201] * 5
    refused = note(keeper, tank, "sixth")
    assert refused.status_code == 429
    assert 0 < int(refused.headers["Retry-After"]) <= 86_401
    assert "24 hours" in refused.json["detail"]
    # What was sent before is still vouched for when it is sent again, another tank is open, and so is this one a day
    # later.
    assert note(keeper, tank, "4").status_code == 201
    assert len(keeper.get(f"/api/tanks/{tank}/entries").json["entries"]) == 5
    assert note(keeper, other, "there").status_code == 201
    with time_machine.travel(datetime.now(UTC) + timedelta(days=1, minutes=1)):
        assert note(keeper, tank, "sixth").status_code == 201


def test_a_file_of_more_than_a_day_takes_is_refused_whole(keeper, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("reedmace.store.tanks.ENTRIES_A_DAY", 5)
    tank = keeper.tank("Notebook")
    rows = "".join(f"2026-01-{day:02d}T08:00:00Z,{day / 10}\n" for day in range(1, 7))
    refused = keeper.client.post(
        f"/api/tanks/{tank}/readings.csv", data=f"at,ammonia_ppm\n{rows}", headers={"X-CSRF-Token": keeper.token}
    )
    assert refused.status_code == 429
    assert keeper.get(f"/api/tanks/{tank}/entries").json["entries"] == []


def test_tanks_and_devices_have_an_end_that_says_what_to_do(keeper, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("reedmace.store.tanks.MOST_TANKS", 2)
    monkeypatch.setattr("reedmace.store.devices.MOST_DEVICES", 1)
    tank = keeper.tank("One")
    keeper.tank("Two")
    third = keeper.send("POST", "/api/tanks", {"name": "Three"})
    assert (third.status_code, third.json["title"]) == (409, "Too many tanks")
    assert "Remove some first" in third.json["detail"]
    assert [t["name"] for t in keeper.get("/api/tanks").json["tanks"]] == ["One", "Two"]
    device = {"name": "Meter", "kind": "flow-meter"}
    assert keeper.send("POST", f"/api/tanks/{tank}/devices", device).status_code == 201
    second = keeper.send("POST", f"/api/tanks/{tank}/devices", device)
    assert (second.status_code, second.json["title"]) == (409, "Too many devices")
