"""Layout of a filter's parts on the tank, in centimetres of the front view."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.filter.kind_parts.placement import Place
from reedmace.core.fit.layout import run_length_cm
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.fitting import AT, BY_ID, KINDS, ONE, ROOM


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
