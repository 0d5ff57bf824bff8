"""A tank whose figures cannot be: it is not saved, and one that was saved before closes nothing."""

from datetime import UTC, datetime

import pytest

from reedmace.database import connect
from reedmace.logbook.replay.entries import NewEntry
from reedmace.store import Accounts, Tanks

BOX = {"length_cm": 60, "width_cm": 30, "height_cm": 36}
IMPOSSIBLE = {
    "substrate above the water": {"substrate_depth_cm": 60},
    "more counted than it holds": {"counted_l": 200},
    "more stone than water": {"stone_kg": 400},
    "water below the base": {"fill_below_rim_cm": 50},
}


@pytest.mark.parametrize("change", IMPOSSIBLE.values(), ids=IMPOSSIBLE.keys())
def test_it_is_refused_with_the_remedy_when_it_is_written(keeper, change: dict) -> None:
    tank = keeper.tank()
    refused = keeper.write(tank, {"kind": "tank-plan", "tank": {**BOX, **change}})
    assert refused.status_code == 422
    assert refused.json["errors"][0]["remedy"]
    assert keeper.get(f"/api/tanks/{tank}").json["fault"] is None


@pytest.mark.parametrize("change", IMPOSSIBLE.values(), ids=IMPOSSIBLE.keys())
def test_one_stored_before_is_said_and_the_rest_stays_open(sign_up, mariadb, change: dict) -> None:
    keeper = sign_up()
    good, bad = keeper.tank("Good"), keeper.tank("Bad")
    keeper.write(good, {"kind": "tank-plan", "tank": BOX})
    email = keeper.get("/api/session").json["email"]
    database = connect(mariadb.owner_url)
    with database.connection_context():
        tanks, now = Tanks(database, Accounts(database).by_email(email).id), datetime.now(UTC)
        body = {"kind": "tank-plan", "tank": {**BOX, **change}}
        tanks.add(bad, NewEntry.model_validate({"key": "stored-before", "at": now, "body": body}), now)
    state = keeper.get(f"/api/tanks/{bad}").json
    assert state["fault"]
    assert {s["words"] for s in state["tank"]["stages"]} == {"figures do not agree"}
    listed = {t["name"]: t for t in keeper.get("/api/tanks").json["tanks"]}
    assert listed["Good"]["stages"][0]["state"] == "done"
    rows = {r["tank"]["name"]: r["verdict"] for r in keeper.get("/api/today").json["rows"]}
    assert "do not agree" in rows["Bad"]
    assert "do not agree" not in rows["Good"]
    # Its own form mends it.
    based = state["state"]["tank_plan"]["id"]
    assert keeper.write(bad, {"kind": "tank-plan", "tank": BOX}, based_on=based).status_code == 201
    assert keeper.get(f"/api/tanks/{bad}").json["fault"] is None


def test_a_bundle_of_such_a_tank_is_refused(keeper) -> None:
    now = datetime.now(UTC).isoformat()
    body = {"kind": "tank-plan", "tank": {**BOX, "substrate_depth_cm": 60}}
    entry = {"id": 1, "key": "in-a-bundle", "at": now, "written_at": now, "body": body}
    bundle = {"format": "reedmace-bundle", "version": 2, "written_at": now, "tank": "Bad", "entries": [entry]}
    assert keeper.send("POST", "/api/bundles", bundle).status_code == 422


def test_a_kit_whose_steps_tell_nothing_apart_is_refused_at_every_door(keeper) -> None:
    tank = keeper.tank()
    for kit in ({"ammonia_ppm": [100, 100]}, {"nitrite_ppm": [0, 0, 0]}):
        response = keeper.write(tank, {"kind": "kit-plan", "kit": kit})
        assert response.status_code == 422
        assert "fewer than two different steps" in response.json["errors"][0]["what"]
        reading = {"day": 3, "ammonia_mg_n_l": 1, "nitrite_mg_n_l": 0.2}
        log = {"net_l": 100, "day_now": 12, "kit": kit, "readings": [reading]}
        for name in ("cycle-advice", "cycle-readiness", "cycle-forecast"):
            assert keeper.send("POST", f"/api/compute/{name}", {"log": log}).status_code == 422
    assert keeper.write(tank, {"kind": "kit-plan", "kit": {"ammonia_ppm": [0, 1]}}).status_code == 201


def test_a_kit_stored_before_does_not_close_today(sign_up, mariadb) -> None:
    keeper = sign_up()
    bad = keeper.tank("Bad kit")
    keeper.write(bad, {"kind": "stocking", "species_id": "zebra-danio", "count": 4})
    keeper.write(bad, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "ph": 7.4})
    email = keeper.get("/api/session").json["email"]
    database = connect(mariadb.owner_url)
    with database.connection_context():
        tanks, now = Tanks(database, Accounts(database).by_email(email).id), datetime.now(UTC)
        body = {"kind": "kit-plan", "kit": {"nitrite_ppm": [5, 5]}}
        tanks.add(bad, NewEntry.model_validate({"key": "stored-kit", "at": now, "body": body}), now)
    answer = keeper.get("/api/today")
    assert answer.status_code == 200
    assert "different steps" in answer.json["rows"][0]["verdict"]
