"""Salinity beside what is kept."""

import pytest

from reedmace.logbook.replay.salinity_drift import salinity_drift
from reedmace.logbook.replay.water import net_litres
from tests.support.fitting import NOW, state_of

PLAN = (60, {"kind": "cycle-plan", "started_at": "2026-01-01T12:00:00+00:00", "salinity_g_kg": 35})


def read(g_kg: float, days: float = 1):
    return (days, {"kind": "reading", "salinity_g_kg": g_kg})


def test_what_evaporated_is_put_back_by_the_salt_that_stayed() -> None:
    state = state_of(PLAN, read(37.5))
    said = salinity_drift(state, NOW)
    assert said is not None
    litres = float(said.split("about ")[1].split(" L")[0])
    assert litres == pytest.approx(net_litres(state) * (37.5 / 35 - 1), abs=0.6)


@pytest.mark.parametrize(("g_kg", "words"), [(33.5, "mixed a little saltier"), (35.9, None), (34.1, None)])
def test_too_little_is_brought_back_by_changes_and_a_little_off_is_let_be(g_kg: float, words: str | None) -> None:
    said = salinity_drift(state_of(PLAN, read(g_kg)), NOW)
    assert (said is None) == (words is None)
    assert words is None or words in (said or "")


def test_an_old_reading_and_fresh_water_say_nothing() -> None:
    assert salinity_drift(state_of(PLAN, read(38, 15)), NOW) is None
    assert salinity_drift(state_of(read(3)), NOW) is None
