"""Evaporation: where it shows, and how often it is put back."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.tank.evaporation import UNDER_LID, vapour_pa

OPEN = {"surface_m2": 0.36, "net_l": 140, "water_c": 25, "room_c": 20}


@pytest.mark.parametrize(("temperature_c", "pascal"), [(10.0, 1228), (20.0, 2339), (25.0, 3169), (30.0, 4246)])
def test_vapour_pressure_is_that_of_the_steam_tables(temperature_c: float, pascal: float) -> None:
    assert vapour_pa(temperature_c) == pytest.approx(pascal, rel=0.004)


def test_an_open_tank_loses_litres_a_lid_keeps_most_of() -> None:
    open_, shut = compute("evaporation", OPEN), compute("evaporation", OPEN | {"lid": True})
    assert 0.8 < open_.litres_day < 2
    assert shut.litres_day == pytest.approx(UNDER_LID * open_.litres_day)
    assert open_.falls_cm_day == pytest.approx(open_.litres_day / 0.36 / 10)
    assert open_.top_up_days == pytest.approx(2 / open_.falls_cm_day)


def test_in_a_sump_the_level_falls_in_its_last_chamber() -> None:
    answer = compute("evaporation", OPEN | {"sump_m2": 0.2, "chamber_m2": 0.04})
    assert answer.falls_cm_day == pytest.approx(answer.litres_day / 0.04 / 10)
    assert answer.top_up_days == pytest.approx(5 / answer.falls_cm_day)
    assert "over the sump's return pump" in answer.verdict


def test_in_salt_water_the_salt_may_ask_first_and_stays() -> None:
    answer = compute("evaporation", OPEN | {"salinity_g_kg": 35, "surface_m2": 0.9})
    assert answer.by_salt
    assert answer.salinity_rise_g_kg_day == pytest.approx(35 * answer.litres_day / 140)
    assert answer.verdict.endswith("Always with fresh water: the salt stays.")
    assert "salt" not in compute("evaporation", OPEN).verdict


def test_over_warm_wet_air_nothing_evaporates() -> None:
    answer = compute("evaporation", OPEN | {"water_c": 20, "room_c": 28, "humidity_share": 0.9})
    assert (answer.litres_day, answer.top_up_days) == (0, 4000)
    assert answer.verdict.startswith("Next to nothing evaporates")
