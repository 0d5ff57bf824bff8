"""What has had its time is deleted, and nothing else."""

from datetime import timedelta

import peewee

from reedmace.store import Accounts, sweep
from reedmace.store.accounts import GUEST_FOR, VISIT
from reedmace.store.idempotency import KEPT, claim, kept_answer
from reedmace.store.models import Tank
from tests.store.conftest import NAIVE, NOW


def test_each_thing_goes_after_its_own_time(database: peewee.Database, accounts: Accounts, account, tanks) -> None:
    owner, mine = account(), tanks()
    kept, removed = mine.make("Kept", NOW).id, mine.make("Removed", NOW).id
    mine.archive(removed, "removed", NOW)
    visit = accounts.visitor(NAIVE, "192.0.2.1").id
    guest = accounts.guest(NAIVE, "192.0.2.1").id
    claim(database, owner, "swept-key", "/x", NOW)

    def here() -> tuple[bool, ...]:
        of_tanks = [Tank.select().where(Tank.id == one).bind(database).exists() for one in (kept, removed)]
        of_accounts = [accounts.by_id(one) is not None for one in (owner, visit, guest)]
        return (*of_tanks, *of_accounts, kept_answer(database, owner, "swept-key", "/x") is not None)

    def until_nothing(days: float) -> None:
        while sweep(database, NOW + timedelta(days=days)):
            pass

    until_nothing(0.5)
    assert here() == (True, True, True, True, True, True)
    until_nothing(max(VISIT, KEPT) / timedelta(days=1) + 0.1)
    assert here() == (True, False, True, False, True, False)
    until_nothing(GUEST_FOR / timedelta(days=1) + 0.1)
    assert here() == (True, False, True, False, False, False)
