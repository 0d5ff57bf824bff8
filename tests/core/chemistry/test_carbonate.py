"""The carbonate system against its own closed forms; PHREEQC and PyCO2SYS are asked in tests/reference."""

import math

import pytest

from reedmace.core.chemistry.carbonate import CO2_MG_PER_MMOL, GAS_PER_HOUR, IN_AIR_MG_L, MMOL_PER_DKH, Carbonate

WATERS = [(7.0, 4.0, 25.0, 0.0), (8.2, 8.0, 25.0, 35.0), (6.2, 1.0, 18.0, 0.0), (9.0, 12.0, 30.0, 10.0)]


@pytest.mark.parametrize(("ph", "kh", "temperature_c", "salinity"), WATERS)
def test_a_water_of_a_ph_and_kh_has_that_ph_and_kh(ph: float, kh: float, temperature_c: float, salinity: float) -> None:
    water = Carbonate.of(ph, kh, temperature_c, salinity)
    assert water.ph() == pytest.approx(ph, abs=1e-3)
    assert water.kh_dkh() == pytest.approx(kh)


def test_fresh_water_follows_henderson_and_hasselbalch() -> None:
    # pK1 is 6.35 at 25 °C: CO2 and bicarbonate are equal there.
    water = Carbonate.of(6.35, 5.0)
    assert water.co2_mmol() == pytest.approx(5 * MMOL_PER_DKH, rel=0.01)
    lower = Carbonate.of(5.35, 5.0)
    assert lower.co2_mmol() / water.co2_mmol() == pytest.approx(10, rel=0.01)


def test_one_german_degree_is_a_third_of_a_millimole() -> None:
    assert pytest.approx(0.3566, abs=1e-3) == MMOL_PER_DKH
    assert Carbonate.of(7.0, 0.0).kh_dkh() == pytest.approx(0.02)


@pytest.mark.parametrize("share", [0.0, 0.25, 0.6, 1.0])
def test_mixing_adds_alkalinity_and_carbon_by_share(share: float) -> None:
    tank, tap = Carbonate.of(6.6, 2.0), Carbonate.of(7.8, 9.0)
    mixed = tank.mixed(tap, share)
    assert mixed.kh_dkh() == pytest.approx(2 * (1 - share) + 9 * share)
    assert mixed.carbon_mmol == pytest.approx(tank.carbon_mmol * (1 - share) + tap.carbon_mmol * share)


def test_soda_brings_as_much_carbon_as_alkalinity_and_draws_ph_towards_its_own() -> None:
    for ph, rises in ((6.5, True), (9.0, False)):
        before = Carbonate.of(ph, 3.0)
        after = before.with_soda(2.0)
        assert after.kh_dkh() == pytest.approx(5.0)
        assert after.carbon_mmol - before.carbon_mmol == pytest.approx(2 * MMOL_PER_DKH)
        assert (after.ph() > before.ph()) == rises


def test_gas_moves_to_the_usual_co2_by_a_share_each_hour_and_alkalinity_stays() -> None:
    water, usual = Carbonate.of(6.4, 4.0), IN_AIR_MG_L / CO2_MG_PER_MMOL
    start = water.co2_mmol()
    for hours in (0.0, 1.0, 5.0):
        later = water.breathing(usual, hours)
        expected = usual + (start - usual) * (1 - GAS_PER_HOUR) ** hours
        assert later.co2_mmol() == pytest.approx(expected, rel=1e-3)
        assert later.kh_dkh() == pytest.approx(4.0)
    # At rest pH is where bicarbonate and the room's CO2 hold it.
    rest = water.breathing(usual, 500)
    assert rest.ph() == pytest.approx(6.35 + math.log10(4 * MMOL_PER_DKH / usual), abs=0.02)
