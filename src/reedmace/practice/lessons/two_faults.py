"""Where the water goes: a canister laid out with two faults, to be found before the plug goes in."""

from typing import Any

import numpy as np

from reedmace.practice.lesson import Ending, Given, Lesson, Written
from reedmace.practice.starts import FILTER_KEY, NET_L, filter_plan, stock_plan, tank_plan
from reedmace.standins.practice_run import Setup

FAULTS: tuple[dict[str, Any], ...] = (
    {"drip_loop": False},
    {"tap_above_water_cm": -14},
    {"intake_depth_cm": 32},
    {"intake_depth_cm": 1.5},
    {"outlet_depth_cm": -7},
    {"intake_x_cm": 62, "outlet_x_cm": 68},
)
"""Layouts of one fault each; two of them that set nothing in common are given."""


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    first = FAULTS[int(rng.integers(len(FAULTS)))]
    others = [f for f in FAULTS if not f.keys() & first.keys()]
    layout = {**first, **others[int(rng.integers(len(others)))]}
    fit = Written(0, {"kind": "fit-plan", "places": {FILTER_KEY: layout}})
    plans = [tank_plan(), stock_plan(neon_tetra=24, bronze_cory=8), filter_plan("canister", 560), fit]
    return Given(Setup(net_l=NET_L), plans)


def _reached(end: Ending) -> bool:
    return end.faults == ()


LESSON = Lesson(
    id="two-faults",
    order=2,
    title="Where the water goes",
    opens="fit",
    task=(
        "A friend has laid out a canister for you, in a hurry, and two things about it are wrong. Read the drawing, put"
        " them right, and go through the steps. The plug goes in last."
    ),
    teaches=(
        "Water follows every cable, empties by every low tap, and draws air where it can. All of that is seen in the"
        " layout before there is a drop of water in it."
    ),
    mistake="The plug first, and a look round afterwards.",
    rule="on-the-floor",
    goal="The filter switched on with nothing wrong about its layout.",
    lasts_days=2,
    begin=_begin,
    reached=_reached,
)
