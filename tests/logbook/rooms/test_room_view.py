"""The view of a fish room: rows of the board, the room's air as drawn, and what is said first."""

from datetime import timedelta

import pytest

from reedmace.core.air.plan import RoomPump
from reedmace.logbook.plans.room_plan import AirMain, RoomPlan, Shelf, Spot, WallPump
from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.rooms.room_view import (
    AIR_OVER_BED_CM,
    LINE_SLACK_CM,
    OVER_RIM_CM,
    air_question,
    animals_in_words,
    board_row,
    outlet_key,
    room_view,
)
from reedmace.logbook.rooms.shared_resources import RoomTank
from tests.support.fitting import BY_ID, NOW, state_of

TANK = (60, {"kind": "tank-plan", "tank": {"length_cm": 50, "width_cm": 30, "height_cm": 30}})
SPONGE = (60, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BY_ID["burreed-20"].model_dump()}]})
GUPPIES = (50, {"kind": "stocking", "species_id": "guppy", "count": 6})
IMPOSSIBLE = (
    60,
    {"kind": "tank-plan", "tank": {"length_cm": 50, "width_cm": 30, "height_cm": 5, "fill_below_rim_cm": 20}},
)
PUMP = WallPump(x_cm=20, y_cm=150, pump=RoomPump(key="p", name="Grey box", node="x", l_min=30, kpa=20))
PLAN = RoomPlan(
    shelves=[Shelf(y_cm=60, length_cm=300)],
    spots=[Spot(tank_id=1, x_cm=0), Spot(tank_id=2, x_cm=100)],
    pumps=[PUMP],
    main=AirMain(y_cm=190, bore_mm=16),
)


def a_tank(tank_id: int, *more, name: str | None = None) -> RoomTank:
    return RoomTank(tank_id, name or f"Tank {tank_id}", state_of(TANK, SPONGE, *more))


def question(plan: RoomPlan = PLAN, *tanks: RoomTank):
    found = {t.id: t for t in tanks or (a_tank(1), a_tank(2))}
    return air_question(plan, found, {i: installed_filters(t.state) for i, t in found.items()})


def test_a_row_says_who_lives_there_and_what_hangs_on_the_rooms_air() -> None:
    row = board_row(a_tank(1, GUPPIES), NOW)
    assert (row.who, row.lived_in) == ("6 Guppy", True)
    assert row.air_keys == [outlet_key(1, "f1")]
    assert row.net_l == pytest.approx(36, abs=12)
    assert row.length_cm == 50


def test_animals_planned_are_not_animals_in() -> None:
    planned = (40, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 4}]})
    assert animals_in_words(state_of(TANK)) == "nobody"
    assert animals_in_words(state_of(TANK, planned)) == "nobody yet; planned: 4 Guppy"
    row = board_row(a_tank(1, planned), NOW)
    assert not row.lived_in


def test_a_flow_last_timed_stands_on_the_row() -> None:
    timed = (2, {"kind": "timed-flow", "filter_key": "f1", "method": "meter", "measured_lph": 90})
    assert board_row(a_tank(1), NOW).flow_lph is None
    assert board_row(a_tank(1, timed), NOW).flow_lph == 90


def test_a_tank_whose_figures_do_not_agree_says_so_and_the_others_stay() -> None:
    broken = RoomTank(2, "Odd", state_of(IMPOSSIBLE, SPONGE))
    row = board_row(broken, NOW)
    assert row.at_odds
    assert row.verdict
    found = room_view(PLAN, [a_tank(1), broken], NOW)
    assert {r.tank_id: r.at_odds for r in found.rows} == {1: False, 2: True}
    assert found.air is not None
    assert [o.key for o in found.air.outlets] == [outlet_key(1, "f1")]


def test_the_main_runs_from_the_pump_along_the_wall_to_each_tank() -> None:
    asked = question()
    pieces = {frozenset((m.start, m.end)): m.length_m for m in asked.mains}
    # The pump hangs 40 cm under the main, the first tank's middle is 25 cm along it, the second's 125.
    assert pieces == {
        frozenset(("pump 0", "head 0")): pytest.approx(0.4),
        frozenset(("head 0", "tank 1")): pytest.approx(0.05),
        frozenset(("tank 1", "tank 2")): pytest.approx(1.0),
    }
    ring = question(PLAN.model_copy(update={"main": PLAN.main.model_copy(update={"ring": True})}))
    assert len(ring.mains) == len(asked.mains) + 1


def test_an_outlets_line_goes_over_the_rim_and_down_to_the_bed() -> None:
    outlet = question().outlets[0]
    # Shelf 60 cm, tank 30 cm: 100 cm under the main.
    assert outlet.line_length_m == pytest.approx((100 + OVER_RIM_CM + 30 + LINE_SLACK_CM) / 100)
    (one,) = installed_filters(a_tank(1).state)
    assert outlet.depth_cm == pytest.approx(one.plan_question.site.water_depth_cm - AIR_OVER_BED_CM)
    assert outlet.open_share == 1
    throttled = PLAN.model_copy(update={"open_shares": {outlet_key(1, "f1"): 0.4}})
    assert [o.open_share for o in question(throttled).outlets] == [0.4, 1]


def test_bubbles_as_last_seen_are_told() -> None:
    weak = (3, {"kind": "air-seen", "bubbles": "weak", "filter_key": "f1"})
    steady = (1, {"kind": "air-seen", "bubbles": "steady"})
    seen = [o.seen for o in question(PLAN, a_tank(1, weak), a_tank(2, weak, steady)).outlets]
    assert seen == ["weak", "steady"]


def test_without_a_pump_or_an_outlet_no_air_is_reckoned() -> None:
    assert question(PLAN.model_copy(update={"pumps": []})) is None
    off = (1, {"kind": "outage", "running": False})
    assert question(PLAN, a_tank(1, off)) is None
    bare = room_view(PLAN.model_copy(update={"pumps": []}), [a_tank(1)], NOW)
    assert bare.air is None
    assert bare.air_words == "Say what air pump there is, and each outlet's air is reckoned."


def test_an_unknown_pump_is_asked_for_by_what_can_be_seen() -> None:
    unknown = WallPump(x_cm=20, y_cm=150, pump=RoomPump(key="p", name="Grey box", node="x"))
    found = room_view(PLAN.model_copy(update={"pumps": [unknown]}), [a_tank(1), a_tank(2)], NOW)
    assert found.air is None
    assert found.air_words.startswith("What is known of Grey box?")


def test_what_cannot_wait_is_said_first_and_comes_first() -> None:
    poisoned = (0.1, {"kind": "reading", "ammonia_ppm": 4, "nitrite_ppm": 3, "ph": 8.2})
    quiet, urgent = a_tank(1, name="Quiet"), a_tank(2, GUPPIES, poisoned, name="Poisoned")
    found = room_view(PLAN, [quiet, urgent], NOW)
    assert found.verdict.startswith("Poisoned cannot wait.")
    assert [r.name for r in found.rows] == ["Poisoned", "Quiet"]


def test_rows_made_before_are_taken_as_they_are() -> None:
    tanks = [a_tank(1), a_tank(2)]
    made = [board_row(t, NOW) for t in tanks]
    assert room_view(PLAN, tanks, NOW, made) == room_view(PLAN, tanks, NOW)
    assert room_view(RoomPlan(), [], NOW + timedelta(days=1)).verdict == "No tank stands in this room yet."
