"""Cloudy water: dirt, bacterial bloom or ammonia. Testing comes first, and waiting usually solves it."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, MgNPerL, Part, Question, Share, Working, computation, number
from reedmace.core.cycle.record.log import CycleLog, KitSteps
from reedmace.core.quantity import formatting

Cause = Literal["bloom", "dust", "algae", "tannin", "overfeeding", "air", "precipitate"]


class CloudyWaterQuestion(Question):
    """What is seen, since when, after what, and the tests."""

    colour: Literal["white", "grey-brown", "green", "tea"] = "white"
    age_days: Annotated[float, number("days", 0, 10000)] = 7
    cloudy_days: Annotated[float, number("days", 0, 1000)] = 1
    after: Literal[
        "nothing", "filling", "new-gravel", "service", "feeding", "bicarbonate", "medicine", "new-animals"
    ] = "nothing"
    settles_in_glass: bool | None = None
    bubbles: bool = False
    animals_in: bool = False
    gasping: bool = False
    ammonia_mg_n_l: MgNPerL | None = None
    nitrite_mg_n_l: MgNPerL | None = None
    kit: KitSteps = Field(default_factory=KitSteps, description="Whose zero counts")


class Suspect(Part):
    """One possible cause and its score."""

    cause: Cause
    title: str
    weight_share: Share
    why: str


class CloudStep(Part):
    """One step, in order."""

    title: str
    detail: str


class CloudyWaterAnswer(Answer):
    """The most likely cause, the steps in order, and what not to do."""

    suspects: list[Suspect]
    steps: list[CloudStep]
    leave: list[str]


_TITLES: dict[Cause, str] = {
    "bloom": "A bloom of free bacteria",
    "dust": "Dust and dirt",
    "algae": "Green water: floating algae",
    "tannin": "Tannin from wood",
    "overfeeding": "Food rotting",
    "air": "Fine bubbles",
    "precipitate": "Chalk falling out",
}


@dataclass(frozen=True)
class Sign:
    """Evidence for a cause: points (a judgement, from memory), the words, and whether it is present."""

    cause: Cause
    points: float
    reason: str
    seen: Callable[[CloudyWaterQuestion], bool]


def _reads(q: CloudyWaterQuestion, what: Literal["ammonia", "nitrite"]) -> bool:
    ppm = q.ammonia_mg_n_l if what == "ammonia" else q.nitrite_mg_n_l
    return (ppm or 0.0) > q.kit.zero_mg_n_l(what)


def _came_with_filling(q: CloudyWaterQuestion) -> bool:
    return q.after in ("filling", "new-gravel")


FILLING = "it came with the filling or the gravel"
SIGNS: tuple[Sign, ...] = (
    Sign("algae", 6, "the water is green", lambda q: q.colour == "green"),
    Sign("tannin", 6, "it is clear but brown, like tea", lambda q: q.colour == "tea"),
    Sign("bloom", 2, "it is milky", lambda q: q.colour == "white"),
    Sign("dust", 0.7, "fine dust looks white too", lambda q: q.colour == "white"),
    Sign("dust", 2.5, "it is grey or brown", lambda q: q.colour == "grey-brown"),
    Sign("bloom", 2, "the tank is young", lambda q: q.age_days <= 60 and q.colour in ("white", "grey-brown")),
    Sign("dust", 3, FILLING, lambda q: _came_with_filling(q) and q.cloudy_days <= 3),
    Sign("dust", 1, FILLING, lambda q: _came_with_filling(q) and q.cloudy_days > 3),
    Sign("dust", 3, "it came after the filter was touched", lambda q: q.after == "service"),
    Sign("overfeeding", 4, "it came after feeding", lambda q: q.after == "feeding"),
    Sign(
        "precipitate",
        5,
        "it came after bicarbonate, put in too fast or too much",
        lambda q: q.after == "bicarbonate",
    ),
    Sign("bloom", 1.5, "something new feeds free bacteria", lambda q: q.after in ("medicine", "new-animals")),
    Sign("dust", 3, "it settles in a glass overnight", lambda q: q.settles_in_glass is True),
    Sign(
        "bloom",
        3,
        "it does not settle in a glass",
        lambda q: q.settles_in_glass is False and q.colour == "white",
    ),
    Sign("air", 4, "bubbles are seen in it", lambda q: q.bubbles),
    Sign("overfeeding", 1.5, "ammonia reads", lambda q: _reads(q, "ammonia") and q.animals_in),
)

_ENDS: dict[Cause, tuple[str, str]] = {
    "bloom": ("Wait", "It clears by itself in days to two weeks, when the film has taken over the food."),
    "dust": ("Wait a day, with floss in the filter", "Floss or a fine pad catches it; rinse that in tank water."),
    "algae": ("Less light", "Three days dark, then fewer hours; nitrate and phosphate down by changes."),
    "tannin": ("Leave it, or carbon", "Harmless; changes and carbon take it out if you mind the colour."),
    "overfeeding": ("Take out the food, change a quarter", "Then feed half for a week and test daily."),
    "air": ("Look for the air", "A loose hose end or a canister still purging; it passes in hours or at the joint."),
    "precipitate": ("Wait", "It settles in a day; next time dissolve it first and give it in halves."),
}


def _untested(q: CloudyWaterQuestion) -> bool:
    return q.ammonia_mg_n_l is None or q.nitrite_mg_n_l is None


def _poisoned(q: CloudyWaterQuestion) -> bool:
    return q.animals_in and (_reads(q, "ammonia") or _reads(q, "nitrite"))


STEPS: tuple[tuple[Callable[[CloudyWaterQuestion], bool], str, str], ...] = (
    (
        lambda q: q.gasping,
        "Aerate now",
        "A bloom takes the oxygen; an air stone or the outlet at the surface.",
    ),
    (_untested, "Test ammonia and nitrite", "Before anything else: cloud is a look, those two are the harm."),
    (
        _poisoned,
        "Treat the reading, not the cloud",
        "Follow the emergency plan: change water, feed little, test daily.",
    ),
    (
        lambda q: q.settles_in_glass is None and q.colour in ("white", "grey-brown"),
        "A glass overnight",
        "What settles is dirt; what stays milky is a bloom; what is clear but brown is tannin.",
    ),
    (lambda q: q.animals_in, "Feed half", "Take out what lies uneaten."),
)
"""When, what, how; in this order, before the step that ends the likeliest cause."""


RECENT_DAYS = 2.0
"""Age of a test up to which it still speaks of cloudy water (memory)."""


def cloudy_question(log: CycleLog) -> CloudyWaterQuestion:
    """The question for a logged tank before anything is said of the cloud. log: the cycle's."""
    recent = [r for r in log.readings if log.day_now - r.day <= RECENT_DAYS]
    newest = max(recent, key=lambda r: r.day, default=None)
    return CloudyWaterQuestion(
        age_days=max(round(log.day_now), 0),
        animals_in=log.animals_are_in(),
        ammonia_mg_n_l=newest.ammonia_mg_n_l if newest else None,
        nitrite_mg_n_l=newest.nitrite_mg_n_l if newest else None,
        kit=log.kit,
    )


