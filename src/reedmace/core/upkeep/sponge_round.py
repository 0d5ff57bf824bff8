"""Which of a room's air-driven filters are squeezed this week: the soonest due, and never more than a third at once."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Working, computation, number, whole

WEEK_DAYS = 7.0
MOST_SHARE = 1 / 3
"""Largest share of a room's sponges squeezed in a week, so that work and film come out even (common practice)."""
NAMED = 4
"""Tanks named in the sentence; more are counted."""


class RoundPiece(Part):
    """One air-driven filter of the room."""

    key: Name
    tank: Name
    next_day: Annotated[float, number("days", -40000, 4000, "Until its next cleaning by its own care plan")]


class SpongeRoundQuestion(Question):
    """Every air-driven filter of the room."""

    pieces: Annotated[list[RoundPiece], Field(max_length=500)]


class SpongeRoundAnswer(Answer):
    """This week's filters by key, the most overdue first, and how many due ones follow later."""

    keys: list[Name]
    of_count: Annotated[int, whole(0, 500)]
    later_count: Annotated[int, whole(0, 500)]


def _tanks(names: list[str]) -> str:
    unlike = list(dict.fromkeys(names))
    if len(unlike) > NAMED:
        return f"{', '.join(unlike[:NAMED])} and {len(unlike) - NAMED} more"
    return unlike[0] if len(unlike) == 1 else f"{', '.join(unlike[:-1])} and {unlike[-1]}"


@computation("sponge-round", "Which sponges of a room are squeezed this week")
def sponge_round(question: SpongeRoundQuestion) -> SpongeRoundAnswer:
    """This week's round through a room's air-driven filters.

    question: days until each one's next cleaning. Two of one tank are never squeezed in one week. Source: common
    practice: a third of the rack a week at most.
    """
    q, w = question, Working()
    n = len(q.pieces)
    most = w.line("most", "⌈n / 3⌉", f"⌈{n} / 3⌉", math.ceil(n * MOST_SHARE - 1e-9), "filters", "practice")
    due = sorted((p for p in q.pieces if p.next_day <= WEEK_DAYS), key=lambda p: (p.next_day, p.tank, p.key))
    chosen: list[RoundPiece] = []
    for piece in due:
        if len(chosen) < most and piece.tank not in {c.tank for c in chosen}:
            chosen.append(piece)
    w.line("due", "within a week", f"{len(due)} of {n}", len(due), "filters", "arithmetic")
    later = len(due) - len(chosen)
    if not chosen:
        verdict = f"No sponge of {n} is to be squeezed this week." if n else "No air-driven filter runs here."
    else:
        part = "a third of the rack" if 3 * len(chosen) == n else f"{len(chosen)} of {n}"
        verdict = f"This week's round: squeeze {part}, {_tanks([p.tank for p in chosen])}."
        if later:
            verdict += f" The other {later} that are due follow next week: not all film at once."
    return SpongeRoundAnswer(
        verdict=verdict, working=w.lines, keys=[p.key for p in chosen], of_count=n, later_count=later
    )
