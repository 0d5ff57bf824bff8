"""Seeded: a mature filter at hand, and a new tank that needs some of it."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson
from reedmace.practice.starts import NET_L, filter_plan, stock_plan, tank_plan
from reedmace.standins.practice_run import Setup


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(net_l=NET_L, kh_dkh=float(rng.uniform(4, 8)), ph=7.5, warmth_c=25.0)
    return Given(setup, [tank_plan(), stock_plan(zebra_danio=24), filter_plan()])


def _reached(end: Ending) -> bool:
    return end.came >= 16 and end.lost == 0 and end.days_with_animals >= 7


LESSON = Lesson(
    id="seeded",
    order=7,
    title="Seeded",
    opens="cycle",
    task=(
        "A friend's filter of years stands beside a new tank: half of its media may be moved. Plan it, prove "
        "it with a dose, and put two dozen danios in."
    ),
    teaches=(
        "A film that is moved wet works at once, as much as was moved and no more; a dose proves it before animals do."
    ),
    mistake="Animals at once, with a hundredth of the media moved.",
    rule="how-long",
    goal="At least sixteen danios in, all alive a week later.",
    lasts_days=30,
    begin=_begin,
    reached=_reached,
)
