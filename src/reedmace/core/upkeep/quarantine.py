"""Length of a quarantine, and the events that restart it."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Question, Working, computation, number

USUAL_DAYS, SALT_DAYS = 28.0, 42.0
"""Four weeks in fresh water, six in salt (common practice)."""


def usual_days(*, salt_water: bool) -> float:
    """Usual length of a quarantine, days. salt_water: brackish or marine. Source: common practice.

    >>> usual_days(salt_water=False), usual_days(salt_water=True)
    (28.0, 42.0)
    """
    return SALT_DAYS if salt_water else USUAL_DAYS


class QuarantineQuestion(Question):
    """The days planned, and the days since each event."""

    asked_days: Annotated[float, number("days", 1, 365)] = USUAL_DAYS
    salt_water: bool = False
    since_begun_days: Annotated[float, number("days", 0, 4000)] = 0
    since_animals_days: Annotated[float, number("days", 0, 40000, "Since animals last came in")] | None = None
    since_trouble_days: Annotated[float, number("days", 0, 40000, "Since one was last seen unwell, or lost")] | None = (
        None
    )


class QuarantineAnswer(Answer):
    """The present day, the days left, and whether it is over."""

    day: Annotated[float, number("days", 0, 4000, "Counted from what last began them anew")]
    left_days: Annotated[float, number("days", 0, 365)]
    over: bool
    begun_again: str | None = Field(description="What began the days anew")
    cautions: list[str]


@computation("quarantine", "How long a quarantine still lasts, and what began it anew")
def quarantine(question: QuarantineQuestion) -> QuarantineAnswer:
    """Days of a quarantine; every new animal, sign of illness or loss restarts them.

    question: days asked, days since. Source: common practice.
    """
    q, w = question, Working()
    begins: list[tuple[float, str | None]] = [(q.since_begun_days, None)]
    if q.since_animals_days is not None and q.since_animals_days < q.since_begun_days:
        begins.append((q.since_animals_days, "new animals came in"))
    if q.since_trouble_days is not None and q.since_trouble_days < q.since_begun_days:
        begins.append((q.since_trouble_days, "one was unwell or lost"))
    since, why = min(begins, key=lambda b: b[0])
    left = w.sum("left", "max(asked − since, 0)", {"asked": q.asked_days, "since": since}, "days", "practice")
    over = left <= 0
    if over:
        verdict = "The quarantine is over: look at each animal once more, then move them."
    else:
        again = f", anew since {why}" if why else ""
        verdict = (
            f"Quarantine, day {int(since) + 1} of {q.asked_days:.0f}{again}: nothing leaves it for {left:.0f} more"
            f" {'day' if round(left) == 1 else 'days'}."
        )
    cautions = [
        "Its own net, bucket and siphon; hands washed after, and this tank looked after last.",
        "No sponge and no water goes from here into another tank.",
    ]
    if q.salt_water and q.asked_days < SALT_DAYS:
        cautions.insert(
            0, f"In salt water {SALT_DAYS / 7:.0f} weeks are usual; {q.asked_days:.0f} days may end too soon."
        )
    return QuarantineAnswer(
        verdict=verdict,
        working=w.lines,
        day=since,
        left_days=min(left, 365),
        over=over,
        begun_again=why,
        cautions=cautions,
    )
