"""Broods from the logbook: stage, number, age, and what their young make."""

from datetime import timedelta
from typing import Any

import pytest

from reedmace.core.stock.brood import USUAL_COUNT
from reedmace.logbook.replay.broods import (
    Brood,
    broods_of,
    expected_free,
    fry_age_days,
    fry_length_now_cm,
    fry_load,
    species_of,
)
from tests.support.fitting import NOW, state_of


def step(what: str, days: float, **more: Any):
    return (days, {"kind": "brood", "brood": "brood-1", "species_id": "angelfish", "what": what, **more})


def one(*rows: Any) -> Brood:
    (found,) = broods_of(state_of(*rows))
    return found


SWIM = (step("pair", 20), step("free-swimming", 10))


@pytest.mark.parametrize(
    ("gone", "left", "over"),
    [
        ((), 60, False),
        ((step("lost", 5, count=10),), 50, False),
        ((step("sold", 5, count=80),), 0, True),
        ((step("moved", 5),), 0, True),
        ((step("lost", 5, count=10), step("counted", 4, count=45)), 45, False),
        ((step("ended", 5),), 60, True),
    ],
)
def test_what_went_is_taken_from_what_was_counted(gone: tuple, left: int, over: bool) -> None:
    found = one(*SWIM, step("counted", 8, count=60), *gone)
    assert (found.count, found.over) == (left, over)
    assert found.hatched != over


def test_of_a_number_nobody_knows_nobody_knows_what_is_left() -> None:
    found = one(*SWIM, step("lost", 5, count=10))
    assert (found.count, found.lost_count, found.over) == (None, 10, False)


def test_what_can_be_counted_swims() -> None:
    assert one(step("pair", 9), step("counted", 3, count=5)).free_at == NOW - timedelta(days=3)
    came = one(step("came", 2, count=30, free_at=(NOW - timedelta(days=25)).isoformat()))
    assert fry_age_days(came, NOW) == pytest.approx(25)


def test_warm_eggs_hatch_sooner_and_hatched_ones_only_have_to_swim() -> None:
    eggs, state = one(step("pair", 9), step("spawned", 1)), state_of()
    warm, cool = (expected_free(state, eggs, t) for t in (28.0, 23.0))
    assert warm is not None
    assert cool is not None
    assert warm < cool
    larvae = one(step("pair", 9), step("spawned", 3), step("hatched", 1))
    assert expected_free(state, larvae, 26.0) is not None
    assert expected_free(state, one(*SWIM), 26.0) is None
    assert expected_free(state, one(step("pair", 9)), 26.0) is None


def test_length_is_by_the_newest_measure_else_by_age() -> None:
    species = species_of(state_of(), "angelfish")
    assert species is not None
    measured = one(*SWIM, step("counted", 4, count=60, length_cm=1.5))
    assert fry_length_now_cm(species, measured, NOW - timedelta(days=4)) == pytest.approx(1.5)
    assert fry_length_now_cm(species, measured, NOW) > 1.5
    assert fry_length_now_cm(species, one(*SWIM), NOW) > fry_length_now_cm(species, one(*SWIM), NOW - timedelta(days=9))


def test_their_load_grows_by_itself_by_their_number() -> None:
    few, many = (state_of(*SWIM, step("counted", 8, count=n)) for n in (20, 60))
    assert fry_load(many, NOW) == pytest.approx(3 * fry_load(few, NOW))
    assert fry_load(many, NOW + timedelta(days=20)) > fry_load(many, NOW)
    uncounted = state_of(*SWIM)
    assert fry_load(uncounted, NOW) == pytest.approx(fry_load(few, NOW) * USUAL_COUNT / 20)
    assert fry_load(state_of(step("pair", 9), step("spawned", 1)), NOW) == 0
