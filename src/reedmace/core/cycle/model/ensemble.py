"""Ensemble of model parameters: draws from the prior, weighted by the readings, projected forward."""

import hashlib
import json
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from reedmace.core.cycle.model.chance_kernel import chances
from reedmace.core.cycle.model.draw_weights import (
    HALF_LOG,
    KIT_SPREAD,
    KITS,
    Floats,
    effective_draws,
    evenly,
    log_chances,
    normalized,
    reading_worth,
)
from reedmace.core.cycle.model.inputs import Scenario, aim_of, model_input_of, step_of, with_first_dose
from reedmace.core.cycle.model.nitrogen_kernel import A0, B0, LAG, MU_A, MU_B, PARAMETERS
from reedmace.core.cycle.model.prior import below_median, prior_median, prior_spread, spread_out
from reedmace.core.cycle.model.proposal import proposal_around, tempered
from reedmace.core.cycle.model.simulation_kernel import simulate
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.suspect_readings import Figures, figures_of, suspect_readings
from reedmace.core.flow.hydraulic_kernel import set_threads

ENOUGH, ROUNDS = 200.0, 11
"""Effective sample size at which sampling stops, and the most rounds."""
LONG_DAYS = 120
"""Length in days beyond which half as many draws are used: cost grows with days, and the date is no longer near."""
REMEMBERED, USUAL_DRAWS = 16, 1000
"""Number of cached ensembles, those of one keeper's tanks (each about 0.1 MB), and the default number of draws."""
MISFIT_CHANCE, ASKED = 0.02, 64
"""Likelihood of a figure, given the best draws, below which it is a misfit; number of draws checked."""
LEFT_OUT, LEFT_OUT_DAYS = 0.14, 0.6
"""Spread of the remaining days for all that no parameter explains.

As a logarithm, and in days near the end, where tests come once a day (tuned likewise).
"""
GROWN_MG_N_L_DAY = 5.0
"""Capacity of a grown film, by which draws are sorted; no result depends on it (a round figure)."""


@dataclass(frozen=True)
class Ensemble:
    """Weighted posterior draws.

    Draws (n, 13) as logarithms, their weights (n,) summing to 1, the effective sample size, and the number of misfits.
    """

    rows: Floats
    weights: Floats
    effective: float
    figures: int = 0
    misfits: int = 0


@dataclass(frozen=True)
class Future:
    """Daily states (n, days + 1, 4), pass day (n,), infinite for never, and the largest nitrogen imbalance, mg N/L."""

    daily: Floats
    late: Floats
    drift_mg_n_l: float


def condition(log: CycleLog, draws: int) -> Ensemble:
    """Draws from the prior of this log, weighted by its readings; resampled around the best when too few carry weight.

    log: the cycle's; draws: how many. Deterministic: the draws take their seed from the log. Forecast, what-if and
    readiness of one log ask for the same ensemble: it is remembered, and since nothing but the log goes in, no other
    process can hold another one.
    """
    return _condition(_in_order(log).model_dump_json(), draws)


def forget() -> None:
    """Clear the cache, so that a benchmark recomputes."""
    _condition.cache_clear()


def condition_at(log: CycleLog, days: list[float], draws: int, fewer: int) -> list[Ensemble]:
    """The same draws weighted by the readings up to each of several days: the forecast as it stood then.

    log: the cycle's; days: since the start; draws: drawn, all of them kept for today; fewer: kept for any day before.
    One set of draws serves all; that of today is what `condition` gives.
    """
    pool = _adapt(_in_order(log), draws)
    if pool is None:
        return [condition(log, draws) for _ in days]
    # Day by day only the new figures are evaluated.
    found, likely, upto = {}, np.zeros(len(pool.rows)), 0
    for day in sorted(set(days)):
        read = pool.read_by(day)
        likely = likely + log_chances(pool.states, pool.figures.between(upto, read))
        upto = read
        found[day] = pool.ensemble(likely, read, draws if day >= log.day_now else fewer)
    return [found[day] for day in days]


def _in_order(log: CycleLog) -> CycleLog:
    """The log with its entries sorted, so that the order of typing does not change the draws."""
    lists = ("readings", "doses", "changes", "alkalinity")
    return log.model_copy(update={name: sorted(getattr(log, name), key=lambda one: one.day) for name in lists})


