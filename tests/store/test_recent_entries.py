"""What determines where a tank stands, however much devices write."""

from datetime import timedelta

import peewee

from reedmace.logbook.replay.entries import NewEntry
from reedmace.store.recent_entries import NEWEST, recent_entries
from tests.store.conftest import NOW


def test_a_probe_by_the_minute_pushes_neither_the_last_test_nor_a_note_out(database: peewee.Database, tanks) -> None:
    mine = tanks()
    tank, quiet = mine.make("Probe", NOW).id, mine.make("Quiet", NOW).id
    bodies = [
        {"kind": "reading", "ammonia_ppm": 0.25},
        {"kind": "note", "text": "Long ago"},
        *[{"kind": "reading", "temperature_c": 25} for _ in range(NEWEST + 30)],
    ]
    news = [
        NewEntry.model_validate({"key": f"probe-{n:06d}", "at": NOW + timedelta(minutes=n), "body": body})
        for n, body in enumerate(bodies)
    ]
    mine.add_many(tank, news, NOW)
    mine.add(quiet, news[0], NOW)
    found = recent_entries(database, [tank, quiet])
    keys = [e.key for e in found[tank]]
    assert keys[:2] == ["probe-000000", "probe-000001"]
    assert keys[2:] == [e.key for e in news[-NEWEST:]]
    assert [e.key for e in found[quiet]] == ["probe-000000"]
    assert recent_entries(database, []) == {}
