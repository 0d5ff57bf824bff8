"""Foam skimmers: the label asked by litres and load."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.tank.skimmer import label_share


@pytest.mark.parametrize(
    ("food", "low", "high"),
    [(0.5, 300, 330), (6, 400, 520), (12, 600, 600)],
    ids=["a light reef: its own litres", "a community between", "a messy fish-only tank: twice its litres"],
)
def test_a_skimmer_for_300_litres_grows_with_the_load(food: float, low: float, high: float) -> None:
    assert low <= compute("skimmer-size", {"net_l": 300, "feed_g_day": food}).label_l <= high


@given(st.floats(0, 50), st.floats(20, 5000), st.floats(0, 5))
def test_more_food_never_asks_for_a_smaller_one_and_moves_it_by_its_share(
    food: float, litres: float, more: float
) -> None:
    before, after = label_share(food, litres), label_share(food + more, litres)
    assert before <= after <= before + more / litres * 100 + 1e-9


def test_a_narrow_chamber_and_a_small_box_are_said() -> None:
    answer = compute(
        "skimmer-size",
        {"net_l": 600, "feed_g_day": 12, "chamber_length_cm": 10, "chamber_width_cm": 40, "label_l": 300},
    )
    assert (answer.fits, answer.enough) == (False, False)
    assert "too little" in answer.verdict
    assert "wider chamber" in answer.verdict


def test_a_skimmer_within_a_tenth_of_what_is_asked_is_enough() -> None:
    asked = compute("skimmer-size", {"net_l": 400, "feed_g_day": 5}).label_l
    assert compute("skimmer-size", {"net_l": 400, "feed_g_day": 5, "label_l": asked * 0.92}).enough
