"""The queue of notices: made once, claimed once, tried again, and kept."""

from datetime import timedelta

import peewee
import pytest

from reedmace.store.notices import (
    FIRST_WAIT,
    LEASE,
    LONGEST_ERROR,
    LONGEST_WAIT,
    MOST_TRIES,
    Notice,
    Notices,
    is_due,
)
from tests.store.conftest import NOW

LONG_AGO = NOW - timedelta(days=3650)
"""So that no other test's notices are due before these."""


@pytest.fixture
def queue(database: peewee.Database) -> Notices:
    return Notices(database)


def claimed(queue: Notices, account: int, now=LONG_AGO) -> list[Notice]:
    return [one for one in queue.claim(now) if one.account_id == account]


def test_a_notice_is_made_once_until_it_is_released(queue: Notices, account) -> None:
    who = account()
    assert queue.add(who, "water:7", "mail", LONG_AGO, tank_id=7)
    assert not queue.add(who, "water:7", "mail", LONG_AGO)
    assert queue.open_keys(who, "water:") == {"water:7"}
    queue.release(who, "water:7")
    assert queue.open_keys(who, "water:") == set()
    # What was over before it went out is not sent, and the key is free.
    assert claimed(queue, who) == []
    assert queue.add(who, "water:7", "mail", LONG_AGO)
    assert [one.once_key for one in claimed(queue, who)] == ["water:7"]


def test_a_claimed_notice_is_one_workers_until_its_lease_ends(queue: Notices, account) -> None:
    who = account()
    queue.add(who, "a", "mail", LONG_AGO, body={"link": "x"})
    mine = claimed(queue, who)
    assert [(one.once_key, one.tries, one.body) for one in mine] == [("a", 1, {"link": "x"})]
    assert claimed(queue, who) == []
    late = claimed(queue, who, LONG_AGO + LEASE + timedelta(seconds=1))
    assert [one.tries for one in late] == [2]


def test_nothing_is_sent_before_it_is_due(queue: Notices, account) -> None:
    who, later = account(), LONG_AGO + timedelta(hours=5)
    queue.add(who, "a", "mail", LONG_AGO, due_at=later)
    assert claimed(queue, who) == []
    assert len(claimed(queue, who, later)) == 1


def test_a_failure_is_tried_again_later_and_later_and_given_up_in_the_end(queue: Notices, account) -> None:
    who, now = account(), LONG_AGO
    queue.add(who, "a", "mail", now)
    for tries in range(1, MOST_TRIES + 1):
        (one,) = claimed(queue, who, now)
        assert one.tries == tries
        queue.again(one, now, "refused" * 100)
        wait = min(FIRST_WAIT * 2.0 ** (tries - 1), LONGEST_WAIT)
        assert claimed(queue, who, now + wait - timedelta(seconds=1)) == []
        now += wait
    assert queue.counts()["dead"] >= 1
    (dead,) = [notice for _, notice in queue.dead() if notice.account_id == who]
    assert len(dead.error) == LONGEST_ERROR
    assert claimed(queue, who, now + LONGEST_WAIT) == []


def test_what_was_sent_is_on_record_without_its_body(queue: Notices, account) -> None:
    who = account()
    queue.add(who, "a", "mail", LONG_AGO, body={"link": "secret"})
    (one,) = claimed(queue, who)
    queue.end(one, "sent", LONG_AGO)
    (record,) = queue.latest(who)
    assert (record.state, record.body, record.done_at) == ("sent", {}, LONG_AGO)
    assert not queue.add(who, "a", "mail", LONG_AGO)


def test_a_choice_is_looked_at_by_one_worker_each_time_it_is_due(queue: Notices, account) -> None:
    who, every = account(), timedelta(minutes=5)
    assert queue.choice(who) is None
    queue.choose(who, {"mail": True}, LONG_AGO)
    assert queue.choice(who) == {"mail": True}
    assert who in queue.claim_choices(LONG_AGO, every)
    assert who not in queue.claim_choices(LONG_AGO, every)
    assert who in queue.claim_choices(LONG_AGO + every, every)
    queue.choose(who, {"mail": False}, LONG_AGO)
    assert who in queue.claim_choices(LONG_AGO, every)


def test_a_job_is_done_once_in_every_interval(database: peewee.Database) -> None:
    name, day = "a job of this test", timedelta(days=1)
    assert [is_due(database, name, NOW, day) for _ in range(2)] == [True, False]
    assert is_due(database, name, NOW + day, day)
