"""When the tank will pass: what the ensemble says, what it rests on, how it has moved, what would move it."""

from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.cycle.course import Ahead, step_of, temperature_factor
from reedmace.core.cycle.doubt import Doubt, doubts
from reedmace.core.cycle.ensemble import Ensemble, percentiles, resample, run_on, weigh
from reedmace.core.cycle.kernel import CO2
from reedmace.core.cycle.log import CycleLog
from reedmace.core.cycle.readiness import CycleReadinessQuestion, cycle_readiness
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.working import Answer, Celsius, Part, Question, Share, Working, number, whole

Floats = NDArray[np.float64]
PassDay = Annotated[float, number("days", 0, 500)]
HeldKh = Annotated[float, number("dKH", 0, 20, "Keep KH at least here from today; 0 for leaving it alone")]


class CycleForecastQuestion(Question):
    """A log, how far to look, and what is done from today on."""

    log: CycleLog
    horizon_days: Annotated[int, whole(7, 150, "From the start of the cycle")] = 90
    draws: Annotated[int, whole(50, 2000)] = 1000
    hold_kh_dkh: HeldKh = 4


class Band(Part):
    """10th, 50th and 90th percentile, in the unit of the field it stands in."""

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
    """Days since the start on which the tank would pass, as a range, and the courses it may take."""

    outcome: Literal["range", "no-date"]
    pass_day_p10: PassDay | None
    pass_day_p50: PassDay | None
    pass_day_p90: PassDay | None
    passed_share: Share
    effective_draws: Annotated[float, number("draws", 0, 1e6)]
    alkalinity_gone_day: Annotated[float, number("days", 0, 500, "Median day on which KH falls under 1 dKH")] | None
    nitrogen_gap_mg_n_l: Annotated[float, number("mg N/L", 0, 1e3, "Largest gap in any course's nitrogen")]
    rests_on: list[str]
    doubtful: list[Doubt]
    bands: list[DayBand]


def _finite(value: float) -> float | None:
    return value if np.isfinite(value) else None


def _horizon(log: CycleLog, asked_days: int = 90) -> int:
    """Days from the start of the cycle to look at: one horizon for every question, so that their dates agree."""
    return max(asked_days, int(log.day_now) + 60)


POOR_FIT = 12.0
"""Under so few effective draws the range is read off a handful of courses."""
MISFIT_SHARE = 0.2
"""So many of the figures may fall outside every likely course before the date is said to stand on little (memory)."""


def _rests_on(log: CycleLog, doubtful: list[Doubt], ensemble: Ensemble) -> list[str]:
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
    if any(r.off_scale for r in log.readings):
        found.append("tests off the scale count only as 'this or more'")
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


