"""Moving house: the old filter on a bigger tank, and its animals waiting to follow."""

import numpy as np

from reedmace.core.tank import TankVolumeQuestion, tank_volume
from reedmace.practice.lesson import Ending, Given, Lesson, Written
from reedmace.practice.starts import filter_plan, stock_plan
from reedmace.standins.practice_run import Setup

SIZES = {"length_cm": 120, "width_cm": 40, "height_cm": 45, "substrate_depth_cm": 4}
NET_L = tank_volume(TankVolumeQuestion.model_validate(SIZES)).net_l
DANIOS = 36


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    setup = Setup(net_l=NET_L, kh_dkh=float(rng.uniform(4, 9)), ph=7.5, warmth_c=25.0)
    tank = Written(0, {"kind": "tank-plan", "tank": SIZES})
    return Given(setup, [tank, stock_plan(zebra_danio=DANIOS), filter_plan("hang-on", 900)])


def _reached(end: Ending) -> bool:
    return end.came >= DANIOS and end.lost == 0 and end.days_with_animals >= 10


LESSON = Lesson(
    id="moving-house",
    order=11,
    title="Moving house",
    opens="cycle",
    task=(
        "A bigger tank stands filled, bare but for its sand. Its filter is new; the old tank's, years old, can give it"
        " all of its media. Thirty-six danios wait in the old tank. Bring them over without losing the cycle."
    ),
    teaches=(
        "The cycle lives on the media, not in the water: moved wet and whole it works at once in any tank, and a dose"
        " proves it before the animals do."
    ),
    mistake="New media for the new tank, and everybody over in one afternoon.",
    rule="how-long",
    goal="All thirty-six over, and alive ten days later.",
    lasts_days=45,
    begin=_begin,
    reached=_reached,
)
