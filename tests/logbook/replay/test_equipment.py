"""Equipment of a tank, worked out once for every stage."""

import numpy as np
import pytest

from reedmace.core.filter.kinds import kind_of
from reedmace.logbook.replay.equipment import (
    GAP_CM,
    USUAL_TEMPERATURE_C,
    beside_cm,
    dangers_of,
    installed_filters,
    needs_guard,
    path_of,
    steps_of,
    stock_load,
    tank_site,
    temperature_c,
)
from tests.support.fitting import BY_ID, KINDS, ONE, state_of

GLASS = {"length_cm": 90, "width_cm": 40, "height_cm": 45}
TANK = {"kind": "tank-plan", "tank": {**GLASS, "substrate_depth_cm": 4}}
SHOAL = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 12}]}


def hung(*boxes: str, **more: object) -> dict:
    filters = [{"key": f"f{n}", "filter": BY_ID[box].model_dump(), **more} for n, box in enumerate(boxes, start=1)]
    return {"kind": "filter-plan", "filters": filters}


def of(*bodies: dict):
    return state_of(*((50 - n, body) for n, body in enumerate(bodies)))


def test_warmth_is_what_was_entered_or_the_middle_of_what_they_like() -> None:
    entered = {**TANK, "surroundings": {"temperature_c": 22.5}}
    assert temperature_c(of(entered, SHOAL)) == 22.5
    # Zebra danios: 18 to 26 °C.
    assert temperature_c(of(TANK, SHOAL)) == pytest.approx(22)
    assert temperature_c(of(TANK)) == USUAL_TEMPERATURE_C


def test_small_animals_ask_for_a_guard() -> None:
    shrimp = {"kind": "stock-plan", "animals": [{"species_id": "cherry-shrimp", "count": 6}]}
    assert needs_guard(of(TANK, shrimp))
    assert not needs_guard(of(TANK, SHOAL))


def test_gravel_carries_film_and_a_bare_bottom_only_that_of_its_glass() -> None:
    bare = {**TANK, "tank": {**GLASS, "substrate_depth_cm": 0}}
    with_gravel, without = tank_site(of(TANK)), tank_site(of(bare))
    assert with_gravel.film_here_m2 > without.film_here_m2 > 0
    assert with_gravel.net_l < without.net_l


def test_filters_share_the_food_by_their_flow() -> None:
    strong, weak = installed_filters(of(TANK, SHOAL, hung("sweetflag-800", "burreed-20")))
    assert strong.food_share + weak.food_share == pytest.approx(1)
    assert strong.food_share > weak.food_share
    (alone,) = installed_filters(of(TANK, SHOAL, hung("sweetflag-800")))
    assert alone.food_share == 1
    # With half of the dirt elsewhere it is cleaned less often.
    assert strong.flow.service_days >= alone.flow.service_days


def test_what_was_taken_off_is_not_installed_and_what_stands_does_not_run() -> None:
    assert installed_filters(of(TANK, hung("sweetflag-800", retired=True))) == []
    stopped = {"kind": "outage", "running": False}
    assert [one.runs for one in installed_filters(of(TANK, hung("sweetflag-800"), stopped))] == [False]


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_a_plan_steps_and_a_path(kind: str) -> None:
    state = of(TANK, SHOAL, hung(ONE[kind].id))
    (one,) = installed_filters(state)
    assert one.flow.delivered_lph > 0
    assert steps_of(state, one).steps
    assert (path_of(state, one) is None) == one.filter.air
    assert dangers_of(one, None).working


def test_hoses_are_as_long_as_drawn() -> None:
    (one,) = installed_filters(of(TANK, SHOAL, hung("sweetflag-800")))
    assert one.plumbing.hose_length_m == pytest.approx(one.plan.hose_m, abs=0.05)


def test_an_outlet_laid_above_the_water_lifts_it_further() -> None:
    def flow(depth: float) -> float:
        places = {"kind": "fit-plan", "places": {"f1": {"outlet_depth_cm": depth}}}
        return installed_filters(of(TANK, SHOAL, hung("sweetflag-800"), places))[0].flow.delivered_lph

    assert flow(-8.0) < flow(3.0)


def test_a_filter_only_looked_at_is_counted_as_if_alone() -> None:
    state = of(TANK, SHOAL, hung("sweetflag-800"))
    looked = of(TANK, SHOAL, hung("burreed-20")).filters()
    (one,) = installed_filters(state, looked)
    assert one.filter.id == "burreed-20"
    assert one.food_share == 1


def test_width_beside_counts_the_same_kind_with_a_gap() -> None:
    others = of(TANK, hung("sweetflag-800", "burreed-20")).filters()
    canister = BY_ID["sweetflag-800"]
    assert beside_cm(canister.kind, others) == pytest.approx(canister.width_cm + GAP_CM)
    assert beside_cm(canister.kind, []) == 0


def test_the_load_is_that_of_the_animals_planned() -> None:
    double = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 24}]}
    one, two = stock_load(of(TANK, SHOAL)), stock_load(of(TANK, double))
    assert two.today_mg_n_day == pytest.approx(2 * one.today_mg_n_day)
    assert np.isfinite(one.feed_today_g_day)
    assert kind_of("canister").hosed
