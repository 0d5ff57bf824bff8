"""Proposals of the adaptive sampling: where the next draws are taken from."""

import math
from dataclasses import dataclass

import numpy as np

from reedmace.core.cycle.model.draw_weights import FREEDOM, Floats, effective_draws, normalized

WIDER, LEAST = 1.3, 0.1
"""Proposal variance as a multiple of the variance so far, and its floor as a share of the prior's spread."""
CARRIED = 1 / 25
"""Share of the draws that carries the tempered weights a round is centred on."""


def proposal_around(pool: Floats, weights: Floats, spread: Floats) -> "Student":
    """The next proposal. pool: draws so far (n, k); weights: theirs (n,); spread: of the prior (k,)."""
    middle = weights @ pool
    off = pool - middle
    around = WIDER * (weights[:, None] * off).T @ off + np.diag((LEAST * spread) ** 2)
    return Student(middle, np.asarray(np.linalg.cholesky(around), dtype=np.float64))


@dataclass(frozen=True)
class Student:
    """A multivariate t distribution with twelve degrees of freedom: a proposal with heavy tails.

    middle: (k,); root: lower root of its scale matrix (k, k).
    """

    middle: Floats
    root: Floats

    def draw(self, rng: np.random.Generator, n: int) -> Floats:
        """Points (n, k) of it. rng: takes the numbers; n: how many."""
        normal = rng.standard_normal((n, len(self.middle))) @ self.root.T
        found: Floats = self.middle + normal / np.sqrt(rng.chisquare(FREEDOM, n) / FREEDOM)[:, None]
        return found

    def log_density(self, points: Floats) -> Floats:
        """Its log density at points (n,). points: (n, k)."""
        d = len(self.middle)
        away = np.sum(((points - self.middle) @ np.linalg.inv(self.root).T) ** 2, axis=1)
        norm = (
            math.lgamma((FREEDOM + d) / 2)
            - math.lgamma(FREEDOM / 2)
            - d / 2 * math.log(FREEDOM * math.pi)
            - float(np.log(np.diag(self.root)).sum())
        )
        value: Floats = norm - (FREEDOM + d) / 2 * np.log1p(away / FREEDOM)
        return value


def tempered(log_weight: Floats) -> Floats:
    """Weights tempered just enough that sufficient draws carry them. log_weight: (n,)."""
    low, high = 0.0, 1.0
    if effective_draws(log_weight) >= len(log_weight) * CARRIED:
        return normalized(log_weight)
    for _ in range(18):
        power = (low + high) / 2
        if effective_draws(power * log_weight) > len(log_weight) * CARRIED:
            low = power
        else:
            high = power
    return normalized(low * log_weight)
