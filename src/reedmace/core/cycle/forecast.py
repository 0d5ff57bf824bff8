"""When the tank will pass: an ensemble drawn from a prior, weighted by the readings so far."""

import hashlib
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray

from reedmace.core.chemistry import pka_fresh
from reedmace.core.cycle.kernel import (
    ADD_ALKALINITY,
    ADD_TAN,
    CHANGE_WATER,
    CONDITIONS,
    GROWTH,
    KA,
    PARAMETERS,
    STEPS_PER_DAY,
    THETA,
    WORK,
    log_likelihood,
    simulate,
)
from reedmace.core.cycle.log import HIGH_NITRITE_MG_N_L, ZERO_AMMONIA_MG_N_L, CycleLog
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.working import Answer, Part, Question, Share, Working, number, whole

Floats = NDArray[np.float64]

# Log-normal prior, median and log spread, in the kernel's column order (tuned; see docs/how-it-computes.md).
PRIOR_MEDIAN = np.array([3.0e-3, 1.5e-3, 0.64, 0.52, 0.45, 0.40, 0.04, 0.10, 14.0, 0.35])
PRIOR_SPREAD = np.array([0.8, 0.8, 0.12, 0.12, 0.25, 0.25, 0.2, 0.35, 0.3, 0.4])
SEEDED_START = 1200.0
"""How many times the film of a bare tank a moved, mature filter starts with (tuned to "inside a week")."""
THETA_PER_DEGREE = 1.08
FEWEST = 80.0


class CycleForecastQuestion(Question):
    """A log, how far to look, and whether KH is held from today on."""

    log: CycleLog
    horizon_days: Annotated[int, whole(7, 150, "From the start of the cycle")] = 90
    draws: Annotated[int, whole(50, 2000)] = 1000
    hold_kh_dkh: Annotated[float, number("dKH", 0, 20, "Keep KH at least here from today; 0 for leaving it alone")] = 4


class Band(Part):
    """10th, 50th and 90th percentile, in the unit of the field it stands in."""

    p10: Annotated[float, number("see field", 0, 1e6)]
    p50: Annotated[float, number("see field", 0, 1e6)]
    p90: Annotated[float, number("see field", 0, 1e6)]


class DayBand(Part):
    """One day's range of each line, mg N/L and dKH."""

    day: Annotated[int, whole(0, 400)]
    ammonia_mg_n_l: Band
    nitrite_mg_n_l: Band
    nitrate_mg_n_l: Band
    kh_dkh: Band


class CycleForecastAnswer(Answer):
    """Days since the start on which the tank would pass, as a range, and the courses it may take."""

    outcome: Literal["range", "no-date"]
    pass_day_p10: Annotated[float, number("days", 0, 400)] | None
    pass_day_p50: Annotated[float, number("days", 0, 400)] | None
    pass_day_p90: Annotated[float, number("days", 0, 400)] | None
    passed_share: Share
    effective_draws: Annotated[float, number("draws", 0, 1e6)]
    alkalinity_gone_day: Annotated[float, number("days", 0, 400, "Median day on which KH falls under 1 dKH")] | None
    bands: list[DayBand]


def _step_of(day: float) -> int:
    return round(day * STEPS_PER_DAY)


def temperature_factor(temperature_c: float) -> float:
    """Rate relative to 25 °C, dimensionless.

    temperature_c: 0 to 40 °C. Theta 1.08 (from memory, within the 1.08 to 1.1 usually given); falls again above 33 °C.
    """
    return float(THETA_PER_DEGREE ** (min(temperature_c, 33.0) - 25.0)) * (0.5 if temperature_c > 36 else 1.0)


def events_of(log: CycleLog) -> tuple[NDArray[np.int64], NDArray[np.int64], Floats]:
    """(steps, kinds, values) of everything done, in order, for the kernel. log: the cycle's log."""
    rows = [(_step_of(d.day), ADD_TAN, d.raise_mg_n_l) for d in log.doses]
    rows += [(_step_of(c.day), CHANGE_WATER, c.share) for c in log.changes]
    rows += [(_step_of(a.day), ADD_ALKALINITY, a.raise_dkh * CACO3_PER_DKH) for a in log.alkalinity]
    rows.sort(key=lambda row: row[0])
    return (
        np.array([r[0] for r in rows], dtype=np.int64),
        np.array([r[1] for r in rows], dtype=np.int64),
        np.array([r[2] for r in rows], dtype=np.float64),
    )


def still_conditions(days: int, temperature_c: float) -> Floats:
    """A day's conditions, the same every day: shape (days + 1, 6) as the kernel takes them.

    days: horizon; temperature_c: °C.
    """
    found = np.zeros((days + 1, CONDITIONS))
    found[:, THETA] = temperature_factor(temperature_c)
    found[:, KA] = 10.0 ** -pka_fresh(temperature_c)
    found[:, GROWTH] = found[:, WORK] = 1.0
    return found


