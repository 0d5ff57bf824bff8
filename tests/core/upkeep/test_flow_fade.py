"""The next cleaning foretold on simulated filters of another build than the fit: hoses that rub by Blasius, dirt that
comes by fits.
"""

import math

import numpy as np
import pytest
from scipy.optimize import brentq

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer
from reedmace.core.upkeep.cleaning_interval import SERVICE_SHARE

FILTERS, WITHIN = 200, 0.2


class DirtyFilter:
    """A pump on hoses, and dirt that gathers day by day, more on some than on others."""

    def __init__(self, rng: np.random.Generator) -> None:
        self.most_lph = rng.uniform(250, 2500)
        self.head_m = rng.uniform(0.6, 2.5)
        # Of the head, at free flow: hoses by Q^1.75, fittings by Q².
        self.hose, self.fittings = rng.uniform(0.05, 0.5), rng.uniform(0.05, 0.4)
        self.life_days = rng.uniform(20, 150)
        daily = rng.gamma(4.0, 0.25, 600)
        # Dirt that holds it at the limit on the day its life is over.
        self._dirt = np.concatenate(([0.0], np.cumsum(daily)))
        self.clean = self._flow(0.0)
        limit = SERVICE_SHARE * self.clean
        x = limit / self.most_lph
        spare = 1 - x**2 - self.hose * x**1.75 - self.fittings * x**2
        self._per_unit = spare / x / np.interp(self.life_days, np.arange(601), self._dirt)

    def _flow(self, dirt: float) -> float:
        def spare(x: float) -> float:
            return 1 - x**2 - self.hose * x**1.75 - self.fittings * x**2 - dirt * x

        return float(brentq(spare, 0, 1)) * self.most_lph

    def flow(self, day: float) -> float:
        return self._flow(self._per_unit * float(np.interp(day, np.arange(601), self._dirt)))


def foretold(filter_: DirtyFilter, rng: np.random.Generator) -> float | None:
    """The day the keeper is told, from one test on the clean filter and a few at odd days up to three fifths of its
    life.
    """
    days = [0.0, *np.sort(rng.uniform(0.1, 0.6, rng.integers(3, 6)) * filter_.life_days)]
    days[-1] = 0.6 * filter_.life_days
    # Three fills of a jug, each sure to some 3 %.
    tests = [
        {"day": float(day), "flow_lph": filter_.flow(day) * float(np.mean(rng.normal(1, 0.03, 3)))} for day in days
    ]
    return compute("flow-fade", {"tests": tests}).service_day


def test_the_filter_of_the_test_reaches_its_limit_on_the_day_it_says() -> None:
    one = DirtyFilter(np.random.default_rng(5))
    assert one.flow(one.life_days) == pytest.approx(SERVICE_SHARE * one.clean, rel=1e-6)
    assert one.flow(one.life_days / 2) > SERVICE_SHARE * one.clean


def test_four_in_five_dates_lie_within_a_fifth_of_the_truth() -> None:
    rng = np.random.default_rng(20261126)
    off = []
    for _ in range(FILTERS):
        one = DirtyFilter(rng)
        told = foretold(one, rng)
        off.append(np.inf if told is None else told / one.life_days - 1)
    hits = np.abs(off) <= WITHIN
    print(f"within a fifth: {hits.mean():.0%}; median {np.median(off):+.0%}")
    assert hits.mean() >= 0.8
    assert abs(np.median(off)) < 0.1


def test_fade_finds_the_rate_it_was_made_with() -> None:
    clean, rate = 750.0, 6e-6

    def at(day):
        r = rate * day * clean
        return clean * (math.sqrt(r * r + 4) - r) / 2

    answer = compute("flow-fade", {"tests": [{"day": d, "flow_lph": at(d)} for d in (0, 30, 75, 120)]})
    assert answer.clean_lph == pytest.approx(clean, rel=0.01)
    assert at(answer.service_day) == pytest.approx(0.7 * clean, rel=0.02)


def test_fade_needs_time_between_tests_and_a_flow_that_falls() -> None:
    with pytest.raises(CannotAnswer, match="within a day"):
        compute("flow-fade", {"tests": [{"day": 0, "flow_lph": 700}, {"day": 0.2, "flow_lph": 690}]})
    assert (
        compute("flow-fade", {"tests": [{"day": 0, "flow_lph": 700}, {"day": 60, "flow_lph": 700}]}).service_day is None
    )
