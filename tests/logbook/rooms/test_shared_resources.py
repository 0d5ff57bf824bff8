"""What the tanks of a room share besides air."""

import pytest

from reedmace.core.quantity.constants import KWH_PER_WATT_YEAR
from reedmace.logbook.plans.room_plan import RoomPlan
from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.rooms.shared_resources import RoomTank, room_energy, room_sump, shared_question
from tests.support.fitting import CHOSEN, NOW, ONE, SUMP, state_of

TANK = (40, {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}})
PUMPED = RoomTank(1, "Left", state_of(TANK, CHOSEN))
AIRED = RoomTank(2, "Right", state_of(TANK, (30, {"kind": "filter-plan", "chosen": ONE["sponge"].model_dump()})))


def plan(**changes) -> RoomPlan:
    return RoomPlan.model_validate(changes)


def energy(*tanks: RoomTank, **room) -> tuple[float, float]:
    return room_energy(tanks, {t.id: installed_filters(t.state) for t in tanks}, plan(**room))


def test_air_pumps_are_paid_for_once_and_by_the_room() -> None:
    bare = energy(AIRED)[0]
    pump = {"key": "p", "name": "Pump", "watts": 10}
    pumps = [{"pump": pump, "x_cm": 10, "y_cm": 100}]
    assert energy(AIRED, pumps=pumps)[0] - bare == pytest.approx(10 * KWH_PER_WATT_YEAR)
    assert energy(PUMPED)[0] - bare == pytest.approx(
        installed_filters(PUMPED.state)[0].filter.watts * KWH_PER_WATT_YEAR
    )


def test_money_follows_each_tanks_price() -> None:
    kwh, money = energy(PUMPED)
    assert money == pytest.approx(kwh * 0.3)


SHELVES = [{"y_cm": y, "x_cm": 0, "length_cm": 300} for y in (60, 140)]
LOW, HIGH = range(2)


def on_sump(shelf: int, **sump) -> RoomPlan:
    return plan(
        shelves=SHELVES,
        spots=[{"tank_id": 1, "shelf": shelf, "x_cm": 20}],
        sump={"tank_ids": [1], "pump_lph": 4000, "pump_head_m": 3.5, "sump": SUMP, "x_cm": 0, "y_cm": 0, **sump},
    )


def test_no_sump_is_asked_about_where_no_tank_is_on_one() -> None:
    assert shared_question(plan(), [PUMPED], NOW) is None
    assert room_sump(on_sump(LOW, tank_ids=[9]), [PUMPED], NOW) is None


def test_a_higher_shelf_takes_more_lift_and_gets_less_water() -> None:
    asked = [shared_question(on_sump(shelf), [PUMPED], NOW).tanks[0] for shelf in (LOW, HIGH)]
    assert asked[1].lift_cm - asked[0].lift_cm == pytest.approx(80)
    flows = [room_sump(on_sump(shelf), [PUMPED], NOW).tanks[0].flow_lph for shelf in (LOW, HIGH)]
    assert flows[0] > flows[1] > 0


def test_a_tap_half_shut_gives_less() -> None:
    open_, half = (
        room_sump(on_sump(LOW, tap_shares={"1": share}), [PUMPED], NOW).tanks[0].flow_lph for share in (1.0, 0.3)
    )
    assert open_ > half > 0
