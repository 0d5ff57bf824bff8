"""A tank comes into the notebook from wherever it stands, and is asked for nothing that belongs to another state."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from reedmace.demo.sample_boxes import SAMPLE_BOXES


def now() -> datetime:
    """The moment, asked anew: a test may begin long after its module was read."""
    return datetime.now(UTC)


CANISTER = next(f for f in SAMPLE_BOXES if f.kind == "canister").model_dump()


def ago(days: float) -> str:
    return (now() - timedelta(days=days)).isoformat()


def arrive(keeper, stands: str, **more: Any) -> int:
    made = keeper.send("POST", "/api/tanks", {"name": f"Came {stands}", "stands": stands, **more})
    assert made.status_code == 201, made.json
    return made.json["id"]


def row(keeper, tank: int) -> dict[str, Any]:
    return next(r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank)


def words(keeper, tank: int) -> dict[str, str]:
    return {s["stage"]: s["words"] for s in row(keeper, tank)["tank"]["stages"]}


def test_litres_alone_make_a_tank_that_says_what_is_assumed(keeper) -> None:
    tank = arrive(keeper, "running", since=ago(400), litres=180)
    state = keeper.get(f"/api/tanks/{tank}").json["state"]
    assert state["plans"]["tank"]["by_litres"] is True
    view = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json
    assert view["volume"]["net_l"] == pytest.approx(180)
    assert any("180 L" in words for words in view["assumed"])
    assert words(keeper, tank)["tank"].endswith("sizes not measured")


@pytest.mark.parametrize("litres", [1, 7, 60, 400, 5000])
def test_a_box_of_any_litres_holds_them(keeper, litres: float) -> None:
    tank = arrive(keeper, "empty", litres=litres)
    view = keeper.send("POST", f"/api/tanks/{tank}/views/tank", {}).json
    assert view["volume"]["net_l"] == pytest.approx(litres)
    assert litres <= view["volume"]["gross_l"] <= 1.6 * litres + 3


def test_animals_in_since_six_days_go_straight_to_what_harms_them(keeper) -> None:
    tank = arrive(keeper, "animals-in", since=ago(6), litres=60)
    before = row(keeper, tank)
    assert before["stage"] == "cycle"
    assert before["advice"]["first"]["do"] == "test"
    keeper.write(tank, {"kind": "reading", "ammonia_ppm": 2, "nitrite_ppm": 2, "ph": 8.2, "temperature_c": 25})
    after = row(keeper, tank)
    assert after["urgent"]
    cycle = keeper.get(f"/api/tanks/{tank}/cycle").json
    assert cycle["emergency"]["in_danger"]
    asked = [cycle["advice"]["first"], *cycle["advice"]["then"]]
    assert not any(a["do"] == "dose-ammonia" for a in asked)
    assert asked[0]["do"] in ("bind", "change-water", "bind-ammonia", "aerate")
    assert not cycle["readiness"]["ready"]


def test_a_tank_that_has_run_for_years_ticks_no_steps_and_begins_nothing(keeper) -> None:
    tank = arrive(keeper, "running", since=ago(900), litres=120)
    keeper.write(tank, {"kind": "stock-plan", "animals": [{"species_id": "harlequin-rasbora", "count": 12}]})
    keeper.write(tank, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": CANISTER}]})
    fit = keeper.send("POST", f"/api/tanks/{tank}/views/fit", {}).json
    assert fit["filters"][0]["ran_already"]
    assert "runs already" in fit["verdict"]
    assert words(keeper, tank)["fit"] == "runs already"
    assert words(keeper, tank)["cycle"].startswith("stocked 2.5 years")
    cycle = keeper.get(f"/api/tanks/{tank}/cycle").json
    assert cycle["settled"]
    assert cycle["log"]["present"] == [{"species_id": "harlequin-rasbora", "count": 12, "length_cm": None}]
    assert row(keeper, tank)["stage"] == "keep"
    # A loss is taken off what was there, and a stop harms what lives there.
    keeper.write(tank, {"kind": "stocking", "species_id": "harlequin-rasbora", "count": -2})
    assert keeper.get(f"/api/tanks/{tank}/cycle").json["log"]["present"][0]["count"] == 10
    keeper.write(tank, {"kind": "outage", "running": False}, at=ago(1))
    assert row(keeper, tank)["urgent"]


def test_animals_put_in_later_come_to_those_that_were_there(keeper) -> None:
    tank = arrive(keeper, "running", since=ago(900), litres=120)
    keeper.write(tank, {"kind": "stock-plan", "animals": [{"species_id": "harlequin-rasbora", "count": 12}]})
    keeper.write(tank, {"kind": "stocking", "species_id": "harlequin-rasbora", "count": 5})
    keeper.write(tank, {"kind": "stocking", "species_id": "zebra-danio", "count": 4})
    present = keeper.get(f"/api/tanks/{tank}/cycle").json["log"]["present"]
    assert {a["species_id"]: a["count"] for a in present} == {"harlequin-rasbora": 17, "zebra-danio": 4}


def test_a_filter_hung_later_is_asked_for_its_steps(keeper) -> None:
    tank = arrive(keeper, "running", since=ago(900), litres=120)
    keeper.write(tank, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": CANISTER}]})
    later = [{"key": "f1", "filter": CANISTER}, {"key": "f2", "filter": CANISTER}]
    state = keeper.get(f"/api/tanks/{tank}").json["state"]
    at = (now() + timedelta(days=5)).isoformat()
    keeper.write(tank, {"kind": "filter-plan", "filters": later}, based_on=state["filter_plan"]["id"], at=at)
    fit = keeper.send("POST", f"/api/tanks/{tank}/views/fit", {}).json
    assert [f["ran_already"] for f in fit["filters"]] == [True, False]
    assert fit["done_count"] < fit["steps_count"]


def test_a_cycle_begun_weeks_ago_keeps_its_day_and_older_tests_count(keeper) -> None:
    tank = arrive(keeper, "cycling", since=ago(20), litres=100)
    first = row(keeper, tank)
    assert first["stage"] == "cycle"
    assert "tests made so far" in first["verdict"]
    plan = keeper.get(f"/api/tanks/{tank}").json["state"]["plans"]["cycle"]
    assert plan["started_at"][:10] == ago(20)[:10]
    keeper.write(tank, plan)
    for days in (18, 12, 4):
        keeper.write(tank, {"kind": "reading", "ammonia_ppm": 1, "nitrite_ppm": 1}, at=ago(days))
    log = keeper.get(f"/api/tanks/{tank}/cycle").json["log"]
    assert 19.5 < log["day_now"] < 20.5
    assert [round(r["day"]) for r in log["readings"]] == [2, 8, 16]


def test_a_filter_in_hand_is_asked_about_first(keeper) -> None:
    tank = arrive(keeper, "filter-in-hand", litres=90)
    assert row(keeper, tank)["stage"] == "filter"
    assert "box" in row(keeper, tank)["verdict"]


def test_where_it_stands_can_be_said_anew_and_goes_with_the_bundle(keeper) -> None:
    tank = arrive(keeper, "empty")
    keeper.write(tank, {"kind": "situation", "stands": "animals-in", "since": ago(3)})
    assert row(keeper, tank)["stage"] == "cycle"
    bundle = keeper.get(f"/api/tanks/{tank}/bundle.json").json
    back = keeper.send("POST", "/api/bundles", bundle).json["tank_id"]
    assert row(keeper, back)["verdict"] == row(keeper, tank)["verdict"]
    keeper.write(tank, {"kind": "situation", "stands": "empty"})
    assert keeper.get(f"/api/tanks/{tank}/cycle").json["log"] is None


@pytest.mark.parametrize(
    ("body", "where"),
    [
        ({"stands": "drowned"}, "stands"),
        ({"stands": "running", "litres": -5}, "litres"),
        ({"stands": "running", "litres": 1e9}, "litres"),
        ({"stands": "running", "since": "2999-01-01T00:00:00Z"}, "since"),
        ({"stands": "running", "since": "1066-01-01T00:00:00Z"}, "since"),
    ],
)
def test_what_cannot_be_is_refused_with_the_field(keeper, body: dict[str, Any], where: str) -> None:
    answer = keeper.send("POST", "/api/tanks", {"name": "Odd", **body})
    assert answer.status_code == 422
    assert any(where in e["where"] for e in answer.json["errors"])
