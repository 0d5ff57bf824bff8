"""A database of the tests' own, and accounts and tanks in it."""

import itertools
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from typing import Any

import peewee
import pytest
from argon2 import PasswordHasher

from reedmace.command.mariadb import MariaDB
from reedmace.database import connect
from reedmace.logbook.replay.entries import NewEntry
from reedmace.store import Accounts, Tanks

NOW = datetime.now(UTC).replace(microsecond=0)
NAIVE = NOW.replace(tzinfo=None)
PASSWORD = "three words apart"
_numbers = itertools.count(1)


@pytest.fixture(scope="session")
def hasher() -> PasswordHasher:
    """Quick, for tests only."""
    return PasswordHasher(time_cost=1, memory_cost=8, parallelism=1)


@pytest.fixture
def database(mariadb: MariaDB) -> Iterator[peewee.Database]:
    """As the application sees it."""
    found = connect(mariadb.app_url)
    with found.connection_context():
        yield found
    found.close_all()


@pytest.fixture
def accounts(database: peewee.Database, hasher: PasswordHasher) -> Accounts:
    """Queries on accounts."""
    return Accounts(database, hasher)


@pytest.fixture
def account(accounts: Accounts) -> Callable[[], int]:
    """A new account each time; its id."""
    return lambda: accounts.sign_up(f"store{next(_numbers)}@yard.example", PASSWORD, NAIVE).id


@pytest.fixture
def tanks(database: peewee.Database, account: Callable[[], int]) -> Callable[[], Tanks]:
    """The tanks of a new account each time."""
    return lambda: Tanks(database, account())


@pytest.fixture
def write() -> Callable[..., int]:
    """Writes an entry into a tank; its id."""

    def to(mine: Tanks, tank_id: int, body: dict[str, Any], at: datetime = NOW, **more: Any) -> int:
        new = {"key": f"store-{next(_numbers):08d}", "at": at, "body": body, **more}
        entry, _ = mine.add(tank_id, NewEntry.model_validate(new), NOW)
        return entry.id

    return to
