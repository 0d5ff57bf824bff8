"""Flood risk: litres on the floor in each mishap, where the level stops, and the cheapest prevention."""

import math

import pytest

from reedmace.core.computations import compute
from reedmace.core.fit.flood_risk import empty_minutes
from tests.support.fitting import AT, KINDS, ONE, ROOM, SUMP


def drain(kind: str, layout: dict | None = None, **more):
    room = {**ROOM, "water_depth_cm": 41}
    question = {"filter": ONE[kind].model_dump(), "site": room, **AT, "surface_cm2": 3400, "layout": layout or {}}
    return compute("flood-risk", {**question, **more})


def test_litres_are_surface_times_the_depth_to_where_air_gets_in() -> None:
    answer = drain("canister", {"intake_depth_cm": 30, "outlet_depth_cm": 4})
    litres = {m.code: m.litres for m in answer.mishaps}
    assert litres["intake-hose-off"] == pytest.approx(3400 * 30 / 1000)
    assert litres["return-hose-off-standing"] == pytest.approx(3400 * 4 / 1000)
    assert answer.worst_l == pytest.approx(102)
    assert answer.mishaps[0].stops_below_rim_cm == pytest.approx(33)
    assert any("each" in m.prevention or "3.4 L" in m.prevention for m in answer.mishaps)


def test_a_higher_strainer_a_siphon_break_and_a_check_valve_each_save_litres() -> None:
    assert drain("canister", {"intake_depth_cm": 20}).worst_l < drain("canister", {"intake_depth_cm": 30}).worst_l
    broken, open_ = (
        {m.code: m.litres for m in drain("canister", {"outlet_depth_cm": 8, "siphon_break": b}).mishaps}[
            "return-hose-off-standing"
        ]
        for b in (True, False)
    )
    assert broken == pytest.approx(3.4)
    assert open_ == pytest.approx(27.2)
    low = {"air_pump_above_water_cm": -30}
    # The air is let go 3 cm over the bed.
    assert drain("sponge", {**low, "check_valve": False}).worst_l == pytest.approx(3400 * 38 / 1000)
    assert drain("sponge", {**low, "check_valve": True}).worst_l == 0


@pytest.mark.parametrize(
    ("heater", "dry"),
    [
        ({"watts": 150}, {"intake-hose-off"}),
        ({"watts": 150, "stands_in": "filter"}, {"intake-hose-off", "return-hose-off-standing"}),
        (None, set()),
    ],
    ids=["in the tank", "in the canister", "none"],
)
def test_a_fall_that_leaves_the_heater_dry_says_so(heater: dict | None, dry: set[str]) -> None:
    answer = drain("canister", {"intake_depth_cm": 30, "outlet_depth_cm": 4}, heater=heater)
    hoses_off = {m.code for m in answer.mishaps if m.heater and "hose-off" in m.code}
    assert hoses_off >= dry
    assert bool(hoses_off) == bool(dry)
    assert all("cut its power" in m.heater for m in answer.mishaps if m.heater)


def test_a_sump_floods_only_past_its_free_room() -> None:
    # 60 × 40 cm with 12.5 cm left under its rim is 30 L; 2 L of the run-back stand in the pipes.
    assert all(m.litres == 0 for m in drain("sump", {"outlet_depth_cm": 5}, sump=SUMP).mishaps)
    codes = {m.code: m for m in drain("sump", {"outlet_depth_cm": 12}, sump=SUMP).mishaps}
    assert codes["run-back"].litres == pytest.approx(3400 * 12 / 1000 - 28)


def test_a_siphon_break_can_clog_only_where_there_is_one() -> None:
    absent, present = ({m.code for m in drain("sump", {"siphon_break": b}).mishaps} for b in (False, True))
    assert "siphon-break-clogged" not in absent
    assert "siphon-break-clogged" in present


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_its_power_cut_told(kind: str) -> None:
    cut = drain(kind).power_cut
    assert all((cut.minute, cut.hour, cut.night, cut.on_return))
    if kind == "canister":
        assert "airless" in cut.night
        assert "rinse" in cut.on_return


def test_a_siphon_empties_as_torricelli_says_where_nothing_resists_and_as_small_steps_do_with_losses() -> None:
    # Torricelli with K = 3: t = A (2/√(2g/(1+K))) (√h0 − √h1) / a, friction next to nothing in a short wide hose.
    bore, area, top, stop = 0.05, 0.4, 1.0, 0.6
    a = math.pi / 4 * bore**2
    closed = area / a * math.sqrt(4 / (2 * 9.80665)) * 2 * (math.sqrt(top) - math.sqrt(stop)) / 60
    assert empty_minutes(area, top, stop, bore, 1e-6) == pytest.approx(closed, rel=2e-3)
    # A real hose, stepped in time instead of in level.
    import fluids

    bore, length, level, seconds, dt = 0.016, 1.5, 1.0, 0.0, 0.05
    a = math.pi / 4 * bore**2
    while level > 0.7:
        speed = 1.0
        for _ in range(6):
            f = fluids.friction_factor(Re=max(speed * bore / 0.893e-6, 1.0), eD=1.5e-6 / bore)
            speed = math.sqrt(2 * 9.80665 * level / (4 + f * length / bore))
        level -= speed * a * dt / 0.36
        seconds += dt
    assert empty_minutes(0.36, 1.0, 0.7, bore, length) == pytest.approx(seconds / 60, rel=0.02)