@lru_cache(maxsize=REMEMBERED)
def _condition(text: str, draws: int) -> Ensemble:
    log = CycleLog.model_validate_json(text)
    pool = _adapt(log, draws)
    if pool is None:
        rows = np.log(prior_median(log)) + spread_out(_rng(log).standard_normal((draws, PARAMETERS)), prior_spread(log))
        return Ensemble(rows, np.full(draws, 1.0 / draws), float(draws))
    read = len(pool.days)
    return pool.ensemble(log_chances(pool.states, pool.figures), read, draws)


def _rng(log: CycleLog) -> np.random.Generator:
    # The seed leaves out the clock and what changes words alone: the same log an hour later has the same draws. What
    # stands at its default is left out too, in any order: a field that comes later moves no forecast.
    said = log.model_dump(mode="json", exclude={"day_now", "temperature_known", "co2_given"}, exclude_defaults=True)
    text = json.dumps(said, sort_keys=True).encode()
    return np.random.default_rng(int.from_bytes(hashlib.sha256(text).digest()[:8], "big"))


@dataclass(frozen=True)
class _Pool:
    """All draws of all rounds.

    rows (n, 13), the states at the readings (n, r, 4), the prior's and the mixture's log density (n,), the figures
    read, and the days of the readings (r,).
    """

    rows: Floats
    states: Floats
    prior: Floats
    mixture: Floats
    figures: Figures
    days: Floats

    def read_by(self, day: float) -> int:
        """Readings made by a day. day: since the start."""
        return int(np.searchsorted(self.days, day, side="right"))

    def ensemble(self, likely: Floats, read: int, draws: int) -> Ensemble:
        """A weighted sample of the pool. likely: log likelihood of the readings (n,); read: number of readings."""
        figures = self.figures.between(0, read)
        log_weight = likely * reading_worth(figures) + self.prior - self.mixture
        effective = effective_draws(log_weight)
        chosen, counts = np.unique(evenly(normalized(log_weight), draws), return_counts=True)
        weights = counts / float(counts.sum())
        fit = chances(self.states[chosen][evenly(weights, ASKED)], *figures.rows()[:-1])
        kept = self.rows[chosen, :PARAMETERS]
        # Cached and shared, so the arrays are read-only.
        kept.flags.writeable = weights.flags.writeable = False
        return Ensemble(kept, weights, effective, len(fit), int((fit < MISFIT_CHANCE).sum()))


def _run_to_tests(log: CycleLog) -> Callable[[Floats], Floats] | None:
    """The states at the tests for given draws (n, 13) to (n, r, 4); None where nothing was read.

    Weighting needs the past only; the future is run once, for the draws that are kept.
    """
    until = int(log.day_now) + 1
    model_input, aim = model_input_of(log, until), aim_of(log, Scenario())
    sample_steps = model_input.sample_steps([r.day for r in log.readings])
    event_steps = model_input.steps
    if not len(sample_steps):
        return None

    def past(rows: Floats) -> Floats:
        states = simulate(
            np.exp(rows[:, :PARAMETERS]),
            model_input.start,
            model_input.conditions,
            event_steps,
            model_input.kinds,
            model_input.values,
            model_input.tap,
            step_of(log.day_now),
            until,
            aim,
            sample_steps,
        )[1]
        states[:, :, :KITS] *= np.exp(rows[:, None, PARAMETERS:])
        return states

    return past


