"""Scores are shares, and better figures never score less."""

import numpy as np
import pytest

from reedmace.core.filter.choice.scores import (
    NAMES,
    flow_score,
    pair_scores,
    price_here,
    price_score,
    pump_price,
    running_score,
    single_scores,
    watts_here,
    weights_of,
)
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.site.site import Priorities, Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

TABLE = table_of(SAMPLE_BOXES)
SITE = Site.model_validate(ROOM)
ALL = np.arange(len(TABLE))
ONES = np.ones(len(TABLE))


def scored(site: Site = SITE, days: float = 30.0) -> dict[str, np.ndarray]:
    flow = TABLE.box_lph * 0.6
    found = single_scores(TABLE, site, flow, ONES * days, ONES * 400.0, 900.0, np.zeros(len(TABLE), dtype=bool))
    assert ((found >= 0) & (found <= 1)).all()
    return dict(zip(NAMES, found.T, strict=True))


def test_flow_is_full_between_its_bounds_and_a_shortfall_costs_more_than_a_surplus() -> None:
    flows = np.array([0.0, 200.0, 400.0, 600.0, 900.0, 1800.0, 50000.0])
    found = flow_score(flows, np.full(7, 400.0), 900.0)
    assert found.tolist() == pytest.approx([0, 0.25, 1, 1, 1, 0.65, 0], abs=1e-9)


def test_money_and_watts_count_by_their_ratio() -> None:
    assert price_score(np.array([1.0, 5.0, 20.0, 80.0, 400.0, 900.0])).tolist() == pytest.approx(
        [1, 1, 0.684, 0.367, 0, 0], abs=1e-3
    )
    watts = running_score(np.array([1.0, 2.0, 60.0, 200.0]))
    assert watts.tolist() == [1, 1, 0, 0]


def test_a_shared_air_pump_is_there_already_and_its_watts_are_shared() -> None:
    air = TABLE.air
    alone, room = SITE, SITE.model_copy(update={"air_shared": True, "tanks_here_count": 4})
    assert watts_here(TABLE, room)[air] == pytest.approx(TABLE.watts[air] / 4)
    assert watts_here(TABLE, room)[~air] == pytest.approx(TABLE.watts[~air])
    many = room.model_copy(update={"tanks_here_count": 40})
    assert watts_here(TABLE, many)[air] == pytest.approx(TABLE.watts[air] / 10)
    assert pump_price(np.array([0.0, 2.0]), alone).tolist() == [0, 16]
    assert pump_price(np.array([0.0, 2.0]), room).tolist() == [0, 0]
    assert (price_here(TABLE, alone, ALL) - price_here(TABLE, room, ALL) > 0).tolist() == air.tolist()


def test_two_on_air_are_bought_with_one_pump() -> None:
    a, b = np.flatnonzero(TABLE.air)[:2]
    pair = price_here(TABLE, SITE, np.array([a]), np.array([b]))[0]
    singles = price_here(TABLE, SITE, np.array([a, b])).sum()
    assert pair == pytest.approx(singles - 8)


def test_a_filter_that_is_cleaned_too_often_is_less_easy_and_never_more_than_easy() -> None:
    rare, often = scored(days=4000.0)["easy_clean"], scored(days=2.0)["easy_clean"]
    assert (often < rare).all()


def test_where_co2_is_given_falling_water_and_bubbles_cost_flow() -> None:
    drives = TABLE.where(lambda k: k.outlet in ("lip", "bubbles"))
    usual, given = scored()["flow"], scored(SITE.model_copy(update={"co2": "by-day"}))["flow"]
    assert given[~drives] == pytest.approx(usual[~drives])
    assert given[drives] == pytest.approx(0.35 * usual[drives])


def test_a_pair_costs_together_looks_like_the_worse_and_outlives_either() -> None:
    singles = np.column_stack(list(scored().values()))
    i, j = np.array([0, 1]), np.array([2, 3])
    together = (TABLE.box_lph[i] + TABLE.box_lph[j]) * 0.6
    found = pair_scores(TABLE, SITE, singles, i, j, together, np.full(2, 400.0), 900.0)
    at = {name: k for k, name in enumerate(NAMES)}
    for name in ("price", "running_cost", "quiet", "hidden", "flood_safety", "room_in_tank"):
        k = at[name]
        assert (found[:, k] <= np.minimum(singles[i, k], singles[j, k]) + 1e-9).all(), name
    for name in ("clear_water", "power_cut", "chemical", "expandable"):
        k = at[name]
        assert found[:, k] == pytest.approx(np.maximum(singles[i, k], singles[j, k])), name
    assert (found[:, at["redundant"]] == 1).all()


def test_flow_weighs_five_and_the_rest_as_the_keeper_says() -> None:
    weights = dict(zip(NAMES, weights_of(Priorities(quiet=4, price=0)), strict=True))
    assert (weights["flow"], weights["quiet"], weights["price"]) == (5, 4, 0)
