"""Prior of the cycle model: medians and spreads of its parameters, by method, helpers and plants."""

import numpy as np
import pytest

from reedmace.core.cycle.model.inputs import still_conditions
from reedmace.core.cycle.model.nitrogen_kernel import (
    KA,
    THETA,
    simulate,
)
from reedmace.core.cycle.model.prior import PRIOR_MEDIAN


def run(parameters=None, *, days=40, start=(1.5, 0, 0, 100), events=(), dose=0.0, today=10**6, hold=0.0, theta=1.0):
    rows = np.array([PRIOR_MEDIAN if parameters is None else parameters])
    steps, kinds, values = (
        np.array([e[i] for e in events], dtype=t) for i, t in ((0, np.int64), (1, np.int64), (2, float))
    )
    conditions = still_conditions(days, 25)
    conditions[:, THETA], conditions[:, KA] = theta, 5.7e-10
    aim = np.array([dose, 0.1, 1.5, hold, 0, 0, 0, 0.04, 0])
    return simulate(
        rows,
        np.array(start, float),
        conditions,
        steps,
        kinds,
        values,
        np.zeros(4),
        today,
        days,
        aim,
        np.zeros((0, 2), np.int64),
    )


def test_no_film_changes_nothing() -> None:
    parameters = PRIOR_MEDIAN.copy()
    parameters[:2] = 0
    daily, _, passed, _ = run(parameters)
    assert daily[0, -1] == pytest.approx([1.5, 0, 0, 100])
    assert np.isnan(passed[0])
