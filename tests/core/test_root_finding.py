"""Roots between two points of opposite sign."""

import math

import pytest

from reedmace.core.root_finding import root_between


def test_the_root_is_found_to_the_last_figures() -> None:
    assert root_between(lambda x: x**3 - 2, 0, 2) == pytest.approx(2 ** (1 / 3), abs=1e-11)
    assert root_between(math.cos, 0, 3) == pytest.approx(math.pi / 2, abs=1e-11)


def test_a_coarser_root_is_as_near_as_was_asked() -> None:
    assert abs(root_between(lambda x: x - 0.3, 0, 1, xtol=0.01, rtol=1e-3) - 0.3) <= 0.01


def test_two_points_of_one_sign_are_refused() -> None:
    with pytest.raises(ValueError, match="different signs"):
        root_between(lambda x: x + 1, 0, 1)
