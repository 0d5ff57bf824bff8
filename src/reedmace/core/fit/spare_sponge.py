"""A spare sponge seeding in a running tank: when it is ready, and how much film survives transport."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Question, Share, Working, computation, number
from reedmace.core.film import FULL_DAYS, HALF_LIFE_MIN, USABLE_DAYS, Travels, alive_share, grown_share
from reedmace.core.fit.filter_move import MoveStep


class SpongeSeedQuestion(Question):
    """How long it has run, and how it travels."""

    days_seeding: Annotated[float, number("days", 0, 2000)]
    minutes_out: Annotated[float, number("min", 0, 3000, "Out of running water")] = 0
    travels: Travels = "wet-open"
    temperature_c: Annotated[float, number("°C", 0, 60)] = 22
    media_share: Annotated[float, number("share", 0, 1, "Of the new filter's media that it makes up")] = 0.5
    disease_note: Literal["none-seen", "treated", "sick-now", "unknown"] = "none-seen"


class SpongeSeedAnswer(Answer):
    """Film on it, film it brings, and how long transport may still take."""

    state: Literal["too-young", "usable", "ready"]
    grown_share: Share
    alive_share: Share
    brings_share: Share
    ready_in_days: Annotated[float, number("days", 0, 400)]
    minutes_left: Annotated[float, number("min", 0, 10000, "Until half of the film is lost")]
    may_go: bool
    after_words: str = Field(description="What each tank has after the move; empty where it may not go")
    steps: list[MoveStep]


State = Literal["too-young", "usable", "ready"]

_STEPS = (
    MoveStep(
        id="seed-bag",
        title="Lift it in a bag or tub",
        detail="Under water, so that no brown cloud is left behind; never squeezed dry.",
    ),
    MoveStep(
        id="seed-water",
        title="In its own tank's water",
        detail="Covered by water, lid off or with air; not in the sun, not in a cold car.",
    ),
    MoveStep(id="seed-clock", title="Start the clock", detail="The time out of running water is what counts."),
    MoveStep(
        id="seed-in",
        title="In at once, filter running",
        detail="Beside or inside the new filter, in treated water of the same warmth.",
    ),
    MoveStep(id="seed-feed", title="Feed it today", detail="Animals of a light stock, or a dose of about half a ppm."),
    MoveStep(
        id="seed-back",
        title="Put the next spare in",
        detail="So that there is always one seeding. Wash your hands.",
    ),
)
"""Steps of moving a spare, in order (common practice)."""


def _verdict(q: SpongeSeedQuestion, state: State, grown: float, alive: float) -> str:
    """What it is worth, in a sentence. grown, alive: shares of a full film, and of it what lives."""
    if q.disease_note == "sick-now":
        return "Leave it where it is: disease travels with it."
    if q.minutes_out > 0:
        half = HALF_LIFE_MIN[q.travels]
        said = f"{100 * alive:.0f} % of its film is alive after {q.minutes_out:.0f} minutes; half is lost at {half:g}."
    elif state == "ready":
        said = "Ready: it carries a full film."
    elif state == "usable":
        said = f"Usable, at {100 * grown:.0f} % of a full film; ready in {FULL_DAYS - q.days_seeding:.0f} days."
    else:
        said = f"Too young: from {USABLE_DAYS:.0f} days on it is of use, in {USABLE_DAYS - q.days_seeding:.0f} days."
    doubt = q.disease_note in ("unknown", "treated")
    return said + (" Watch the new tank: the donor's health is not beyond doubt." if doubt else "")


def _after_words(brings: float) -> str:
    """What each tank has afterwards. brings: share of the new filter's film."""
    return (
        f"It brings {100 * brings:.0f} % of the film the other filter can hold; the tank it leaves keeps the film of"
        " its own filter. Start the next spare there today."
    )


@computation("sponge-seed", "What a spare sponge is worth, and on the way")
def sponge_seed(question: SpongeSeedQuestion) -> SpongeSeedAnswer:
    """Film of a seeding sponge now, and after transport.

    question: days, minutes, °C, share. Source: seeding times common practice; survival out of water from memory.
    """
    q, w = question, Working()
    grown = w.line(
        "grown",
        "days / 30, at most 1",
        f"{q.days_seeding:.1f} / {FULL_DAYS:g}",
        grown_share(q.days_seeding),
        "share",
        "practice",
    )
    half = HALF_LIFE_MIN[q.travels]
    alive = w.line(
        "alive",
        "½^(minutes / half life)",
        f"½^({q.minutes_out:.0f} / {half:g}), {q.temperature_c:g} °C",
        alive_share(q.minutes_out, q.travels, q.temperature_c),
        "share",
        "memory",
    )
    brings = w.sum(
        "brings",
        "grown × alive × share of media",
        {"grown": grown, "alive": alive, "share of media": q.media_share},
        "share",
        "arithmetic",
    )
    state: State = (
        "ready" if q.days_seeding >= FULL_DAYS else "usable" if q.days_seeding >= USABLE_DAYS else "too-young"
    )
    may_go = state != "too-young" and q.disease_note != "sick-now"
    return SpongeSeedAnswer(
        verdict=_verdict(q, state, grown, alive),
        working=w.lines,
        state=state,
        grown_share=grown,
        alive_share=alive,
        brings_share=brings,
        ready_in_days=max(FULL_DAYS - q.days_seeding, 0.0),
        minutes_left=max(half - q.minutes_out, 0.0),
        may_go=may_go,
        after_words=_after_words(brings) if may_go else "",
        steps=list(_STEPS),
    )
