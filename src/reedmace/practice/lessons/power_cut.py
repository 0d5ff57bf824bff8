"""The power cut: a night without power in a tank that has run for a year."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, Mishap, Written
from reedmace.practice.starts import NET_L, filter_plan, merged, minutes, power_cut, stock_plan, tank_plan, tests_of
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

BEGUN, TETRAS, CORYS = 21, 48, 16


def _begin(seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(net_l=NET_L, kh_dkh=float(rng.uniform(4, 8)), ph=7.4, nitrate_mg_n_l=3.0, warmth_c=27.5)
    acts = (Act(0.0, "film-gain", float(rng.uniform(1.2, 2.2))),)
    came = [Act(5.0, "animals", TETRAS, "neon-tetra"), Act(6.0, "animals", CORYS, "bronze-cory")]
    written = tests_of(PracticeTank(setup, seed), [*acts, *came], (6, 13, 20))
    plans = [
        tank_plan(),
        stock_plan(neon_tetra=TETRAS, bronze_cory=CORYS),
        filter_plan("canister", 700),
        Written(0, {"kind": "situation", "stands": "running"}),
        Written(5, {"kind": "stocking", "species_id": "neon-tetra", "count": TETRAS}),
        Written(6, {"kind": "stocking", "species_id": "bronze-cory", "count": CORYS}),
    ]
    cut = minutes(BEGUN + float(rng.integers(1, 4)), 22)
    hours = float(rng.uniform(30, 44))
    mishap = Mishap(
        cut + 60 * 9,
        "The clock on the stove blinks: the power went in the night. The filter stands still and it is not back yet.",
        power_cut(cut, hours),
    )
    back = Mishap(cut + hours * 60, f"The power is back after {hours:.0f} hours; the filter starts again.", ())
    return Given(setup, merged(plans, written), acts, minutes(BEGUN), (mishap, back))


def _reached(end: Ending) -> bool:
    return end.lost == 0 and end.days >= BEGUN + 12


LESSON = Lesson(
    id="power-cut",
    order=8,
    title="The power cut",
    opens="keep",
    task=(
        "A tank that runs well, with forty-eight tetras and sixteen catfish. Something will happen in one of "
        "the next nights. Bring everybody through, and watch the water afterwards."
    ),
    teaches=(
        "First comes oxygen, then the filter bacteria, which suffocate in a filter that stands still. "
        "Afterwards the tank is tested as if it were new."
    ),
    mistake="Full meals and no air while the filter stands still.",
    rule="power-cut",
    goal="All alive twelve days on.",
    lasts_days=BEGUN + 14,
    begin=_begin,
    reached=_reached,
)
