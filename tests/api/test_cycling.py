"""A cycle through the API: files in and out, devices, and a whole cycle on a simulated tank in seconds."""

import json
from datetime import UTC, datetime, timedelta
from typing import Any

import jsonschema
import pytest
import time_machine
from icalendar import Calendar

from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.formats.mathml import math_of
from reedmace.standins import ColourKit, PhProbe, SimulatedTank, Thermometer

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
START = NOW - timedelta(days=9)
PLAN = {"kind": "cycle-plan", "started_at": START.isoformat(), "start_kh_dkh": 5, "start_ph": 7.4}
FALLING = (
    (0, 2, 0, 5.0), (4, 1, 0.5, 4.2), (7, 0.5, 1, 3.2), (8.9, 0.25, 1, 2.4),
)  # fmt: skip


def reading(ammonia: float, nitrite: float, **more: Any) -> dict[str, Any]:
    return {"kind": "reading", "ammonia_ppm": ammonia, "nitrite_ppm": nitrite, **more}


@pytest.fixture
def keeper(sign_up):
    """A keeper signed in on this file's own day, so that nothing here depends on the day it is run."""
    with time_machine.travel(NOW, tick=False):
        yield sign_up()


@pytest.fixture
def cycling(keeper):
    """(keeper, tank): nine days into a cycle whose KH falls."""
    tank = keeper.tank("Long shelf")
    keeper.write(tank, PLAN)
    for day, ammonia, nitrite, kh in FALLING:
        keeper.write(tank, reading(ammonia, nitrite, kh_dkh=kh), at=(START + timedelta(days=day)).isoformat())
    keeper.write(tank, {"kind": "dose", "raise_mg_n_l": 1.55}, at=START.isoformat())
    return keeper, tank


def cycle(keeper, tank: int) -> dict[str, Any]:
    return keeper.get(f"/api/tanks/{tank}/cycle").json


def test_the_cycle_holds_advice_forecast_books_and_what_is_foreseen(cycling) -> None:
    keeper, tank = cycling
    state = cycle(keeper, tank)
    assert state["advice"]["coming_stalls"][0]["what"] == "KH runs out"
    assert state["forecast"]["pass_day_p10"] < state["forecast"]["pass_day_p90"]
    assert state["forecast"]["nitrogen_gap_mg_n_l"] < 1e-9
    assert state["balance"]["added_mg_n_l"] > 1.5
    assert state["ramp"] is None
    stock = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 8}]}
    keeper.write(tank, stock)
    assert cycle(keeper, tank)["ramp"]["steps"]


def test_what_the_log_is_given_comes_from_every_kind_of_entry(cycling) -> None:
    keeper, tank = cycling
    at = {"at": (NOW - timedelta(days=2)).isoformat()}
    keeper.write(tank, {"kind": "outage", "running": False}, **at)
    keeper.write(tank, {"kind": "outage", "running": True}, at=(NOW - timedelta(days=1.5)).isoformat())
    keeper.write(tank, {"kind": "media-work", "what": "rinsed-tap", "share": 0.3}, **at)
    keeper.write(tank, {"kind": "water-change", "share": 0.2, "treated": False}, **at)
    keeper.write(tank, {"kind": "plant-growth"}, **at)
    keeper.write(tank, {"kind": "kit-plan", "kit": {"nitrite_ppm": [0, 0.5, 5]}, "expires_on": "2026-11-01"})
    log = cycle(keeper, tank)["log"]
    assert log["outages"][0]["hours"] == pytest.approx(12)
    assert (log["media"][0]["what"], log["media"][0]["share"]) == ("rinsed-tap", 0.3)
    assert log["changes"][0]["treated"] is False
    assert log["plants_growing_day"] == pytest.approx(7)
    assert log["kit"]["nitrite_ppm"] == [0, 0.5, 5]
    assert log["kit"]["expired"] is True
    # The water it was filled with is taken for the tap's.
    assert (log["tap"]["ph"], log["tap"]["kh_dkh"]) == (7.4, 5)