@computation("cloudy-water", "Bloom or dirt, and what to do")
def cloudy_water(question: CloudyWaterQuestion) -> CloudyWaterAnswer:
    """The most likely cause of cloudy water and what to do, tests first.

    question: colour, days, what came before, mg N/L. Source: common practice; weights are a judgement (memory).
    """
    q, w = question, Working()
    seen = [sign for sign in SIGNS if sign.seen(q)]
    points = {cause: sum(sign.points for sign in seen if sign.cause == cause) for cause in _TITLES}
    total = sum(points.values()) or 1.0
    suspects = sorted(
        (
            Suspect(
                cause=cause,
                title=_TITLES[cause],
                weight_share=own / total,
                why=", ".join(sign.reason for sign in seen if sign.cause == cause),
            )
            for cause, own in points.items()
            if own > 0.12 * total
        ),
        key=lambda s: -s.weight_share,
    )
    first = suspects[0].cause if suspects else "bloom"
    for s in suspects:
        w.line(s.title, "points / sum of points", f"{points[s.cause]:g} / {total:g}", s.weight_share, "share", "memory")
    steps = [CloudStep(title=title, detail=detail) for when, title, detail in STEPS if when(q)]
    steps.append(CloudStep(title=_ENDS[first][0], detail=_ENDS[first][1]))
    verdict = f"Most likely {formatting.inside(_TITLES[first])}. "
    if _untested(q):
        verdict += "Test ammonia and nitrite first; the cloud itself mostly passes by waiting."
    elif _poisoned(q):
        verdict += "The tests matter more than the cloud: act on them."
    else:
        verdict += f"The tests are clear of harm. {_ENDS[first][0]}."
    return CloudyWaterAnswer(
        verdict=verdict,
        working=w.lines,
        suspects=suspects,
        steps=steps,
        leave=[
            "Do not add another filter: a sterile one has no film, and clear water proves nothing.",
            "Do not clean the filter media for it: the film is what ends a bloom.",
            "Do not change all the water: half at most, and only for a reading.",
        ],
    )
