"""What each screen costs, as it is counted and written."""

from datetime import UTC, datetime, timedelta

import peewee
import pytest

from reedmace.command.mariadb import MariaDB
from reedmace.command.screen_costs import LONGEST, MOST_APART, fill, row
from reedmace.store.recent_entries import NEWEST
from reedmace.store.tank_states import StateCache
from tests.store.conftest import NOW, account, accounts, database, hasher, tanks  # noqa: F401 - fixtures of the store


def test_a_row_has_the_median_and_the_95th_percentile_of_the_worker() -> None:
    spent = [(n / 1000, 0.002) for n in range(1, 101)]
    assert row("open", spent) == "open | 50, 96 | 2.0"


@pytest.mark.parametrize("count", [3, NEWEST + 50])
def test_tests_filled_in_are_read_as_any_others(mariadb: MariaDB, tanks, count: int) -> None:  # noqa: F811
    mine = tanks()
    tank, until = mine.make("Filled", NOW).id, datetime.now(UTC).replace(microsecond=0)
    before = mine.writes(tank)
    fill(mariadb.owner_url, tank, count, until)
    assert mine.writes(tank) == before + count
    read = StateCache().of(mine, tank).readings
    assert len(read) == min(count, NEWEST)
    assert read[-1].at == until
    assert until - read[0].at == MOST_APART * (len(read) - 1)
    assert read[-1].body.nitrate_ppm == 20


def test_very_many_stand_closer(mariadb: MariaDB, tanks, database: peewee.Database) -> None:  # noqa: F811
    mine = tanks()
    tank, until, count = mine.make("Long", NOW).id, datetime.now(UTC), 30_000
    fill(mariadb.owner_url, tank, count, until)
    first, number = database.execute_sql("SELECT MIN(at), COUNT(*) FROM entry WHERE tank_id = %s", (tank,)).fetchone()
    assert number == count
    assert abs((until.replace(tzinfo=None) - first) - LONGEST) < timedelta(hours=1)
