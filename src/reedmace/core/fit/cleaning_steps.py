"""Cleaning steps of a filter, and the film a cleaning costs."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Share, Working, computation, number
from reedmace.core.film import SQUEEZED_SHARE
from reedmace.core.filter.kind_parts.cleaning import Worn
from reedmace.core.filter.kind_parts.steps import Step
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.kinds import kind_of
from reedmace.core.quantity import formatting


class CareStepsQuestion(Question):
    """The filter, its share of the film in all filters, the tank's load, the age of its parts."""

    kind: KindName
    film_share: Share = 1.0
    load_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9, "What the film is fed now")] = 0
    age_days: Annotated[float, number("days", 0, 40000, "Since it was hung")] = 0
    part_ages_days: Annotated[
        dict[Name, Annotated[float, number("days", 0, 40000)]],
        Field(max_length=40, description="Of parts changed since, by name"),
    ] = Field(default_factory=dict)


class WornPart(Part):
    """A part that wears, and whether it is due."""

    part: Name
    lasts_days: Annotated[float, number("days", 1, 40000)]
    age_days: Annotated[float, number("days", 0, 40000)]
    shows: str
    due: bool
    age_words: str
    lasts_words: str


class CareStepsAnswer(Answer):
    """The steps in order, and the film before and after."""

    title: Name
    steps: list[Step]
    minutes: Annotated[float, number("min", 0, 600)]
    touched_share: Share
    lost_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9)]
    left_share: Share
    worn: list[WornPart]


@computation("care-steps", "How to clean a filter without losing its film")
def care_steps_of(question: CareStepsQuestion) -> CareStepsAnswer:
    """Cleaning steps of a kind with their effect on the film.

    question: film as a share, load in mg N a day, age in days.
    Source: order and cautions common practice; film lost and the life of parts from memory.
    """
    q, w, care = question, Working(), kind_of(question.kind).care
    lost = w.sum(
        "lost",
        "film × touched × 0.1",
        {"film": q.film_share, "touched": care.share, "0.1": SQUEEZED_SHARE},
        "share",
        "memory",
    )
    mg = w.sum("lost", "share × load", {"share": lost, "load": q.load_mg_n_day}, "mg N/day", "memory")
    carried = (
        f"{mg:.1f} of {q.load_mg_n_day:.0f} mg N a day, made good within days"
        if q.load_mg_n_day >= 1
        else f"{lost:.0%} of the film, made good within days"
    )
    return CareStepsAnswer(
        verdict=f"In tank water it costs {carried}. Under the tap it would cost several times that.",
        working=w.lines,
        title=care.title,
        steps=list(care.steps),
        minutes=care.minutes,
        touched_share=care.share,
        lost_mg_n_day=mg,
        left_share=max(1 - lost, 0.0),
        worn=[_worn(p, q) for p in care.worn],
    )


def _worn(part: Worn, q: CareStepsQuestion) -> WornPart:
    age = min(q.part_ages_days.get(part.part, q.age_days), q.age_days)
    return WornPart(
        part=part.part,
        lasts_days=part.days,
        age_days=age,
        shows=part.shows,
        due=age >= part.days,
        age_words=formatting.age(age),
        lasts_words=formatting.age(part.days),
    )
