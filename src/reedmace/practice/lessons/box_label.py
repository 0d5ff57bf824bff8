"""What the box does not say: three boxes for one tank, one of which keeps its word and fits."""

import numpy as np

from reedmace.core.filter import Filter
from reedmace.core.filter.shelf_box import PREFIX, ShelfItem, box_of_filter
from reedmace.practice.lesson import Ending, Given, Lesson
from reedmace.practice.starts import NET_L, stock_plan, tank_plan, usual_box
from reedmace.standins.practice_run import Setup

KINDS = ("canister", "hang-on")
COLOURS = ("Grey", "Green", "Blue")
FIRST_NUMBER = 8 * 10**12
"""Number of the first box on the table: no keeper's shelf comes so far."""
LPH_OF_LABEL = {"canister": 0.8, "hang-on": 0.94, "internal": 0.84}
"""What usual boxes of a kind move in this tank, over the flow on their label."""
HONEST_LPH, BOASTING_LPH, WEAK_LPH = 480.0, 490.0, 120.0
"""What each label promises on this tank, L/h; the animals ask for 350 to 520."""
BOASTS = (0.4, 0.55)
"""What the boasting box truly moves over what it promises."""


def _box(kind: str, colour: str, promised_lph: float, up_to_l: float) -> Filter:
    """A box on the table. promised_lph: on this tank, L/h; up_to_l: litres of tank it says it serves."""
    box = usual_box(kind, round(promised_lph / LPH_OF_LABEL[kind] / 10) * 10)
    return box.model_copy(update={"name": f"{colour} box ({kind})", "tank_up_to_l": up_to_l})


def _begin(_seed: int, rng: np.random.Generator) -> Given:
    kinds, colours = (rng.permutation(names).tolist() for names in (KINDS, COLOURS))
    honest, boasting, weak = zip([*kinds, "internal"], colours, strict=True)
    boxes = [_box(*honest, HONEST_LPH, 110), _box(*boasting, BOASTING_LPH, 160), _box(*weak, WEAK_LPH, 200)]
    true = [float(rng.uniform(0.94, 1.02)), float(rng.uniform(*BOASTS)), float(rng.uniform(0.92, 1.0))]
    order = rng.permutation(3).tolist()
    shelf = [ShelfItem(id=FIRST_NUMBER + n, box=box_of_filter(boxes[which])) for n, which in enumerate(order)]
    makes = {f"{PREFIX}{item.id}": true[which] for item, which in zip(shelf, order, strict=True)}
    entries = [tank_plan(surroundings={"behind_cm": 20}), stock_plan(neon_tetra=24, bronze_cory=8)]
    return Given(Setup(net_l=NET_L, kh_dkh=5.0, ph=7.4), entries, shelf=shelf, makes=makes)


def _reached(end: Ending) -> bool:
    return end.timed and end.flow_lph >= end.asked_lph


LESSON = Lesson(
    id="box-label",
    order=1,
    title="What the box does not say",
    opens="filter",
    task=(
        "Twenty-four tetras and eight catfish are to come, and three boxes stand on the table: the grey, the green and"
        " the blue. Choose one, fit it, and hold a jug under it. A box may be changed for another one, as often as you"
        " like."
    ),
    teaches=(
        "A label gives what a pump moves with nothing in its way, and the litres beside it are a shopkeeper's hope."
        " What counts is what comes out of the outlet in your tank, and a jug tells that in a minute."
    ),
    mistake="The box that says the most litres, and never a jug under it.",
    rule="box-promises",
    goal="A filter on the tank that truly moves what the animals ask for, timed with a jug.",
    lasts_days=3,
    begin=_begin,
    reached=_reached,
)
