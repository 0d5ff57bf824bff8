"""Everything ahead in one tank, its cycle included."""

from reedmace.logbook.care.ahead import calendar_rows
from reedmace.logbook.care.due import due
from tests.support.fitting import CHOSEN, NOW, state_of

TANK = (40, {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}})
CYCLE = (10, {"kind": "cycle-plan", "started_at": "2026-02-19T12:00:00Z", "target_ppm": 2})
SETTLED = (300, {"kind": "situation", "stands": "running"})
TEST = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 15, "ph": 7.4}


def test_a_tank_without_a_cycle_has_what_is_due_and_nothing_more() -> None:
    state = state_of(TANK, CHOSEN)
    assert calendar_rows(state, NOW) == due(state, NOW)


def test_a_cycle_adds_its_days_in_their_order() -> None:
    state = state_of(TANK, CHOSEN, CYCLE, (10, {"kind": "dose", "raise_mg_n_l": 1.5}), (1, {**TEST, "ammonia_ppm": 1}))
    rows = calendar_rows(state, NOW)
    assert len(rows) > len(due(state, NOW))
    assert [row.at for row in rows] == sorted(row.at for row in rows)


def test_a_settled_tank_in_good_water_is_not_watched() -> None:
    state = state_of(TANK, CHOSEN, SETTLED, *((days, TEST) for days in (15, 8, 1)))
    assert calendar_rows(state, NOW) == due(state, NOW)
    poisoned = state_of(TANK, CHOSEN, SETTLED, (1, {**TEST, "ammonia_ppm": 2}))
    assert len(calendar_rows(poisoned, NOW)) > len(due(poisoned, NOW))
