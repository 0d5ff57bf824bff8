"""Forecast of the day a cycle passes, as a range, with the range of each concentration by day."""

from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray

from reedmace.core.contract import Answer, Part, Question, Share, Working, computation, number, whole
from reedmace.core.cycle.judgement.readiness import CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.model.draw_weights import percentiles, resample
from reedmace.core.cycle.model.ensemble import USUAL_DRAWS, Ensemble, condition, project
from reedmace.core.cycle.model.inputs import Scenario, step_of
from reedmace.core.cycle.model.nitrogen_kernel import CO2, LAG
from reedmace.core.cycle.record.dose_to_prove import write_dose_to_prove
from reedmace.core.cycle.record.kit_checks import kit_is_stuck
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.nitrification import unwritten_doses
from reedmace.core.cycle.record.suspect_readings import SuspectReading, suspect_readings
from reedmace.core.film import temperature_factor
from reedmace.core.quantity import CACO3_PER_DKH

Floats = NDArray[np.float64]
PassDay = Annotated[float, number("days", 0, 500)]
HeldKh = Annotated[
    float,
    number(
        "dKH", 0, 20, "Keep KH at least here from today; 0 for leaving it alone, null for what this tank is kept at"
    ),
]


class CycleForecastQuestion(Question):
    """A log, the horizon, and what is done from today on."""

    log: CycleLog
    horizon_days: Annotated[int, whole(7, 150, "From the start of the cycle")] = 90
    draws: Annotated[int, whole(50, 2000)] = USUAL_DRAWS
    hold_kh_dkh: HeldKh | None = None


class Band(Part):
    """10th, 50th and 90th percentile, in the unit of its field."""

    p10: Annotated[float, number("see field", 0, 1e6)]
    p50: Annotated[float, number("see field", 0, 1e6)]
    p90: Annotated[float, number("see field", 0, 1e6)]


class DayBand(Part):
    """One day's range of each line, mg N/L, dKH and pH."""

    day: Annotated[int, whole(0, 500)]
    ammonia_mg_n_l: Band
    nitrite_mg_n_l: Band
    nitrate_mg_n_l: Band
    kh_dkh: Band
    ph: Band


class CycleForecastAnswer(Answer):
    """Range of the pass day since the start, and the range of courses."""

    outcome: Literal["range", "no-date"]
    pass_day_p10: PassDay | None
    pass_day_p50: PassDay | None
    pass_day_p90: PassDay | None
    passed_share: Share
    effective_draws: Annotated[float, number("draws", 0, 1e6)]
    alkalinity_gone_day: Annotated[float, number("days", 0, 500, "Median day on which KH falls under 1 dKH")] | None
    nitrogen_gap_mg_n_l: Annotated[float, number("mg N/L", 0, 1e3, "Largest gap in any course's nitrogen")]
    rests_on: list[str]
    doubtful: list[SuspectReading]
    bands: list[DayBand]


def finite(value: float) -> float | None:
    """A day for an answer: None for never. value: days, infinite for never."""
    return value if np.isfinite(value) else None


def horizon_days_of(log: CycleLog, asked_days: int = 90) -> int:
    """Horizon in days from the start of the cycle; the same for every question, so that dates agree.

    log: the cycle's; asked_days: at least so many, days.
    """
    return max(asked_days, int(log.day_now) + 60)


SAME_DATE_DAYS = 0.75
"""Smaller shifts of a forecast date are not worth a word, days (a stated judgement: it is written in whole days)."""
POOR_FIT = 12.0
"""Effective sample size below which the range rests on a handful of draws."""
MISFIT_SHARE = 0.2
"""Share of figures outside every likely course above which the date is uncertain (memory)."""


