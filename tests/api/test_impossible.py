"""A tank whose figures cannot be: it is not saved, and one that was saved before closes nothing."""

from datetime import UTC, datetime

import pytest

from reedmace.logbook import NewEntry
from reedmace.store import Accounts, Tanks, connect

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
