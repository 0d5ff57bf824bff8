"""Instructions for whoever looks after a tank during an absence."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, Question, Working, computation, number
from reedmace.core.quantity import formatting

FED_SHARE = 0.5
"""Share of the usual food a neighbour gives, in prepared portions (common practice: most harm is overfeeding)."""
UNFED_DAYS = 7.0
"""Days grown, healthy fish go without food (common practice); fry, shrimp on clean glass and turtles may not."""


class HolidayQuestion(Question):
    """Length of the absence, the food, and the filters."""

    days: Annotated[float, number("days", 0.5, 120)]
    feed_g_day: Annotated[float, number("g/day", 0, 5000)] = 0
    filters: Annotated[list[Name], Field(max_length=12, description="Names, for what is looked at")] = Field(
        default_factory=list
    )
    on_return: Annotated[list[str], Field(max_length=12, description="What each kind wants after a power cut")] = Field(
        default_factory=list
    )
    before: Annotated[list[str], Field(max_length=40, description="What the care plan has brought forward")] = Field(
        default_factory=list
    )
    after: Annotated[list[str], Field(max_length=40, description="What it has put off")] = Field(default_factory=list)
    salt_water: bool = False
    top_up_l_day: Annotated[float, number("L/day", 0, 1e6, "What evaporates; 0 where it is not known")] = 0


class HolidayAnswer(Answer):
    """Three lists, each in order."""

    before: list[str]
    may_wait: list[str]
    neighbour: list[str]
    portions_count: Annotated[int, Field(ge=0, le=120)]
    portion_g: Annotated[float, number("g", 0, 10000)]


@computation("holiday-page", "What to do before going away, what may wait, what a neighbour is asked to do")
def holiday_page(question: HolidayQuestion) -> HolidayAnswer:
    """Instructions for an absence.

    question: days away, food in g/day, names of the filters.
    Source: common practice: half the food, every other day, in portions made beforehand; no cleaning by other hands.
    """
    q, w = question, Working()
    feeds = int(q.days // 2) if q.days > UNFED_DAYS / 2 else 0
    portion = (
        w.sum("portion", "food × share × 2", {"food": q.feed_g_day, "share": FED_SHARE, "2": 2}, "g", "practice")
        if feeds
        else 0.0
    )
    filters = " and ".join(q.filters) or "the filter"
    food = (
        [f"Every other day one of the {feeds} portions, never more: what is not eaten turns to ammonia."]
        if feeds
        else ["No food: grown animals go without for a week."]
    )
    evaporates = q.top_up_l_day * q.days
    much = f" About {formatting.litres(q.top_up_l_day, '.1f')} a day goes." if evaporates >= 1 else ""
    top_up = (
        "Fill up to the mark with the fresh water that stands ready, never with salt water."
        if q.salt_water
        else "Fill up to the mark with the water that stands ready."
    ) + much
    before = [
        *q.before,
        "Water is changed three days before, not on the last day; then look whether all is well.",
        f"Weigh {feeds} portions of about {portion:.1f} g into a pill box." if feeds else "No food need be left.",
        (
            f"Mark the water line on the glass and leave {formatting.litres(max(5, math.ceil(1.2 * evaporates)))} or"
            " more of treated water beside the tank."
        ),
        "Tell who comes: a number to call, and where the plugs are.",
    ]
    neighbour = [
        f"Look at {filters}: water moves or bubbles rise. If not, the plug, then a call.",
        *food,
        "Look at the thermometer and count the animals at the glass.",
        top_up,
        *dict.fromkeys(f"After a power cut: {formatting.inside(words)}" for words in q.on_return if words),
        "Nothing is cleaned, changed or added. A wet floor: pull the plugs above it, then call.",
    ]
    return HolidayAnswer(
        verdict=f"{q.days:.0f} days away: {feeds} small feeds, nothing cleaned, everything else before or after.",
        working=w.lines,
        before=before,
        may_wait=q.after or ["Nothing falls into these days."],
        neighbour=neighbour,
        portions_count=feeds,
        portion_g=portion,
    )
