"""A spare sponge seeding in a running tank: when it is ready, and how much film survives transport."""

from typing import Annotated, Literal

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
    steps: list[MoveStep]


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
    state: Literal["too-young", "usable", "ready"] = (
        "ready" if q.days_seeding >= FULL_DAYS else "usable" if q.days_seeding >= USABLE_DAYS else "too-young"
    )
    sick = q.disease_note == "sick-now"
    if sick:
        verdict = "Leave it where it is: disease travels with it."
    elif q.minutes_out > 0:
        verdict = (
            f"{100 * alive:.0f} % of its film is alive after {q.minutes_out:.0f} minutes; half is lost at {half:g}."
        )
    elif state == "ready":
        verdict = "Ready: it carries a full film."
    elif state == "usable":
        verdict = f"Usable, at {100 * grown:.0f} % of a full film; ready in {FULL_DAYS - q.days_seeding:.0f} days."
    else:
        verdict = f"Too young: from {USABLE_DAYS:.0f} days on it is of use, in {USABLE_DAYS - q.days_seeding:.0f} days."
    if q.disease_note in ("unknown", "treated"):
        verdict += " Watch the new tank: the donor's health is not beyond doubt."
    rows = (
        (
            "seed-bag",
            "Lift it in a bag or tub",
            "Under water, so that no brown cloud is left behind; never squeezed dry.",
        ),
        (
            "seed-water",
            "In its own tank's water",
            "Covered by water, lid off or with air; not in the sun, not in a cold car.",
        ),
        ("seed-clock", "Start the clock", "The time out of running water is what counts."),
        (
            "seed-in",
            "In at once, filter running",
            "Beside or inside the new filter, in treated water of the same warmth.",
        ),
        ("seed-feed", "Feed it today", "Animals of a light stock, or a dose of about half a ppm."),
        ("seed-back", "Put the next spare in", "So that there is always one seeding. Wash your hands."),
    )
    return SpongeSeedAnswer(
        verdict=verdict, working=w.lines, state=state, grown_share=grown, alive_share=alive, brings_share=brings,
        ready_in_days=max(FULL_DAYS - q.days_seeding, 0.0), minutes_left=max(half - q.minutes_out, 0.0),
        may_go=state != "too-young" and not sick,
        steps=[MoveStep(id=i, title=t, detail=d) for i, t, d in rows],
    )  # fmt: skip