def test_animals_in_ask_for_an_emergency_plan_and_never_a_dose(keeper) -> None:
    tank = keeper.tank()
    keeper.write(tank, {**PLAN, "method": "animals-in"})
    keeper.write(tank, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 8}]})
    keeper.write(tank, {"kind": "stocking", "species_id": "zebra-danio", "count": 6}, at=START.isoformat())
    keeper.write(tank, reading(2, 1, ph=7.8), at=(NOW - timedelta(hours=2)).isoformat())
    state = cycle(keeper, tank)
    today = next(r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank)
    assert state["advice"]["first"]["do"] == "change-water"
    assert 0 < state["log"]["animals_in_mg_n_l_day"] < state["log"]["planned_load_mg_n_l_day"]
    assert all(a["do"] != "dose-ammonia" for a in state["advice"]["then"])
    assert today["advice"]["first"]["do"] == "change-water"


def test_the_emergency_plan_is_there_once_both_poisons_were_tested_and_only_with_animals_in(keeper) -> None:
    tank = keeper.tank()
    keeper.write(tank, {**PLAN, "method": "animals-in"})
    keeper.write(tank, {"kind": "stocking", "species_id": "zebra-danio", "count": 6}, at=START.isoformat())
    assert cycle(keeper, tank)["emergency"] is None
    keeper.write(tank, reading(1, 1, ph=7.8, temperature_c=27), at=(NOW - timedelta(hours=2)).isoformat())
    plan = cycle(keeper, tank)["emergency"]
    assert [limit["what"] for limit in plan["limits"]] == ["ammonia", "nitrite"]
    assert plan["limits"][0]["now_mg_n_l"] == pytest.approx(NITROGEN_SHARE["NH4"])
    # Not measured: the change is said as a share.
    first = cycle(keeper, tank)["advice"]["first"]
    assert first["amount"] is None
    assert plan["changes"][0]["share"] == pytest.approx(first["share"])
    assert "of the water" in first["title"]
    # An empty tank has none, however high it reads.
    bare = keeper.tank()
    keeper.write(bare, PLAN)
    keeper.write(bare, reading(4, 5), at=(NOW - timedelta(hours=2)).isoformat())
    assert cycle(keeper, bare)["emergency"] is None


def test_a_spike_after_stocking_brings_the_plan_back_whatever_the_method_was(cycling) -> None:
    keeper, tank = cycling
    keeper.write(tank, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 8}]})
    keeper.write(tank, {"kind": "stocking", "species_id": "zebra-danio", "count": 8}, at=NOW.isoformat())
    keeper.write(tank, reading(0.5, 2, ph=7.6), at=NOW.isoformat())
    state = cycle(keeper, tank)
    assert any(limit["over"] for limit in state["emergency"]["limits"])
    assert state["advice"]["first"]["do"] == "change-water"
    assert not state["readiness"]["ready"]


def test_sentences_speak_the_kits_own_ppm(cycling) -> None:
    keeper, tank = cycling
    keeper.write(tank, reading(1, 0.5), at=(NOW - timedelta(minutes=5)).isoformat())
    assert cycle(keeper, tank)["advice"]["animals"] == "Ammonia still reads 1 ppm and nitrite 0.5 ppm."
    keeper.write(
        tank,
        {"kind": "kit-plan", "kit": {"basis": "N", "ammonia_ppm": [0, 0.2, 0.4, 0.8], "nitrite_ppm": [0, 0.1, 0.5]}},
    )
    assert cycle(keeper, tank)["advice"]["animals"] == "Ammonia still reads 0.78 ppm as N and nitrite 0.15 ppm as N."
    # Nothing the keeper reads is left in the sums' own unit.
    state = cycle(keeper, tank)
    said = json.dumps(
        [
            state["advice"]["verdict"],
            state["advice"]["then"],
            state["readiness"]["missing"],
            [s["title"] + s["missing"] for s in state["readiness"]["standards"]],
            state["forecast"]["rests_on"],
        ]
    )
    assert "mg N/L" not in said


