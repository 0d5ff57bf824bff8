"""The fitting plan, what could go wrong, the order of the steps, other flow tests, what is due."""

import itertools
import math
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.filter.kind_parts.placement import Place
from reedmace.core.filter.kinds import BY_NAME
from reedmace.core.fit.flood_risk import empty_minutes
from reedmace.core.fit.layout import run_length_cm
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.care.due import due
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.measured_flows import calibration
from reedmace.logbook.replay.state import replay

BY_ID = {f.id: f for f in SAMPLE_BOXES}
KINDS = tuple(BY_NAME)
ONE = {kind: next(f for f in SAMPLE_BOXES if f.kind == kind) for kind in KINDS}
ROOM = {"net_l": 131, "water_depth_cm": 41.4, "length_cm": 90, "width_cm": 40, "rim_to_water_cm": 3, "behind_cm": 12}
AT = {"stand_height_cm": 66, "tank_height_cm": 45, "substrate_depth_cm": 4}


def plan(filter_id: str, layout: dict | None = None, **more):
    question = {"filter": BY_ID[filter_id].model_dump(), "site": ROOM, **AT, "layout": layout or {}, **more}
    return compute("fitting-plan", question)


def places(*points: tuple[float, float]) -> list[Place]:
    return [Place(x_cm=x, y_cm=y) for x, y in points]


def test_a_rounded_corner_is_shorter_by_what_paper_says() -> None:
    # Two legs of 50 cm at a right angle, rounded at 10 cm: 100 − 20 + 10 π/2.
    assert run_length_cm(places((0, 0), (50, 0), (50, 50)), 10) == pytest.approx(100 - 20 + 5 * math.pi)
    assert run_length_cm(places((0, 0), (50, 0), (100, 0)), 10) == pytest.approx(100)


@given(st.lists(st.tuples(st.floats(-100, 100), st.floats(-100, 100)), min_size=2, max_size=6), st.floats(0, 20))
def test_a_run_is_never_longer_than_its_legs_nor_shorter_than_the_crow_flies(points, radius) -> None:
    legs = sum(math.dist(a, b) for a, b in itertools.pairwise(points))
    length = run_length_cm(places(*points), radius)
    assert math.dist(points[0], points[-1]) - 1e-6 <= length <= legs + 1e-6


def test_a_rounded_run_measures_what_its_sampled_curve_does() -> None:
    # The same three corners drawn as straight pieces and arcs, sampled finely and summed.
    radius = 8.0
    corners = [(0.0, 0.0), (0.0, -60.0), (40.0, -60.0), (40.0, -90.0)]
    samples: list[tuple[float, float]] = [(0.0, 0.0)]
    for (cx, cy), start, sweep in (((8, -52), math.pi, math.pi / 2), ((32, -68), math.pi / 2, -math.pi / 2)):
        samples += [
            (cx + radius * math.cos(start + sweep * k / 500), cy + radius * math.sin(start + sweep * k / 500))
            for k in range(501)
        ]
    samples.append((40.0, -90.0))
    drawn = sum(math.dist(a, b) for a, b in itertools.pairwise(samples))
    assert run_length_cm(places(*corners), radius) == pytest.approx(drawn, rel=1e-4)


def test_cut_lengths_are_the_drawn_runs_with_slack_and_follow_the_parts() -> None:
    usual, moved = plan("sweetflag-800"), plan("sweetflag-800", {"intake_x_cm": 60})
    for run in usual.runs:
        assert run.cut_cm == pytest.approx(run.drawn_cm * 1.05 + 10)
    hose = {r.name: r for r in usual.runs}["intake hose"]
    # By hand: from 6 cm over the rim (117 cm) down to the level, across, and down to the lid, less two rounded corners.
    level = hose.points[1].y_cm
    legs = (117 - level) + abs(hose.points[1].x_cm - hose.points[2].x_cm) + (level - hose.points[3].y_cm)
    assert hose.points[0].y_cm == 117
    assert legs - 2 * 2 * hose.bend_radius_cm <= hose.drawn_cm < legs
    assert {r.name: r for r in moved.runs}["intake hose"].drawn_cm < hose.drawn_cm
    assert {c.item: c.amount for c in usual.cuts}["hose clamps"] == 4