def cycle_forecast(question: CycleForecastQuestion) -> CycleForecastAnswer:
    """The pass day as P10, P50, P90 and bands for each line.

    question: the log in days and mg N/L, horizon in days, KH held in dKH. Deterministic: the draws are seeded
    from the log itself.
    Source: kinetics in the form of ASM1; prior tuned to the times keepers commonly see.
    """
    q, w, log = question, Working(), question.log
    days = _horizon(log, q.horizon_days)
    ensemble = weigh(log, q.draws)
    future = run_on(log, ensemble, days, Ahead(hold_kh_dkh=q.hold_kh_dkh))
    weights, daily = ensemble.weights, future.daily
    ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready
    p10, p50, p90 = (log.day_now,) * 3 if ready else percentiles(future.late, weights)
    share = float(min(weights[np.isfinite(future.late)].sum(), 1.0))
    gone = np.argmax(daily[:, :, 3] < CACO3_PER_DKH, axis=1).astype(float)
    gone[(daily[:, :, 3] >= CACO3_PER_DKH).all(axis=1)] = np.inf
    gone_day = percentiles(gone, weights)[1]
    co2 = float(np.exp(ensemble.rows[:, CO2] @ weights))
    if log.doses_ammonia():
        w.line(
            "challenge",
            "max(1.2 × planned load, 0.5)",
            f"max(1.2 × {log.planned_load_mg_n_l_day:.3g}, 0.5)",
            log.challenge_mg_n_l(),
            "mg N/L",
            "practice",
        )
    temperature = log.temperature_now_c()
    w.line("θ", "1.08^(T − 25)", f"1.08^({temperature:g} − 25)", temperature_factor(temperature), "ratio", "asm1")
    w.line(
        "CO2",
        "KH × 17.85 / 50.04 / 10^(pH − 6.35)",
        "as the readings of pH with KH leave it",
        co2,
        "mmol/L",
        "carbonate",
    )
    w.line(
        "n eff",
        "1 / Σ weight²",
        f"{q.draws} draws, {len(log.readings)} readings",
        ensemble.effective,
        "draws",
        "cycleprior",
    )
    w.line("passing", "weight of draws that pass in time", f"within {days} days", share, "share", "cycleprior")
    w.line(
        "N gap", "|found − put in|, the largest", "every draw, every day", future.drift_mg_n_l, "mg N/L", "arithmetic"
    )
    if ready:
        verdict = "Ready today: what has been proved stands."
    elif np.isfinite(p50):
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
    doubtful = doubts(log)
    return CycleForecastAnswer(
        verdict=verdict,
        working=w.lines,
        outcome="range" if np.isfinite(p50) else "no-date",
        pass_day_p10=_finite(p10) if np.isfinite(p50) else None,
        pass_day_p50=_finite(p50),
        pass_day_p90=_finite(p90),
        passed_share=share,
        effective_draws=ensemble.effective,
        alkalinity_gone_day=_finite(gone_day),
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


class WhatIfChange(Part):
    """One thing done otherwise from today on. What is left out stays as it is."""

    name: Annotated[str, Field(min_length=1, max_length=60)]
    temperature_c: Celsius | None = None
    seed_share: Annotated[float, number("share", 0, 1, "Of a mature filter's film, put in today")] = 0
    dose_factor: Annotated[float, number("ratio", 0.1, 2, "Times the advised dose")] = 1
    hold_kh_dkh: HeldKh = 4


class CycleWhatIfQuestion(Question):
    """A log, and what might be done; left out, the usual four."""

    log: CycleLog
    changes: Annotated[list[WhatIfChange], Field(max_length=8)] = Field(default_factory=list)
    draws: Annotated[int, whole(50, 2000)] = 1000


class WhatIf(Part):
    """One change and the range it leads to; `sooner_days` compares medians, under 0 for later, null without a date."""

    name: str
    pass_day_p10: PassDay | None
    pass_day_p50: PassDay | None
    pass_day_p90: PassDay | None
    sooner_days: Annotated[float, number("days", -400, 400)] | None
    text: str


class CycleWhatIfAnswer(Answer):
    """The course as advised, and every change beside it."""

    as_advised: WhatIf
    changes: list[WhatIf]


def _usual_changes(log: CycleLog) -> list[WhatIfChange]:
    warmer = min(log.temperature_now_c() + 3, 29.0)
    found = []
    if warmer > log.temperature_now_c() + 0.5 and not log.animals_are_in():
        found.append(WhatIfChange(name=f"Warmer: {warmer:.0f} °C", temperature_c=warmer))
    found.append(WhatIfChange(name="Seed: a tenth of a mature filter's media", seed_share=0.1))
    if log.doses_ammonia() and not log.animals_are_in():
        found.append(WhatIfChange(name="Half the dose", dose_factor=0.5))
    found.append(WhatIfChange(name="KH raised to 8 dKH", hold_kh_dkh=8))
    found.append(WhatIfChange(name="KH left alone", hold_kh_dkh=0))
    return found


def cycle_what_if(question: CycleWhatIfQuestion) -> CycleWhatIfAnswer:
    """What each change would do to the pass day, on the same draws, side by side.

    question: the log, changes in °C, share, ratio, dKH. Source: the cycle model; prior as in the forecast.
    """
    q, w, log = question, Working(), question.log
    ensemble, days = weigh(log, q.draws), _horizon(log)

    ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready

    def of(name: str, ahead: Ahead) -> tuple[WhatIf, float]:
        late = run_on(log, ensemble, days, ahead).late
        p10, p50, p90 = (log.day_now,) * 3 if ready else percentiles(late, ensemble.weights)
        row = WhatIf(
            name=name,
            pass_day_p10=_finite(p10) if np.isfinite(p50) else None,
            pass_day_p50=_finite(p50),
            pass_day_p90=_finite(p90),
            sooner_days=None,
            text="",
        )
        return row, p50

    base, usual = of("As advised", Ahead())
    if np.isfinite(usual):
        w.line("P50", "weighted median of pass day", "as advised", usual, "days", "cycleprior")
    rows = []
    for change in q.changes or _usual_changes(log):
        ahead = Ahead(change.hold_kh_dkh, change.temperature_c, change.dose_factor, change.seed_share)
        row, p50 = of(change.name, ahead)
        sooner = usual - p50 if np.isfinite(usual) and np.isfinite(p50) else None
        if sooner is None:
            text = "no date" if not np.isfinite(p50) else "a date where there was none"
        elif abs(sooner) < 0.75:
            text = "no difference to speak of"
        else:
            text = (
                f"{abs(sooner):.0f} day{'s' if round(abs(sooner)) != 1 else ''} {'sooner' if sooner > 0 else 'later'}"
            )
        if change.dose_factor < 1 and text.endswith("sooner"):
            text += ", but it proves only that much less"
        if sooner is not None:
            w.line(change.name, "P50 as advised − P50", f"{usual:.1f} − {p50:.1f}", sooner, "days", "cycleprior")
        rows.append(row.model_copy(update={"sooner_days": sooner, "text": text}))
    best = max((r for r in rows if r.sooner_days is not None), key=lambda r: r.sooner_days or 0, default=None)
    if best is not None and (best.sooner_days or 0) >= 0.75:
        verdict = f"What would help most: {best.name[0].lower()}{best.name[1:]}, {best.text}."
    else:
        verdict = "Nothing of this would bring it much sooner: time does the work."
    return CycleWhatIfAnswer(verdict=verdict, working=w.lines, as_advised=base, changes=rows)


class CycleHistoryQuestion(Question):
    """A log, to be forecast as it stood at the end of each week."""

    log: CycleLog
    draws: Annotated[int, whole(50, 2000)] = 1000


class Seen(Part):
    """The forecast as it stood on one day."""

    on_day: Annotated[float, number("days", 0, 400)]
    pass_day_p10: PassDay | None
    pass_day_p50: PassDay | None
    pass_day_p90: PassDay | None


class CycleHistoryAnswer(Answer):
    """How the forecast has moved, oldest first, today last."""

    seen: list[Seen]
    moved_days: (
        Annotated[float, number("days", -400, 400, "Median today minus median a week ago; over 0 is later")] | None
    )


def cycle_history(question: CycleHistoryQuestion) -> CycleHistoryAnswer:
    """The forecast at the end of each week so far, and how it moved since last week.

    question: the log. Source: the cycle model; prior as in the forecast.
    """
    q, w, log = question, Working(), question.log
    days_back = [float(d) for d in range(int(log.day_now) % 7, int(log.day_now), 7)][-8:]
    days_back = [d for d in days_back if log.day_now - d >= 1]
    seen = []
    for day in [*days_back, log.day_now]:
        then = log.as_of(day) if day < log.day_now else log
        ensemble = weigh(then, q.draws)
        p10, p50, p90 = percentiles(run_on(then, ensemble, _horizon(then), Ahead()).late, ensemble.weights)
        if cycle_readiness(CycleReadinessQuestion(log=then)).ready:
            p10 = p50 = p90 = then.day_now
        seen.append(
            Seen(
                on_day=day,
                pass_day_p10=_finite(p10) if np.isfinite(p50) else None,
                pass_day_p50=_finite(p50),
                pass_day_p90=_finite(p90),
            )
        )
    now = seen[-1].pass_day_p50
    before = next((s for s in reversed(seen[:-1]) if log.day_now - s.on_day >= 6), None)
    moved = None
    if before is None:
        verdict = "Too young to have moved: it is not a week old."
    elif before.pass_day_p50 is None or now is None:
        verdict = "A week ago there was no date." if now is not None else "There is no date now."
    else:
        moved = w.line(
            "moved", "P50 today − P50 a week ago", f"{now:.1f} − {before.pass_day_p50:.1f}",
            now - before.pass_day_p50, "days", "cycleprior",
        )  # fmt: skip
        by = f"{abs(moved):.0f} day{'s' if round(abs(moved)) != 1 else ''}"
        verdict = (
            "Since last week the date has held."
            if abs(moved) < 0.75
            else f"Since last week the date has moved {by} {'later' if moved > 0 else 'nearer'}."
        )
    return CycleHistoryAnswer(verdict=verdict, working=w.lines, seen=seen, moved_days=moved)


__all__ = [
    "Ahead",
    "Band",
    "CycleForecastAnswer",
    "CycleForecastQuestion",
    "CycleHistoryAnswer",
    "CycleHistoryQuestion",
    "CycleWhatIfAnswer",
    "CycleWhatIfQuestion",
    "DayBand",
    "Seen",
    "WhatIf",
    "WhatIfChange",
    "cycle_forecast",
    "cycle_history",
    "cycle_what_if",
    "step_of",
]
