"""A sample of the random lives that `./reedmace bench` runs: nobody is lost, nothing contradicts, most are brought to
animals.
"""

from reedmace.command.keeper_trials import run_trial, summarize
from tests.support.bounds import bounded

SAMPLE = range(1, bounded(101, 17))


def test_random_lives_are_neither_lost_nor_told_two_things_nor_kept_for_ever() -> None:
    lives = [run_trial(seed) for seed in SAMPLE]
    told = summarize(lives)
    assert told["lost"] == 0
    # Half a kit loses some, never in silence: that is among the faults.
    assert told["lost_half_kit"] <= 0.25 * told["half_kits"]
    assert [(one.seed, one.faults[:2]) for one in lives if one.faults] == []
    assert told["false_alarm_days"] + told["false_doubt_days"] <= 0.01 * told["weeks_with_animals"] + 2
    assert told["stocked"] > 0.6 * told["lives"]
    assert told["waited"] < 0.35 * told["lives"]