def _doubts_of_record(log: CycleLog) -> list[str]:
    """What weakens the tests themselves: a top step, a kit that stands still, doses nobody wrote down."""
    found = []
    if any(r.off_scale for r in log.readings):
        found.append("tests off the scale count only as 'this or more'")
    if kit_is_stuck(log):
        found.append("an ammonia test that has read the same every time: test the kit itself")
    unwritten = unwritten_doses(log)
    if unwritten:
        size = log.ppm(sum(d.raise_mg_n_l for d in unwritten))
        found.append(f"some {size} of ammonia nobody wrote down, by the nitrogen the tests show")
    return found


def _rests_on(log: CycleLog, doubtful: list[SuspectReading], ensemble: Ensemble) -> list[str]:
    tests = [r for r in log.readings if r.ammonia_mg_n_l is not None or r.nitrite_mg_n_l is not None]
    both = sum(r.ammonia_mg_n_l is not None and r.nitrite_mg_n_l is not None for r in tests)
    found = []
    if not tests:
        found.append("no test yet: only what tanks like this one usually do")
    else:
        newest = max(r.day for r in tests)
        found.append(f"{len(tests)} test{'s' if len(tests) > 1 else ''}, {both} of them with both ammonia and nitrite")
        ago = log.day_now - newest
        found.append("the newest from today" if ago < 1 else f"the newest {ago:.0f} days old")
    found += _doubts_of_record(log)
    if log.doses:
        n = len(log.doses)
        found.append(f"{n} dose{'s' if n > 1 else ''}, {log.ppm(sum(d.raise_mg_n_l for d in log.doses))} in all")
    for n, one, many in (
        (len(log.changes), "water change", "water changes"),
        (len(log.outages), "stop of the filter", "stops of the filter"),
        (len(log.media), "change to the media", "changes to the media"),
    ):
        if n:
            found.append(f"{n} {one if n == 1 else many}")
    if doubtful:
        n = len(doubtful)
        found.append(f"{n} figure{'s' if n > 1 else ''} counted for little, because in doubt")
    strange = ensemble.misfits
    if strange >= max(2.0, MISFIT_SHARE * ensemble.figures):
        found.append(f"but {strange} of {ensemble.figures} figures fit no usual course, so count on the date for less")
    elif tests and ensemble.effective < POOR_FIT:
        found.append("but few of the courses tried fit so many tests, so the range is wider than it looks")
    return found


READY_TODAY = "Ready today: what has been proved stands."


def _verdict(pass_days: tuple[float, float, float], horizon_days: int, gone_day: float) -> str:
    """When it passes, in a sentence. pass_days: P10, P50 and P90; gone_day: alkalinity used up."""
    p10, p50, p90 = pass_days
    if np.isfinite(p90):
        return f"Ready between day {p10:.0f} and day {p90:.0f}, most likely about day {p50:.0f}."
    if np.isfinite(p50):
        return (
            f"Most likely ready about day {p50:.0f}, but one course in ten does not get there within {horizon_days}"
            " days."
        )
    gone = f" Alkalinity is used up about day {gone_day:.0f}." if np.isfinite(gone_day) else ""
    return f"No date: most courses do not pass within {horizon_days} days.{gone}"


def _write_basis(q: CycleForecastQuestion, ensemble: Ensemble, w: Working) -> None:
    """The lines of what the forecast rests on."""
    log, temperature = q.log, q.log.temperature_now_c()
    if log.doses_ammonia():
        write_dose_to_prove(log, w)
    w.line("θ", "1.08^(T − 25)", f"1.08^({temperature:g} − 25)", temperature_factor(temperature), "ratio", "asm1")
    w.line(
        "CO2",
        "KH × 17.85 / 50.04 / 10^(pH − 6.35)",
        "as the readings of pH with KH leave it",
        float(np.exp(ensemble.rows[:, CO2] @ ensemble.weights)),
        "mmol/L",
        "carbonate",
    )
    w.line(
        "lag",
        "days before a new film does anything",
        "as the readings leave it",
        float(np.exp(ensemble.rows[:, LAG] @ ensemble.weights)),
        "days",
        "baranyi1994",
    )
    w.line(
        "n eff",
        "1 / Σ weight²",
        f"{q.draws} draws, {len(log.readings)} readings",
        ensemble.effective,
        "draws",
        "cycleprior",
    )


