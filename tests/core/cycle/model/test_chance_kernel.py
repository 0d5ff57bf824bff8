"""Chances of what a kit read, against SciPy's normal distribution."""

import numpy as np
import pytest
from scipy.stats import norm

from reedmace.core.cycle.model.chance_kernel import above, chance_of, chances, log_likelihood


@pytest.mark.parametrize("z", [-8.0, -3.0, -0.5, 0.0, 0.5, 1.96, 3.0, 8.0])
def test_the_tail_is_that_of_the_normal_distribution(z: float) -> None:
    assert above(z) == pytest.approx(norm.sf(z), abs=1e-7)


@pytest.mark.parametrize(
    ("x", "low", "high", "zero"), [(0.4, 0.2, 0.6, 0.1), (2.0, 1.5, 3.0, 0.1), (0.0, -1, 0.1, 0.1)]
)
def test_an_eye_errs_in_proportion(x: float, low: float, high: float, zero: float) -> None:
    spread = 0.3 * zero + 0.11 * x
    expected = norm.cdf(high, x, spread) - norm.cdf(low, x, spread)
    assert chance_of(x, low, high, zero) == pytest.approx(expected, abs=1e-6)


def figures(count: int, draws: int = 5):
    rng = np.random.default_rng(3)
    values = rng.uniform(0, 2, (draws, count, 4))
    low = rng.uniform(0, 1, count)
    scale = rng.uniform(0.5, 2, count)
    columns = rng.integers(0, 4, count)
    return values, low, low + 0.5, np.full(count, 0.1), columns, np.arange(count), scale


@pytest.mark.parametrize("count", [1, 15, 16, 17, 60])
def test_the_likelihood_is_the_product_over_all_figures_however_many(count: int) -> None:
    values, low, high, zero, column, reading, scale = figures(count)
    wrong = np.full(count, 0.02)
    found = log_likelihood(values, low, high, zero, column, reading, scale, wrong)
    for d in range(len(values)):
        each = [
            0.98 * chance_of(values[d, j, column[j]] / scale[j], low[j], high[j], zero[j]) + 0.02 * 0.05
            for j in range(count)
        ]
        assert found[d] == pytest.approx(np.log(each).sum(), rel=1e-9)


def test_the_chance_of_a_figure_is_its_mean_over_the_draws() -> None:
    values, low, high, zero, column, reading, scale = figures(4)
    found = chances(values, low, high, zero, column, reading, scale)
    for j in range(4):
        each = [chance_of(v[j, column[j]] / scale[j], low[j], high[j], zero[j]) for v in values]
        assert found[j] == pytest.approx(np.mean(each))
