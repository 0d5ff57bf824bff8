"""Accounts: passwords, codes, sessions, and who was never given an address."""

from datetime import timedelta

import peewee
import pytest
from argon2 import PasswordHasher

from reedmace.store import Accounts, TooManyAttempts
from reedmace.store.accounts import SIGNED_IN_FOR
from reedmace.store.keepers import EmailTaken
from tests.store.conftest import NAIVE, PASSWORD

HERE = "203.0.113.50"


def test_a_password_lets_in_whatever_the_letters_of_the_address(accounts: Accounts) -> None:
    made = accounts.sign_up(" Mixed@Yard.Example ", PASSWORD, NAIVE)
    assert accounts.sign_in("MIXED@yard.example", PASSWORD, HERE, NAIVE) == made
    assert accounts.sign_in("mixed@yard.example", "not this one", HERE, NAIVE) is None
    assert accounts.sign_in("nobody@yard.example", PASSWORD, HERE, NAIVE) is None
    with pytest.raises(EmailTaken):
        accounts.sign_up("mixed@yard.example", PASSWORD, NAIVE)


def test_a_session_ends_by_itself_by_signing_out_and_by_a_new_password(accounts: Accounts, account) -> None:
    keeper = accounts.by_id(account())
    assert keeper is not None
    first, second, third = (accounts.begin(keeper, NAIVE) for _ in range(3))
    assert accounts.find(first, NAIVE) == keeper
    assert accounts.find(first, NAIVE + SIGNED_IN_FOR + timedelta(seconds=1)) is None
    accounts.end(second)
    assert accounts.find(second, NAIVE) is None
    assert accounts.change_password(keeper.id, "not this one", "four other words", HERE, NAIVE) is None
    assert accounts.find(third, NAIVE) == keeper
    assert accounts.change_password(keeper.id, PASSWORD, "four other words", HERE, NAIVE) == keeper
    assert accounts.find(third, NAIVE) is None


def test_a_recovery_code_is_used_up_and_new_ones_end_the_old(accounts: Accounts, account) -> None:
    keeper = accounts.by_id(account())
    assert keeper is not None
    old = accounts.fresh_codes(keeper.id, NAIVE)
    codes = accounts.codes_with(keeper.id, PASSWORD, HERE, NAIVE)
    assert codes is not None
    assert accounts.codes_left(keeper.id) == len(codes)
    assert accounts.recover(keeper.email, old[0], "a new one here", HERE, NAIVE) is None
    typed = codes[0].upper().replace("-", " ")
    assert accounts.recover(keeper.email, typed, "a new one here", HERE, NAIVE) == keeper
    assert accounts.recover(keeper.email, codes[0], "yet another one", HERE, NAIVE) is None
    assert accounts.codes_left(keeper.id) == len(codes) - 1
    assert accounts.sign_in(keeper.email, "a new one here", HERE, NAIVE) == keeper


def test_an_address_is_changed_with_the_password_and_not_to_anothers(accounts: Accounts, account) -> None:
    mine, other = accounts.by_id(account()), accounts.by_id(account())
    assert mine is not None
    assert other is not None
    assert accounts.change_email(mine.id, "not this one", "moved@yard.example", HERE, NAIVE) is None
    with pytest.raises(EmailTaken):
        accounts.change_email(mine.id, PASSWORD, other.email, HERE, NAIVE)
    session = accounts.begin(mine, NAIVE)
    moved = accounts.change_email(mine.id, PASSWORD, "Moved@yard.example", HERE, NAIVE)
    assert moved is not None
    assert moved.email == "moved@yard.example"
    assert accounts.find(session, NAIVE) is None


def test_a_guest_keeps_what_it_made_under_an_address_once(accounts: Accounts) -> None:
    guest = accounts.guest(NAIVE, HERE, key="one-browser")
    assert guest.guest
    assert accounts.guest(NAIVE, HERE, key="one-browser") == guest
    assert accounts.guest(NAIVE, HERE, key="another") != guest
    claimed = accounts.claim(guest.id, "claimed@yard.example", PASSWORD)
    assert claimed is not None
    assert (claimed.id, claimed.guest) == (guest.id, False)
    assert accounts.claim(guest.id, "again@yard.example", PASSWORD) is None
    assert accounts.sign_in("claimed@yard.example", PASSWORD, HERE, NAIVE) == claimed


def test_sign_ups_from_one_network_are_counted(database: peewee.Database, hasher: PasswordHasher) -> None:
    full = Accounts(database, hasher, sign_ups=2)
    for n in range(2):
        full.sign_up(f"counted{n}@yard.example", PASSWORD, NAIVE, whence="2001:db8:78::1")
    with pytest.raises(TooManyAttempts):
        full.sign_up("counted9@yard.example", PASSWORD, NAIVE, whence="2001:db8:78::2")


def test_a_calendar_link_is_one_and_can_be_ended(accounts: Accounts, account) -> None:
    mine = account()
    assert accounts.calendar_since(mine) is None
    old, new = (accounts.calendar_link(mine, NAIVE) for _ in range(2))
    assert accounts.by_calendar(old) is None
    found = accounts.by_calendar(new)
    assert found is not None
    assert found.id == mine
    accounts.end_calendar(mine)
    assert accounts.by_calendar(new) is None


def test_closing_asks_for_the_password(accounts: Accounts, account) -> None:
    mine = account()
    assert not accounts.close(mine, "not this one", HERE, NAIVE)
    assert accounts.by_id(mine) is not None
    assert accounts.close(mine, PASSWORD, HERE, NAIVE)
    assert accounts.by_id(mine) is None
