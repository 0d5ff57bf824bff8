"""Noise where it is heard: energies add, a fall grows as the water drops, a shared air pump stands elsewhere."""

import math

import pytest

from reedmace.core.filter import (
    NoiseHeardQuestion,
    NoiseSource,
    RankFiltersQuestion,
    noise_heard,
    rank_filters,
)
from reedmace.core.filter.site.site import Priorities, Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES

HANG_ON = NoiseSource(noise=2, falls_lph=480)


def level(*filters: NoiseSource, **more: object) -> float:
    return noise_heard(NoiseHeardQuestion(filters=list(filters), **more)).level_db


def test_two_alike_are_three_decibels_louder_than_one() -> None:
    one = NoiseSource(noise=3)
    assert level(one, one) - level(one) == pytest.approx(10 * math.log10(2))


@pytest.mark.parametrize("step", [1, 2, 3, 4, 5])
def test_a_closed_filter_sounds_as_its_step_however_low_the_water(step: int) -> None:
    assert level(NoiseSource(noise=step), fall_cm=3) == pytest.approx(20 + 6 * (step - 1))
    assert level(NoiseSource(noise=step), fall_cm=12) == pytest.approx(20 + 6 * (step - 1))


def test_a_level_on_the_box_decides_and_doors_muffle_only_what_stands_beneath() -> None:
    canister = NoiseSource(noise=5, level_db=33, beneath=True)
    assert level(canister) == pytest.approx(33)
    assert level(canister, cabinet_shut=True) == pytest.approx(27)
    assert level(NoiseSource(noise=1, beneath=True), cabinet_shut=True) == pytest.approx(20)
    assert level(HANG_ON, cabinet_shut=True) == pytest.approx(level(HANG_ON))


def test_a_lid_muffles_falls_and_bubbles_and_not_a_motor() -> None:
    bubbles = NoiseSource(noise=4, air_driven=True)
    assert level(bubbles) - level(bubbles, lid=True) == pytest.approx(3)
    assert level(HANG_ON, fall_cm=12) - level(HANG_ON, fall_cm=12, lid=True) == pytest.approx(3, abs=0.5)
    assert level(NoiseSource(noise=4), lid=True) == pytest.approx(level(NoiseSource(noise=4)))


def test_a_fall_is_louder_the_lower_the_water_and_the_answer_says_top_up() -> None:
    heights = [level(HANG_ON, fall_cm=fall) for fall in (3, 4, 6, 9, 14)]
    assert heights == sorted(set(heights))
    # 8 L/min falling 5 cm further: 18 + 10 log 40, with the box's own 26.
    assert level(HANG_ON, fall_cm=8) == pytest.approx(
        10 * math.log10(10**2.6 + 10 ** ((18 + 10 * math.log10(40)) / 10))
    )
    answer = noise_heard(NoiseHeardQuestion(filters=[HANG_ON], fall_cm=3))
    assert answer.dropped_db > answer.level_db + 3
    assert "top it up" in answer.verdict


def test_the_same_filter_disturbs_a_bedroom_and_is_lost_in_a_fish_room() -> None:
    loud = NoiseSource(noise=4)
    said = {
        w: noise_heard(NoiseHeardQuestion(filters=[loud], where=w)).heard for w in ("bedroom", "living", "fish-room")
    }
    assert said == {"bedroom": "disturbs", "living": "heard", "fish-room": "hardly"}


def test_an_air_pump_for_the_whole_room_is_neither_heard_nor_paid_for_at_each_tank() -> None:
    def sponge(**more: object):
        room = Site(net_l=50, water_depth_cm=30, length_cm=60, width_cm=30, **more)
        ranked = rank_filters(
            RankFiltersQuestion(site=room, priorities=Priorities(price=5), own_filters=list(SAMPLE_BOXES))
        ).ranked
        return next(c for c in ranked if c.kind == "sponge")

    alone, shared = sponge(), sponge(tanks_here_count=6)
    box = {f.id: f for f in SAMPLE_BOXES}
    assert shared.price == box[shared.filter_id].price
    assert alone.price > box[alone.filter_id].price + 8
    assert alone.air_pump_price == pytest.approx(8 + 4 * (box[alone.filter_id].air_l_min or 0))
    assert shared.noise_db <= 20 + 6 * (box[shared.filter_id].noise - 1)


def test_a_lower_water_line_makes_a_hang_on_louder_in_the_ranking_and_a_canister_not() -> None:
    def heard(kind: str, rim: float) -> dict[str, float]:
        room = Site(net_l=120, water_depth_cm=38, length_cm=90, width_cm=40, rim_to_water_cm=rim)
        ranked = rank_filters(RankFiltersQuestion(site=room, own_filters=list(SAMPLE_BOXES))).ranked
        return {c.filter_id: c.noise_db for c in ranked if c.kind == kind}

    full, low = heard("hang-on", 3), heard("hang-on", 5)
    both = full.keys() & low.keys()
    assert both
    assert all(low[i] > full[i] for i in both)
    assert (
        heard("canister", 3).items()
        >= {i: v for i, v in heard("canister", 5).items() if i in heard("canister", 3)}.items()
    )


def test_a_stone_makes_bubbles_quieter_and_leaves_a_motor_as_it_is() -> None:
    bubbles, motor = NoiseSource(noise=4, air_driven=True), NoiseSource(noise=4)
    assert level(bubbles) - level(bubbles, stones=True) == pytest.approx(3)
    assert level(motor, stones=True) == level(motor)
    assert level(NoiseSource(noise=1, air_driven=True), stones=True) == pytest.approx(20)
