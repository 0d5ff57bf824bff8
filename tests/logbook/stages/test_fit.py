"""The Fit stage of a tank."""

import pytest

from reedmace.logbook.stages import fit_view
from reedmace.logbook.stages.fit import shopping_list_view, shopping_question
from tests.support.fitting import CHOSEN, NOW, ONE, state_of

TANK = (40, {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}})


def ticked(step_id: str, key: str = "f1"):
    return (1, {"kind": "step-done", "step_id": step_id, "filter_key": key, "done": True})


def test_without_a_filter_there_is_nothing_to_fit_and_nothing_to_buy() -> None:
    state = state_of(TANK)
    found = fit_view(state, NOW)
    assert found.verdict.startswith("Choose a filter first")
    assert (found.steps_count, found.delivered_lph, found.currents) == (0, 0, None)
    assert shopping_question(state) is None
    assert shopping_list_view(state) is None


def test_steps_are_ticked_one_by_one_until_all_are_done() -> None:
    first = fit_view(state_of(TANK, CHOSEN), NOW)
    steps = [s.id for s in first.filters[0].steps]
    key = first.filters[0].installed.key
    assert (first.done_count, first.filters[0].next_step_id) == (0, steps[0])
    second = fit_view(state_of(TANK, CHOSEN, ticked(steps[0], key)), NOW)
    assert (second.done_count, second.filters[0].next_step_id) == (1, steps[1])
    assert f"1 of {len(steps)} steps done" in second.verdict
    last = fit_view(state_of(TANK, CHOSEN, *(ticked(one, key) for one in steps)), NOW)
    assert last.verdict == f"Fitted: all {len(steps)} steps are done."
    assert last.filters[0].next_step_id is None


def test_a_timed_flow_is_held_against_the_one_computed() -> None:
    key = fit_view(state_of(TANK, CHOSEN), NOW).filters[0].installed.key
    test = {"kind": "flow-test", "filter_key": key, "container_l": 2, "times_s": [14, 14, 14], "computed_lph": 500}
    found = fit_view(state_of(TANK, CHOSEN, (1, test)), NOW).filters[0]
    assert found.measured_lph == pytest.approx(2 / 14 * 3600)
    assert found.last_test is not None
    assert found.calibration is not None


def test_several_filters_add_up_and_each_step_says_whose_it_is() -> None:
    two = {
        "kind": "filter-plan",
        "filters": [{"key": k, "filter": ONE[kind].model_dump()} for k, kind in (("f1", "sponge"), ("f2", "hang-on"))],
    }
    found = fit_view(state_of(TANK, (30, two)), NOW)
    assert found.delivered_lph == pytest.approx(sum(f.installed.flow.delivered_lph for f in found.filters))
    assert found.steps_count == sum(len(f.steps) for f in found.filters)
    assert f"({ONE['sponge'].name})" in found.verdict


def test_what_is_planned_is_bought_and_a_rooms_air_is_not() -> None:
    sponge = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": ONE["sponge"].model_dump()}]}
    assert shopping_question(state_of(TANK, (30, sponge))).air_from == "bought"
    assert shopping_question(state_of(TANK, (30, {**sponge, "air": {"source": "room"}}))).air_from == "room"
    assert shopping_question(state_of(TANK, (30, {**sponge, "air": {"pump_l_min": 3}}))).air_from == "hand"
