"""Salt: mature rock, no skimmer yet, and patience."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson
from reedmace.practice.starts import NET_L, cycle_plan, filter_plan, stock_plan, tank_plan
from reedmace.standins.practice_run import Setup


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(net_l=NET_L, kh_dkh=float(rng.uniform(7, 9)), ph=8.1, warmth_c=25.5, salt=True)
    plan = cycle_plan(method="mature-rock", salinity_g_kg=35, start_kh_dkh=8, start_ph=8.1, rock_kg=6.0)
    return Given(
        setup, [tank_plan(), stock_plan(ocellaris_clownfish=2, green_chromis=6), filter_plan("hang-on", 700), plan]
    )


def _reached(end: Ending) -> bool:
    return end.came >= 4 and end.lost == 0 and end.days_with_animals >= 14


LESSON = Lesson(
    id="salt",
    order=12,
    title="Salt",
    opens="cycle",
    task=(
        "Sea water and six kilograms of mature rock. Prove the rock with ammonia, and bring a pair of "
        "clownfish and six chromis in."
    ),
    teaches=(
        "Rock brings a film of its own, but less than it seems after a day in a box; salt water buffers and "
        "asks for patience."
    ),
    mistake="All the fish on the first evening.",
    rule="how-long",
    goal="At least four fish in, alive two weeks later.",
    lasts_days=45,
    begin=_begin,
    reached=_reached,
)
