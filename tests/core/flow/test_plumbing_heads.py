"""Heads along a plumbing and the range of its flow, on closed forms and on truths nobody chose."""

import numpy as np
import pytest

from reedmace.core.flow import OperatingPointQuestion, operating_point, plumbing_heads
from reedmace.core.flow.materials import FLOW_SPREAD
from reedmace.core.flow.plumbing_heads import (
    BOX_HEAD_SPREAD,
    DIRT_SPREAD,
    FITTING_SPREAD,
    MEDIA_SPREAD,
    SLIMED_MM,
    FlowRange,
)

PATH = {
    "pump": {"max_flow_lph": 1100, "max_head_m": 1.8},
    "hoses": [{"bore_mm": 16, "length_m": 3.2, "intake_share": 0.5}],
    "fittings": [
        {"kind": "strainer"},
        {"kind": "u-bend", "count": 2},
        {"kind": "spray-bar", "holes_count": 12, "hole_mm": 4},
    ],
    "media": [
        {"media": "foam-10", "area_cm2": 320, "depth_cm": 4},
        {"media": "foam-30", "area_cm2": 320, "depth_cm": 6},
    ],
    "feed_g_day": 4,
    "days_since_cleaning": 60,
}


def question(**more: object) -> OperatingPointQuestion:
    return OperatingPointQuestion.model_validate({**PATH, **more})


def test_the_flows_are_those_of_the_operating_point() -> None:
    found, point = plumbing_heads(question()), operating_point(question())
    assert found.clean.lph == pytest.approx(point.delivered_lph)
    assert found.dirty.lph == pytest.approx(point.dirty_lph)
    assert found.dirty.lph < found.serviced.lph < found.clean.lph


def test_half_of_the_dirt_is_left_by_a_service() -> None:
    half = operating_point(question(days_since_cleaning=30))
    assert plumbing_heads(question()).serviced.lph == pytest.approx(half.dirty_lph)


def test_heads_fall_to_suction_before_the_pump_and_end_at_the_open_air() -> None:
    found = plumbing_heads(question(rise_to_open_air_m=0.2))
    names = [node.name for node in found.nodes]
    pump = names.index("after-pump")
    assert names[0] == "tank"
    assert found.nodes[0].dirty_m == 0
    before = [node.dirty_m for node in found.nodes[:pump]]
    assert before == sorted(before, reverse=True)
    assert before[-1] < -0.05
    behind = [node.dirty_m for node in found.nodes[pump:]]
    assert behind == sorted(behind, reverse=True)
    assert found.nodes[-1].clean_m == pytest.approx(0.2, abs=1e-6)
    assert found.nodes[-1].dirty_m == pytest.approx(0.2, abs=1e-6)


def test_the_part_of_each_node_costs_what_the_head_budget_says() -> None:
    found, budget = plumbing_heads(question()), operating_point(question()).head_budget
    falls = {
        b.name: a.clean_m - b.clean_m
        for a, b in zip(found.nodes, found.nodes[1:], strict=False)
        if b.name != "after-pump"
    }
    costs = {part.part: part.head_m for part in budget}
    assert falls["after-strainer"] == pytest.approx(costs["strainer"])
    assert falls["after-u-bend"] == pytest.approx(costs["U-bends"])
    assert falls["after-media-1"] + falls["after-media-2"] == pytest.approx(costs["media, clean"])
    assert falls["after-intake-hose"] == pytest.approx(falls["after-return-hose"])


def test_a_pump_that_does_not_reach_the_outlet_stands_at_its_own_head() -> None:
    found = plumbing_heads(question(rise_to_open_air_m=4.0))
    assert found.clean.lph == 0
    assert found.nodes[-1].clean_m == pytest.approx(1.8)
    assert "does not reach" in found.verdict


def test_a_bare_pump_has_a_head_and_a_range() -> None:
    bare = OperatingPointQuestion.model_validate({"pump": PATH["pump"]})
    found = plumbing_heads(bare)
    assert [node.name for node in found.nodes] == ["tank", "after-pump"]
    assert found.clean.low_lph < found.clean.lph < found.clean.high_lph
    assert found.mostly[0].cause == "what the pump really moves"


def test_what_the_range_hangs_on_adds_up_and_follows_the_dirt() -> None:
    dirty, fresh = plumbing_heads(question()), plumbing_heads(question(days_since_cleaning=0))
    assert sum(part.share for part in dirty.mostly) == pytest.approx(1)
    assert dirty.mostly[0].cause == "how much dirt there is"
    assert next(p.share for p in fresh.mostly if p.cause == "how much dirt there is") == pytest.approx(0, abs=1e-9)


def _truth(rng: np.random.Generator, days: float) -> OperatingPointQuestion:
    """A plumbing of its own that looks like PATH: every part's figure moved in the question itself."""
    z = rng.standard_normal(5)
    spreads = np.array([FLOW_SPREAD, BOX_HEAD_SPREAD, FITTING_SPREAD, MEDIA_SPREAD, DIRT_SPREAD])
    flow, head, fittings, media, dirt = np.exp(z * spreads)
    rough = 0.0015 * (SLIMED_MM / 0.0015) ** rng.uniform()
    plain = question(days_since_cleaning=days)
    return plain.model_copy(
        update={
            "pump": plain.pump.model_copy(
                update={"max_flow_lph": plain.pump.max_flow_lph * flow, "max_head_m": plain.pump.max_head_m * head}
            ),
            "hoses": [hose.model_copy(update={"roughness_mm": rough}) for hose in plain.hoses],
            "fittings": [f.model_copy(update={"k": f.k_on(16.0) * fittings}) for f in plain.fittings],
            "media": [layer.model_copy(update={"depth_cm": layer.depth_cm * media}) for layer in plain.media],
            "feed_g_day": plain.feed_g_day * dirt,
        }
    )


@pytest.mark.parametrize("state", ["clean", "dirty"])
def test_the_range_holds_nine_in_ten_of_a_thousand_truths(state: str) -> None:
    rng = np.random.default_rng(20261201)
    held: FlowRange = getattr(plumbing_heads(question()), state)
    found = [operating_point(_truth(rng, 60)) for _ in range(1000)]
    flows = np.array([one.dirty_lph if state == "dirty" else one.delivered_lph for one in found])
    assert float(np.mean((flows >= held.low_lph) & (flows <= held.high_lph))) == pytest.approx(0.9, abs=0.03)
