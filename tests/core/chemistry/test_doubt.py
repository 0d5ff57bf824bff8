"""Independent doubts add by squares, and the largest is named."""

import pytest

from reedmace.core.chemistry.doubt import doubt_of


def test_the_range_is_wider_than_its_largest_part_and_narrower_than_their_sum() -> None:
    found = doubt_of(20.0, {"the litres": 1.0, "the product": 2.0, "the test": 2.0})
    assert (found.low, found.high) == pytest.approx((17.0, 23.0))
    assert found.by == "the product"


def test_no_figure_is_doubted_below_nothing() -> None:
    assert doubt_of(1.0, {"the drops": 5.0}) == (0.0, 6.0, "the drops")
