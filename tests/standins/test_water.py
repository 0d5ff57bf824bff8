"""A simulated tank with its instruments: a colour kit with steps, a thermometer, a pH probe."""

import math

import pytest

from reedmace.core.cycle.model.inputs import LEAST_NITRATE_MG_N_L
from reedmace.core.cycle.model.nitrogen_kernel import DOSE_WORTH, FIRST_NITRATE
from reedmace.core.cycle.record.log import CycleLog, KitSteps
from reedmace.standins import ColourKit, PhProbe, SimulatedTank, Thermometer, usual_tank
from tests.support.entries import NOW


def simulated(seed: int = 1, **more) -> SimulatedTank:
    tank = SimulatedTank(CycleLog(net_l=100, day_now=0, start_kh_dkh=6, **more), seed)
    tank.dose(0, 1.55)
    return tank


def test_a_simulated_tank_answers_to_what_is_done_and_keeps_its_nitrogen() -> None:
    tank = simulated()
    first = tank.water(0.01)
    # Its keeper's bottle is not quite what the label says.
    worth = tank.parameters()[DOSE_WORTH]
    assert first["ammonia_mg_n_l"] == pytest.approx(1.55 * worth, abs=0.01)
    assert 0.7 < worth < 1.4
    assert worth != 1
    later = tank.water(30)
    there = LEAST_NITRATE_MG_N_L * tank.parameters()[FIRST_NITRATE]
    found = sum(later[f"{w}_mg_n_l"] for w in ("ammonia", "nitrite", "nitrate"))
    assert found == pytest.approx(1.55 * worth + there, abs=1e-6)
    assert later["kh_dkh"] < first["kh_dkh"]
    tank.change(30, 0.5)
    tank.alkalinity(30, 2)
    after = tank.water(30.05)
    assert after["nitrate_mg_n_l"] == pytest.approx(later["nitrate_mg_n_l"] / 2, rel=0.05)
    assert after["kh_dkh"] > later["kh_dkh"] + 1.5


def test_two_simulated_tanks_differ_and_one_is_always_itself() -> None:
    days = [simulated(seed).water(14)["nitrite_mg_n_l"] for seed in (1, 2, 1)]
    assert days[0] == days[2] != days[1]


def test_a_colour_kit_reads_its_own_steps_and_says_or_more() -> None:
    kit = ColourKit(KitSteps(ammonia_ppm=[0, 0.5, 1.5]), noise_share=0)
    tank = simulated()
    assert kit.reading(tank, 0.1, NOW)["ammonia_ppm"] == 1.5
    assert kit.reading(tank, 0.1, NOW)["off_scale"] == ["ammonia"]
    assert kit.reading(tank, 30, NOW)["ammonia_ppm"] == 0
    noisy = {ColourKit(seed=s, noise_share=0.5).reading(tank, 0.1, NOW)["ammonia_ppm"] for s in range(12)}
    assert len(noisy) > 1
    drops = kit.reading(tank, 0.1, NOW)["kh_dkh"]
    assert drops == math.ceil(tank.water(0.1)["kh_dkh"])


def test_thermometer_and_probe_scatter_round_the_truth() -> None:
    tank = simulated(temperature_c=24)
    degrees = [Thermometer().reading(tank, d / 8, NOW)["temperature_c"] for d in range(24)]
    assert 23.3 < min(degrees) < max(degrees) < 24.7
    probe = [PhProbe(drift_ph_day=-0.05).reading(tank, d, NOW)["ph"] - tank.water(d)["ph"] for d in range(0, 11, 2)]
    assert probe[-1] == pytest.approx(-0.5, abs=0.1)


def test_the_usual_tank_is_kept_fed_and_never_left_to_stall() -> None:
    tank = usual_tank(30)
    assert len(tank.doses) > 2
    assert tank.water(30)["kh_dkh"] > 0.5
    assert all(d.raise_mg_n_l > 0 for d in tank.doses)
