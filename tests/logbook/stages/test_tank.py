"""The Tank stage: its water, its sump, what stands beneath."""

import pytest

from reedmace.logbook.replay.current_plans import DEFAULT_TANK
from reedmace.logbook.stages.tank import tank_view
from tests.support.fitting import BY_ID, SUMP, state_of


def plan(**around: object):
    return (9, {"kind": "tank-plan", "tank": DEFAULT_TANK.model_dump(), "surroundings": around})


def test_a_tank_nobody_measured_is_assumed_and_has_no_sump() -> None:
    found = tank_view(state_of())
    assert (found.assumed, found.sump_held_l, found.sump_free_l) == (True, 0, 0)
    assert found.plan.tank == DEFAULT_TANK


def test_a_sump_holds_part_of_the_water_and_has_room_for_the_rest() -> None:
    found = tank_view(state_of(plan(sump=SUMP)))
    assert found.sump_held_l == pytest.approx(60 * 40 * 20 / 1000)
    assert found.sump_free_l == pytest.approx(60 * 40 * 12.5 / 1000)


def test_a_canister_leaves_room_over_it() -> None:
    canister = BY_ID["sweetflag-800"]
    chosen = (5, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": canister.model_dump()}]})
    empty, hung = tank_view(state_of(plan(cabinet_cm=70))), tank_view(state_of(plan(cabinet_cm=70), chosen))
    assert empty.foot_most_cm == 70
    assert hung.foot_most_cm == pytest.approx(70 - canister.height_cm - 8)
