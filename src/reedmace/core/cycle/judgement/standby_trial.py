"""Standby trial: whether a filter can stay off, tested in growing steps until the first trace of ammonia or nitrite."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Part, Question, Working, computation, number

STEPS_H = (6.0, 24.0, 72.0, 168.0)
"""Hours without the filter, step by step (common practice: hours, then a day, then days)."""
LEAST_TIMES = 2.0
"""Capacity of the remaining filters, as a multiple of the load, needed before a trial is offered (a stated judgement).
"""


class Trial(Part):
    """One trial stop, and the tests after it."""

    hours: Annotated[float, number("h", 0.5, 10000)]
    tested: bool = True
    trace: bool = Field(default=False, description="Ammonia or nitrite above the kit's zero")


class StandbyTrialQuestion(Question):
    """The filters that stay on, and the trials so far, oldest first."""

    carried_times_count: Annotated[float, number("times", 0, 1e6, "Film that stays over the film the animals need")]
    oxygen_enough: bool = Field(description="Whether what stays on keeps the surface moving")
    animals_settled: bool = True
    trials: Annotated[list[Trial], Field(max_length=50)] = Field(default_factory=list)


class StandbyTrialAnswer(Answer):
    """The next step, or why there is none."""

    may_try: bool
    next_h: Annotated[float, number("h", 0, 10000)] | None
    proved: bool
    steps: list[str]


@computation("standby-trial", "Whether this filter can stay off, by steps that tests guard")
def standby_trial(question: StandbyTrialQuestion) -> StandbyTrialAnswer:
    """The next step of a trial in which a filter stays off.

    question: what stays on, as times what is needed; trials in hours.
    Source: common practice; nobody does it methodically, so the steps are this project's own.
    """
    q, w = question, Working()
    w.line("carried", "film that stays / film needed", "both", q.carried_times_count, "times", "memory")
    bar = _barred(q)
    if bar:
        return StandbyTrialAnswer(verdict=bar, working=w.lines, may_try=False, next_h=None, proved=False, steps=[])
    passed = max((t.hours for t in q.trials if t.tested and not t.trace), default=0.0)
    nxt = next((h for h in STEPS_H if passed < 0.9 * h), None)
    if nxt is None:
        words = (
            f"It stood {passed / 24:.0f} days and tests stayed at zero: it may stay off. Dry it, or keep it running"
            " elsewhere; what stood airless is rinsed first."
        )
        return StandbyTrialAnswer(verdict=words, working=w.lines, may_try=True, next_h=None, proved=True, steps=[])
    span = f"{nxt:.0f} hours" if nxt < 48 else f"{nxt / 24:.0f} days"
    steps = [
        "Test ammonia and nitrite first: both at zero.",
        f"Stop it for {span}; an air stone or the other filter keeps the surface moving.",
        "Test every day, and once more a day after it ran again.",
        "At the first trace it runs again, rinsed in tank water if its body is closed, and the trial is over.",
    ]
    return StandbyTrialAnswer(
        verdict=f"Next: {span} off, tested.", working=w.lines, may_try=True, next_h=nxt, proved=False, steps=steps
    )


def _barred(q: StandbyTrialQuestion) -> str | None:
    if any(t.trace for t in q.trials):
        return "A test showed a trace while it stood: it is needed. Leave it running."
    if q.carried_times_count < LEAST_TIMES:
        return (
            f"What would stay on carries these animals {q.carried_times_count:.1f} times over; a trial begins at"
            f" {LEAST_TIMES:g}."
        )
    if not q.oxygen_enough:
        return "Without it the surface stands still: give the tank an air stone first."
    if not q.animals_settled:
        return "Animals are new: no trial until they have been in for six weeks."
    return None
