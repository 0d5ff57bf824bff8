"""Practice tanks of one account, kept apart from real ones."""

from datetime import timedelta

import peewee
import pytest

from reedmace.practice.record import Practice, SidePlace
from reedmace.store import Tanks, practice
from reedmace.store.practice import PracticeTanks, practice_at
from reedmace.store.tank_queries import NoSuchTank
from tests.store.conftest import NOW


def record(seed: int = 1, side: SidePlace | None = None) -> Practice:
    return Practice(lesson="first-cycle", seed=seed, began_at=NOW - timedelta(days=3), minutes=60, side=side)


@pytest.fixture
def mine(database: peewee.Database, account) -> tuple[PracticeTanks, int]:
    """Queries on a new account's practice tanks, and the account."""
    owner = account()
    return PracticeTanks(database, owner), owner


def test_a_practice_tank_is_no_real_one_and_nobody_elses(database: peewee.Database, mine, account) -> None:
    plays, owner = mine
    real = Tanks(database, owner)
    tank = plays.make("Practice", record(), [])
    assert real.all() == []
    assert real.aside(NOW) == []
    assert plays.get(tank) == practice_at(database, owner, tank) == record()
    with pytest.raises(NoSuchTank):
        plays.get(real.make("Real", NOW).id)
    other = account()
    with pytest.raises(NoSuchTank):
        PracticeTanks(database, other).get(tank)
    assert practice_at(database, other, tank) is None
    with pytest.raises(NoSuchTank):
        Tanks(database, other, {owner: "keeper"}).get(tank)


def test_the_oldest_makes_room_for_a_new_one(mine, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(practice, "MOST_PRACTICE_TANKS", 3)
    plays, _ = mine
    ids = [plays.make(f"Play {n}", record(n), []) for n in range(5)]
    assert [row.id for row in plays.all()] == ids[:1:-1]


def test_tanks_of_one_play_stand_together_by_place(mine) -> None:
    plays, _ = mine
    sides = [SidePlace(group="play-1", place=n, seed=7) for n in (2, 0, 1)]
    ids = plays.make_together([(f"Side {s.place}", record(s.place, s), []) for s in sides])
    alone = plays.make("Alone", record(9), [])
    assert [row.id for row in plays.together(ids[0])] == [ids[1], ids[2], ids[0]]
    assert [row.id for row in plays.together(alone)] == [alone]


def test_a_record_is_changed_from_what_it_is(mine) -> None:
    plays, _ = mine
    tank = plays.make("Changed", record(), [])
    for _ in range(3):
        plays.change(tank, lambda now: now.model_copy(update={"minutes": now.minutes + 10}))
    assert plays.get(tank).minutes == 90
    plays.remove(tank)
    with pytest.raises(NoSuchTank):
        plays.change(tank, lambda now: now)
    with pytest.raises(NoSuchTank):
        plays.page(tank)
