"""Water of a running tank as its care plan takes it."""

import pytest

from reedmace.core.upkeep.nitrate_rhythm import DKH_PER_MG_N
from reedmace.logbook.care.later_years import nitrate_between_changes
from reedmace.logbook.care.water_use import evaporated, kh_of, pour_words, sump_of, top_up_of
from tests.support.fitting import CHOSEN, NOW, ONE, SUMP, state_of

SIZES = {"length_cm": 90, "width_cm": 40, "height_cm": 45}
STOCK = (60, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 12}]})
RUNNING = (60, {"kind": "situation", "stands": "running"})


def tank(**around):
    return (70, {"kind": "tank-plan", "tank": SIZES, "surroundings": around})


def reading(**figures):
    return {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, **figures}


def test_a_lid_keeps_water_in_and_a_warm_tank_in_a_cold_room_loses_more() -> None:
    open_, shut, cold = (
        evaporated(state_of(tank(**around))).litres_day for around in ({}, {"lid": True}, {"room_c": 12.0})
    )
    assert shut < open_ < cold


def test_a_measured_sump_counts_and_evaporates_too() -> None:
    assert sump_of(state_of(tank(), CHOSEN)) is None
    with_sump = state_of(tank(sump=SUMP))
    assert sump_of(with_sump).length_cm == 60
    assert evaporated(with_sump).litres_day > evaporated(state_of(tank())).litres_day
    assert sump_of(state_of(tank(), (30, {"kind": "filter-plan", "chosen": ONE["sump"].model_dump()}))) is not None


def test_the_level_was_at_its_mark_when_last_filled_or_changed() -> None:
    change = {"kind": "water-change", "share": 0.25, "treated": True}
    filled = {"kind": "care", "what": "top-up"}
    assert top_up_of(state_of(tank(), (9, change), (3, filled)), NOW).since_days == pytest.approx(3)
    assert top_up_of(state_of(tank(), (2, change), (3, filled)), NOW).since_days == pytest.approx(2)
    never = top_up_of(state_of(tank()), NOW)
    assert never.since_days == never.every_days


def test_alkalinity_falls_from_its_last_reading_and_rises_by_soda_and_tap() -> None:
    state = state_of(tank(), STOCK, CHOSEN, RUNNING, (4, reading(kh_dkh=6, nitrate_ppm=20)))
    found, falls = kh_of(state, NOW), DKH_PER_MG_N * nitrate_between_changes(state, NOW).rise_mg_n_l_day
    assert found.falls_dkh_day == pytest.approx(falls)
    assert found.now_dkh == pytest.approx(6 - 4 * falls)
    soda = {"kind": "alkalinity", "raise_dkh": 1.5}
    lifted = state_of(tank(), STOCK, CHOSEN, RUNNING, (4, reading(kh_dkh=6, nitrate_ppm=20)), (1, soda))
    assert kh_of(lifted, NOW).now_dkh == pytest.approx(found.now_dkh + 1.5)


@pytest.mark.parametrize(
    "rows",
    [
        [],
        [(60, reading(kh_dkh=6))],
        # Soda would free ammonia that is read.
        [(4, reading(kh_dkh=6)), (1, reading(ammonia_ppm=1))],
    ],
    ids=["never read", "long ago", "while ammonia is read"],
)
def test_no_alkalinity_is_told_where_it_is_not_known_or_may_not_be_raised(rows: list) -> None:
    assert kh_of(state_of(tank(), STOCK, CHOSEN, RUNNING, *rows), NOW) is None


def test_a_change_is_told_in_litres_only_where_the_tank_is_known() -> None:
    assert "L:" in pour_words(state_of(tank()), 0.25, NOW)
    unknown = pour_words(state_of(), 0.25, NOW)
    assert unknown[0].isupper()
    assert "L:" not in unknown
