"""The bottle: four bottles of culture in four tanks, two of them cold or acid, and one bottle dead."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, SideTank
from reedmace.practice.starts import NET_L, cycle_plan, filter_plan, stock_plan, tank_plan
from reedmace.standins.practice_run import Setup

TETRAS = 24
CASES = (
    (26.0, 7.6, 6.0, 5.0, "Its bottle lived, in water as the label wants it."),
    (19.0, 7.5, 6.0, 3.0, "Its bottle lived, but the cold held it back."),
    (26.0, 6.7, 2.6, 3.0, "Its bottle lived, but acid water held it back."),
    (25.0, 7.8, 8.0, 0.0, "Nothing lived in its bottle."),
)
"""Warmth in °C, pH, KH in dKH, what the bottle holds over a usual one, and what is said of it at the end (memory)."""


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    return _given(int(rng.integers(len(CASES))))


def _at(place: int) -> SideTank:
    """One of the four. Which bottle is which is drawn with the play."""

    def begin(_seed: int, play_seed: int, _rng: np.random.Generator) -> Given:
        return _given(int(np.random.default_rng((play_seed, 5)).permutation(len(CASES))[place]))

    return SideTank(f"Bottle {'ABCD'[place]}", begin)


def _given(case: int) -> Given:
    warmth, ph, kh, holds, uncovers = CASES[case]
    setup = Setup(net_l=NET_L, kh_dkh=kh, ph=ph, warmth_c=warmth)
    plan = cycle_plan(
        method="measured-ammonia",
        helpers=["bottled-culture"],
        temperature_c=warmth,
        start_ph=ph,
        start_kh_dkh=kh,
        tap={"kh_dkh": kh},
    )
    entries = [tank_plan(), stock_plan(neon_tetra=TETRAS), filter_plan(), plan]
    return Given(setup, entries, bottle=holds, uncovers=uncovers)


def _reached(end: Ending) -> bool:
    return end.came >= 6 and end.lost == 0 and end.days_with_animals >= 7


LESSON = Lesson(
    id="bottle",
    order=5,
    title="The bottle",
    opens="cycle",
    task=(
        "Into each tank a bottle of culture was poured an hour ago; every label says that fish may come tomorrow."
        " Waters and bottles differ, and one bottle may be dead. Find out what each is worth, and bring the first"
        " tetras in when the tests of that tank say so."
    ),
    teaches=(
        "A bottle may help, by weeks or by nothing: warm water, some hardness and a fresh bottle make the difference,"
        " and only a dose that is gone in a day proves it."
    ),
    mistake="Animals on the second day, because the label says so.",
    rule="how-long",
    goal="At least six tetras in every tank, and all alive a week later.",
    lasts_days=60,
    begin=_begin,
    reached=_reached,
    task_alone=(
        "A bottle of culture was poured in an hour ago; its label says that fish may come tomorrow. The water may be"
        " what the bottle wants, or cold, or acid, and the bottle may be dead. Find out what it is worth, and bring the"
        " first tetras in when the tests say so."
    ),
    goal_alone="At least six tetras in, and all alive a week later.",
    side_by_side=tuple(_at(place) for place in range(len(CASES))),
)