def test_a_correction_keeps_its_history_and_its_time_can_be_moved(cycling) -> None:
    keeper, tank = cycling
    wrong = keeper.get(f"/api/tanks/{tank}").json["state"]["readings"][-1]
    earlier = (NOW - timedelta(days=1)).isoformat()
    keeper.write(tank, reading(0.5, 1, kh_dkh=2.4), supersedes=wrong["id"], at=earlier)
    readings = keeper.get(f"/api/tanks/{tank}").json["state"]["readings"]
    assert len(readings) == len(FALLING)
    assert readings[-1]["body"]["ammonia_ppm"] == 0.5
    assert datetime.fromisoformat(readings[-1]["at"]) == NOW - timedelta(days=1)
    assert any(e["id"] == wrong["id"] for e in keeper.get(f"/api/tanks/{tank}/entries").json["entries"])


CSV = (
    "Date;Time;Ammonia (NH4) mg/l;NO2-N;KH ppm CaCO3;Temp"
    " F;Remark\n03/11/2026;07:40;0,5;0,3;71,4;79;dosed\n14/11/2026;19:05;<0,25;1+;;80;\n"
)


def mapped(keeper, tank: int, what: str, text: str = CSV, **more: Any):
    return keeper.send("POST", f"/api/tanks/{tank}/readings/{what}", {"text": text, **more})


def test_a_strangers_csv_is_understood_and_shown_before_anything_is_written(keeper) -> None:
    tank = keeper.tank()
    preview = mapped(keeper, tank, "preview").json
    assert {c["column"]: (c["target"], c["unit"]) for c in preview["columns"]} == {
        "Date": ("date", ""),
        "Time": ("time", ""),
        "Ammonia (NH4) mg/l": ("ammonia", "ppm"),
        "NO2-N": ("nitrite", "ppm-N"),
        "KH ppm CaCO3": ("kh", "ppm-CaCO3"),
        "Temp F": ("temperature", "F"),
        "Remark": ("skip", ""),
    }
    assert preview["date_order"] == "day-first"
    assert (preview["good"], preview["faults"]) == (2, [])
    assert keeper.get(f"/api/tanks/{tank}/entries").json["entries"] == []
    first, second = (r["reading"] for r in preview["rows"])
    assert first["nitrite_ppm"] == pytest.approx(0.3 / NITROGEN_SHARE["NO2"])
    assert first["kh_dkh"] == pytest.approx(4, abs=0.01)
    assert first["temperature_c"] == pytest.approx(26.11, abs=0.01)
    assert second["off_scale"] == ["nitrite"]
    assert mapped(keeper, tank, "import").json == {"added": 2, "known": 0}
    assert mapped(keeper, tank, "import").json == {"added": 0, "known": 2}
    assert mapped(keeper, tank, "preview").json["known"] == 2


def test_the_keepers_own_mapping_and_zone_are_followed(keeper) -> None:
    tank = keeper.tank()
    columns = [{"column": "Date", "target": "date"}, {"column": "NO2-N", "target": "nitrite", "unit": "ppm"}]
    rows = mapped(keeper, tank, "preview", columns=columns, date_order="month-first", zone_offset_minutes=60)
    # 03/11 is the 11th of March now; 14/11 has no month of that number and is said to be wrong.
    assert rows.json["rows"][0]["at"].startswith("2026-03-10T23:00")
    assert [f["where"] for f in rows.json["faults"]] == ["line 3, Date"]
    assert "month first" in rows.json["faults"][0]["what"]
    refused = mapped(keeper, tank, "import", columns=columns, date_order="month-first")
    assert refused.status_code == 422
    assert "line 3" in refused.json["errors"][0]["where"]
    assert keeper.get(f"/api/tanks/{tank}/entries").json["entries"] == []


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("ammonia\n1\n", "mapped to the date"),
        ("date\n2026-01-01\n", "mapped to a test"),
        ("date,ammonia\n2026-01-01,lots\n", "not a figure"),
        ("date,ammonia\nyesterday,1\n", "not a date"),
        ("date,time,ammonia\n2026-01-01,noonish,1\n", "not a time of day"),
        ("date,ph\n2026-01-01,74\n", "at most 10"),
        ("date,ammonia\n2199-01-01,1\n", "future"),
        ("date,ammonia\n,1\n", "no date"),
        ("date,ammonia\n2026-01-01,\n", "no figure"),
    ],
)
def test_each_fault_of_a_row_is_named(keeper, text: str, words: str) -> None:
    faults = mapped(keeper, keeper.tank(), "preview", text).json["faults"]
    assert any(words in f["what"] for f in faults), faults