def _adapt(log: CycleLog, draws: int) -> _Pool | None:
    """Adaptive multiple importance sampling; None where nothing was read.

    Every round draws around what earlier rounds found, and every draw of every round counts, weighted by prior times
    likelihood over the mixture of all proposals.
    """
    set_threads(draws)
    rng = _rng(log)
    # Besides the tank's own parameters, the bias of its kits.
    center = np.concatenate([np.log(prior_median(log)), np.zeros(KITS)])
    spread = np.concatenate([prior_spread(log), np.full(KITS, KIT_SPREAD)])
    past = _run_to_tests(log)
    if past is None:
        return None
    figures = figures_of(log, log.readings, suspect_readings(log))

    below = below_median(spread)

    def prior(points: Floats) -> Floats:
        wide = np.where(points < center, below, spread)
        value: Floats = -0.5 * np.sum(((points - center) / wide) ** 2, axis=1) - np.log(wide).sum(axis=1) - HALF_LOG
        return value

    pool = center + spread_out(rng.standard_normal((draws, len(center))), spread)
    states, sizes = past(pool), [draws]
    proposals: list[Callable[[Floats], Floats]] = [prior]
    densities = prior(pool)[None, :]
    worth = reading_worth(figures)
    likely = worth * log_chances(states, figures)
    enough = min(ENOUGH, draws / 2) * (0.5 if int(log.day_now) + 1 > LONG_DAYS else 1.0)
    while True:
        before = densities[0]
        mixture = np.logaddexp.reduce(densities + np.log(np.array(sizes) / len(pool))[:, None], axis=0)
        log_weight = likely + before - mixture
        if effective_draws(log_weight) >= enough or len(proposals) == ROUNDS:
            break
        proposal = proposal_around(pool, tempered(log_weight), spread)
        rows = proposal.draw(rng, max(draws // 2, 50))
        more = past(rows)
        # Density of every proposal at every draw, each computed once.
        new = np.array([density(rows) for density in proposals])
        densities = np.vstack([np.hstack([densities, new]), proposal.log_density(np.concatenate([pool, rows]))])
        sizes.append(len(rows))
        pool, states = np.concatenate([pool, rows]), np.concatenate([states, more])
        likely = np.concatenate([likely, worth * log_chances(more, figures)])
        proposals.append(proposal.log_density)
    return _Pool(pool, states, before, mixture, figures, np.array([r.day for r in log.readings]))


def _pace_days(parameters: Floats) -> Floats:
    """About how long each draw takes to grow a film (n,), days.

    Draws are simulated in blocks, each until its slowest has passed: sorted by this, blocks end sooner. parameters:
    (n, 13).
    """
    found: Floats = parameters[:, LAG]
    for first, growth in ((A0, MU_A), (B0, MU_B)):
        found = found + np.log(GROWN_MG_N_L_DAY / parameters[:, first]) / parameters[:, growth]
    return found


def fewer_draws(ensemble: Ensemble, draws: int) -> Ensemble:
    """An ensemble of fewer draws that stand evenly for all of them from the quickest to the slowest.

    ensemble: of n draws with their weights; draws: how many, at least 1.
    """
    order = np.argsort(_pace_days(np.exp(ensemble.rows)), kind="stable")
    chosen = order[np.searchsorted(np.cumsum(ensemble.weights[order]), (np.arange(draws) + 0.5) / draws)]
    return Ensemble(ensemble.rows[chosen], np.full(draws, 1.0 / draws), float(draws))


def project(log: CycleLog, ensemble: Ensemble, days: int, scenario: Scenario) -> Future:
    """Every draw simulated through the log and beyond.

    log: the cycle's; ensemble: weighted; days: horizon; scenario: from today.
    """
    log = with_first_dose(log)
    set_threads(len(ensemble.rows))
    model_input = model_input_of(log, days, scenario)
    parameters = np.exp(ensemble.rows)
    order = np.argsort(_pace_days(parameters), kind="stable")
    daily, _, passed, drift = simulate(
        parameters[order],
        model_input.start,
        model_input.conditions,
        model_input.steps,
        model_input.kinds,
        model_input.values,
        model_input.tap,
        step_of(log.day_now),
        days,
        aim_of(log, scenario),
        np.zeros((0, 2), dtype=np.int64),
    )
    back = np.argsort(order)
    daily, passed = daily[back], passed[back]
    late = np.where(np.isnan(passed), np.inf, passed)
    if log.method != "planted":
        # Four weeks of growth are a rule, not an estimate; everything else may be a little faster or slower than any
        # draw.
        away = np.random.default_rng(5).standard_normal(len(late))
        ahead = late - log.day_now
        spread = np.hypot(LEFT_OUT, LEFT_OUT_DAYS / np.maximum(ahead, 2.0))
        late = log.day_now + ahead * np.exp(spread * away)
    return Future(daily, late, float(drift.max()))


def share_passing_within(log: CycleLog, days: float, draws: int = USUAL_DRAWS) -> float:
    """Weight of the draws that would clear two new doses within a number of days from now.

    log: the cycle's; days: from today; draws: how many. What has been cleared already does not count here: this is what
    the model alone makes of the log, to be held against what the tests say.
    """
    ensemble = condition(log, draws)
    future = project(log, ensemble, int(log.day_now + days) + 1, Scenario(counts_past=False))
    return float(ensemble.weights[future.late <= log.day_now + days].sum())
