"""Cleaning day: a year of a canister; when it is opened, and how much is cleaned at once."""

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, Written
from reedmace.practice.starts import FILTER_KEY, NET_L, filter_plan, minutes, stock_plan, tank_plan
from reedmace.standins.practice_run import Act, Setup

TETRAS, CORYS, YEAR_DAYS = 20, 6, 365
STILL_MOVES = 0.4
"""Share of the clean filter's flow that is left at the end of a year well kept."""


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(
        net_l=NET_L, kh_dkh=float(rng.uniform(6, 9)), ph=7.4, nitrate_mg_n_l=2.0, clogs_days=float(rng.uniform(40, 75))
    )
    acts = (Act(0.0, "film-gain", float(rng.uniform(1.4, 2.2))),)
    plans = [
        tank_plan(),
        stock_plan(neon_tetra=TETRAS, bronze_cory=CORYS),
        filter_plan("canister", 620),
        Written(0, {"kind": "situation", "stands": "running"}),
        Written(1, {"kind": "stocking", "species_id": "neon-tetra", "count": TETRAS}),
        Written(2, {"kind": "stocking", "species_id": "bronze-cory", "count": CORYS}),
        Written(3, {"kind": "media-work", "what": "rinsed", "share": 0.5, "filter_key": FILTER_KEY}),
    ]
    return Given(setup, plans, acts, minutes(0, 1))


def _reached(end: Ending) -> bool:
    return end.lost == 0 and end.days >= YEAR_DAYS - 5 and end.flow_share >= STILL_MOVES


LESSON = Lesson(
    id="cleaning-day",
    order=9,
    title="Cleaning day",
    opens="keep",
    task=(
        "A tank that runs well, and a year to keep it so. The media fill with dirt as the animals are fed: hold a jug"
        " under the outlet now and then, change water, and open the filter when it asks for it. How much of it to clean"
        " at once is up to you."
    ),
    teaches=(
        "Flow tells when to clean, not the calendar alone. Half the media at a time, in water of the tank: what lives"
        " in the other half carries on."
    ),
    mistake="Nothing for most of a year, then everything new in one afternoon.",
    rule="rinse-tap",
    goal="A year on: everybody alive, and the filter still moves well.",
    lasts_days=YEAR_DAYS,
    begin=_begin,
    reached=_reached,
)
