"""Free: the keeper's own tank, copied with its logbook, to try what they would not dare."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson
from reedmace.practice.starts import NET_L, filter_plan, stock_plan, tank_plan
from reedmace.standins.practice_run import Setup


def _begin(_seed: int, _rng: np.random.Generator) -> Given:
    """A bare tank, where no tank was copied."""
    return Given(Setup(net_l=NET_L), [tank_plan(), stock_plan(neon_tetra=12), filter_plan()])


def _reached(end: Ending) -> bool:
    return end.lost == 0


LESSON = Lesson(
    id="free",
    order=13,
    title="Free",
    opens="cycle",
    task=(
        "Your own tank, copied with its logbook. Try what you would not dare: skip a month, rinse under the "
        "tap, add twenty fish. What nobody measured is drawn by lot."
    ),
    teaches="What your tank bears, and what it does not.",
    mistake="None: that is what it is for.",
    rule="clear-enough",
    goal="None of its own; nobody should die.",
    lasts_days=60,
    begin=_begin,
    reached=_reached,
)
