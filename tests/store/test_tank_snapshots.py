"""Snapshots of tanks, kept by what their logbooks hold."""

from datetime import timedelta

import pytest

from reedmace.core.quantity import formatting
from reedmace.store import tank_snapshots
from reedmace.store.tank_snapshots import SnapshotCache
from tests.store.conftest import NOW


def test_it_is_worked_out_once_until_something_is_written_or_it_expires(tanks, write) -> None:
    mine, cache = tanks(), SnapshotCache()
    tank = mine.make("Kept", NOW)
    first = cache.of(mine, [tank], NOW)[tank.id]
    assert cache.of(mine, [tank], NOW + timedelta(seconds=1))[tank.id] is first
    write(mine, tank.id, {"kind": "note", "text": "Snails"})
    second = cache.of(mine, [tank], NOW)[tank.id]
    assert second is not first
    later = second.good_until + timedelta(seconds=1)
    assert cache.of(mine, [tank], later)[tank.id] is not second


def test_each_keepers_units_have_their_own(tanks) -> None:
    mine, cache = tanks(), SnapshotCache()
    tank = mine.make("Units", NOW)
    metric = cache.of(mine, [tank], NOW)[tank.id]
    with formatting.in_units(formatting.Units("US gal", "in", "°F", "")):
        assert cache.of(mine, [tank], NOW)[tank.id] is not metric
    assert cache.of(mine, [tank], NOW)[tank.id] is metric


def test_the_least_recently_used_makes_room(tanks, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tank_snapshots, "KEPT", 2)
    mine, cache = tanks(), SnapshotCache()
    one, two, three = (mine.make(f"Tank {n}", NOW) for n in range(3))
    first = cache.of(mine, [one], NOW)[one.id]
    cache.of(mine, [two], NOW)
    assert cache.of(mine, [one], NOW)[one.id] is first
    second = cache.of(mine, [two], NOW)[two.id]
    cache.of(mine, [one, three], NOW)
    assert cache.of(mine, [one], NOW)[one.id] is first
    assert cache.of(mine, [two], NOW)[two.id] is not second
