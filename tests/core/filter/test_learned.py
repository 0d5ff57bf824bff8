"""Typical boxes learned from typed ones: few move little, many move far, slips and one keeper's flood do not."""

import math

import numpy as np
import pytest

from reedmace.core.filter.kind_parts.traits import kind_traits
from reedmace.core.filter.learned import MOST_OF_ONE_KEEPER, PUMPED_FLOW, TimedRatio, TypedBox, learn
from reedmace.core.filter.typical import typical_box, typical_id, typical_named, typical_table

HANG_ON = "hang-on"


def typed(count: int, watts_off: float, *, keepers: int = 100, seed: int = 1) -> list[TypedBox]:
    """Hang-ons whose watts lie off the median by so much. watts_off: natural log."""
    rng = np.random.default_rng(seed)
    relation = kind_traits()[HANG_ON].typical
    found = []
    for n in range(count):
        lph = float(rng.uniform(200, 1000))
        spread = relation.figures["watts"][2]
        watts = relation.figure("watts", lph) * math.exp(watts_off + spread * rng.standard_normal())
        found.append(TypedBox(keeper=n % keepers, kind=HANG_ON, box_lph=lph, figures=(("watts", watts),)))
    return found


def shift_of(boxes, flows=()) -> float:
    return {one.figure: one.shift_share for one in learn(boxes, flows)}.get("watts", 0.0)


def test_few_boxes_move_little_and_many_move_to_where_they_lie() -> None:
    # The shift follows n / (n + 8) of the mean residual.
    few, many = shift_of(typed(2, 0.4)), shift_of(typed(800, 0.4))
    assert abs(few) < 0.2
    assert many == pytest.approx(0.4, abs=0.05)


def test_the_spread_learned_is_that_of_the_boxes() -> None:
    prior = kind_traits()[HANG_ON].typical.figures["watts"][2]
    (one,) = learn(typed(800, 0.0), [])
    assert one.spread_share == pytest.approx(prior, rel=0.1)
    assert one.count == 800


def test_one_keeper_counts_for_so_many_boxes_and_no_more() -> None:
    (one,) = learn(typed(500, 0.3, keepers=1), [])
    assert one.count == MOST_OF_ONE_KEEPER


def test_a_slip_of_the_pen_and_a_box_typed_twice_do_not_count() -> None:
    boxes = typed(10, 0.0)
    slip = TypedBox(keeper=7, kind=HANG_ON, box_lph=300, figures=(("watts", 5000.0),))
    assert learn([*boxes, slip, boxes[0]], []) == learn(boxes, [])


def test_a_kind_nobody_sells_and_a_figure_its_boxes_have_not_are_left_out() -> None:
    odd = [
        TypedBox(keeper=1, kind="teapot", box_lph=300, figures=(("watts", 5.0),)),
        TypedBox(keeper=1, kind="sponge", box_lph=100, figures=(("max_head_m", 1.0),)),
    ]
    assert learn(odd, [TimedRatio(keeper=1, kind="teapot", ratio=0.8)]) == []


def test_what_was_learned_moves_the_usual_box_and_its_makes_and_its_name_stays() -> None:
    flows = [TimedRatio(keeper=n, kind=HANG_ON, ratio=0.8) for n in range(60)]
    learned = tuple(learn(typed(100, 0.3), flows))
    kind = kind_traits()[HANG_ON]
    usual, moved = typical_box(kind, 300), typical_box(kind, 300, learned=learned)
    shift = next(one.shift_share for one in learned if one.figure == "watts")
    assert moved.watts / usual.watts == pytest.approx(math.exp(shift), abs=0.02)
    pumped = next(one.shift_share for one in learned if one.figure == PUMPED_FLOW)
    assert moved.pumps_share == pytest.approx(math.exp(pumped), abs=0.001)
    assert (moved.box_lph, moved.name) == (usual.box_lph, usual.name)
    assert typical_named(typical_id(kind, 300), learned) == moved
    number = [k.name for k in typical_table().kinds].index(HANG_ON)
    row = typical_table(learned).rows_of(number, 9)[0]
    assert typical_table(learned).table.watts[row] > typical_table().table.watts[row]
