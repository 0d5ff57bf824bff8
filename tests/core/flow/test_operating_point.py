"""Hydraulics on closed forms, edges and trends."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer
from reedmace.core.flow.hydraulic_kernel import friction_factor, hose_head, operating_flow
from reedmace.core.flow.materials import viscosity_m2_s

PUMP: dict[str, Any] = {"max_flow_lph": 1000, "max_head_m": 1.5}
EXIT = {"kind": "exit", "k": 4, "bore_mm": 12}
USUAL = {
    "pump": PUMP,
    "hoses": [{"bore_mm": 16, "length_m": 2.8}],
    "fittings": [{"kind": "strainer"}, {"kind": "u-bend", "count": 2}, {"kind": "exit"}],
    "media": [{"media": "foam-20", "area_cm2": 300, "depth_cm": 10}],
}


def ask(**changes):
    return compute("operating-point", {**USUAL, **changes})


def test_nothing_in_the_way_gives_the_box_flow() -> None:
    assert compute("operating-point", {"pump": PUMP}).delivered_lph == pytest.approx(1000)


def test_a_bare_lift_leaves_what_the_parabola_says() -> None:
    # H = 1.5 (1 − (Q/1000)²) = 0.5 at Q = 1000 √(2/3).
    assert compute("operating-point", {"pump": PUMP, "rise_to_open_air_m": 0.5}).delivered_lph == pytest.approx(
        1000 * math.sqrt(2 / 3), rel=1e-8
    )


def test_an_orifice_alone_has_a_closed_form() -> None:
    # K v²/2g = 1.5 (1 − (Q/Qm)²) with v = Q/A.
    answer = compute("operating-point", {"pump": PUMP, "fittings": [EXIT]})
    area, most = math.pi / 4 * 0.012**2, 1000 / 3.6e6
    c = 4 / (2 * 9.80665 * area**2)
    assert answer.delivered_lph == pytest.approx(math.sqrt(1.5 / (c + 1.5 / most**2)) * 3.6e6, rel=1e-8)


def test_laminar_flow_in_a_hose_is_hagen_poiseuille() -> None:
    nu = viscosity_m2_s(25)
    flow = 1.0 / 3.6e6  # 1 L/h in 4 mm: Re about 100
    assert hose_head(flow, 0.004, 2.0, 1.5e-6, nu) == pytest.approx(
        128 * nu * 2.0 * flow / (math.pi * 9.80665 * 0.004**4), rel=1e-9
    )


def test_the_friction_factor_has_no_jump_at_either_end_of_transition() -> None:
    for edge in (2000.0, 4000.0):
        below, above = friction_factor(edge * (1 - 1e-9), 1e-4), friction_factor(edge * (1 + 1e-9), 1e-4)
        assert below == pytest.approx(above, rel=1e-6)


def test_a_pump_that_cannot_reach_says_by_how_much_and_is_no_error() -> None:
    answer = ask(rise_to_open_air_m=1.9)
    assert answer.status == "cannot-reach"
    assert answer.delivered_lph == 0
    assert answer.short_by_m == pytest.approx(0.4)
    assert "0.40 m more" in answer.verdict


def test_head_budget_adds_up_to_the_head_of_the_pump() -> None:
    answer = ask(rise_to_open_air_m=0.3)
    assert sum(p.head_m for p in answer.head_budget) == pytest.approx(answer.head_m, rel=1e-6)
    assert answer.head_m == pytest.approx(1.5 * (1 - (answer.delivered_lph / 1000) ** 2), rel=1e-6)


def test_speed_follows_the_affinity_laws_where_nothing_is_lifted() -> None:
    full, half = (compute("operating-point", {"pump": dict(PUMP, speed_share=s), "fittings": [EXIT]}) for s in (1, 0.5))
    assert half.delivered_lph == pytest.approx(full.delivered_lph / 2, rel=1e-6)
    assert half.head_m == pytest.approx(full.head_m / 4, rel=1e-6)


def test_curve_points_decide_over_the_two_box_figures() -> None:
    curve = [{"flow_lph": 0, "head_m": 2}, {"flow_lph": 400, "head_m": 1}, {"flow_lph": 800, "head_m": 0}]
    assert compute(
        "operating-point", {"pump": {**PUMP, "curve": curve}, "rise_to_open_air_m": 0.5}
    ).delivered_lph == pytest.approx(600)


@pytest.mark.parametrize(
    "curve",
    [
        [{"flow_lph": 0, "head_m": 1}, {"flow_lph": 500, "head_m": 0}],
        [{"flow_lph": 0, "head_m": 1}, {"flow_lph": 500, "head_m": 1.2}, {"flow_lph": 800, "head_m": 0}],
        [{"flow_lph": 100, "head_m": 1}, {"flow_lph": 500, "head_m": 0.5}, {"flow_lph": 800, "head_m": 0}],
    ],
    ids=["two points", "rising", "not from zero"],
)
def test_points_that_make_no_pump_curve_are_refused(curve: list) -> None:
    with pytest.raises(CannotAnswer, match="pump curve"):
        compute("operating-point", {"pump": {**PUMP, "curve": curve}})


def test_a_fitting_with_no_bore_to_act_on_is_refused() -> None:
    with pytest.raises(CannotAnswer, match="no bore"):
        compute("operating-point", {"pump": PUMP, "fittings": [{"kind": "elbow"}]})


@given(st.floats(0, 1.4), st.floats(0.01, 0.2))
def test_more_lift_never_gives_more_flow(rise: float, more: float) -> None:
    assert ask(rise_to_open_air_m=rise + more).delivered_lph <= ask(rise_to_open_air_m=rise).delivered_lph


@given(st.floats(0, 300), st.floats(1, 300))
def test_more_dirt_never_gives_more_flow(days: float, more: float) -> None:
    less, dirtier = ask(days_since_cleaning=days), ask(days_since_cleaning=days + more)
    assert dirtier.dirty_lph <= less.dirty_lph <= less.delivered_lph


@given(st.floats(8, 30), st.floats(0.3, 8))
def test_a_wider_or_shorter_hose_never_gives_less(bore: float, length: float) -> None:
    base = ask(hoses=[{"bore_mm": bore, "length_m": length}], fittings=[]).delivered_lph
    assert ask(hoses=[{"bore_mm": bore * 1.1, "length_m": length}], fittings=[]).delivered_lph >= base - 1e-6
    assert ask(hoses=[{"bore_mm": bore, "length_m": length * 0.9}], fittings=[]).delivered_lph >= base - 1e-6


def test_a_packed_canister_loses_about_a_fifth_in_service() -> None:
    # Common practice: about 20 % from clean to service for an ordinary load.
    answer = ask(feed_g_day=3, days_since_cleaning=60)
    assert 0.12 < 1 - answer.dirty_lph / answer.delivered_lph < 0.35


def test_the_root_is_a_root_for_hostile_curves() -> None:
    rng = np.random.default_rng(5)
    for _ in range(200):
        q, h = rng.uniform(1e-5, 3e-3), rng.uniform(0.1, 10)
        hoses = np.array([[rng.uniform(0.004, 0.05), rng.uniform(0, 20), 1.5e-6]])
        found = operating_flow(
            np.array([0, q]),
            np.array([h, 0]),
            1.0,
            rng.uniform(0, 0.95) * h,
            rng.uniform(0, 1e5),
            rng.uniform(0, 1e9),
            hoses,
            1e-6,
        )
        assert 0 < found <= q


def test_an_air_lift_moves_nothing_without_air_or_depth() -> None:
    assert compute("airlift-flow", {"air_l_min": 0, "tube_bore_mm": 16, "submerged_cm": 30}).delivered_lph == 0
    assert compute("airlift-flow", {"air_l_min": 1, "tube_bore_mm": 16, "submerged_cm": 0}).delivered_lph == 0


def test_an_air_lift_of_ordinary_size_moves_a_hundred_litres_and_more() -> None:
    # 16 mm, 30 cm, nearly fully submerged, 1 to 2 L/min: half of what the relations for long tubes give (210 to 290),
    # as a tube measured at no lift moves a third of it.
    open_foam = {
        "tube_bore_mm": 16,
        "submerged_cm": 27.5,
        "outlet_above_water_cm": 2.5,
        "foam_face_cm2": 50000,
        "foam_depth_cm": 0.5,
    }
    one, two = (compute("airlift-flow", {**open_foam, "air_l_min": air}).delivered_lph for air in (1, 2))
    assert 105 <= one <= 145
    assert one < two <= 290


@given(st.floats(0.2, 2), st.floats(15, 45))
def test_deeper_air_and_lower_outlets_lift_more(air: float, depth: float) -> None:
    base = {"air_l_min": air, "tube_bore_mm": 16, "submerged_cm": depth, "outlet_above_water_cm": 2}
    q = compute("airlift-flow", base).delivered_lph
    assert compute("airlift-flow", {**base, "submerged_cm": depth + 3}).delivered_lph >= q
    assert compute("airlift-flow", {**base, "outlet_above_water_cm": 3}).delivered_lph <= q


def test_a_bucket_test_is_a_mean_with_its_doubt() -> None:
    answer = compute(
        "bucket-test",
        {
            "container_l": 2,
            "times_s": [10, 10, 10],
            "container_uncertainty_percent": 2,
            "computed_lph": 900,
            "causes": ["a kink", "dirt"],
        },
    )
    assert answer.measured_lph == pytest.approx(720)
    assert answer.plus_minus_lph == pytest.approx(0.02 * 720)
    assert answer.ratio_to_computed == pytest.approx(0.8)
    assert answer.finding == "short"
    assert answer.likely_causes == ["a kink", "dirt"]


def test_the_doubt_of_three_fills_uses_students_t() -> None:
    answer = compute("bucket-test", {"container_l": 1, "times_s": [9, 10, 11], "container_uncertainty_percent": 0})
    flows = [400, 360, 3600 / 11]
    spread = np.std(flows, ddof=1)
    assert answer.plus_minus_lph == pytest.approx(4.303 * spread / math.sqrt(3), rel=1e-4)


@pytest.mark.parametrize(
    ("times", "computed", "finding"),
    [
        ([10], 720, "one-fill"),
        ([10, 10.1], 720, "as-computed"),
        ([5, 5], 720, "more"),
        ([10, 10], None, "no-comparison"),
    ],
)
def test_a_bucket_test_says_what_it_found(times: list, computed: float | None, finding: str) -> None:
    assert compute("bucket-test", {"container_l": 2, "times_s": times, "computed_lph": computed}).finding == finding