def test_a_bundle_goes_out_by_its_schema_and_comes_in_as_the_same_tank(cycling) -> None:
    keeper, tank = cycling
    wrong = keeper.get(f"/api/tanks/{tank}").json["state"]["readings"][-1]["id"]
    keeper.write(tank, reading(0.5, 1, kh_dkh=2.4), supersedes=wrong, at=NOW.isoformat())
    bundle = json.loads(keeper.get(f"/api/tanks/{tank}/bundle.json").text)
    jsonschema.validate(bundle, keeper.get("/api/bundle/schema").json)
    brought = keeper.send("POST", "/api/bundles", bundle)
    assert brought.status_code == 201
    twin = brought.json["tank_id"]
    assert brought.json["entries"] == len(bundle["entries"])
    mine, theirs = (keeper.get(f"/api/tanks/{t}").json["state"] for t in (tank, twin))
    for part in ("readings", "doses"):
        assert [(e["at"], e["body"]) for e in mine[part]] == [(e["at"], e["body"]) for e in theirs[part]]
    assert cycle(keeper, tank)["forecast"] == cycle(keeper, twin)["forecast"]
    # What was corrected came along as corrected.
    assert len(keeper.get(f"/api/tanks/{twin}/entries").json["entries"]) == len(bundle["entries"])


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"format": "something-else"}, "reedmace-bundle"),
        ({"version": 3}, "2"),
        ({"tank": " "}, "pattern"),
        ({"entries": "none"}, "list"),
    ],
)
def test_a_bundle_that_is_none_is_refused_with_the_reason(keeper, change: dict, words: str) -> None:
    bundle = {"format": "reedmace-bundle", "version": 1, "written_at": NOW.isoformat(), "tank": "X", "entries": []}
    before = len(keeper.get("/api/tanks").json["tanks"])
    refused = keeper.send("POST", "/api/bundles", {**bundle, **change})
    assert refused.status_code == 422
    assert words in refused.text
    assert len(keeper.get("/api/tanks").json["tanks"]) == before


def test_a_bundle_out_of_order_is_refused_whole(cycling) -> None:
    keeper, tank = cycling
    wrong = keeper.get(f"/api/tanks/{tank}").json["state"]["readings"][-1]["id"]
    keeper.write(tank, {"kind": "withdrawal"}, supersedes=wrong, at=NOW.isoformat())
    bundle = json.loads(keeper.get(f"/api/tanks/{tank}/bundle.json").text)
    bundle["entries"].reverse()
    refused = keeper.send("POST", "/api/bundles", bundle)
    assert refused.status_code == 422
    assert "does not come before it" in refused.text
    doubled = {**bundle, "entries": [bundle["entries"][-1]] * 2}
    assert "there twice" in keeper.send("POST", "/api/bundles", doubled).text


def test_the_sbml_of_a_tank_is_its_own_model(cycling) -> None:
    import roadrunner

    keeper, tank = cycling
    text = keeper.get(f"/api/tanks/{tank}/cycle.sbml").text
    runner = roadrunner.RoadRunner(text)
    runner.timeCourseSelections = ["time", "TAN", "ALK"]
    found = runner.simulate(0, 9, 10)
    # The dose is an event at the start, as much as its tests say it came to; KH falls from 5 as ammonia goes.
    assert found[1][1] == pytest.approx(1.55 * runner["dose_worth"], abs=0.1)
    assert 0.75 < runner["dose_worth"] < 1.25
    assert found[9][2] < found[0][2]
    assert keeper.get(f"/api/tanks/{keeper.tank()}/cycle.sbml").status_code == 409


def test_a_formula_sbml_cannot_carry_is_refused() -> None:
    with pytest.raises(ValueError, match="not a formula"):
        math_of("__import__('os')")


