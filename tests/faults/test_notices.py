"""Mails while database, mail server and worker are killed: `./reedmace notice-trial`, a short one."""

from pathlib import Path

import pytest

from reedmace.command.notice_trial import MAILS_A_KILL, TARGETS, run
from tests.support.bounds import bounded

EACH = bounded(17, 1)
"""Kills of each kind of process."""


@pytest.mark.timeout(900)
def test_whatever_is_killed_every_notice_arrives_and_none_is_seen_twice(tmp_path: Path) -> None:
    outcome = run(tmp_path, EACH * len(TARGETS), seed=5)
    assert outcome.queued == EACH * len(TARGETS) * MAILS_A_KILL
    assert outcome.lost == 0
    assert outcome.seen_twice == 0
