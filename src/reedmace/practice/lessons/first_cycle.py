"""The first cycle: measured ammonia from bare water to the first animals."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson
from reedmace.practice.starts import NET_L, filter_plan, stock_plan, tank_plan
from reedmace.standins.practice_run import Setup


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    kh = float(rng.uniform(4, 9))
    return Given(
        Setup(net_l=NET_L, kh_dkh=kh, ph=float(rng.uniform(7.2, 7.8)), warmth_c=26.0),
        [tank_plan(), stock_plan(neon_tetra=24), filter_plan()],
    )


def _reached(end: Ending) -> bool:
    return end.came >= 6 and end.lost == 0 and end.days_with_animals >= 7


LESSON = Lesson(
    id="first-cycle",
    order=3,
    title="The first cycle",
    opens="cycle",
    task=(
        "A bare tank with its filter running. Feed the filter bacteria with measured ammonia until they clear"
        " it, then put the first neon tetras in and keep them for a week."
    ),
    teaches="Two groups of bacteria grow one after the other; only tests say when both are there.",
    mistake="All the animals on the third day.",
    rule="how-long",
    goal="At least six tetras in, and all alive a week later.",
    lasts_days=50,
    begin=_begin,
    reached=_reached,
)