def test_the_calendar_holds_what_comes_next_in_the_cycle(cycling) -> None:
    keeper, tank = cycling
    events = Calendar.from_ical(keeper.get(f"/api/tanks/{tank}/calendar.ics").text).walk("VEVENT")
    titles: dict[str, Any] = {str(e["summary"]): e["dtstart"].dt for e in events}
    gone = next(at for title, at in titles.items() if "KH runs out" in title)
    assert START + timedelta(days=12) < gone < START + timedelta(days=16)
    earliest = next(at for title, at in titles.items() if "Ready, earliest day" in title)
    latest = next(at for title, at in titles.items() if "Ready, latest likely day" in title)
    assert NOW < earliest < latest


def test_a_spare_sponge_seeds_travels_on_a_clock_and_arrives(keeper) -> None:
    tank = keeper.tank("Donor")
    key = keeper.write(
        tank, {"kind": "seed", "name": "Spare A", "media_share": 0.5}, at=(NOW - timedelta(days=21)).isoformat()
    ).json["key"]

    def register() -> dict[str, Any]:
        rows = keeper.get("/api/today").json["seeds"]
        return next(r["seed"] for r in rows if r["tank_id"] == tank)

    with time_machine.travel(NOW, tick=False):
        assert register()["where"] == "seeding"
        assert register()["answer"]["grown_share"] == pytest.approx(0.7)
        due = keeper.get(f"/api/tanks/{tank}").json["due"]
        assert due[0]["title"] == "A spare sponge is seeded"
        move = {"kind": "seed-move", "seed_key": key, "travels": "damp"}
        keeper.write(tank, {**move, "phase": "out"}, at=NOW.isoformat())
    with time_machine.travel(NOW + timedelta(minutes=45), tick=False):
        assert register()["where"] == "on-the-way"
        assert register()["answer"]["alive_share"] == pytest.approx(0.5**0.5, rel=1e-3)
        keeper.write(tank, {**move, "phase": "in", "to": "Hospital tank"}, at=(NOW + timedelta(minutes=45)).isoformat())
    with time_machine.travel(NOW + timedelta(days=3), tick=False):
        moved = register()
        assert (moved["where"], moved["moved_to"]) == ("moved", "Hospital tank")
        assert moved["question"]["minutes_out"] == pytest.approx(45)
        assert all("sponge" not in d["title"] for d in keeper.get(f"/api/tanks/{tank}").json["due"])


def device(keeper, tank: int, kind: str) -> str:
    return keeper.send("POST", f"/api/tanks/{tank}/devices", {"name": kind, "kind": kind}).json["token"]


def send(keeper, token: str, body: dict[str, Any]):
    return keeper.client.post("/api/device/readings", json=body, headers={"Authorization": f"Bearer {token}"})


def test_probes_write_when_their_figure_moves_and_once_a_day(keeper) -> None:
    tank = keeper.tank()
    token = device(keeper, tank, "thermometer")
    simulated = SimulatedTank(CycleLog(net_l=100, day_now=0))
    written = [
        send(keeper, token, Thermometer().reading(simulated, hour / 24, START)).json["written"]
        for hour in range(0, 73, 3)
    ]
    assert written[0]
    assert 3 <= sum(written) <= 12
    probe = device(keeper, tank, "ph-probe")
    assert send(keeper, probe, PhProbe().reading(simulated, 1, START)).json["written"]
    readings = [e["body"] for e in keeper.get(f"/api/tanks/{tank}").json["state"]["readings"]]
    assert all(24 < r["temperature_c"] < 28 for r in readings if r["temperature_c"])
    assert any(r["ph"] for r in readings)


def test_a_test_device_writes_a_test_once_and_only_what_it_reads(keeper) -> None:
    tank = keeper.tank()
    token = device(keeper, tank, "test-kit")
    simulated = SimulatedTank(CycleLog(net_l=100, day_now=0))
    simulated.dose(0, 30)
    body = ColourKit().reading(simulated, 0.5, START)
    assert [send(keeper, token, body).json["written"] for _ in range(2)] == [True, False]
    (only,) = keeper.get(f"/api/tanks/{tank}").json["state"]["readings"]
    assert only["body"]["ammonia_ppm"] == 8
    assert only["body"]["off_scale"] == ["ammonia"]
    assert not send(keeper, token, {"key": "nothing-read", "at": START.isoformat()}).json["written"]
    assert send(keeper, token, {"key": "wrong-figure", "at": START.isoformat(), "ph": 20}).status_code == 422


