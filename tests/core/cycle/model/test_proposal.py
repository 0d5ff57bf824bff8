"""Proposals of the adaptive sampling."""

import numpy as np
import pytest
from scipy.stats import multivariate_t

from reedmace.core.cycle.model.draw_weights import FREEDOM, effective_draws, normalized
from reedmace.core.cycle.model.proposal import CARRIED, LEAST, Student, proposal_around, tempered

RNG = np.random.default_rng(7)
SPREAD = np.array([0.5, 0.2])


def test_the_density_is_that_of_a_multivariate_t() -> None:
    scale = np.array([[0.4, 0.1], [0.1, 0.3]])
    ours = Student(np.array([1.0, -2.0]), np.linalg.cholesky(scale))
    points = RNG.normal(size=(50, 2)) * 2
    # SciPy's own distribution.
    theirs = multivariate_t(loc=ours.middle, shape=scale, df=FREEDOM).logpdf(points)
    assert ours.log_density(points) == pytest.approx(theirs, rel=1e-10)


def test_draws_lie_as_the_density_says() -> None:
    scale = np.array([[0.4, 0.1], [0.1, 0.3]])
    drawn = Student(np.array([1.0, -2.0]), np.linalg.cholesky(scale)).draw(RNG, 40_000)
    assert drawn.mean(axis=0) == pytest.approx([1, -2], abs=0.02)
    # The covariance of a t distribution is its scale times v / (v - 2).
    assert np.cov(drawn.T) == pytest.approx(scale * FREEDOM / (FREEDOM - 2), abs=0.02)


def test_a_proposal_stands_where_the_weight_is_and_never_shrinks_to_a_point() -> None:
    pool = RNG.normal(size=(500, 2))
    near = normalized(-50 * np.sum((pool - [1.0, 0.5]) ** 2, axis=1))
    assert proposal_around(pool, near, SPREAD).middle == pytest.approx([1.0, 0.5], abs=0.1)
    alone = np.zeros(500)
    alone[3] = 1.0
    one = proposal_around(pool, alone, SPREAD)
    assert one.middle == pytest.approx(pool[3])
    assert np.diag(one.root) == pytest.approx(LEAST * SPREAD)


def test_weights_are_tempered_only_as_far_as_enough_draws_carry_them() -> None:
    even = np.zeros(1000)
    assert tempered(even) == pytest.approx(np.full(1000, 1e-3))
    steep = -np.linspace(0, 4000, 1000)
    found = tempered(steep)
    assert found.sum() == pytest.approx(1)
    assert 1 / np.sum(found**2) >= 1000 * CARRIED * 0.99
    assert effective_draws(steep) < 1000 * CARRIED
    # The order of the draws stays.
    assert (np.diff(found) <= 0).all()
