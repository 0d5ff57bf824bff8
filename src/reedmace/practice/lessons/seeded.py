"""Seeded: one mature tank, three new ones; what to move, what to leave."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, SideTank, Written
from reedmace.practice.starts import NET_L, filter_plan, merged, minutes, stock_plan, tank_plan, tests_of
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

OLD_DANIOS, NEW_DANIOS, OLD_DAYS, KEPT_DAYS = 24, 16, 21, 300
"""Danios of the mature tank and planned for each new one, the days for which the mature one is watched, and those for
which it has been kept before.
"""


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(net_l=NET_L, kh_dkh=float(rng.uniform(4, 8)), ph=7.5, warmth_c=25.0)
    return Given(setup, [tank_plan(), stock_plan(zebra_danio=24), filter_plan()])


def _new(_seed: int, _play_seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(net_l=NET_L, kh_dkh=float(rng.uniform(4, 8)), ph=7.5, warmth_c=25.0)
    return Given(setup, [tank_plan(), stock_plan(zebra_danio=NEW_DANIOS), filter_plan()])


def _old(seed: int, _play_seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(net_l=NET_L, kh_dkh=float(rng.uniform(4, 8)), ph=7.5, nitrate_mg_n_l=3.0, warmth_c=25.0)
    acts = (Act(0.0, "film-gain", float(rng.uniform(1.5, 2.5))),)
    came = Act(0.0, "animals", OLD_DANIOS, "zebra-danio")
    plans = [
        tank_plan(),
        stock_plan(zebra_danio=OLD_DANIOS),
        filter_plan(),
        Written(0, {"kind": "situation", "stands": "running"}),
        Written(-minutes(KEPT_DAYS), {"kind": "stocking", "species_id": "zebra-danio", "count": OLD_DANIOS}),
    ]
    return Given(setup, merged(plans, tests_of(PracticeTank(setup, seed), [*acts, came], (0,))), acts)


def _reached(end: Ending) -> bool:
    return end.came >= 16 and end.lost == 0 and end.days_with_animals >= 7


def _new_lives(end: Ending) -> bool:
    return end.came >= NEW_DANIOS // 2 and end.lost == 0 and end.days_with_animals >= 7


def _old_lives(end: Ending) -> bool:
    return end.lost == 0 and end.days >= OLD_DAYS


LESSON = Lesson(
    id="seeded",
    order=7,
    title="Seeded",
    opens="cycle",
    task=(
        "A filter of years, with two dozen danios on it, and three new tanks that are to hold sixteen each. Its media"
        " are what you may move: plan each new tank with the share it gets, prove it with a dose, bring danios in,"
        " and leave the old tank enough."
    ),
    teaches=(
        "A film that is moved wet works at once, as much as was moved and no more; a dose proves it before animals do."
        " What is taken is missing where it came from."
    ),
    mistake="Animals at once, with a hundredth of the media moved.",
    rule="how-long",
    goal="Danios in every new tank, all alive a week later, and nobody lost in the old one after three weeks.",
    lasts_days=30,
    begin=_begin,
    reached=_reached,
    task_alone=(
        "A friend's filter of years stands beside a new tank: half of its media may be moved. Plan it, prove it with a"
        " dose, and put two dozen danios in."
    ),
    goal_alone="At least sixteen danios in, all alive a week later.",
    side_by_side=(
        SideTank("Old tank", _old, _old_lives, opens="keep"),
        *(SideTank(f"New tank {n}", _new, _new_lives) for n in (1, 2, 3)),
    ),
    shares_media=True,
)
