"""Chances of draws and their weights."""

import math

import numpy as np
import pytest

from reedmace.core.cycle.model.draw_weights import effective_draws, evenly, normalized, percentiles, resample


def test_weights_sum_to_one_however_small_their_logarithms() -> None:
    weights = normalized(np.array([-5000.0, -5000.0, -5000.0 + math.log(2)]))
    assert weights == pytest.approx([0.25, 0.25, 0.5])
    assert effective_draws(np.zeros(40)) == pytest.approx(40)
    assert effective_draws(np.array([0.0, -900.0, -900.0])) == pytest.approx(1)


def test_draws_are_taken_in_proportion_to_their_weight() -> None:
    again = evenly(np.array([0.5, 0.25, 0.25, 0.0]), 1000)
    assert np.bincount(again, minlength=4).tolist() == [500, 250, 250, 0]
    assert len(resample(np.full(7, 1 / 7))) == 7


def test_percentiles_of_equal_days_spread_half_a_day_each_way() -> None:
    days = np.arange(10.0, 20.0)
    low, middle, high = percentiles(days, np.full(10, 0.1))
    assert (low, middle, high) == pytest.approx((10.5, 14.5, 18.5))


def test_what_never_passes_is_never() -> None:
    days = np.array([10.0, 11.0, math.inf, math.inf])
    low, middle, high = percentiles(days, np.array([0.3, 0.3, 0.2, 0.2]))
    assert low < middle < 12
    assert math.isinf(high)
    assert all(map(math.isinf, percentiles(np.full(3, math.inf), np.ones(3))))