def _simulated(keeper, start: datetime) -> int:
    tank = keeper.tank("Simulated")
    keeper.write(tank, {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 35, "height_cm": 50}})
    keeper.write(tank, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 20}]})
    plan = {**PLAN, "started_at": start.isoformat(), "start_kh_dkh": 2.5, "start_ph": 7.2}
    keeper.write(tank, plan, at=start.isoformat())
    return tank


def test_a_whole_cycle_on_a_simulated_tank_by_the_advice_alone(visitor) -> None:
    """Follow the advice for weeks: it ends ready, and the simulated film then really clears its load."""
    seed = 3
    start = datetime(2026, 3, 1, 8, 0, tzinfo=UTC)
    who = {"email": f"simulated{seed}@yard.example", "password": "reed and water"}
    with time_machine.travel(start, tick=False):
        keeper = visitor()
        assert keeper.enter("POST", "/api/account", who).status_code == 201
        tank = _simulated(keeper, start)
        token, kit = device(keeper, tank, "test-kit"), ColourKit(seed=seed)
    simulated, day, did = None, 0.02, []
    while day < 80:
        with time_machine.travel(start + timedelta(days=day), tick=False):
            if day % 7 < 1:
                # Sessions end; the keeper signs in again.
                keeper = visitor()
                keeper.enter("POST", "/api/session", who)
            state = cycle(keeper, tank)
            if simulated is None:
                base = CycleLog.model_validate({**state["log"], "readings": [], "day_now": 0})
                simulated = SimulatedTank(base, seed)
            actions = [state["advice"]["first"], *state["advice"]["then"]]
            if state["readiness"]["ready"]:
                break
            at = (start + timedelta(days=day)).isoformat()
            again = False
            for action in actions:
                did.append(action["do"])
                if action["do"] == "test" and action["when"] == "now":
                    again = True
                    assert send(keeper, token, kit.reading(simulated, day, start)).json["written"]
                    break
                if action["do"] == "dose-ammonia":
                    again = True
                    simulated.dose(day, action["raise_mg_n_l"])
                    keeper.write(tank, {"kind": "dose", "raise_mg_n_l": action["raise_mg_n_l"]}, at=at)
                if action["do"] == "raise-kh":
                    simulated.alkalinity(day, action["raise_dkh"])
                    keeper.write(tank, {"kind": "alkalinity", "raise_dkh": action["raise_dkh"]}, at=at)
            # A test or a dose just made is looked at again an hour later; otherwise tomorrow morning.
            day = day + 0.04 if again else int(day) + 1.02
    assert state["readiness"]["ready"], (day, state["advice"]["verdict"])
    assert 12 < day < 75
    assert {"test", "dose-ammonia", "raise-kh"} <= set(did)
    assert actions[0]["do"] == "change-water"
    assert "add-animals" in [a["do"] for a in actions]
    # The proof of the pudding: the day's load of the planned animals is gone a day later, in truth and not by the kit.
    load = state["log"]["planned_load_mg_n_l_day"]
    before = simulated.water(day)
    simulated.dose(day + 0.05, load)
    after = simulated.water(day + 1.1)
    assert after["ammonia_mg_n_l"] < before["ammonia_mg_n_l"] + 0.15
    assert after["nitrite_mg_n_l"] < 0.2


def test_our_own_csv_read_as_a_strangers_is_the_same(cycling) -> None:
    keeper, tank = cycling
    keeper.write(tank, {**reading(0.4, 0.2), "basis": "N"}, at=(NOW - timedelta(hours=1)).isoformat())
    text = keeper.get(f"/api/tanks/{tank}/readings.csv").text
    preview = mapped(keeper, tank, "preview", text).json
    assert preview["faults"] == []
    assert preview["known"] == preview["good"] == len(FALLING) + 1
    twin = keeper.tank()
    assert mapped(keeper, twin, "import", text).json["added"] == len(FALLING) + 1
    assert keeper.get(f"/api/tanks/{twin}/readings.csv").text == text
