"""A whole logbook a piece at a time."""

from datetime import timedelta

import peewee

from reedmace.logbook.replay.entries import Entry, NewEntry, StoredReading
from reedmace.store.whole_logbook import AT_ONCE, each_entry, each_reading, readings_at, superseded_ids
from tests.store.conftest import NOW


def test_more_than_one_page_comes_whole_in_order_and_without_what_was_corrected(
    database: peewee.Database, tanks, write
) -> None:
    mine = tanks()
    tank = mine.make("Long", NOW).id
    count = AT_ONCE + 7
    # Two at each time: a page may end between them.
    news = [
        NewEntry.model_validate(
            {"key": f"long-{n:06d}", "at": NOW + timedelta(minutes=n // 2), "body": {"kind": "reading", "ph": 7}}
        )
        for n in range(count)
    ]
    written = mine.add_many(tank, news, NOW)
    corrected = written[3][0].id
    write(mine, tank, {"kind": "reading", "ph": 8}, NOW + timedelta(minutes=1), supersedes=corrected)
    entries = list(each_entry(database, tank))
    assert len(entries) == count + 1
    assert all(isinstance(one, StoredReading | Entry) for one in entries)
    assert superseded_ids(database, tank) == {corrected}
    readings = list(each_reading(database, tank))
    assert len(readings) == count
    assert [at for at, _ in readings] == sorted(at for at, _ in readings)
    assert [r.ph for at, r in readings if at == NOW + timedelta(minutes=1)] == [7, 8]
    assert [e.body.ph for e in readings_at(database, tank, [NOW + timedelta(minutes=1)])] == [7, 8]
    assert readings_at(database, tank, []) == []