def _conditions(log: CycleLog, days: int) -> Floats:
    known = sorted((r.day, r.temperature_c) for r in log.readings if r.temperature_c is not None)
    found = still_conditions(days, log.temperature_c)
    for day, degrees in known:
        found[max(int(day) - 1, 0) :] = still_conditions(0, degrees)[0]
    return found


def _co2_mmol(log: CycleLog) -> float:
    """CO2 that explains the readings of pH and KH together, mmol/L (pH = 6.35 + log10(HCO3/CO2))."""
    pairs = [(r.ph, r.kh_dkh) for r in log.readings if r.ph is not None and r.kh_dkh is not None and r.kh_dkh >= 0.3]
    pairs = pairs or [(log.start_ph, max(log.start_kh_dkh, 0.3))]
    found = [kh * CACO3_PER_DKH / 50.04 / 10 ** (ph - 6.35) for ph, kh in pairs]
    return float(np.clip(np.median(found), 0.01, 3.0))


KITS = (
    # State column, field, half the first step of a colour kit in the field's unit, name (common practice).
    (0, "ammonia_mg_n_l", 0.12, "ammonia"),
    (1, "nitrite_mg_n_l", 0.08, "nitrite"),
    (2, "nitrate_mg_n_l", 1.2, "nitrate"),
    (3, "kh_dkh", 0.5, "kh"),
)
WRONG = 0.02
"""One reading in fifty may be plain wrong; without that a slip of the hand would rule out every course."""


def _figures(log: CycleLog) -> tuple[Floats, Floats, Floats, NDArray[np.int64], NDArray[np.int64], Floats, Floats]:
    """Every figure read, as the interval it stands for, in the shape the kernel weighs."""
    rows = []
    for column, field, width, what in KITS:
        for j, reading in enumerate(log.readings):
            value = getattr(reading, field)
            if value is None:
                continue
            # A colour step is an interval: between the neighbouring steps, which lie about 1 to 1.5 apart in ratio.
            low, high = value / 1.45 - width, value * 1.45 + width
            if what in reading.off_scale:
                low, high = value / 1.2, 1e9
            rows.append((low, high, width, column, j, CACO3_PER_DKH if what == "kh" else 1.0, WRONG))
    table = np.array(rows, dtype=float).reshape(-1, 7)
    return (
        table[:, 0].copy(),
        table[:, 1].copy(),
        table[:, 2].copy(),
        table[:, 3].astype(np.int64),
        table[:, 4].astype(np.int64),
        table[:, 5].copy(),
        table[:, 6].copy(),
    )


def _percentiles(values: Floats, weights: Floats) -> tuple[float, float, float]:
    order = np.argsort(values)
    cumulative = np.cumsum(weights[order])
    cumulative /= cumulative[-1]
    picked = values[order][np.searchsorted(cumulative, [0.1, 0.5, 0.9]).clip(0, len(values) - 1)]
    return float(picked[0]), float(picked[1]), float(picked[2])


