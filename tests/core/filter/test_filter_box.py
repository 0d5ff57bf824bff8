"""A filter as its box describes it, and what cannot be."""

import pytest
from pydantic import ValidationError

from reedmace.core.filter.filter_box import Filter
from reedmace.demo.sample_boxes import SAMPLE_BOXES

CANISTER = next(f for f in SAMPLE_BOXES if f.kind == "canister")
SPONGE = next(f for f in SAMPLE_BOXES if f.kind == "sponge")


def changed(f: Filter, **changes: object) -> Filter:
    return Filter.model_validate(f.model_dump() | changes)


@pytest.mark.parametrize(
    ("box", "changes", "words"),
    [
        (CANISTER, {"max_head_m": None}, "needs max_head_m"),
        (SPONGE, {"tube_bore_mm": None}, "tube_bore_mm"),
        (SPONGE, {"air_l_min": None}, "needs air_l_min"),
    ],
)
def test_what_moves_the_water_must_be_known(box: Filter, changes: dict, words: str) -> None:
    with pytest.raises(ValidationError, match=words):
        changed(box, **changes)


@pytest.mark.parametrize(
    "points",
    [
        [(0, 2), (900, 0)],
        [(10, 2), (400, 1), (900, 0)],
        [(0, 2), (400, 1), (900, 0.1)],
        [(0, 2), (400, 2), (900, 0)],
        [(0, 2), (950, 1), (900, 0)],
    ],
    ids=["two points", "not from no flow", "not to no head", "head level", "flow falls"],
)
def test_a_curve_falls_from_no_flow_to_no_head(points: list[tuple[float, float]]) -> None:
    with pytest.raises(ValidationError, match="three points or more"):
        changed(CANISTER, curve=[{"flow_lph": q, "head_m": h} for q, h in points])


def test_where_its_motor_stands_is_as_said_else_as_is_usual() -> None:
    assert changed(CANISTER, pump_in_water=True).pump_wet
    assert not changed(CANISTER, pump_in_water=None).pump_wet
    internal = next(f for f in SAMPLE_BOXES if f.kind == "internal")
    assert changed(internal, pump_in_water=None).pump_wet
    hang_on = next(f for f in SAMPLE_BOXES if f.kind == "hang-on")
    for alone in (True, False):
        assert changed(hang_on, pump_in_water=None, restarts_alone=alone).pump_wet == alone


def test_its_sound_is_by_decibels_where_they_are_known_and_its_body_by_its_outside() -> None:
    assert changed(CANISTER, noise=3, noise_db=None).noise_step == 3
    louder, softer = (changed(CANISTER, noise_db=db).noise_step for db in (50, 30))
    assert louder > softer
    assert changed(CANISTER, height_cm=40, width_cm=25, depth_cm=20).body_l == 20
