"""Hydraulics against independent programs: EPANET 2.2 through wntr, and the fluids library."""

import tempfile
from pathlib import Path

import fluids
import fluids.friction
import numpy as np
import pytest
import wntr

from reedmace.core.computations import compute
from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.kernel import bubble_speed, friction_factor
from reedmace.core.flow.materials import media_coefficients, viscosity_m2_s
from reedmace.formats import plumbing_inp


def epanet_lph(question: dict, *, dirty: bool = False) -> float:
    """Flow EPANET finds for the .inp that Reedmace exports, L/h."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "loop.inp"
        path.write_text(plumbing_inp(OperatingPointQuestion.model_validate(question), dirty=dirty))
        network = wntr.network.WaterNetworkModel(str(path))
        results = wntr.sim.EpanetSimulator(network).run_sim(file_prefix=str(Path(folder) / "run"), version=2.2)
        return float(results.link["flowrate"]["pump"].iloc[0]) * 3.6e6


def loop(flow: float, head: float, bore: float, length: float, **more) -> dict:
    fittings = more.pop(
        "fittings", [{"kind": "strainer"}, {"kind": "entrance"}, {"kind": "u-bend", "count": 2}, {"kind": "exit"}]
    )
    return {
        "pump": {"max_flow_lph": flow, "max_head_m": head},
        "hoses": [{"bore_mm": bore, "length_m": length}],
        "fittings": fittings,
        **more,
    }


FOAM = [
    {"media": "foam-10", "area_cm2": 300, "depth_cm": 6},
    {"media": "foam-30", "area_cm2": 300, "depth_cm": 3},
    {"media": "ceramic-rings", "area_cm2": 300, "depth_cm": 12},
]
LOOPS = {
    "small canister": loop(300, 0.9, 12, 2.0),
    "mid canister": loop(800, 1.4, 16, 2.8),
    "large canister": loop(1800, 2.4, 20, 4.0),
    "very large": loop(6000, 5.0, 32, 6.0),
    "sump return": loop(3000, 3.0, 25, 2.5, rise_to_open_air_m=1.3),
    "sump return, barely": loop(2000, 2.0, 20, 2.0, rise_to_open_air_m=1.85),
    "narrow hose": loop(900, 2.0, 9, 3.0),
    "long hose": loop(1000, 1.9, 16, 15.0),
    "with media": loop(1000, 1.5, 16, 2.8, media=FOAM),
    "fine floss": loop(700, 1.3, 16, 2.0, media=[{"media": "floss", "area_cm2": 150, "depth_cm": 6}]),
    "two hoses": {**loop(1200, 1.9, 16, 1.4), "hoses": [{"bore_mm": 16, "length_m": 1.4}, {"bore_mm": 12, "length_m": 1.2}]},
    "half-shut tap": loop(1000, 1.5, 16, 2.8, fittings=[{"kind": "tap-half", "count": 2}, {"kind": "exit"}]),
    "rough pipe": {**loop(4000, 4.0, 32, 12), "hoses": [{"bore_mm": 32, "length_m": 12, "roughness_mm": 0.1}]},
    "cold water": loop(800, 1.4, 16, 2.8, temperature_c=8),
    "laminar": loop(20, 0.5, 6, 4.0),
    "slow pump": {**loop(800, 1.4, 16, 2.8), "pump": {"max_flow_lph": 800, "max_head_m": 1.4, "speed_share": 0.6}},
    "curve points": {**loop(1000, 1.5, 16, 2.0), "pump": {"max_flow_lph": 1000, "max_head_m": 1.5, "curve": [{"flow_lph": 0, "head_m": 1.6}, {"flow_lph": 400, "head_m": 1.25}, {"flow_lph": 750, "head_m": 0.7}, {"flow_lph": 1000, "head_m": 0}]}},
}  # fmt: skip


@pytest.mark.parametrize("name", LOOPS)
def test_the_operating_point_is_epanets_within_half_a_percent(name: str) -> None:
    answer = compute("operating-point", LOOPS[name])
    assert answer.delivered_lph == pytest.approx(epanet_lph(LOOPS[name]), rel=0.005)


def test_the_dirty_point_is_epanets_too() -> None:
    question = {**LOOPS["with media"], "feed_g_day": 4, "days_since_cleaning": 70}
    answer = compute("operating-point", question)
    assert answer.dirty_lph == pytest.approx(epanet_lph(question, dirty=True), rel=0.005)
    assert answer.dirty_lph < 0.97 * answer.delivered_lph


@pytest.mark.parametrize("relative", [0.0, 1e-5, 1e-4, 1e-3, 1e-2])
@pytest.mark.parametrize("reynolds", [4.1e3, 1e4, 5e4, 1e5, 1e6])
def test_the_friction_factor_is_colebrooks_as_fluids_solves_it(reynolds: float, relative: float) -> None:
    assert friction_factor(reynolds, relative) == pytest.approx(fluids.friction.Colebrook(reynolds, relative), rel=1e-6)


@pytest.mark.parametrize(
    ("reynolds", "relative", "f"),
    [(1000, 0, 0.064), (1e5, 0, 0.0180), (1e5, 0.01, 0.0385), (1e6, 0.001, 0.0199), (1e7, 0.0001, 0.0120)],
)
def test_points_read_off_the_moody_chart(reynolds: float, relative: float, f: float) -> None:
    # Moody 1944, Trans. ASME 66, as read off the chart (three figures at best).
    assert friction_factor(reynolds, relative) == pytest.approx(f, rel=0.02)


@pytest.mark.parametrize(
    ("temperature", "nu"),
    [(5, 1.519e-6), (15, 1.138e-6), (20, 1.004e-6), (25, 0.893e-6), (30, 0.801e-6), (40, 0.658e-6)],
)
def test_viscosity_is_that_of_water(temperature: float, nu: float) -> None:
    # Kinematic viscosity of water, IAPWS 2008 (m²/s).
    assert viscosity_m2_s(temperature) == pytest.approx(nu, rel=0.012)


def test_a_bed_loses_what_ergun_says_as_fluids_has_it() -> None:
    flow, area, depth, nu = 600 / 3.6e6, 0.03, 0.1, viscosity_m2_s(25)
    a, b = media_coefficients("carbon", area, depth, nu)
    pascals = fluids.packed_bed.Ergun(dp=0.004, voidage=0.42, vs=flow / area, rho=997.0, mu=nu * 997.0, L=depth)
    assert (a * flow + b * flow**2) * 997.0 * 9.80665 == pytest.approx(pascals, rel=1e-6)


def test_the_air_lift_solves_nicklins_balance_found_another_way() -> None:
    # Nicklin's relation and the pressure balance, solved here by scanning instead of bisection.
    bore, submerged, lift, air = 0.016, 0.30, 0.03, 1.5 / 60000
    area, nu, g = np.pi / 4 * bore**2, viscosity_m2_s(25), 9.80665
    jg, rise = air / area, float(bubble_speed(bore))
    answer = compute(
        "airlift-flow",
        {
            "air_l_min": 1.5,
            "tube_bore_mm": 16,
            "submerged_cm": 30,
            "outlet_above_water_cm": 3,
            "foam_face_cm2": 300,
            "foam_depth_cm": 3,
        },
    )
    c1, _ = media_coefficients("foam-20", 0.03, 0.03, nu)
    jl = np.linspace(0.0, 1.5, 400_001)
    gas = jg / (1.2 * (jg + jl) + rise)
    j = jl + jg
    f = np.array([fluids.friction.Colebrook(max(x * bore / nu, 4001), 1e-4) for x in j[::400]])
    losses = (
        (1 - gas[::400]) * f * (submerged + lift) / bore * j[::400] ** 2 / (2 * g)
        + 2.5 * jl[::400] ** 2 / (2 * g)
        + c1 * jl[::400] * area
    )
    balance = submerged - (submerged + lift) * (1 - gas[::400]) - losses
    scanned = jl[::400][np.argmin(np.abs(balance))] * area * 3.6e6
    assert answer.delivered_lph == pytest.approx(scanned, rel=0.01)
    assert 0 < gas.max() < 1
