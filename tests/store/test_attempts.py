"""Counters of failed attempts: what is counted, what is taken back, and what pauses."""

from datetime import timedelta

import peewee
import pytest

from reedmace.store.attempts import (
    FAILURES_HERE,
    WINDOW,
    Attempts,
    TooManyAttempts,
    digest,
    limits_of,
    limits_of_device,
)
from tests.store.conftest import NAIVE


@pytest.fixture
def attempts(database: peewee.Database) -> Attempts:
    return Attempts(database)


def test_a_full_counter_pauses_and_a_refusal_is_no_failure(attempts: Attempts) -> None:
    email, address = "full@yard.example", "198.51.100.77"
    for second in range(FAILURES_HERE):
        attempts.begin(email, address, NAIVE + timedelta(seconds=second))
    for _ in range(3):
        with pytest.raises(TooManyAttempts) as refused:
            attempts.begin(email, address, NAIVE + timedelta(seconds=20))
        # Until the oldest of the full number is a window ago.
        assert refused.value.wait_s == WINDOW.total_seconds() - 20
    attempts.begin(email, address, NAIVE + WINDOW + timedelta(seconds=1))


def test_a_right_password_takes_all_of_this_place_back(attempts: Attempts) -> None:
    email, address = "right@yard.example", "198.51.100.78"
    for _ in range(FAILURES_HERE - 1):
        attempts.begin(email, address, NAIVE)
    attempts.succeeded(attempts.begin(email, address, NAIVE))
    for _ in range(FAILURES_HERE):
        attempts.begin(email, address, NAIVE)


def test_a_device_is_counted_by_itself(attempts: Attempts) -> None:
    email, address = "device@yard.example", "198.51.100.79"
    for _ in range(FAILURES_HERE):
        attempts.begin(email, address, NAIVE)
    attempts.begin(email, address, NAIVE, device="its own secret")


def test_counters_are_hashes_of_kind_and_value() -> None:
    assert digest("account", "a") != digest("address", "a")
    whom = {limit.who for limit in limits_of("a@b.example", "2001:db8::1")}
    assert whom == {limit.who for limit in limits_of("a@b.example", "2001:db8::2")}
    assert whom.isdisjoint(limit.who for limit in limits_of_device("a@b.example"))
    assert all(len(who) == 64 for who in whom)


def test_a_hold_is_told_how_long(attempts: Attempts) -> None:
    counter, hour = digest("test", "hold"), timedelta(hours=1)
    for minute in (0, 10, 20):
        attempts.note([counter], NAIVE + timedelta(minutes=minute))
    now = NAIVE + timedelta(minutes=30)
    attempts.hold([(counter, 4)], now, hour)
    with pytest.raises(TooManyAttempts) as refused:
        attempts.hold([(counter, 3)], now, hour)
    assert refused.value.wait_s == 30 * 60
