"""The Keep stage: what comes first, and what is due."""

import pytest

from reedmace.logbook.stages import keep_view
from reedmace.logbook.stages.keep import in_danger
from tests.support.fitting import CHOSEN, NOW, ONE, state_of

TANK = (400, {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}})
STOCK = (400, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 12}]})
RUNNING = (300, {"kind": "situation", "stands": "running"})
WELL = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 15, "ph": 7.4}
LIVED_IN = (TANK, STOCK, CHOSEN, RUNNING)


def flow(seconds: float) -> dict:
    return {"kind": "flow-test", "container_l": 2, "times_s": [seconds] * 3, "computed_lph": 500}


def test_an_empty_tank_has_no_care_plan_yet() -> None:
    found = keep_view(state_of(TANK, CHOSEN), NOW)
    assert (found.care, found.rows, found.danger, found.illness) == (None, [], None, None)
    assert "Time the flow once a month" in found.verdict


def test_an_air_driven_filter_is_looked_at_and_not_timed() -> None:
    sponge = (30, {"kind": "filter-plan", "chosen": ONE["sponge"].model_dump()})
    found = keep_view(state_of(TANK, sponge), NOW)
    assert found.verdict.startswith("Look at the bubbles")
    assert [f.air for f in found.filters] == [True]


def test_poison_comes_before_any_routine_and_says_the_first_step() -> None:
    state = state_of(*LIVED_IN, (1, {**WELL, "ammonia_ppm": 2, "ph": 8.2}))
    danger = in_danger(state, NOW)
    assert danger is not None
    assert keep_view(state, NOW).verdict == f"{danger.verdict} {danger.first.title}."
    assert in_danger(state_of(*LIVED_IN, (1, WELL)), NOW) is None


def test_a_stopped_filter_is_told_before_what_is_due() -> None:
    found = keep_view(state_of(*LIVED_IN, (1, WELL), (0.2, {"kind": "outage", "running": False})), NOW)
    assert found.verdict == f"{found.stops[0].verdict} {found.stops[0].first}."
    assert not found.filters[0].runs


def test_a_tank_that_is_well_has_its_plan_with_a_day_for_each_task() -> None:
    found = keep_view(state_of(*LIVED_IN, (1, WELL), (1, flow(14))), NOW)
    assert found.verdict == found.care.verdict
    assert len(found.rows) == len(found.care.tasks) > 0
    assert found.cost is not None


def test_flows_stand_in_their_order_with_the_cleaning_between_them() -> None:
    rinsed = {"kind": "media-work", "what": "rinsed", "share": 0.5}
    one = keep_view(state_of(*LIVED_IN, (40, flow(14)), (20, rinsed), (2, flow(15))), NOW).filters[0]
    assert [f.flow_lph for f in one.flows] == pytest.approx([2 / 14 * 3600, 2 / 15 * 3600])
    assert one.flows[0].at < one.cleanings[0] < one.flows[1].at
    assert one.cleaned_at == one.cleanings[-1]


def test_a_flow_that_fell_at_once_is_no_dirt() -> None:
    found = keep_view(state_of(*LIVED_IN, (3, flow(14)), (1, flow(40))), NOW).filters[0]
    assert found.fell is not None
    assert found.look_for
