"""Today says what cannot wait in a tank with animals, with a cycle plan or without."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest


def now() -> datetime:
    """The moment, asked anew: a test may begin long after its module was read."""
    return datetime.now(UTC)


def row(keeper, tank: int) -> dict[str, Any]:
    return next(r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank)


def stocked(keeper, days: float) -> int:
    tank = keeper.tank()
    fish = {"kind": "stocking", "species_id": "zebra-danio", "count": 6}
    assert keeper.write(tank, fish, at=(now() - timedelta(days=days)).isoformat()).status_code == 201
    return tank


@pytest.mark.parametrize("days", [100, 700])
def test_a_filter_that_stands_with_animals_in_cannot_wait(keeper, days: float) -> None:
    tank = stocked(keeper, days)
    assert row(keeper, tank)["urgent"] is False
    keeper.write(tank, {"kind": "outage", "running": False}, at=(now() - timedelta(hours=9)).isoformat())
    found = row(keeper, tank)
    assert found["urgent"] is True
    assert "9 hours" in found["verdict"]
    assert "air stone" in " ".join(found["stop"]["steps"])
    keep = keeper.get(f"/api/tanks/{tank}/views/keep").json
    assert keep["stops"][0]["verdict"] == found["verdict"]


@pytest.mark.parametrize("days", [10, 100, 700])
def test_poison_with_animals_in_cannot_wait_and_both_screens_say_the_same(keeper, days: float) -> None:
    tank = stocked(keeper, days)
    read = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 2, "ph": 7.4}
    keeper.write(tank, read, at=(now() - timedelta(hours=1)).isoformat())
    found = row(keeper, tank)
    assert found["urgent"] is True
    assert found["advice"]["first"]["do"] == "change-water"
    keep = keeper.get(f"/api/tanks/{tank}/views/keep").json
    assert keep["danger"]["first"]["title"] == found["advice"]["first"]["title"]


def test_poison_goes_before_a_stop(keeper) -> None:
    tank = stocked(keeper, 100)
    keeper.write(tank, {"kind": "outage", "running": False}, at=(now() - timedelta(hours=9)).isoformat())
    read = {"kind": "reading", "ammonia_ppm": 2, "nitrite_ppm": 2, "ph": 8}
    keeper.write(tank, read, at=(now() - timedelta(hours=1)).isoformat())
    found = row(keeper, tank)
    titles = [a["do"] for a in (found["advice"]["first"], *found["advice"]["then"])]
    assert found["urgent"] is True
    assert {"start-filter", "change-water"} <= set(titles)


def test_a_stop_that_is_over_leaves_the_cycle_its_own_first_action(keeper) -> None:
    tank = keeper.tank()
    keeper.write(tank, {"kind": "cycle-plan", "started_at": (now() - timedelta(days=9)).isoformat()})
    for hours, running in ((40, False), (10, True)):
        keeper.write(tank, {"kind": "outage", "running": running}, at=(now() - timedelta(hours=hours)).isoformat())
    found = row(keeper, tank)
    cycle = keeper.get(f"/api/tanks/{tank}/cycle").json
    assert found["stop"] is None
    assert found["advice"]["first"]["title"] == cycle["advice"]["first"]["title"]
