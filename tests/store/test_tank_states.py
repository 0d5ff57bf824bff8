"""States kept by the number of writes to a tank."""

import pytest

from reedmace.logbook.replay.entries import NewEntry
from reedmace.logbook.replay.state import replay
from reedmace.store import tank_states
from reedmace.store.tank_queries import NoSuchTank
from reedmace.store.tank_states import StateCache
from reedmace.store.tanks import Tanks
from tests.store.conftest import NOW


def note(tanks: Tanks, tank: int, text: str) -> None:
    tanks.add(tank, NewEntry(key=f"note-{text}-0001", at=NOW, body={"kind": "note", "text": text}), NOW)


@pytest.fixture
def mine(tanks) -> Tanks:
    return tanks()


def test_a_state_is_replayed_once_for_as_many_looks_as_nothing_is_written(mine, monkeypatch) -> None:
    tank, cache, replayed = mine.make("One", NOW).id, StateCache(), []
    monkeypatch.setattr(tank_states, "replay", lambda entries: replayed.append(1) or replay(entries))
    looks = [cache.of(mine, tank) for _ in range(3)]
    assert len(replayed) == 1
    assert looks[0] == looks[2]
    note(mine, tank, "seen")
    assert [e.body.text for e in cache.of(mine, tank).events] == ["seen"]
    assert len(replayed) == 2


def test_results_of_one_request_are_not_anothers(mine) -> None:
    tank, cache = mine.make("One", NOW).id, StateCache()
    assert cache.of(mine, tank) is not cache.of(mine, tank)


def test_a_tank_that_is_not_seen_is_not_answered_from_the_cache(mine, tanks) -> None:
    tank, cache = mine.make("One", NOW).id, StateCache()
    cache.of(mine, tank)
    with pytest.raises(NoSuchTank):
        cache.of(tanks(), tank)


def test_the_least_used_is_dropped_where_many_entries_are_kept(mine, monkeypatch) -> None:
    monkeypatch.setattr(tank_states, "MOST_ENTRIES_KEPT", 3)
    cache, tanks = StateCache(), [mine.make(name, NOW).id for name in ("One", "Two", "Three")]
    for tank in tanks:
        note(mine, tank, "a")
        note(mine, tank, "b")
        assert len(cache.of(mine, tank).events) == 2
    assert [key[0] for key in cache._kept] == tanks[-1:]
    assert cache._entries == 2
    for text in "cd":
        note(mine, tanks[0], text)
    # A logbook larger than all that is kept is answered and not kept.
    assert len(cache.of(mine, tanks[0]).events) == 4
    assert [key[0] for key in cache._kept] == tanks[-1:]
