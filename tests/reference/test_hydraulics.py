"""Hydraulics against independent programs: EPANET 2.2 through wntr, and the fluids library."""

import tempfile
from pathlib import Path

import fluids
import fluids.friction
import numpy as np
import pytest
import wntr
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.filter.water_path import path_question
from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.airlift_kernel import airlift, bubble_speed
from reedmace.core.flow.hydraulic_kernel import friction_factor
from reedmace.core.flow.materials import FITTING_K, media_coefficients, viscosity_m2_s
from reedmace.core.flow.overflow import OverflowCheckQuestion
from reedmace.core.flow.plumbing_heads import PlumbingState, plumbing_heads
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.formats import plumbing_inp


def epanet_flows(text: str) -> dict[str, float]:
    """Flow of every link EPANET finds for an .inp, L/h."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "loop.inp"
        path.write_text(text)
        network = wntr.network.WaterNetworkModel(str(path))
        results = wntr.sim.EpanetSimulator(network).run_sim(file_prefix=str(Path(folder) / "run"), version=2.2)
        return {name: float(flow) * 3.6e6 for name, flow in results.link["flowrate"].iloc[0].items()}


def epanet_lph(question: dict, state: PlumbingState = "clean") -> float:
    """Flow EPANET finds for the .inp that Reedmace exports, L/h."""
    return epanet_flows(plumbing_inp(OperatingPointQuestion.model_validate(question), state))["pump"]


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
    "two hoses": {
        **loop(1200, 1.9, 16, 1.4),
        "hoses": [{"bore_mm": 16, "length_m": 1.4}, {"bore_mm": 12, "length_m": 1.2}],
    },
    "half-shut tap": loop(1000, 1.5, 16, 2.8, fittings=[{"kind": "tap-half", "count": 2}, {"kind": "exit"}]),
    "rough pipe": {**loop(4000, 4.0, 32, 12), "hoses": [{"bore_mm": 32, "length_m": 12, "roughness_mm": 0.1}]},
    "cold water": loop(800, 1.4, 16, 2.8, temperature_c=8),
    "laminar": loop(20, 0.5, 6, 4.0),
    "slow pump": {**loop(800, 1.4, 16, 2.8), "pump": {"max_flow_lph": 800, "max_head_m": 1.4, "speed_share": 0.6}},
    "curve points": {
        **loop(1000, 1.5, 16, 2.0),
        "pump": {
            "max_flow_lph": 1000,
            "max_head_m": 1.5,
            "curve": [
                {"flow_lph": 0, "head_m": 1.6},
                {"flow_lph": 400, "head_m": 1.25},
                {"flow_lph": 750, "head_m": 0.7},
                {"flow_lph": 1000, "head_m": 0},
            ],
        },
    },
}


@pytest.mark.parametrize("name", LOOPS)
def test_the_operating_point_is_epanets_within_half_a_percent(name: str) -> None:
    answer = compute("operating-point", LOOPS[name])
    assert answer.delivered_lph == pytest.approx(epanet_lph(LOOPS[name]), rel=0.005)


def test_the_dirty_point_is_epanets_too() -> None:
    question = {**LOOPS["with media"], "feed_g_day": 4, "days_since_cleaning": 70}
    answer = compute("operating-point", question)
    assert answer.dirty_lph == pytest.approx(epanet_lph(question, "dirty"), rel=0.005)
    assert answer.dirty_lph < 0.97 * answer.delivered_lph


FITTING = st.fixed_dictionaries(
    {
        "kind": st.sampled_from(["strainer", "elbow", "u-bend", "quick-valve", "spray-bar", "guard", "check-valve"]),
        "count": st.integers(1, 4),
    }
)
LAYER = st.fixed_dictionaries(
    {
        "media": st.sampled_from(
            ["foam-10", "foam-20", "foam-30", "floss", "ceramic-rings", "sintered", "lava", "carbon"]
        ),
        "area_cm2": st.floats(120, 600),
        "depth_cm": st.floats(2, 15),
    }
)


@settings(max_examples=40, derandomize=True, suppress_health_check=list(HealthCheck))
@given(
    flow=st.floats(200, 4000),
    head=st.floats(0.7, 4.0),
    bore=st.sampled_from([12.0, 16.0, 19.0, 25.0, 32.0]),
    length=st.floats(0.5, 8),
    rise=st.floats(0, 0.6),
    fittings=st.lists(FITTING, min_size=1, max_size=4),
    media=st.lists(LAYER, max_size=3),
    temperature=st.floats(8, 30),
)
def test_forty_loops_nobody_chose_are_epanets_within_half_a_percent(
    flow, head, bore, length, rise, fittings, media, temperature
) -> None:
    question = loop(
        flow, head, bore, length, fittings=fittings, media=media, rise_to_open_air_m=rise, temperature_c=temperature
    )
    answer = compute("operating-point", question)
    assert answer.delivered_lph == pytest.approx(epanet_lph(question), rel=0.005, abs=0.05)


@pytest.mark.parametrize("filter_id", ["sweetflag-800", "alderfen-2200", "millpond-60", "millrace-60", "culvert-20"])
def test_a_catalogue_filter_on_a_tank_is_epanets_through_its_exported_plumbing(filter_id: str) -> None:
    f = next(f for f in SAMPLE_BOXES if f.id == filter_id)
    room = Site(net_l=131, water_depth_cm=41, length_cm=90, width_cm=40, beneath_cm=66, drilled=True)
    question = path_question(f, room, Plumbing(), [], 2.0, 25).model_dump(mode="json")
    ranked = compute("filter-flow", {"filter": f.model_dump(), "site": room.model_dump()}).pumped
    assert ranked.delivered_lph == pytest.approx(epanet_lph(question), rel=0.005)


@pytest.mark.parametrize("state", ["clean", "serviced", "dirty"])
def test_the_exported_file_names_every_part_and_its_heads_are_those_of_the_table(state: PlumbingState) -> None:
    question = OperatingPointQuestion.model_validate(
        loop(
            1200, 2.0, 16, 3.0,
            fittings=[{"kind": "u-bend", "count": 2}, {"kind": "strainer"}, {"kind": "u-bend"}, {"kind": "exit"}],
            media=FOAM, days_since_cleaning=40,
        )
    )  # fmt: skip
    hose = question.hoses[0].model_copy(update={"intake_share": 0.4})
    question = question.model_copy(update={"hoses": [hose]})
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "loop.inp"
        path.write_text(plumbing_inp(question, state))
        network = wntr.network.WaterNetworkModel(str(path))
        results = wntr.sim.EpanetSimulator(network).run_sim(file_prefix=str(Path(folder) / "run"), version=2.2)
    heads, flows = results.node["head"].iloc[0], results.link["flowrate"].iloc[0]
    answer = plumbing_heads(question)
    assert flows["pump"] * 3.6e6 == pytest.approx(getattr(answer, state).lph, rel=0.005)
    along = [node.name for node in answer.nodes]
    assert along == [
        "tank", "after-strainer", "after-intake-hose", "after-media-1", "after-media-2", "after-media-3", "after-pump",
        "after-return-hose", "after-u-bend-1", "after-u-bend-2", "after-exit",
    ]  # fmt: skip
    # Heads come and go by a few millimetres where the curve of a layer is given in steps.
    ours = {node.name: getattr(node, f"{state}_m") for node in answer.nodes}
    for name in along:
        assert float(heads[name]) == pytest.approx(ours[name], rel=0.005, abs=0.003), name
    assert float(heads["after-exit"]) == pytest.approx(float(heads["outlet"]), abs=0.002)


@pytest.mark.parametrize(("bore", "fall", "drains"), [(28, 0.8, 1), (40, 0.35, 2), (22, 1.4, 3)])
def test_a_sumps_drains_carry_what_epanet_finds_in_the_exported_file(bore: float, fall: float, drains: int) -> None:
    overflow = OverflowCheckQuestion(
        return_lph=900, drain_bore_mm=bore, drain_fall_m=fall, drains_count=drains, emergency_bore_mm=bore + 6,
        tank_surface_cm2=3600, sump_free_l=40,
    )  # fmt: skip
    question = OperatingPointQuestion.model_validate(loop(2500, 2.0, 20, 2.0, rise_to_open_air_m=1.1))
    flows = epanet_flows(plumbing_inp(question, overflow=overflow))
    answer = compute("overflow-check", overflow.model_dump())
    assert sum(flows[f"drain{i}"] for i in range(drains)) == pytest.approx(answer.drain_lph, rel=0.005)
    assert flows["emergency"] == pytest.approx(answer.emergency_lph, rel=0.005)
    # The return is as without drains: they leave its loop alone.
    assert flows["pump"] == pytest.approx(epanet_flows(plumbing_inp(question))["pump"], rel=1e-4)


@pytest.mark.parametrize(
    ("kind", "ours"),
    [
        ("exit", fluids.fittings.exit_normal()),
        ("entrance", fluids.fittings.entrance_sharp(method="Idelchik") + 0.28),
    ],
    ids=["exit", "re-entrant entrance"],
)
def test_fittings_have_cranes_k_where_crane_has_the_part(kind: str, ours: float) -> None:
    # Crane TP-410: exit 1.0; inward projecting entrance 0.78, the sharp one's 0.5 and 0.28 for the pipe standing out.
    assert FITTING_K[kind] == pytest.approx(ours, abs=0.02)


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
    # The mixture's own losses at both ends, and bubbles that lighten nothing for their first three bores.
    losses = (
        (1 - gas[::400]) * (f * (submerged + lift) / bore + 7.0) * j[::400] ** 2 / (2 * g)
        + 2.5 * jl[::400] ** 2 / (2 * g)
        + c1 * jl[::400] * area
    )
    balance = (submerged + lift - 3 * bore) * gas[::400] - lift - losses
    scanned = jl[::400][np.argmin(np.abs(balance))] * area * 3.6e6
    assert answer.delivered_lph == pytest.approx(scanned, rel=0.01)
    assert 0 < gas.max() < 1


def test_an_air_lift_without_air_or_depth_lifts_nothing_and_its_efficiency_is_below_one() -> None:
    def lift(air: float, depth: float, above: float = 0.0):
        return compute(
            "airlift-flow",
            {"air_l_min": air, "tube_bore_mm": 16, "submerged_cm": depth, "outlet_above_water_cm": above},
        )

    assert lift(0, 30).delivered_lph == 0
    assert lift(2, 0).delivered_lph == 0
    raised = lift(2, 30, 5)
    work_out = 998 * 9.80665 * raised.delivered_lph / 3.6e6 * 0.05
    work_in = 101325 * 2 / 60000 * np.log(1 + 998 * 9.80665 * 0.30 / 101325)
    assert 0 < work_out / work_in < 1
    flows = [lift(air, 30).delivered_lph for air in (0.2, 0.5, 1, 2)]
    assert flows == sorted(flows)
    depths = [lift(1, d).delivered_lph for d in (10, 20, 30, 40)]
    assert depths == sorted(depths)


def test_an_air_lift_that_hardly_lifts_moves_what_was_measured() -> None:
    # Wurts, McNeill and Overhults 1994 (memory): 76 mm, 50 cm deep, 70 L/min of air, about 66 L/min of water.
    found = airlift(70 / 60000, 0.076, 0.50, 0.0, 0.0, 2.5, viscosity_m2_s(25)) * 60000
    assert found == pytest.approx(66, rel=0.15)


def test_a_trickle_of_air_moves_no_stream() -> None:
    # 0.05 L/min up 25 mm: the relations for long tubes alone would have it move 190 L/h.
    tube = {"tube_bore_mm": 25, "submerged_cm": 30, "foam_face_cm2": 50000, "foam_depth_cm": 0.5}
    assert 0 < compute("airlift-flow", {"air_l_min": 0.05, **tube}).delivered_lph < 110
