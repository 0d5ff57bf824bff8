"""The power cut: a night without power, and a day, on three kinds of filter."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, Mishap, SideTank, Written
from reedmace.practice.starts import NET_L, filter_plan, merged, minutes, power_cut, stock_plan, tank_plan, tests_of
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

BEGUN, TETRAS, CORYS = 21, 48, 16


KINDS = (("Canister", "canister", 700.0, 1.0), ("Hang-on", "hang-on", 500.0, 0.5), ("Sponge", "sponge", 500.0, 0.15))
"""Label, kind, L/h, and the share of its film that lies airless while it stands (memory): a canister is shut, a sponge
hangs in the tank's own water.
"""


def _begin(seed: int, rng: np.random.Generator) -> Given:
    return _given(seed, rng, rng, KINDS[0])


def _on(kind: tuple[str, str, float, float]) -> SideTank:
    """The tank with one kind of filter. The same night for all three."""

    def begin(seed: int, play_seed: int, rng: np.random.Generator) -> Given:
        return _given(seed, rng, np.random.default_rng((play_seed, 8)), kind)

    return SideTank(kind[0], begin)


def _given(seed: int, rng: np.random.Generator, night: np.random.Generator, on: tuple[str, str, float, float]) -> Given:
    """The start. seed: of the tank; rng: its draws; night: draws of the cut; on: the filter."""
    _, kind, lph, airless = on
    setup = Setup(
        net_l=NET_L,
        kh_dkh=float(rng.uniform(4, 8)),
        ph=7.4,
        nitrate_mg_n_l=3.0,
        warmth_c=27.5,
        airless=airless,
    )
    acts = (Act(0.0, "film-gain", float(rng.uniform(1.2, 2.2))),)
    came = [Act(5.0, "animals", TETRAS, "neon-tetra"), Act(6.0, "animals", CORYS, "bronze-cory")]
    written = tests_of(PracticeTank(setup, seed), [*acts, *came], (6, 13, 20))
    plans = [
        tank_plan(),
        stock_plan(neon_tetra=TETRAS, bronze_cory=CORYS),
        filter_plan(kind, lph),
        Written(0, {"kind": "situation", "stands": "running"}),
        Written(5, {"kind": "stocking", "species_id": "neon-tetra", "count": TETRAS}),
        Written(6, {"kind": "stocking", "species_id": "bronze-cory", "count": CORYS}),
    ]
    cut = minutes(BEGUN + float(night.integers(1, 4)), 22)
    hours = float(night.uniform(30, 44))
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
        "Three tanks that run well, on a canister, a hang-on and an air-driven sponge, with forty-eight tetras and"
        " sixteen catfish each. Something will happen in one of the next nights. Bring everybody through, and watch"
        " the water afterwards."
    ),
    teaches=(
        "First comes oxygen, then the filter bacteria, which suffocate in a filter that stands still. "
        "A shut canister goes airless soonest. Afterwards the tank is tested as if it were new."
    ),
    mistake="Full meals and no air while the filter stands still.",
    rule="power-cut",
    goal="All alive in every tank twelve days on.",
    lasts_days=BEGUN + 14,
    begin=_begin,
    reached=_reached,
    task_alone=(
        "A tank that runs well on a canister, with forty-eight tetras and sixteen catfish. Something will happen in one"
        " of the next nights. Bring everybody through, and watch the water afterwards."
    ),
    goal_alone="All alive twelve days on.",
    side_by_side=tuple(_on(kind) for kind in KINDS),
)
