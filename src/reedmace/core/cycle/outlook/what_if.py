"""Effect of possible changes on the date: one ensemble, many futures."""

from typing import Annotated

import numpy as np
from pydantic import Field

from reedmace.core.contract import Answer, Celsius, Part, Question, Working, computation, number, whole
from reedmace.core.cycle.judgement.readiness import CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.model.draw_weights import percentiles
from reedmace.core.cycle.model.ensemble import USUAL_DRAWS, condition, project
from reedmace.core.cycle.model.inputs import Scenario
from reedmace.core.cycle.outlook.forecast import SAME_DATE_DAYS, HeldKh, PassDay, finite, horizon_days_of
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.quantity import formatting


class WhatIfChange(Part):
    """One thing done differently from today on; fields left out stay as they are."""

    name: Annotated[str, Field(min_length=1, max_length=60)]
    temperature_c: Celsius | None = None
    seed_share: Annotated[float, number("share", 0, 1, "Of a mature filter's film, put in today")] = 0
    dose_factor: Annotated[float, number("ratio", 0.1, 2, "Times the advised dose")] = 1
    hold_kh_dkh: HeldKh | None = None


class CycleWhatIfQuestion(Question):
    """A log, and possible changes; left out, the usual four."""

    log: CycleLog
    changes: Annotated[list[WhatIfChange], Field(max_length=8)] = Field(default_factory=list)
    draws: Annotated[int, whole(50, 2000)] = USUAL_DRAWS


class WhatIf(Part):
    """One change and its range; `sooner_days` compares medians, negative for later, null without a date."""

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
        found.append(WhatIfChange(name=f"Warmer: {formatting.celsius(warmer, '.0f')}", temperature_c=warmer))
    found.append(WhatIfChange(name="Seed: a tenth of a mature filter's media", seed_share=0.1))
    if log.doses_ammonia() and not log.animals_are_in():
        found.append(WhatIfChange(name="Half the dose", dose_factor=0.5))
    found.append(WhatIfChange(name="KH raised to 8 dKH", hold_kh_dkh=8))
    found.append(WhatIfChange(name="KH left alone", hold_kh_dkh=0))
    return found


@computation("cycle-what-if", "What each change would do to the date")
def cycle_what_if(question: CycleWhatIfQuestion) -> CycleWhatIfAnswer:
    """Effect of each change on the pass day, with the same draws, side by side.

    question: the log, changes in °C, share, ratio, dKH. Source: the cycle model; prior as in the forecast.
    """
    q, w, log = question, Working(), question.log
    ensemble, days = condition(log, q.draws), horizon_days_of(log)

    ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready

    def of(name: str, scenario: Scenario) -> tuple[WhatIf, float]:
        late = project(log, ensemble, days, scenario).late
        p10, p50, p90 = (log.day_now,) * 3 if ready else percentiles(late, ensemble.weights)
        row = WhatIf(
            name=name,
            pass_day_p10=finite(p10) if np.isfinite(p50) else None,
            pass_day_p50=finite(p50),
            pass_day_p90=finite(p90),
            sooner_days=None,
            text="",
        )
        return row, p50

    base, usual = of("As advised", Scenario())
    if np.isfinite(usual):
        w.line("P50", "weighted median of pass day", "as advised", usual, "days", "cycleprior")
    rows = []
    for change in q.changes or _usual_changes(log):
        scenario = Scenario(change.hold_kh_dkh, change.temperature_c, change.dose_factor, change.seed_share)
        row, p50 = of(change.name, scenario)
        sooner = usual - p50 if np.isfinite(usual) and np.isfinite(p50) else None
        if sooner is None:
            text = "no date" if not np.isfinite(p50) else "a date where there was none"
        elif abs(sooner) < SAME_DATE_DAYS:
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
    if best is not None and (best.sooner_days or 0) >= SAME_DATE_DAYS:
        verdict = f"What would help most: {formatting.inside(best.name)}, {best.text}."
    else:
        verdict = "Nothing of this would bring it much sooner: time does the work."
    return CycleWhatIfAnswer(verdict=verdict, working=w.lines, as_advised=base, changes=rows)
