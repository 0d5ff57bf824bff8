"""A logbook written at once, in its order."""

from datetime import timedelta

from reedmace.logbook.replay.entries import Entry
from reedmace.store.whole_insert import AT_ONCE
from tests.store.conftest import NOW


def test_what_is_corrected_over_several_statements_is_corrected_after(tanks) -> None:
    mine = tanks()
    entries = [
        Entry.model_validate(
            {
                "id": n,
                "key": f"brought-{n:05d}",
                "at": NOW + timedelta(seconds=n),
                "written_at": NOW,
                "supersedes": n - 1 if n % 100 == 0 else None,
                "body": {"kind": "note", "text": str(n)},
            }
        )
        for n in range(1, AT_ONCE + 250)
    ]
    tank = mine.bring("Brought", entries, NOW).id
    found = mine.entries(tank)
    assert [e.key for e in found] == [e.key for e in entries]
    by_key = {e.id: e.key for e in found}
    told = {e.key: by_key[e.supersedes] for e in found if e.supersedes is not None}
    assert told == {e.key: f"brought-{e.id - 1:05d}" for e in entries if e.supersedes is not None}
