"""Tokens that only read, for a time."""

from datetime import timedelta

import peewee
import pytest

from reedmace.store.quotas import MOST_READ_TOKENS, OverQuota
from reedmace.store.read_tokens import NoSuchReadToken, ReadTokens, read_token_of
from tests.store.conftest import NOW

LATER = NOW + timedelta(days=30)


def test_a_secret_reads_until_its_end_or_until_it_is_revoked(database: peewee.Database, account) -> None:
    mine, theirs = ReadTokens(database, account()), ReadTokens(database, account())
    token, secret = mine.make("Notebook", None, NOW, LATER)
    assert read_token_of(database, secret, NOW).id == token.id
    with pytest.raises(NoSuchReadToken):
        read_token_of(database, secret, LATER + timedelta(seconds=1))
    with pytest.raises(NoSuchReadToken):
        read_token_of(database, secret + "x", NOW)
    with pytest.raises(NoSuchReadToken):
        theirs.remove(token.id)
    mine.remove(token.id)
    with pytest.raises(NoSuchReadToken):
        read_token_of(database, secret, NOW)
    assert mine.all() == []


def test_there_may_be_so_many(database: peewee.Database, account) -> None:
    mine = ReadTokens(database, account())
    for n in range(MOST_READ_TOKENS):
        mine.make(f"Token {n}", None, NOW, LATER)
    with pytest.raises(OverQuota):
        mine.make("One more", None, NOW, LATER)