@computation("cycle-forecast", "When the tank will be ready")
def cycle_forecast(question: CycleForecastQuestion) -> CycleForecastAnswer:
    """The pass day as P10, P50, P90 and the range of each line.

    question: the log in days and mg N/L, horizon in days, KH held in dKH. Deterministic: the draws are seeded
    from the log itself.
    Source: kinetics in the form of ASM1; prior tuned to the times keepers commonly see.
    """
    q, w, log = question, Working(), question.log
    days = horizon_days_of(log, q.horizon_days)
    ensemble = condition(log, q.draws)
    future = project(log, ensemble, days, Scenario(hold_kh_dkh=q.hold_kh_dkh))
    weights, daily = ensemble.weights, future.daily
    ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready
    p10, p50, p90 = (log.day_now,) * 3 if ready else percentiles(future.late, weights)
    share = float(min(weights[np.isfinite(future.late)].sum(), 1.0))
    gone = np.argmax(daily[:, :, 3] < CACO3_PER_DKH, axis=1).astype(float)
    gone[(daily[:, :, 3] >= CACO3_PER_DKH).all(axis=1)] = np.inf
    gone_day = percentiles(gone, weights)[1]
    _write_basis(q, ensemble, w)
    w.line("passing", "weight of draws that pass in time", f"within {days} days", share, "share", "cycleprior")
    w.line(
        "N gap", "|found − put in|, the largest", "every draw, every day", future.drift_mg_n_l, "mg N/L", "arithmetic"
    )
    if not ready and np.isfinite(p50):
        w.line("P50", "weighted median of pass day", f"{q.draws} draws", p50, "days", "cycleprior")
    doubtful = suspect_readings(log)
    return CycleForecastAnswer(
        verdict=READY_TODAY if ready else _verdict((p10, p50, p90), days, gone_day),
        working=w.lines,
        outcome="range" if np.isfinite(p50) else "no-date",
        pass_day_p10=finite(p10) if np.isfinite(p50) else None,
        pass_day_p50=finite(p50),
        pass_day_p90=finite(p90),
        passed_share=share,
        effective_draws=ensemble.effective,
        alkalinity_gone_day=finite(gone_day),
        nitrogen_gap_mg_n_l=future.drift_mg_n_l,
        rests_on=_rests_on(log, doubtful, ensemble),
        doubtful=doubtful,
        bands=_bands(daily, ensemble),
    )


def _bands(daily: Floats, ensemble: Ensemble) -> list[DayBand]:
    again = resample(ensemble.weights)
    n, days = len(again), daily.shape[1]
    states = daily[again]
    carbonate = np.maximum(states[:, :, 3], 0.2) / 50.04
    ph = 6.35 + np.log10(carbonate / np.exp(ensemble.rows[again, CO2])[:, None])
    states = np.concatenate([np.maximum(states, 0.0), np.clip(ph, 3.0, 10.0)[:, :, None]], axis=2)
    ordered = np.sort(np.ascontiguousarray(states.reshape(n, -1).T), axis=1)
    levels = [ordered[:, round(level * (n - 1))].reshape(days, 5) for level in (0.1, 0.5, 0.9)]
    per = (1.0, 1.0, 1.0, CACO3_PER_DKH, 1.0)
    names = ("ammonia_mg_n_l", "nitrite_mg_n_l", "nitrate_mg_n_l", "kh_dkh", "ph")

    def band(day: int, c: int) -> Band:
        low, middle, high = (float(level[day, c]) / per[c] for level in levels)
        return Band.model_construct(p10=low, p50=middle, p90=high)

    return [
        DayBand.model_construct(None, day=day, **{name: band(day, c) for c, name in enumerate(names)})
        for day in range(days)
    ]


__all__ = [
    "Band",
    "CycleForecastAnswer",
    "CycleForecastQuestion",
    "DayBand",
    "Scenario",
    "cycle_forecast",
    "step_of",
]