@pytest.mark.parametrize(
    ("filter_id", "layout", "more", "part", "words"),
    [
        ("sweetflag-800", {"outlet_x_cm": 80}, {}, "outlet", "round in a corner"),
        ("sweetflag-800", {"tap_above_water_cm": -5}, {}, "tap", "under the water line"),
        ("sweetflag-800", {}, {"canister_at_cm": 90, "stand_height_cm": 66}, "body", "above the water line"),
        ("sweetflag-1800", {}, {"stand_height_cm": 58}, "return-hose", "kinks"),
        ("sweetflag-800", {"drip_loop": False}, {}, "socket", "into the plug"),
        ("burreed-20", {"air_pump_above_water_cm": -40, "check_valve": False}, {}, "air-pump", "no check valve"),
        ("sweetflag-800", {"intake_depth_cm": 3}, {}, "intake", "draws air"),
        ("sweetflag-800", {"intake_depth_cm": 37}, {}, "intake", "in the bed"),
        ("millrace-60", {}, {"site": {**ROOM, "behind_cm": 4}}, "body", "further off the wall"),
        ("watermint-120", {}, {"site": {**ROOM, "water_depth_cm": 34}, "tank_height_cm": 37}, "filter", "in the air"),
        ("sweetflag-800", {"outlet_depth_cm": -5}, {}, "outlet", "splashes"),
    ],
    ids=["corner", "tap", "high", "bend", "drip", "siphon", "shallow", "sand", "wall", "uplift", "splash"],
)
def test_each_fault_is_found_where_it_is_with_its_remedy(filter_id, layout, more, part, words) -> None:
    faults = plan(filter_id, layout, **more).faults
    found = next((f for f in faults if words in f"{f.what} {f.remedy}"), None)
    assert found, [f.what for f in faults]
    assert found.where == part
    assert found.remedy


@pytest.mark.parametrize("kind", KINDS)
def test_the_usual_plan_of_every_kind_has_no_fault(kind: str) -> None:
    f = ONE[kind]
    roomy = {**ROOM, "length_cm": 150, "width_cm": 50, "behind_cm": 30, "drilled": True}
    question = {"filter": f.model_dump(), "site": roomy, **AT, "stand_height_cm": 90}
    answer = compute("fitting-plan", question)
    assert answer.faults == []
    assert "Nothing stands in its way" in answer.verdict
    assert answer.evaporated_y_cm == answer.water_y_cm - 2


# --- litres


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


SUMP = {"length_cm": 60, "width_cm": 40, "height_cm": 34.5, "level_cm": 20}


def test_a_sump_floods_only_past_its_free_room() -> None:
    # 60 × 40 cm with 12.5 cm left under its rim is 30 L; 2 L of the run-back stand in the pipes.
    assert all(m.litres == 0 for m in drain("sump", {"outlet_depth_cm": 5}, sump=SUMP).mishaps)
    codes = {m.code: m for m in drain("sump", {"outlet_depth_cm": 12}, sump=SUMP).mishaps}
    assert codes["run-back"].litres == pytest.approx(3400 * 12 / 1000 - 28)


def test_a_siphon_break_can_clog_only_where_there_is_one() -> None:
    absent, present = ({m.code for m in drain("sump", {"siphon_break": b}).mishaps} for b in (False, True))
    assert "siphon-break-clogged" not in absent
    assert "siphon-break-clogged" in present


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


# --- steps


def steps_of(kind: str, **more):
    return compute("fitting-steps", {"kind": kind, **more}).steps


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("guard", [False, True], ids=["bare", "guarded"])
def test_the_order_shown_keeps_every_lock(kind: str, guard: bool) -> None:
    steps = steps_of(kind, needs_guard=guard)
    seen: set[str] = set()
    for s in steps:
        assert set(s.after) <= seen, f"{s.id} is shown before {set(s.after) - seen}"
        seen.add(s.id)


