"""Too many, too soon: stocking after the zero."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, Written
from reedmace.practice.starts import NET_L, cycle_plan, filter_plan, merged, minutes, stock_plan, tank_plan, tests_of
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

BEGUN, DANIOS = 30, 75


def _begin(seed: int, rng: np.random.Generator) -> Given:
    kh = float(rng.uniform(5, 9))
    setup = Setup(net_l=NET_L, kh_dkh=kh, ph=8.0, warmth_c=26.0)
    # It cleared small doses: just enough for a first group.
    acts = (Act(0.0, "film-gain", float(rng.uniform(0.002, 0.005))),)
    doses = [(day, 0.05) for day in range(0, BEGUN, 5)]
    tank = PracticeTank(setup, seed)
    poured = [Act(minutes(day, 11), "dose", rise * tank.dose_strength()) for day, rise in doses]
    written = tests_of(tank, [*acts, *poured], (8, 14, 20, 24, 27, 29))
    logged = [Written(minutes(day, 11), {"kind": "dose", "raise_mg_n_l": rise}) for day, rise in doses]
    plan = cycle_plan(target_ppm=0.1, start_kh_dkh=round(kh), start_ph=8.0)
    plans = [tank_plan(), stock_plan(zebra_danio=DANIOS), filter_plan(), plan]
    return Given(setup, merged(plans, written, logged), acts, minutes(BEGUN))


def _reached(end: Ending) -> bool:
    return end.lost == 0 and end.alive >= DANIOS


LESSON = Lesson(
    id="too-soon",
    order=10,
    title="Too many, too soon",
    opens="cycle",
    task=(
        "A month of small doses, and ammonia and nitrite read zero. Seventy-five zebra danios are planned. Bring"
        " all of them into the tank, as many at once as it bears."
    ),
    teaches=("A zero says the film clears what it was fed, not what it will be fed. It grows with each group."),
    mistake="All of them in one afternoon.",
    rule="clear-enough",
    goal="All seventy-five in and alive.",
    lasts_days=BEGUN + 60,
    begin=_begin,
    reached=_reached,
)
