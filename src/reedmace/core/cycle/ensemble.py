"""The ensemble behind every forecast: draws of the parameters, weighed by the readings, run onwards."""

import hashlib
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from reedmace.core.cycle.course import PRIOR_SPREAD, Ahead, aim_of, course_of, prior_median, step_of
from reedmace.core.cycle.doubt import doubts, figures_of
from reedmace.core.cycle.kernel import PARAMETERS, log_likelihood, simulate
from reedmace.core.cycle.log import CycleLog

Floats = NDArray[np.float64]
FEWEST = 80.0


@dataclass(frozen=True)
class Ensemble:
    """Draws (n, 10) as logarithms, their weights (n,) summing to 1, and how many carry the weight."""

    rows: Floats
    weights: Floats
    effective: float


@dataclass(frozen=True)
class Future:
    """Daily states (n, days + 1, 4), pass day (n,), infinite for never, and the nitrogen's largest gap, mg N/L."""

    daily: Floats
    late: Floats
    drift_mg_n_l: float


def weigh(log: CycleLog, draws: int) -> Ensemble:
    """Draws from the prior of this log, weighed by its readings; drawn again around the best when too few carry it.

    log: the cycle's; draws: how many. Deterministic: the draws take their seed from the log.
    """
    rng = np.random.default_rng(int.from_bytes(hashlib.sha256(log.model_dump_json().encode()).digest()[:8], "big"))
    center, spread = np.log(prior_median(log)), PRIOR_SPREAD
    readings = sorted(log.readings, key=lambda r: r.day)
    keep = np.array([step_of(r.day) for r in readings], dtype=np.int64)
    until = int(log.day_now) + 1
    course, aim = course_of(log, until), aim_of(log, Ahead())
    figures = figures_of(log, readings, doubts(log)).rows()

    def likelihood(rows: Floats) -> Floats:
        # Weighing needs the past only; the future is run once, for the draws that are kept.
        kept = simulate(
            np.exp(rows),
            course.start,
            course.conditions,
            course.steps,
            course.kinds,
            course.values,
            course.tap,
            step_of(log.day_now),
            until,
            aim,
            keep,
        )[1]
        weighed: Floats = log_likelihood(kept, *figures)
        return weighed

    rows = center + spread * rng.standard_normal((draws, PARAMETERS))
    log_weight = likelihood(rows)
    effective = _effective(log_weight)
    for _ in range(3):
        if effective >= min(FEWEST, draws / 4) or not len(keep):
            break
        # Too few draws explain the log: draw again around those that come nearest, and weigh by prior over proposal.
        softened = _normalised(log_weight * min(1.0, 0.25 + effective / FEWEST))
        middle = softened @ rows
        around = (softened[:, None] * (rows - middle)).T @ (rows - middle) + np.diag((0.25 * spread) ** 2)
        rows = rng.multivariate_normal(middle, around, size=draws, method="cholesky")
        away = np.linalg.solve(np.linalg.cholesky(around), (rows - middle).T)
        proposal = -0.5 * np.sum(away**2, axis=0)
        prior = -0.5 * np.sum(((rows - center) / spread) ** 2, axis=1)
        log_weight = likelihood(rows) + prior - proposal
        effective = _effective(log_weight)
    return Ensemble(rows, _normalised(log_weight), effective)


def run_on(log: CycleLog, ensemble: Ensemble, days: int, ahead: Ahead) -> Future:
    """Every draw through the log and on. log: the cycle's; ensemble: weighed; days: horizon; ahead: done from today."""
    course = course_of(log, days, ahead)
    daily, _, passed, drift = simulate(
        np.exp(ensemble.rows),
        course.start,
        course.conditions,
        course.steps,
        course.kinds,
        course.values,
        course.tap,
        step_of(log.day_now),
        days,
        aim_of(log, ahead),
        np.zeros(0, dtype=np.int64),
    )
    return Future(daily, np.where(np.isnan(passed), np.inf, passed), float(drift.max()))


def percentiles(values: Floats, weights: Floats) -> tuple[float, float, float]:
    """Weighted 10th, 50th and 90th percentile. values: (n,); weights: (n,)."""
    order = np.argsort(values)
    cumulative = np.cumsum(weights[order])
    cumulative /= cumulative[-1]
    picked = values[order][np.searchsorted(cumulative, [0.1, 0.5, 0.9]).clip(0, len(values) - 1)]
    return float(picked[0]), float(picked[1]), float(picked[2])


def resample(weights: Floats) -> NDArray[np.int64]:
    """Indices that stand for the weighted ensemble: taken in proportion to weight, evenly spaced. weights: (n,)."""
    n = len(weights)
    again: NDArray[np.int64] = np.searchsorted(np.cumsum(weights), (np.arange(n) + 0.5) / n).clip(0, n - 1)
    return again


def _normalised(log_weight: Floats) -> Floats:
    weights = np.exp(log_weight - log_weight.max())
    return weights / float(weights.sum())  # type: ignore[no-any-return]


def _effective(log_weight: Floats) -> float:
    return float(1.0 / np.sum(_normalised(log_weight) ** 2))