def cycle_forecast(question: CycleForecastQuestion) -> CycleForecastAnswer:
    """The pass day as P10, P50, P90 and bands for each line.

    question: the log in days and mg N/L, horizon in days, KH held in dKH. Deterministic: the draws are seeded
    from the question itself.
    Source: kinetics in the form of ASM1; prior tuned to the times keepers commonly see.
    """
    q, w, log = question, Working(), question.log
    rng = np.random.default_rng(int.from_bytes(hashlib.sha256(q.model_dump_json().encode()).digest()[:8], "big"))
    days = max(q.horizon_days, int(log.day_now) + 30)
    median = PRIOR_MEDIAN.copy()
    median[7] = _co2_mmol(log)
    if log.method == "seeded-filter":
        median[:2] *= SEEDED_START
    center, spread = np.log(median), PRIOR_SPREAD
    conditions = _conditions(log, days)
    steps, kinds, values = events_of(log)
    start = np.array([0.0, 0.0, 0.0, log.start_kh_dkh * CACO3_PER_DKH])
    tap = start.copy()
    readings = sorted(log.readings, key=lambda r: r.day)
    log = log.model_copy(update={"readings": readings})
    keep = np.array([_step_of(r.day) for r in readings], dtype=np.int64)
    challenge = log.challenge_mg_n_l()

    past_days = min(int(log.day_now) + 1, days)

    def run(rows: Floats, until: int) -> tuple[Floats, Floats, Floats]:
        return simulate(
            np.exp(rows),
            start,
            conditions,
            steps,
            kinds,
            values,
            tap,
            _step_of(log.day_now),
            until,
            challenge,
            ZERO_AMMONIA_MG_N_L,
            HIGH_NITRITE_MG_N_L,
            q.hold_kh_dkh * CACO3_PER_DKH,
            keep,
        )

    rows = center + spread * rng.standard_normal((q.draws, PARAMETERS))
    # Weighing needs the past only; the future is run once, for the draws that are kept.
    figures = _figures(log)
    log_weight = log_likelihood(run(rows, past_days)[1], *figures)
    effective = _effective(log_weight)
    for _ in range(3):
        if effective >= min(FEWEST, q.draws / 4) or not len(keep):
            break
        # Too few draws explain the log: draw again around those that come nearest, and weigh by prior over proposal.
        softened = _normalised(log_weight * min(1.0, 0.25 + effective / FEWEST))
        middle = softened @ rows
        around = (softened[:, None] * (rows - middle)).T @ (rows - middle) + np.diag((0.25 * spread) ** 2)
        rows = rng.multivariate_normal(middle, around, size=q.draws, method="cholesky")
        away = np.linalg.solve(np.linalg.cholesky(around), (rows - middle).T)
        proposal = -0.5 * np.sum(away**2, axis=0)
        prior = -0.5 * np.sum(((rows - center) / spread) ** 2, axis=1)
        log_weight = log_likelihood(run(rows, past_days)[1], *figures) + prior - proposal
        effective = _effective(log_weight)
    weights = _normalised(log_weight)
    daily, _, passed = run(rows, days)
    late = np.where(np.isnan(passed), np.inf, passed)
    p10, p50, p90 = _percentiles(late, weights)
    share = float(min(weights[np.isfinite(late)].sum(), 1.0))
    gone = np.argmax(daily[:, :, 3] < CACO3_PER_DKH, axis=1).astype(float)
    gone[(daily[:, :, 3] >= CACO3_PER_DKH).all(axis=1)] = np.inf
    gone_day = _percentiles(gone, weights)[1]
    w.line(
        "challenge",
        "max(1.2 × planned load, 0.5)",
        f"max(1.2 × {log.planned_load_mg_n_l_day:.3g}, 0.5)",
        challenge,
        "mg N/L",
        "practice",
    )
    w.line(
        "θ",
        "1.08^(T − 25)",
        f"1.08^({log.temperature_c:g} − 25)",
        temperature_factor(log.temperature_c),
        "ratio",
        "asm1",
    )
    w.line(
        "CO2",
        "KH × 17.85 / 50.04 / 10^(pH − 6.35)",
        "median over readings of pH with KH",
        float(median[7]),
        "mmol/L",
        "carbonate",
    )
    w.line("n eff", "1 / Σ weight²", f"{q.draws} draws, {len(readings)} readings", effective, "draws", "cycleprior")
    w.line("passing", "weight of draws that pass in time", f"within {days} days", share, "share", "cycleprior")
    if np.isfinite(p50):
        w.line("P50", "weighted median of pass day", f"{q.draws} draws", p50, "days", "cycleprior")
        verdict = (
            f"Ready between day {p10:.0f} and day {p90:.0f}, most likely about day {p50:.0f}."
            if np.isfinite(p90)
            else f"Most likely ready about day {p50:.0f}, but one course in ten does not get there within {days} days."
        )
    else:
        verdict = f"No date: most courses do not pass within {days} days."
        if np.isfinite(gone_day):
            verdict += f" Alkalinity is used up about day {gone_day:.0f}."
    bands = []
    taken = _bands(daily, weights)
    for day in range(days + 1):
        ammonia, nitrite, nitrate, kh = (
            Band(**dict(zip(("p10", "p50", "p90"), (float(max(t[day, c], 0.0) / per) for t in taken), strict=True)))
            for c, per in ((0, 1.0), (1, 1.0), (2, 1.0), (3, CACO3_PER_DKH))
        )
        bands.append(
            DayBand(day=day, ammonia_mg_n_l=ammonia, nitrite_mg_n_l=nitrite, nitrate_mg_n_l=nitrate, kh_dkh=kh)
        )

    def finite(value: float) -> float | None:
        return value if np.isfinite(value) else None

    return CycleForecastAnswer(
        verdict=verdict,
        working=w.lines,
        outcome="range" if np.isfinite(p50) else "no-date",
        pass_day_p10=finite(p10) if np.isfinite(p50) else None,
        pass_day_p50=finite(p50),
        pass_day_p90=finite(p90),
        passed_share=share,
        effective_draws=effective,
        alkalinity_gone_day=finite(gone_day),
        bands=bands,
    )


def _bands(daily: Floats, weights: Floats) -> list[Floats]:
    """10th, 50th and 90th percentile by day and column, each (days + 1, 4). daily: (n, days + 1, 4); weights: (n,)."""
    # Draws taken again in proportion to their weight, evenly spaced, stand for the weighted ensemble.
    n = len(weights)
    again = np.searchsorted(np.cumsum(weights), (np.arange(n) + 0.5) / n).clip(0, n - 1)
    ordered = np.sort(np.ascontiguousarray(daily[again].reshape(n, -1).T), axis=1)
    return [ordered[:, round(level * (n - 1))].reshape(daily.shape[1:]) for level in (0.1, 0.5, 0.9)]


def _normalised(log_weight: Floats) -> Floats:
    weights = np.exp(log_weight - log_weight.max())
    return weights / float(weights.sum())  # type: ignore[no-any-return]


def _effective(log_weight: Floats) -> float:
    return float(1.0 / np.sum(_normalised(log_weight) ** 2))
