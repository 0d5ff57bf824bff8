"""Every process killed at random moments under load: `./reedmace kill-trial`, a short one."""

from pathlib import Path

import pytest

from reedmace.command.kill_trial import TARGETS, run


@pytest.mark.timeout(900)
def test_whatever_is_killed_nothing_acknowledged_is_lost_doubled_or_left_behind(tmp_path: Path) -> None:
    outcome = run(tmp_path, 2 * len(TARGETS), seed=7, say=lambda _: None)
    assert {target: len(took) for target, took in outcome.took_s.items()} == dict.fromkeys(TARGETS, 2)
    assert outcome.acknowledged > 50
    assert outcome.lost == []
    assert outcome.doubled == []
    assert outcome.left == []
