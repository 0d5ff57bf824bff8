"""The water path through filters, one by one and as a table."""

import numpy as np
import pytest

from reedmace.core.computations import compute
from reedmace.core.filter import table_of
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.filter.water_path import (
    deliver,
    food_shares,
    lift_question,
    path_question,
    rise_m,
    submerged_cm,
)
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.fitting import ONE
from tests.support.ranking import ROOM

SITE, PLUMBING = Site.model_validate(ROOM), Plumbing()
TABLE = table_of(SAMPLE_BOXES)


def flows(table=TABLE, feed=1.5, **changes):
    return deliver(table, SITE, PLUMBING, feed, 25, **changes)


def test_a_table_with_food_for_each_is_as_many_tables_with_food_for_all() -> None:
    feed = np.linspace(0.2, 6, len(TABLE))
    each = flows(feed=feed)
    for i in range(0, len(TABLE), 7):
        alone = flows(TABLE.taken(np.array([i])), float(feed[i]))
        assert each.service_lph[i] == pytest.approx(alone.service_lph[0])
        assert each.service_days[i] == pytest.approx(alone.service_days[0])
    assert each.clean_lph == pytest.approx(flows().clean_lph)


def test_dirt_never_helps_and_more_food_makes_more_of_it() -> None:
    little, much = flows(feed=0.3, days=40.0), flows(feed=6.0, days=40.0)
    assert (much.service_lph <= little.service_lph + 1e-9).all()
    assert (little.service_lph <= little.clean_lph + 1e-9).all()


@pytest.mark.parametrize("kind", ["canister", "hang-on", "internal"])
def test_the_table_and_the_operating_point_agree(kind: str) -> None:
    one = ONE[kind]
    got = flows(table_of([one]))
    asked = path_question(one, SITE, PLUMBING, [], 1.5, 25)
    answer = compute("operating-point", asked.model_dump())
    assert answer.delivered_lph == pytest.approx(float(got.clean_lph[0]), rel=1e-3)
    assert answer.dirty_lph == pytest.approx(float(got.service_lph[0]), rel=5e-3)


def test_the_table_and_the_air_lift_agree() -> None:
    one = ONE["sponge"]
    answer = compute("airlift-flow", lift_question(one, SITE, 1.5, 25).model_dump())
    assert answer.delivered_lph == pytest.approx(float(flows(table_of([one])).clean_lph[0]), rel=1e-3)


def test_height_counts_only_where_the_water_falls_free() -> None:
    table = table_of([ONE[kind] for kind in ("sponge", "canister", "hang-on", "sump")])
    under, over = rise_m(table, SITE, PLUMBING), rise_m(table, SITE, Plumbing(outlet_above_water_cm=10))
    assert under[:2].tolist() == [0, 0]
    assert under[2] > 0
    # The sump lifts from its chamber to the tank's water line.
    assert under[3] == pytest.approx((SITE.beneath_cm + SITE.water_depth_cm - 25) / 100, abs=0.15)
    assert (over - under)[1] == pytest.approx(0.1)


def test_the_dirt_is_shared_as_the_water_is() -> None:
    assert food_shares(np.array([300.0, 100.0])) == pytest.approx([0.75, 0.25])
    assert food_shares(np.zeros(4)) == pytest.approx(np.full(4, 0.25))


def test_the_air_inlet_stands_in_the_water() -> None:
    assert 0 < submerged_cm(20, SITE) < SITE.water_depth_cm
    assert submerged_cm(200, SITE) <= SITE.water_depth_cm
