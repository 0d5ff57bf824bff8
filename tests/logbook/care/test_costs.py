"""Costs: what a year takes, and what was paid so far for things bought."""

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.stages import keep_view
from tests.support.tanks import AT, state_of

TANK = {"kind": "tank-plan", "tank": {"length_cm": 80, "width_cm": 35, "height_cm": 40}}
PLAN = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": SAMPLE_BOXES[0].model_dump()}]}


def test_what_was_paid_is_added_up_and_stands_apart_from_the_year() -> None:
    bare = keep_view(state_of(TANK, PLAN), AT).costs
    paid = [{"kind": "purchase", "item": item, "price": price} for item, price in (("Hose", 8.5), ("Test kit", 24))]
    bought = keep_view(state_of(TANK, PLAN, *paid), AT).costs
    assert (bare.bought, bare.bought_count) == (0, 0)
    assert (bought.bought, bought.bought_count) == (32.5, 2)
    assert bought.year == bare.year
