"""What each role may do."""

from typing import get_args

from reedmace.store.roles import LOG, MANAGE, Role


def test_who_manages_may_log_and_a_reader_may_neither() -> None:
    assert set(MANAGE) < set(LOG) < set(get_args(Role))
    assert "reader" not in LOG
