"""Removal at once, however long a logbook is."""

import peewee
import pytest

from reedmace.store import Accounts, removal
from reedmace.store.households import make_view_link, viewed_tank
from reedmace.store.models import Account, EntryRow, Tank
from reedmace.store.removal import CLOSED, delete_account, remove_for_good
from reedmace.store.tank_queries import NoSuchTank
from tests.store.conftest import NOW

NOTE = {"kind": "note", "text": "x"}


def count(database: peewee.Database, rows: type[peewee.Model], where: peewee.Expression) -> int:
    return int(rows.select().where(where).bind(database).count())


def test_a_short_one_is_gone_with_its_entries(database: peewee.Database, tanks, write) -> None:
    mine = tanks()
    tank = mine.make("Short", NOW).id
    write(mine, tank, NOTE)
    remove_for_good(database, tank)
    assert count(database, Tank, Tank.id == tank) == count(database, EntryRow, EntryRow.tank == tank) == 0


def test_a_long_one_is_out_of_reach_at_once_and_left_to_the_sweep(
    database: peewee.Database, tanks, write, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(removal, "SMALL", 2)
    mine = tanks()
    tank = mine.make("Long", NOW).id
    for _ in range(3):
        write(mine, tank, NOTE)
    token = make_view_link(database, tank, NOW)
    remove_for_good(database, tank)
    assert viewed_tank(database, token) is None
    with pytest.raises(NoSuchTank):
        mine.get(tank)
    with pytest.raises(NoSuchTank):
        mine.restore(tank, NOW)
    assert count(database, EntryRow, EntryRow.tank == tank) == 3


def test_of_a_closed_account_nothing_leads_to_its_long_logbooks(
    database: peewee.Database, accounts: Accounts, account, write, monkeypatch: pytest.MonkeyPatch
) -> None:
    from reedmace.store import Tanks

    monkeypatch.setattr(removal, "SMALL", 1)
    owner = account()
    mine = Tanks(database, owner)
    tank = mine.make("Left", NOW).id
    for _ in range(2):
        write(mine, tank, NOTE)
    delete_account(database, owner)
    assert accounts.by_id(owner) is None
    row = Tank.select().where(Tank.id == tank).bind(database).first()
    keeper = Account.select().where(Account.id == row.account_id).bind(database).first()
    assert (row.aside, keeper.email.startswith(CLOSED), keeper.password_hash) == ("removed", True, "")