@pytest.mark.parametrize("priming", ["fill", "button", "self"])
@pytest.mark.parametrize("path", ["bottom-up", "top-down", "ring-then-down", "columns"])
def test_each_canister_variant_says_its_own_priming_and_path(priming: str, path: str) -> None:
    steps = {s.id: s for s in steps_of("canister", priming=priming, media_path=path, media_l=6, body_l=18)}
    own = {"fill": "with a jug", "button": "press the primer", "self": "draws the rest itself"}
    assert own[priming] in steps["canister-prime"].detail
    assert "12 L" in steps["canister-prime"].detail
    words = {"bottom-up": "rises", "top-down": "falls", "ring-then-down": "outer foam ring", "columns": "column"}
    assert words[path] in steps["canister-media"].detail
    assert ("stops, starts" in steps["canister-power"].normal) == (priming == "self")


def test_no_priming_is_more_than_the_body_holds() -> None:
    steps = {s.id: s for s in steps_of("canister", media_l=6, body_l=9)}
    assert "9 L" in steps["canister-prime"].detail


@pytest.mark.parametrize(("path", "where"), [("bottom-up", "lowest"), ("front-to-back", "in front")])
def test_coarse_foam_goes_where_this_hang_ons_water_comes_in(path: str, where: str) -> None:
    steps = {s.id: s for s in steps_of("hang-on", media_path=path)}
    assert f"coarse foam goes {where}" in steps["hangon-media"].detail


def everything_before(steps, target: str) -> set[str]:
    by_id = {s.id: s for s in steps}
    found: set[str] = set()
    queue = [target]
    while queue:
        for a in by_id[queue.pop()].after:
            if a not in found:
                found.add(a)
                queue.append(a)
    return found


@pytest.mark.parametrize(
    ("kind", "power", "before"),
    [
        (
            "canister",
            "canister-power",
            {
                "canister-prime",
                "canister-clamps",
                "canister-hose",
                "canister-media",
                "canister-valves",
                "canister-ends",
            },
        ),
        ("hang-on", "hangon-power", {"hangon-prime", "hangon-level", "hangon-media", "hangon-intake"}),
        ("internal", "internal-power", {"internal-place", "internal-media"}),
        ("sump", "sump-power", {"sump-fill", "sump-pipes", "sump-drill"}),
        ("sponge", "sponge-start", {"sponge-check-valve", "sponge-place"}),
        ("sheet", "sheet-start", {"sheet-check-valve", "sheet-lift"}),
        ("box", "box-start", {"box-check-valve", "box-ballast"}),
        ("under-gravel", "gravel-start", {"gravel-check-valve", "gravel-cover"}),
    ],
)
@given(seed=st.integers(0, 10_000))
def test_no_order_the_locks_allow_lets_power_come_before_water(kind, power, before, seed) -> None:
    # Tick anything that is not locked, at random, and see what stands done when power is reached.
    rng = np.random.default_rng(seed)
    steps = steps_of(kind, needs_guard=True)
    done: set[str] = set()
    while power not in done:
        free = [s.id for s in steps if s.id not in done and set(s.after) <= done]
        done.add(str(rng.choice(free)))
    assert before <= done
    assert before <= everything_before(steps, power)


def test_small_animals_lock_power_behind_the_guard() -> None:
    assert "canister-guard" in everything_before(steps_of("canister", needs_guard=True), "canister-power")


# --- other ways to find the flow


# --- what is due

NOW = datetime(2026, 3, 1, 12, tzinfo=UTC)


def state_of(*rows: tuple[float, dict]):
    """Entries so many days before NOW."""
    entries = [
        {"id": i, "key": f"due-{i:04d}", "at": NOW - timedelta(days=days), "written_at": NOW, "body": body}
        for i, (days, body) in enumerate(rows, start=1)
    ]
    return replay([Entry.model_validate(e) for e in entries])


CHOSEN = (30, {"kind": "filter-plan", "chosen": BY_ID["sweetflag-800"].model_dump()})


@pytest.mark.parametrize(("filter_id", "kind"), [("millrace-60", "hangon"), ("millpond-60", "sump")])
def test_every_kind_that_can_leak_comes_back_three_times(filter_id: str, kind: str) -> None:
    chosen = (30, {"kind": "filter-plan", "chosen": BY_ID[filter_id].model_dump()})
    found = {
        d.key: d.at - NOW for d in due(state_of(chosen, (0, {"kind": "step-done", "step_id": f"{kind}-power"})), NOW)
    }
    waits = [found[f"{kind}-leak-{when}"] for when in ("5", "60", "day")]
    assert waits == [timedelta(minutes=5), timedelta(hours=1), timedelta(days=1)]


