"""What 0.1 stored and bundled, read as today's: a database dump and a bundle of each of its tanks."""

import json
import subprocess
from pathlib import Path

import pytest

from reedmace.database import connect, migrate
from reedmace.formats import Bundle, bundle_parts
from reedmace.logbook.plans.plan_kinds import FilterPlan, FitPlan
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.replay.state import replay
from reedmace.logbook.upcast import FIRST, SECOND, upcast
from reedmace.store import Accounts, Tanks

OLD = Path(__file__).parents[1] / "data" / "v0_1"
BUNDLES = sorted(OLD.glob("*.json"))


@pytest.fixture(scope="module")
def old_tanks(mariadb) -> dict[str, list[Entry]]:
    """Every tank of the 0.1 database, its dump loaded beside ours and migrated."""
    mariadb._sql(
        "DROP DATABASE IF EXISTS v0_1; CREATE DATABASE v0_1 CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;"
        "GRANT ALL ON v0_1.* TO 'reedmace_owner'@'127.0.0.1'; USE v0_1; SET FOREIGN_KEY_CHECKS=0;"
        + (OLD / "demo.sql").read_text()
    )
    database = connect(mariadb.owner_url.rsplit("/", 1)[0] + "/v0_1")
    migrate(database)
    with database.connection_context():
        account = Accounts(database).by_email("keeper@fennel-yard.example")
        tanks = Tanks(database, account.id)
        return {t.name: tanks.entries(t.id) for t in tanks.all()}


def test_every_entry_of_the_old_database_is_read(old_tanks) -> None:
    assert set(old_tanks) == {"Kiln room", "Bindery window", "Long bench", "Courtyard door", "Sluice pair"}
    assert sum(map(len, old_tanks.values())) > 90


def test_a_chosen_filter_and_its_second_are_two_on_a_list(old_tanks) -> None:
    state = replay(old_tanks["Sluice pair"])
    first, second = state.filters()
    assert (first.key, first.filter.id, second.key, second.filter.id) == (
        FIRST, "lockgate-1500", SECOND, "sweetflag-1200",
    )  # fmt: skip
    assert [(b.media, b.litres) for b in first.media] == [("foam-10", 1.5), ("ceramic-rings", 3)]
    assert second.media == []
    assert first.plumbing.hose_length_m == second.plumbing.hose_length_m == 3.1
    plan = state.filter_plan.body
    assert isinstance(plan, FilterPlan)
    assert plan.price_per_kwh == 0.35


def test_layout_steps_tests_and_stops_of_the_chosen_filter_stay_its_own(old_tanks) -> None:
    state = replay(old_tanks["Sluice pair"])
    places = state.fit_plan.body
    assert isinstance(places, FitPlan)
    assert (places.of(FIRST).intake_x_cm, places.of(FIRST).siphon_break) == (88, True)
    assert places.of(SECOND).intake_x_cm is None
    assert list(state.ticked(FIRST)) == ["canister-feet"]
    assert state.ticked(SECOND) == {}
    assert state.flow_tests[0].body.filter_key == FIRST
    assert state.stopped == []


def test_both_halves_of_an_old_pair_are_worked_out(old_tanks) -> None:
    installed = installed_filters(replay(old_tanks["Sluice pair"]))
    assert [h.layout.outlet_depth_cm for h in installed] == [4, 2]
    assert sum(h.food_share for h in installed) == pytest.approx(1)
    assert all(h.flow.delivered_lph > 100 for h in installed)


@pytest.mark.parametrize("path", BUNDLES, ids=[p.stem for p in BUNDLES])
def test_an_old_bundle_is_read_and_written_out_as_todays(path: Path, old_tanks) -> None:
    bundle = Bundle.model_validate_json(path.read_text())
    assert bundle.version == 1
    assert replay(bundle.entries).filters() == replay(old_tanks[bundle.tank]).filters()
    again = Bundle.model_validate_json("".join(bundle_parts(bundle.tank, bundle.entries, bundle.written_at)))
    assert again.version == 2
    assert again.entries == bundle.entries


def test_an_old_bundle_comes_in_at_the_door(keeper) -> None:
    bundle = json.loads((OLD / "sluice-pair.json").read_text())
    tank = keeper.send("POST", "/api/bundles", bundle).json["tank_id"]
    fit = keeper.send("POST", f"/api/tanks/{tank}/views/fit", {}).json
    assert [f["installed"]["filter"]["id"] for f in fit["filters"]] == ["lockgate-1500", "sweetflag-1200"]


def test_an_entry_held_by_an_old_browser_is_taken(keeper) -> None:
    tank = keeper.tank()
    old = json.loads((OLD / "sluice-pair.json").read_text())["entries"]
    body = next(e["body"] for e in old if e["body"]["kind"] == "filter-plan")
    assert keeper.write(tank, body).status_code == 201
    assert len(keeper.get(f"/api/tanks/{tank}").json["state"]["filter_plan"]["body"]["filters"]) == 2


def test_todays_bodies_and_what_is_no_body_pass_as_they_are() -> None:
    today = {"kind": "filter-plan", "version": 2, "filters": []}
    assert upcast(today) == today
    assert upcast({"kind": "note", "text": "x"}) == {"kind": "note", "text": "x"}
    assert upcast("nonsense") == "nonsense"


def test_nothing_stored_is_rewritten(mariadb, old_tanks) -> None:
    found = subprocess.run(
        ["mariadb", "--no-defaults", f"--socket={mariadb._socket_folder}/s", "-N", "-e",
         "SELECT COUNT(*) FROM v0_1.entry WHERE body LIKE '%\"chosen\"%'"],
        capture_output=True, text=True, check=True,
    )  # fmt: skip
    assert int(found.stdout) >= 4
