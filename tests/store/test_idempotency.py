"""Answers kept by their client's key."""

import peewee

from reedmace.store.idempotency import claim, keep_answer, kept_answer
from tests.store.conftest import NOW


def test_a_key_is_claimed_once_and_its_answer_comes_back_to_its_own_account(database: peewee.Database, account) -> None:
    mine, other = account(), account()
    assert kept_answer(database, mine, "key-1", "/tanks") is None
    assert claim(database, mine, "key-1", "/tanks", NOW)
    assert not claim(database, mine, "key-1", "/tanks", NOW)
    assert claim(database, other, "key-1", "/tanks", NOW)
    keep_answer(database, mine, "key-1", 201, '{"id": 7}')
    assert kept_answer(database, mine, "key-1", "/tanks") == (201, '{"id": 7}')
    assert kept_answer(database, mine, "key-1", "/rooms") is None
    assert kept_answer(database, other, "key-1", "/tanks") == (0, "")
