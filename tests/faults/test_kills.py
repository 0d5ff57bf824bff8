"""Every process killed at random moments under load: `./reedmace kill-trial`, a short one."""

from pathlib import Path

import pytest

from reedmace.command.kill_trial import TARGETS, run
from tests.support.bounds import bounded

EACH = bounded(10, 1)
"""Kills of each kind of process."""


@pytest.mark.timeout(900)
def test_whatever_is_killed_nothing_acknowledged_is_lost_doubled_or_left_behind(tmp_path: Path) -> None:
    outcome = run(tmp_path, EACH * len(TARGETS), seed=7, say=lambda _: None)
    assert {target: len(took) for target, took in outcome.took_s.items()} == dict.fromkeys(TARGETS, EACH)
    assert outcome.acknowledged > 25 * EACH
    assert outcome.lost == []
    assert outcome.doubled == []
    assert outcome.left == []
