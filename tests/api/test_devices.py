"""Devices: a token of their own, the same entries, never twice, never another's tank."""

from datetime import UTC, datetime, timedelta

import pytest

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.standins import FlowMeter, SmartPlug

START = datetime(2026, 1, 1, tzinfo=UTC)


def device(keeper, kind: str, tank: int | None = None) -> tuple[int, dict, str]:
    tank = tank or keeper.tank()
    made = keeper.send("POST", f"/api/tanks/{tank}/devices", {"name": "On the hose", "kind": kind})
    assert made.status_code == 201
    return tank, made.json["device"], made.json["token"]


def say(visitor, token: str, reading: dict):
    headers = {"Authorization": f"Bearer {token}"}
    return visitor().client.post("/api/device/readings", json=reading, headers=headers)


def bodies(keeper, tank: int) -> list[dict]:
    return [e["body"] for e in keeper.get(f"/api/tanks/{tank}/entries").json["entries"]]


def test_a_meters_readings_are_flow_tests_and_a_repeated_send_writes_nothing(sign_up, visitor) -> None:
    keeper = sign_up()
    tank, _, token = device(keeper, "flow-meter")
    readings = list(FlowMeter(clean_lph=700).readings(START, 28))
    assert [say(visitor, token, r).json["written"] for r in readings] == [True] * 5
    assert [say(visitor, token, r).json["written"] for r in readings] == [False] * 5
    flows = [b["measured_lph"] for b in bodies(keeper, tank) if b["kind"] == "timed-flow"]
    assert flows == [r["flow_lph"] for r in reversed(readings)]
    assert keeper.get(f"/api/tanks/{tank}").json["due"] == []


def test_a_plug_writes_only_when_the_power_goes_and_comes_back(sign_up, visitor) -> None:
    keeper = sign_up()
    tank, _, token = device(keeper, "smart-plug")
    plug = SmartPlug(watts=14, cuts=((60, 120),))
    written = [say(visitor, token, r).json["written"] for r in plug.readings(START, 240)]
    assert sum(written) == 2
    kept = [e for e in keeper.get(f"/api/tanks/{tank}/entries").json["entries"] if e["body"]["kind"] == "outage"]
    assert [(e["body"]["running"], e["at"]) for e in reversed(kept)] == [
        (False, (START + timedelta(minutes=60)).isoformat().replace("+00:00", "Z")),
        (True, (START + timedelta(minutes=120)).isoformat().replace("+00:00", "Z")),
    ]


@pytest.mark.parametrize(
    "headers",
    [{}, {"Authorization": "Bearer nonsense"}, {"Authorization": "Basic x"}, {"Authorization": "Bearer"}],
    ids=["none", "wrong", "another scheme", "empty"],
)
def test_without_its_token_a_device_is_refused(visitor, headers: dict) -> None:
    reading = next(iter(FlowMeter(clean_lph=700).readings(START, 1)))
    answer = visitor().client.post("/api/device/readings", json=reading, headers=headers)
    assert answer.status_code == 401
    assert answer.json["detail"]


def test_a_device_taken_away_may_not_write_and_its_token_is_never_shown_again(sign_up, visitor) -> None:
    keeper = sign_up()
    tank, made, token = device(keeper, "flow-meter")
    assert token not in keeper.get(f"/api/tanks/{tank}/devices").text
    assert keeper.send("DELETE", f"/api/tanks/{tank}/devices/{made['id']}").status_code == 200
    assert keeper.send("DELETE", f"/api/tanks/{tank}/devices/{made['id']}").status_code == 404
    reading = next(iter(FlowMeter(clean_lph=700).readings(START, 1)))
    assert say(visitor, token, reading).status_code == 401


def test_a_device_writes_in_its_own_tank_only(sign_up, visitor) -> None:
    keeper = sign_up()
    tank, _, token = device(keeper, "flow-meter")
    other = keeper.tank("Other")
    say(visitor, token, next(iter(FlowMeter(clean_lph=700).readings(START, 1))))
    assert len(bodies(keeper, tank)) == 1
    assert bodies(keeper, other) == []


def test_a_reading_out_of_range_is_refused_with_its_limit(sign_up, visitor) -> None:
    _, _, token = device(sign_up(), "flow-meter")
    answer = say(visitor, token, {"key": "meter-00000001", "at": START.isoformat(), "flow_lph": -4})
    assert answer.status_code == 422
    assert "at least 0" in answer.json["errors"][0]["what"]


def test_a_plug_at_one_filter_of_two_stops_that_one_alone(sign_up, visitor) -> None:
    keeper = sign_up()
    tank = keeper.tank()
    pair = [{"key": key, "filter": SAMPLE_BOXES[0].model_dump()} for key in ("left", "right")]
    assert keeper.write(tank, {"kind": "filter-plan", "filters": pair}).status_code == 201
    made = keeper.send(
        "POST", f"/api/tanks/{tank}/devices", {"name": "Plug", "kind": "smart-plug", "filter_key": "right"}
    ).json
    assert made["device"]["filter_key"] == "right"
    off = {"key": "plug-off-1", "at": "2026-05-01T08:00:00Z", "watts": 0}
    assert say(visitor, made["token"], off).json["written"] is True
    # Off is off: told again it says nothing new.
    assert say(visitor, made["token"], {**off, "key": "plug-off-2"}).json["written"] is False
    kept = keeper.get(f"/api/tanks/{tank}/views/keep").json["filters"]
    assert {f["key"]: f["runs"] for f in kept} == {"left": True, "right": False}


def test_a_meter_at_the_second_filter_is_that_ones_flow_test(sign_up, visitor) -> None:
    keeper = sign_up()
    tank = keeper.tank()
    pumped = [f for f in SAMPLE_BOXES if not f.air][:2]
    pair = [{"key": f"f{i}", "filter": f.model_dump()} for i, f in enumerate(pumped, 1)]
    keeper.write(tank, {"kind": "filter-plan", "filters": pair})
    made = keeper.send(
        "POST", f"/api/tanks/{tank}/devices", {"name": "Meter", "kind": "flow-meter", "filter_key": "f2"}
    ).json
    say(visitor, made["token"], {"key": "meter-001", "at": "2026-05-01T08:00:00Z", "flow_lph": 321})
    kept = keeper.get(f"/api/tanks/{tank}/views/keep").json["filters"]
    assert [[t["flow_lph"] for t in f["flows"]] for f in kept] == [[], [321]]
