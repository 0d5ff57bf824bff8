"""Where mail to an account goes."""

import peewee

from reedmace.store import Accounts
from reedmace.store.mail_addresses import VISIT_HOST, confirm_address, mail_address, mail_address_of
from tests.store.conftest import NAIVE


def test_an_address_is_confirmed_as_long_as_it_is_the_accounts_own(
    database: peewee.Database, accounts: Accounts, account
) -> None:
    mine = account()
    found = mail_address(database, mine)
    assert found is not None
    assert not found.confirmed
    assert not confirm_address(database, mine, "other@yard.example", NAIVE)
    assert confirm_address(database, mine, found.email, NAIVE)
    again = mail_address_of(database, f" {found.email.upper()} ")
    assert again is not None
    assert (again.account_id, again.confirmed) == (mine, True)


def test_a_guest_has_none_and_a_visit_has_the_demos_own(database: peewee.Database, accounts: Accounts) -> None:
    assert mail_address(database, accounts.guest(NAIVE, "192.0.2.5").id) is None
    visit = mail_address(database, accounts.visitor(NAIVE, "192.0.2.5").id)
    assert visit is not None
    assert visit.visiting
    assert visit.email.endswith(f"@{VISIT_HOST}")
    assert " " not in visit.email
    assert mail_address(database, 10**12) is None
