"""What the ranking is asked for a tank."""

import pytest

from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.typical import typical_box
from reedmace.logbook.replay.rank_question import rank_question
from tests.support.fitting import BY_ID, CHOSEN, ONE, state_of

TANK = (40, {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}})
STOCK = (35, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 12}], "feed_g_day": 0.8})


def test_an_empty_logbook_asks_for_a_usual_tank_without_animals() -> None:
    asked = rank_question(state_of())
    assert (asked.animals, asked.own_filters, asked.installed) == ([], [], [])


def test_tank_animals_and_food_are_those_planned() -> None:
    asked = rank_question(state_of(TANK, STOCK))
    assert asked.site.length_cm == pytest.approx(90 - 2 * 0.6)
    assert [(a.species_id, a.count) for a in asked.animals] == [("zebra-danio", 12)]
    assert asked.feed_g_day == 0.8


def test_what_hangs_there_is_taken_as_it_hangs_whatever_the_shelf_says_of_it() -> None:
    hung = BY_ID["sweetflag-800"]
    shelf = [hung.model_copy(update={"box_lph": 999}), ONE["sponge"]]
    asked = rank_question(state_of(TANK, CHOSEN), shelf)
    among = {f.id: f for f in asked.own_filters}
    assert set(among) == {hung.id, ONE["sponge"].id}
    assert among[hung.id].box_lph == hung.box_lph
    assert [one.filter_id for one in asked.installed] == [hung.id]


def test_a_filter_runs_once_its_flow_was_timed() -> None:
    timed = {"kind": "flow-test", "container_l": 2, "times_s": [18, 18, 18], "computed_lph": 500}
    assert rank_question(state_of(TANK, CHOSEN)).running_ids == []
    assert rank_question(state_of(TANK, CHOSEN, (1, timed))).running_ids == ["sweetflag-800"]


def test_only_what_has_hoses_is_drawn_with_them_and_a_higher_stand_takes_longer_ones() -> None:
    box = typical_box(kind_of("canister"), 900)
    low, high = (
        rank_question(
            state_of((40, {**TANK[1], "surroundings": {"stand_height_cm": height}}), STOCK), [box, ONE["sponge"]]
        )
        for height in (60, 90)
    )
    assert ONE["sponge"].id not in low.hose_m
    assert 0 < low.hose_m[box.id] < high.hose_m[box.id]
