"""Overflow of a sump: capacity of its weir and drain, and the run-back when power fails."""

import math

import pytest

from reedmace.core.computations import compute
from tests.support.fitting import AT, ONE, ROOM, SUMP


def test_the_run_back_of_plan_and_overflow_is_one_figure() -> None:
    question = {
        "filter": ONE["sump"].model_dump(),
        "site": ROOM,
        **AT,
        "surface_cm2": 3400,
        "sump": SUMP,
        "return_lph": 2000,
    }
    plan_ = compute("fitting-plan", {**question, "layout": {"outlet_depth_cm": 4}})
    check = compute(
        "overflow-check",
        {"return_lph": 2000, "tank_surface_cm2": 3400, "return_below_surface_cm": 4, "sump_free_l": 30},
    )
    assert plan_.run_back_l == pytest.approx(check.run_back_l)
    assert plan_.sump_free_l == pytest.approx(30)


def overflow(**more):
    return compute("overflow-check", {"return_lph": 2000, "tank_surface_cm2": 9000, "sump_free_l": 30, **more})


def test_an_overflow_is_francis_and_bernoulli() -> None:
    answer = overflow(weir_cm=30, weir_head_mm=15)
    assert answer.weir_lph == pytest.approx(1.84 * 0.3 * 0.015**1.5 * 3.6e6)
    # Frictionless, lossless pipe: v = sqrt(2 g h).
    from reedmace.core.flow.overflow import siphon_m3s

    bare = siphon_m3s(0.05, 1e-9, 0.5, 0.0)
    assert bare == pytest.approx(math.sqrt(2 * 9.80665 * 0.5) * math.pi / 4 * 0.05**2, rel=1e-6)


def test_a_power_cut_that_overfills_the_sump_is_said_in_litres() -> None:
    assert overflow().holds
    flood = overflow(return_below_surface_cm=8)
    assert not flood.holds
    assert flood.run_back_l == pytest.approx(9000 * 8 / 1000 + 2)
    assert "floods" in flood.verdict
    assert flood.remedies


def test_a_narrow_drain_is_found_out() -> None:
    assert not overflow(drain_bore_mm=12).drains
