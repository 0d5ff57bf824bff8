"""A tank, a stock and boxes that tests of the ranking share."""

from reedmace.core.computations import compute
from reedmace.demo.sample_boxes import SAMPLE_BOXES

ROOM = {"net_l": 129, "water_depth_cm": 41, "length_cm": 90, "width_cm": 40, "behind_cm": 6, "beneath_cm": 66}


SHOAL = [{"species_id": "harlequin-rasbora", "count": 12}, {"species_id": "zebra-danio", "count": 8}]


SAMPLES = [f.model_dump(mode="json") for f in SAMPLE_BOXES]


def rank(**changes):
    return compute("rank-filters", {"site": ROOM, "animals": SHOAL, "own_filters": SAMPLES, **changes})