def test_leak_checks_come_back_five_minutes_an_hour_and_a_day_after_power() -> None:
    found = {d.key: d.at for d in due(state_of(CHOSEN, (0, {"kind": "step-done", "step_id": "canister-power"})), NOW)}
    assert found["canister-leak-5"] == NOW + timedelta(minutes=5)
    assert found["canister-leak-60"] == NOW + timedelta(hours=1)
    assert found["canister-leak-day"] == NOW + timedelta(days=1)
    ticked = state_of(
        CHOSEN,
        (1, {"kind": "step-done", "step_id": "canister-power"}),
        (0.9, {"kind": "step-done", "step_id": "canister-leak-5"}),
    )
    assert "canister-leak-5" not in {d.key for d in due(ticked, NOW)}


def test_the_flow_is_due_monthly_and_service_by_its_own_fade() -> None:
    def test_of(seconds: float) -> dict:
        return {"kind": "flow-test", "container_l": 5, "times_s": [seconds], "computed_lph": 750}

    s = state_of(CHOSEN, (120, test_of(24)), (60, test_of(27)), (10, test_of(31)))
    found = {d.key: d for d in due(s, NOW)}
    assert found["flow-test"].at == NOW + timedelta(days=20)
    assert NOW - timedelta(days=60) < found["service"].at < NOW + timedelta(days=90)
    rinsed = state_of(CHOSEN, (120, test_of(24)), (60, test_of(27)), (5, {"kind": "media-work", "what": "rinsed"}))
    assert "service" not in {d.key for d in due(rinsed, NOW)}


def test_a_spare_sponge_is_due_a_month_after_it_went_in() -> None:
    s = state_of(CHOSEN, (20, {"kind": "media-work", "what": "seeding-started", "text": "A"}))
    assert next(d for d in due(s, NOW) if d.key.startswith("seed")).at == NOW + timedelta(days=10)


def test_the_newest_test_that_knew_both_calibrates() -> None:
    s = state_of(
        CHOSEN,
        (9, {"kind": "flow-test", "container_l": 2, "times_s": [10], "computed_lph": 800}),
        (2, {"kind": "timed-flow", "method": "transit", "measured_lph": 600, "computed_lph": 750}),
    )
    assert calibration(s, "f1") == pytest.approx(0.8)
    assert calibration(state_of(CHOSEN), "f1") is None


# --- replacing and moving


def test_what_stands_beside_another_fits_along_the_tank_or_is_told() -> None:
    room = {"net_l": 40, "length_cm": 40, "width_cm": 30, "water_depth_cm": 32, "behind_cm": 10, "beneath_cm": 70}
    canister = next(f for f in SAMPLE_BOXES if f.id == "sweetflag-800")
    asked = {"filter": canister.model_dump(mode="json"), "site": room}

    def crowded(**more: object) -> list[str]:
        found = compute("fitting-plan", {**asked, **more}).faults
        return [f.what for f in found if "takes" in f.what]

    taken = 40 - canister.width_cm
    assert crowded() == crowded(beside_cm=taken) == []
    assert crowded(beside_cm=taken + 2) == ["With what stands there already it takes 42 cm of a tank 40 cm long."]
    assert crowded(beside_cm=taken + 2, layout={"body_x_cm": -30}) == []


def test_no_pair_of_canisters_wider_than_the_tank_is_ranked() -> None:
    wide = {f.id: f.width_cm for f in SAMPLE_BOXES if f.kind == "canister"}

    def widths(length: float) -> list[float]:
        room = {
            "net_l": 60,
            "length_cm": length,
            "width_cm": 40,
            "water_depth_cm": 38,
            "behind_cm": 3,
            "beneath_cm": 70,
        }
        found = compute(
            "rank-filters",
            {
                "site": room,
                "animals": [{"species_id": "fancy-goldfish", "count": 2}],
                "own_filters": [f.model_dump() for f in SAMPLE_BOXES],
            },
        )
        return [sum(wide[i] for i in p.filter_ids) for p in found.pairs if all(i in wide for i in p.filter_ids)]

    short, roomy = widths(33), widths(45)
    assert short
    assert max(short) <= 33 < max(roomy) <= 45
