"""Broods over HTTP: a board of all tanks, growth that loads the film by itself, and a move recorded in both tanks."""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine

from reedmace.demo.sample_boxes import SAMPLE_BOXES

NOW = datetime.now(UTC).replace(microsecond=0)
SPONGE = next(f for f in SAMPLE_BOXES if f.id == "burreed-20").model_dump(mode="json")


def ago(days: float) -> str:
    return (NOW - timedelta(days=days)).isoformat()


@pytest.fixture
def two(keeper) -> list[int]:
    """Two small tanks with sponges."""
    ids = [keeper.tank("Nursery"), keeper.tank("Grow-out")]
    for tank in ids:
        for body in (
            {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}},
            {"kind": "filter-plan", "filters": [{"key": "f1", "filter": SPONGE}]},
            {"kind": "situation", "stands": "empty"},
        ):
            keeper.write(tank, body, at=ago(60))
    return ids


def step(keeper, tank: int, what: str, days: float = 0, **more):
    body = {"kind": "brood", "brood": "brood-1", "species_id": "angelfish", "what": what, **more}
    answer = keeper.write(tank, body, at=ago(days))
    assert answer.status_code == 201, answer.json
    return answer


def board(keeper) -> list[dict]:
    answer = keeper.get("/api/broods")
    assert answer.status_code == 200
    return answer.json["broods"]


def test_a_brood_goes_from_a_pair_to_young_that_outgrow_their_tank(keeper, two) -> None:
    tank = two[0]
    assert board(keeper) == []
    step(keeper, tank, "pair", 12)
    (row,) = board(keeper)
    assert (row["next_step"], row["answer"]) == ("spawned", None)
    step(keeper, tank, "spawned", 4)
    (row,) = board(keeper)
    assert row["next_step"] == "hatched"
    assert row["next_at"] < ago(0.5)
    assert 3 < row["answer"]["swims_in_days"] < 5
    step(keeper, tank, "hatched", 2)
    step(keeper, tank, "free-swimming")
    (row,) = board(keeper)
    assert row["answer"]["assumed"]
    assert "not counted" in row["verdict"]
    step(keeper, tank, "counted", count=120)
    (row,) = board(keeper)
    assert row["counted"] == 120
    assert row["answer"]["meals_count"] >= 4
    assert row["small_at"] is not None
    assert keeper.get("/api/broods").json["verdict"].startswith("One brood. Nursery is too small for so many")
    step(keeper, tank, "lost", count=20)
    (row,) = board(keeper)
    assert (row["counted"], row["lost_count"]) == (100, 20)
    step(keeper, tank, "sold")
    assert board(keeper) == []


def test_the_load_grows_by_itself_and_young_alone_are_animals_in_the_tank(keeper, two) -> None:
    tank = two[0]
    step(keeper, tank, "came", 1, count=100)
    (row,) = [r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank]
    # They are its first animals: their water is watched.
    assert "ammonia" in str(row["advice"]).lower()
    small = board(keeper)[0]["answer"]["load_mg_n_day"]
    with time_machine.travel(NOW + timedelta(days=60), tick=False):
        (later,) = board(keeper)
    assert later["answer"]["load_mg_n_day"] > 10 * small
    keeper.write(tank, {"kind": "reading", "ammonia_ppm": 4, "nitrite_ppm": 0, "ph": 8.0})
    (row,) = [r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank]
    assert row["urgent"]


def test_a_move_is_in_both_logbooks_or_in_neither_and_keeps_their_age(keeper, two) -> None:
    step(keeper, two[0], "free-swimming", 20, count=80)
    body = {"key": "move-brood-1", "brood": "brood-1", "from_id": two[0], "to_id": two[1], "count": 30}
    assert keeper.send("POST", "/api/broods/move", body).status_code == 201
    assert keeper.send("POST", "/api/broods/move", body).status_code == 201
    rows = {r["tank"]: r for r in board(keeper)}
    assert (rows["Nursery"]["counted"], rows["Grow-out"]["counted"]) == (50, 30)
    assert rows["Nursery"]["answer"]["length_cm"] == pytest.approx(rows["Grow-out"]["answer"]["length_cm"])
    again = {**body, "key": "move-brood-2", "count": 60}
    refused = keeper.send("POST", "/api/broods/move", again)
    assert refused.status_code == 422
    assert "there are 50" in refused.json["detail"]
    last = [keeper.send("POST", "/api/broods/move", {**again, "count": 50}) for _ in range(2)]
    # Nobody is there any more, and still the lost answer is given again.
    assert [a.status_code for a in last] == [201, 201]
    assert last[0].json == last[1].json
    (row,) = board(keeper)
    assert (row["tank"], row["counted"]) == ("Grow-out", 80)
    assert keeper.send("POST", "/api/broods/move", {**body, "key": "move-brood-3"}).status_code == 422


def test_eggs_that_move_hatch_on_the_day_they_would_have(keeper, two) -> None:
    step(keeper, two[0], "spawned", 2)
    before = board(keeper)[0]["next_at"]
    body = {"key": "move-eggs-1", "brood": "brood-1", "from_id": two[0], "to_id": two[1]}
    assert keeper.send("POST", "/api/broods/move", body).status_code == 201
    (row,) = board(keeper)
    assert row["tank"] == "Grow-out"
    assert row["next_at"][:16] == before[:16]


def test_young_of_an_animal_nobody_described_are_told_as_such(keeper, two) -> None:
    step(keeper, two[0], "came", count=10, species_id="moon-fish")
    (row,) = board(keeper)
    assert row["answer"] is None
    assert row["verdict"].startswith("Nobody has described")


def test_those_that_join_uncounted_ones_are_as_unknown_and_a_measured_length_goes_along(keeper, two) -> None:
    step(keeper, two[0], "free-swimming", 20, count=80)
    step(keeper, two[0], "counted", 1, count=80, length_cm=0.7)
    step(keeper, two[1], "came", 20)
    before = next(r for r in board(keeper) if r["tank"] == "Nursery")["answer"]["length_cm"]
    body = {"key": "move-join-1", "brood": "brood-1", "from_id": two[0], "to_id": two[1], "count": 30}
    assert keeper.send("POST", "/api/broods/move", body).status_code == 201
    there = next(r for r in board(keeper) if r["tank"] == "Grow-out")
    # Thirty would be too few: nobody knows how many swim there.
    assert there["counted"] is None
    assert there["answer"]["length_cm"] == pytest.approx(before, rel=0.01)


def test_of_livebearers_no_eggs_are_asked_for(keeper, two) -> None:
    step(keeper, two[0], "pair", 3, species_id="guppy")
    (row,) = board(keeper)
    assert (row["next_step"], row["next_at"]) == ("free-swimming", None)
    assert "nothing is laid or born yet" in row["verdict"]
