"""Litres and salinity from the logbook."""

import pytest

from reedmace.logbook.replay.current_plans import DEFAULT_TANK
from reedmace.logbook.replay.water import net_litres, salinity_now, volume
from tests.support.fitting import SUMP, state_of


def plan(**around: object):
    return (9, {"kind": "tank-plan", "tank": DEFAULT_TANK.model_dump(), "surroundings": around})


def test_the_water_of_a_sump_counts() -> None:
    alone, over = net_litres(state_of(plan())), net_litres(state_of(plan(sump=SUMP)))
    assert over - alone == pytest.approx(60 * 40 * 20 / 1000)
    assert volume(state_of(plan())).net_l == alone


def test_salinity_is_as_read_else_as_planned_else_as_usual() -> None:
    assert salinity_now(state_of()) == 0
    assert salinity_now(state_of(plan(water="brackish"))) == 10
    cycling = (8, {"kind": "cycle-plan", "started_at": "2026-02-01T12:00:00+00:00", "salinity_g_kg": 33})
    assert salinity_now(state_of(plan(water="salt"), cycling)) == 33
    read = ({"kind": "reading", "salinity_g_kg": s} for s in (30, 34.5))
    assert salinity_now(state_of(cycling, *((2 - n, body) for n, body in enumerate(read)))) == 34.5
