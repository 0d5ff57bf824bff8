"""The stall: soft water whose alkalinity is used up on day 16."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson
from reedmace.practice.starts import NET_L, cycle_plan, filter_plan, kept_days, merged, minutes, stock_plan, tank_plan
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

BEGUN = 16
CLEARS = 0.5
"""Of each half of the film, mg N/(L day): a usual dose in a day."""


def _begin(seed: int, rng: np.random.Generator) -> Given:
    kh = float(rng.uniform(0.8, 1.4))
    setup = Setup(net_l=NET_L, kh_dkh=kh, ph=float(rng.uniform(6.7, 7.0)), warmth_c=26.0)
    # A handful of gravel from a running tank made it quick until the alkalinity was used up.
    acts = (Act(10.0, "film-gain", float(rng.uniform(0.35, 0.6))),)
    written = kept_days(PracticeTank(setup, seed), acts, BEGUN)
    plan = cycle_plan(start_kh_dkh=round(kh), start_ph=7.0, tap={"kh_dkh": round(kh)})
    plans = [tank_plan(), stock_plan(zebra_danio=8), filter_plan(), plan]
    return Given(setup, merged(plans, written), acts, minutes(BEGUN))


def _reached(end: Ending) -> bool:
    return end.clears >= CLEARS and end.kh_dkh >= 1 and end.days >= BEGUN + 4


LESSON = Lesson(
    id="stall",
    order=4,
    title="The stall",
    opens="cycle",
    task=(
        "Day 16 of a cycle in soft water. Ammonia no longer falls. Find out why, mend it, and bring the "
        "filter bacteria to where they clear a dose in a day."
    ),
    teaches=("Filter bacteria use up carbonate hardness; without it they stop, however much ammonia there is."),
    mistake="More ammonia, day after day.",
    rule="stalled",
    goal="A filter that clears a dose within a day.",
    lasts_days=BEGUN + 25,
    begin=_begin,
    reached=_reached,
)
