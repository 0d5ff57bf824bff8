"""Outlets of a filter: a bar's holes, a nozzle, a flared pipe."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.filter.filter_flow import outlet_of
from reedmace.core.filter.site.site import Plumbing
from reedmace.core.flow.operating_point_schemas import Fitting
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.boxes import BY_ID

CANISTER = next(f for f in SAMPLE_BOXES if f.kind == "canister")


def outlet(*kinds: str):
    fittings = [Fitting.model_validate({"kind": kind}) for kind in kinds]
    return outlet_of(CANISTER, Plumbing(hose_bore_mm=16, fittings=fittings), 800)


def test_a_flared_pipe_is_a_wide_slow_jet_a_nozzle_a_narrow_one_and_a_bar_many_small() -> None:
    flared, nozzle, bar = outlet("flared-pipe"), outlet("nozzle"), outlet("spray-bar")
    assert flared.bore_mm == 32
    assert nozzle.bore_mm == 14
    assert (bar.bore_mm, bar.holes_count) == (4, 14)
    # A bar is what the water leaves by, where both are fitted.
    assert outlet("flared-pipe", "spray-bar") == bar


def test_what_makes_no_jet_has_no_outlet() -> None:
    sponge = next(f for f in SAMPLE_BOXES if f.kind == "sponge")
    assert outlet_of(sponge, Plumbing(), 300) is None
    assert outlet_of(CANISTER, Plumbing(), 0.5) is None


ROOM = {"net_l": 131, "water_depth_cm": 41, "length_cm": 89, "width_cm": 39, "beneath_cm": 66, "rim_to_water_cm": 3}


def on_tank(filter_id: str, **more):
    return compute("filter-flow", {"filter": BY_ID[filter_id].model_dump(), "site": ROOM, **more})


def test_height_costs_a_canister_nothing_a_sump_all_and_a_hang_on_its_lip() -> None:
    canister, sump, installed_filters = on_tank("sweetflag-800"), on_tank("millpond-60"), on_tank("millrace-60")
    assert canister.rise_m == 0
    assert "costs nothing" in canister.loop
    assert sump.rise_m == pytest.approx((66 + 41 - 20) / 100)
    assert installed_filters.rise_m == pytest.approx((BY_ID["millrace-60"].lip_cm + 1) / 100)
    assert "evaporation" in installed_filters.loop
    above = on_tank("sweetflag-800", plumbing={"outlet_above_water_cm": 30})
    assert above.rise_m == pytest.approx(0.3)
    assert above.pumped.delivered_lph < canister.pumped.delivered_lph


def test_flow_falls_through_the_service_interval() -> None:
    flows = [p.flow_lph for p in on_tank("sweetflag-800").pumped.interval]
    assert flows == sorted(flows, reverse=True)
    assert flows[0] > flows[-1]


def test_a_pump_turned_down_follows_the_affinity_laws_in_the_ranking_too() -> None:
    slow = {"speed_share": 0.6}
    one = on_tank("sweetflag-800", plumbing=slow).pumped.delivered_lph
    answer = compute(
        "rank-filters", {"site": ROOM, "plumbing": slow, "own_filters": [f.model_dump() for f in SAMPLE_BOXES]}
    )
    assert next(
        e for e in [*answer.ranked, *answer.excluded] if e.filter_id == "sweetflag-800"
    ).delivered_lph == pytest.approx(one, rel=1e-6)
    assert 0.5 < one / on_tank("sweetflag-800").pumped.delivered_lph < 0.62


def test_air_lifts_answer_by_their_own_law() -> None:
    answer = on_tank("burreed-40")
    assert answer.pumped is None
    assert answer.lifted.delivered_lph > answer.lifted.dirty_lph > 0
    assert answer.lifted.evaporated_lph < answer.lifted.delivered_lph
