"""What an installation learns of boxes: once a day, from those who take part, the same for all."""

from datetime import UTC, datetime, timedelta

import pytest

from reedmace.database import connect
from reedmace.store import learned_boxes
from reedmace.store.models import LearnedRow

NOW = datetime.now(UTC)


@pytest.fixture
def database(mariadb):
    """A connection; whatever was learned is forgotten afterwards, so that other tests stand on memory alone."""
    found = connect(mariadb.app_url)
    yield found
    LearnedRow.update(body=[], made_at=NOW.replace(tzinfo=None)).bind(found).execute()
    found.close()


def put(keeper, count: int, watts: float = 9.0) -> None:
    boxes = [
        {
            "key": f"learn-{n:08d}",
            "box": {"label": {"name": f"Sedge {n}", "kind": "hang-on", "box_lph": 300 + n, "watts": watts}},
        }
        for n in range(count)
    ]
    assert keeper.send("POST", "/api/shelf", {"boxes": boxes}).status_code == 201


def counts(database, at) -> dict[tuple[str, str], int]:
    return {(one.kind, one.figure): one.count for one in learned_boxes(database, at)}


def test_boxes_of_those_who_take_part_are_learned_once_a_day(sign_up, database) -> None:
    teacher, silent = sign_up(), sign_up()
    assert silent.get("/api/account/contribution").json == {"contributes": True}
    assert silent.send("PUT", "/api/account/contribution", {"contributes": False}).json == {"contributes": False}
    put(teacher, 6)
    put(silent, 6, watts=4.0)
    # Others' tests type boxes too: what counts is what these two add.
    day = NOW + timedelta(days=400)
    before = counts(database, day).get(("hang-on", "watts"), 0)
    assert before >= 6
    put(sign_up(), 5)
    assert counts(database, day + timedelta(hours=23)) == counts(database, day)
    later = day + timedelta(days=2)
    assert counts(database, later)[("hang-on", "watts")] == before + 5


def test_a_timed_flow_counts_by_its_kind(sign_up, database) -> None:
    keeper = sign_up()
    tank = keeper.send("POST", "/api/tanks", {"name": "Timed", "stands": "empty"}).json["id"]
    seen = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json
    shown = seen["shown"]["filters"][0]["installed"]["filter"]
    keeper.write(tank, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": shown}]})
    keeper.write(
        tank, {"kind": "timed-flow", "filter_key": "f1", "method": "meter", "measured_lph": 190, "computed_lph": 200}
    )
    found = counts(database, NOW + timedelta(days=500))
    assert found.get((shown["kind"], "flow"), 0) >= 1


def test_the_map_says_what_it_rests_on_besides_memory(keeper, database) -> None:
    put(keeper, 3)
    learned_boxes(database, NOW + timedelta(days=600))
    tank = keeper.send("POST", "/api/tanks", {"name": "Told", "stands": "empty"}).json["id"]
    types = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json["types"]
    assert "typed here" in types["rests_on"]


def test_what_another_version_wrote_is_as_nothing(keeper, database) -> None:
    learned_boxes(database, NOW)
    LearnedRow.update(body=[{"kind": "teapot", "shift": 1}]).bind(database).execute()
    assert learned_boxes(database, NOW) == []
    tank = keeper.send("POST", "/api/tanks", {"name": "Told", "stands": "empty"}).json["id"]
    assert keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json["types"]["rests_on"] == ""
