"""Saturday's fish: animals in an uncycled tank, day 6, poison rising."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, Written
from reedmace.practice.starts import NET_L, cycle_plan, filter_plan, merged, minutes, stock_plan, tank_plan, tests_of
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

BEGUN, DANIOS = 6, 20


def _begin(seed: int, rng: np.random.Generator) -> Given:
    kh = float(rng.uniform(5, 9))
    setup = Setup(net_l=NET_L, kh_dkh=kh, ph=float(rng.uniform(7.6, 8.1)), warmth_c=25.0)
    came = Act(60.0, "animals", DANIOS, "zebra-danio")
    written = tests_of(PracticeTank(setup, seed), [came], (5.5,))
    plans = [
        tank_plan(),
        stock_plan(zebra_danio=DANIOS),
        filter_plan(),
        cycle_plan(
            method="animals-in",
            start_kh_dkh=round(kh),
            start_ph=round(setup.ph, 1),
            tap={"kh_dkh": round(kh), "chlorine": "chlorine"},
        ),
        Written(60, {"kind": "stocking", "species_id": "zebra-danio", "count": DANIOS}),
    ]
    return Given(setup, merged(plans, written), (), minutes(BEGUN))


def _reached(end: Ending) -> bool:
    return end.lost == 0 and end.alive == DANIOS and end.days >= BEGUN + 28


LESSON = Lesson(
    id="saturdays-fish",
    order=6,
    title="Saturday's fish",
    opens="cycle",
    task=(
        "Twenty danios were put into a new tank on Saturday. It is day 6 and poison rises. Bring all of them through."
    ),
    teaches=(
        "With animals in, tests and water changes do what the filter bacteria cannot do yet; feeding little "
        "makes less poison."
    ),
    mistake="Waiting it out without a water change.",
    rule="fish-gasp",
    goal="All twenty alive four weeks on.",
    lasts_days=BEGUN + 30,
    begin=_begin,
    reached=_reached,
)
