"""How the forecast changed, test by test."""

from typing import Annotated

import numpy as np

from reedmace.core.contract import Answer, Part, Question, Working, computation, number, whole
from reedmace.core.cycle.judgement.readiness import CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.model.draw_weights import percentiles
from reedmace.core.cycle.model.ensemble import USUAL_DRAWS, Ensemble, condition_at, project
from reedmace.core.cycle.model.inputs import Scenario
from reedmace.core.cycle.outlook.forecast import SAME_DATE_DAYS, PassDay, finite, horizon_days_of
from reedmace.core.cycle.record.log import CycleLog

BEFORE_DRAWS = 400
"""Draws kept for an earlier day: enough for a line drawn over weeks."""


class CycleHistoryQuestion(Question):
    """A log, to be forecast as it stood at the end of each week."""

    log: CycleLog
    draws: Annotated[int, whole(50, 2000)] = USUAL_DRAWS


class ForecastSnapshot(Part):
    """The forecast as it stood on one day."""

    on_day: Annotated[float, number("days", 0, 400)]
    pass_day_p10: PassDay | None
    pass_day_p50: PassDay | None
    pass_day_p90: PassDay | None


class CycleHistoryAnswer(Answer):
    """The forecast's changes, oldest first, today last."""

    seen: list[ForecastSnapshot]
    pull_days: (
        Annotated[float, number("days", -400, 400, "What the newest test moved the median by; over 0 is later")] | None
    )
    pull: str
    moved_days: (
        Annotated[float, number("days", -400, 400, "Median today minus median a week ago; over 0 is later")] | None
    )


@computation("cycle-history", "How the forecast has moved")
def cycle_history(question: CycleHistoryQuestion) -> CycleHistoryAnswer:
    """The forecast at the end of each week so far, and its change since last week.

    question: the log. Source: the cycle model; prior as in the forecast.
    """
    q, w, log = question, Working(), question.log
    days_back = [float(d) for d in range(int(log.day_now) % 7, int(log.day_now), 7)][-8:]
    days_back = [d for d in days_back if log.day_now - d >= 1]
    seen = []
    days = [*days_back, log.day_now]
    tested = sorted({r.day for r in log.readings})
    # One set of draws for every week, and once more without the newest test.
    *ensembles, without_newest = condition_at(
        log, [*days, tested[-2] if len(tested) > 1 else 0.0], q.draws, min(q.draws, BEFORE_DRAWS)
    )
    for day, ensemble in zip(days, ensembles, strict=True):
        then = log.as_of(day) if day < log.day_now else log
        p10, p50, p90 = percentiles(project(then, ensemble, horizon_days_of(then), Scenario()).late, ensemble.weights)
        if cycle_readiness(CycleReadinessQuestion(log=then)).ready:
            p10 = p50 = p90 = then.day_now
        seen.append(
            ForecastSnapshot(
                on_day=day,
                pass_day_p10=finite(p10) if np.isfinite(p50) else None,
                pass_day_p50=finite(p50),
                pass_day_p90=finite(p90),
            )
        )
    now = seen[-1].pass_day_p50
    pull_days, pull = _pull(log, now, without_newest if len(tested) > 1 else None, w)
    before = next((s for s in reversed(seen[:-1]) if log.day_now - s.on_day >= 6), None)
    moved = None
    if before is None:
        verdict = "Too young to have moved: it is not a week old."
    elif before.pass_day_p50 is None or now is None:
        verdict = "A week ago there was no date." if now is not None else "There is no date now."
    else:
        moved = w.sum(
            "moved",
            "P50 today − P50 a week ago",
            {"P50 today": now, "P50 a week ago": before.pass_day_p50},
            "days",
            "cycleprior",
        )
        by = f"{abs(moved):.0f} day{'s' if round(abs(moved)) != 1 else ''}"
        verdict = (
            "Since last week the date has held."
            if abs(moved) < SAME_DATE_DAYS
            else f"Since last week the date has moved {by} {'later' if moved > 0 else 'nearer'}."
        )
    return CycleHistoryAnswer(
        verdict=verdict, working=w.lines, seen=seen, moved_days=moved, pull_days=pull_days, pull=pull
    )


def _pull(log: CycleLog, now: float | None, ensemble: Ensemble | None, w: Working) -> tuple[float | None, str]:
    """Effect of the newest test on the date: (days, words). ensemble: weighted without it."""
    if ensemble is None or now is None:
        return None, ""
    without = percentiles(project(log, ensemble, horizon_days_of(log), Scenario()).late, ensemble.weights)[1]
    if not np.isfinite(without):
        return None, "The newest test brought a date where there was none."
    moved = w.sum(
        "pull",
        "P50 with the newest test − P50 without it",
        {"P50 with the newest test": now, "P50 without it": without},
        "days",
        "cycleprior",
    )
    if abs(moved) < SAME_DATE_DAYS:
        return moved, "The newest test left the date where it was."
    by = f"{abs(moved):.0f} day{'s' if round(abs(moved)) != 1 else ''}"
    return moved, f"The newest test moved the date {by} {'later' if moved > 0 else 'nearer'}."
