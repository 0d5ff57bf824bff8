"""The bottle: a culture that may be anything, in water that may be cold or acid."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson
from reedmace.practice.starts import NET_L, cycle_plan, filter_plan, stock_plan, tank_plan
from reedmace.standins.practice_run import Setup

TETRAS = 24
WATERS = ((26.0, 7.6, 6.0), (19.0, 7.5, 6.0), (26.0, 6.5, 1.6), (25.0, 7.8, 8.0))
"""Warmth in °C, pH and KH in dKH: as the label wants it, cold, acid, and as it wants it again."""


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    warmth, ph, kh = WATERS[int(rng.integers(len(WATERS)))]
    setup = Setup(net_l=NET_L, kh_dkh=kh, ph=ph, warmth_c=warmth)
    # What its bottle is worth, from nothing to a great deal, is drawn with the tank.
    plan = cycle_plan(
        method="measured-ammonia",
        helpers=["bottled-culture"],
        temperature_c=warmth,
        start_ph=ph,
        start_kh_dkh=kh,
        tap={"kh_dkh": kh},
    )
    return Given(setup, [tank_plan(), stock_plan(neon_tetra=TETRAS), filter_plan(), plan])


def _reached(end: Ending) -> bool:
    return end.came >= 6 and end.lost == 0 and end.days_with_animals >= 7


LESSON = Lesson(
    id="bottle",
    order=5,
    title="The bottle",
    opens="cycle",
    task=(
        "A bottle of culture was poured in an hour ago; its label says that fish may come tomorrow. The water may be"
        " what the bottle wants, or cold, or acid. Find out what it is worth, and bring the first tetras in when the"
        " tests say so."
    ),
    teaches=(
        "A bottle may help, by weeks or by nothing: warm water, some hardness and a fresh bottle make the difference,"
        " and only a dose that is gone in a day proves it."
    ),
    mistake="Animals on the second day, because the label says so.",
    rule="how-long",
    goal="At least six tetras in, and all alive a week later.",
    lasts_days=60,
    begin=_begin,
    reached=_reached,
)
