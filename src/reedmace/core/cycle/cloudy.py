"""Cloudy water: dirt, bloom or poison. It starts with tests and mostly ends with waiting."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.cycle.log import KitSteps
from reedmace.core.working import Answer, MgNPerL, Part, Question, Share, Working, number

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
    """One cause and how much speaks for it."""

    cause: Cause
    title: str
    weight_share: Share
    why: str


class CloudStep(Part):
    """One step, in order."""

    title: str
    detail: str


class CloudyWaterAnswer(Answer):
    """What it most likely is, the steps in order, and what not to do."""

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


def cloudy_water(question: CloudyWaterQuestion) -> CloudyWaterAnswer:
    """What the cloud most likely is, and what to do, tests first.

    question: colour, days, what came before, mg N/L. Source: common practice; weights are a judgement (memory).
    """
    q, w = question, Working()
    points: dict[Cause, float] = dict.fromkeys(_TITLES, 0.0)
    why: dict[Cause, list[str]] = {cause: [] for cause in _TITLES}

    def speaks(cause: Cause, weight: float, reason: str) -> None:
        points[cause] += weight
        why[cause].append(reason)

    if q.colour == "green":
        speaks("algae", 6, "the water is green")
    if q.colour == "tea":
        speaks("tannin", 6, "it is clear but brown, like tea")
    if q.colour == "white":
        speaks("bloom", 2, "it is milky")
        speaks("dust", 0.7, "fine dust looks white too")
    if q.colour == "grey-brown":
        speaks("dust", 2.5, "it is grey or brown")
    if q.age_days <= 60 and q.colour in ("white", "grey-brown"):
        speaks("bloom", 2, "the tank is young")
    if q.after in ("filling", "new-gravel"):
        speaks("dust", 3 if q.cloudy_days <= 3 else 1, "it came with the filling or the gravel")
    if q.after == "service":
        speaks("dust", 3, "it came after the filter was touched")
    if q.after == "feeding":
        speaks("overfeeding", 4, "it came after feeding")
    if q.after == "bicarbonate":
        speaks("precipitate", 5, "it came after bicarbonate, put in too fast or too much")
    if q.after in ("medicine", "new-animals"):
        speaks("bloom", 1.5, "something new feeds free bacteria")
    if q.settles_in_glass is True:
        speaks("dust", 3, "it settles in a glass overnight")
    if q.settles_in_glass is False and q.colour == "white":
        speaks("bloom", 3, "it does not settle in a glass")
    if q.bubbles:
        speaks("air", 4, "bubbles are seen in it")
    if (q.ammonia_mg_n_l or 0) > q.kit.zero_mg_n_l("ammonia") and q.animals_in:
        speaks("overfeeding", 1.5, "ammonia reads")
    total = sum(points.values()) or 1.0
    suspects = sorted(
        (
            Suspect(cause=c, title=_TITLES[c], weight_share=p / total, why=", ".join(why[c]))
            for c, p in points.items()
            if p > 0.12 * total
        ),
        key=lambda s: -s.weight_share,
    )
    first = suspects[0].cause if suspects else "bloom"
    for s in suspects:
        w.line(s.title, "points / sum of points", f"{points[s.cause]:g} / {total:g}", s.weight_share, "share", "memory")
    steps: list[CloudStep] = []
    if q.gasping:
        steps.append(
            CloudStep(title="Aerate now", detail="A bloom takes the oxygen; an air stone or the outlet at the surface.")
        )
    untested = q.ammonia_mg_n_l is None or q.nitrite_mg_n_l is None
    if untested:
        steps.append(
            CloudStep(
                title="Test ammonia and nitrite",
                detail="Before anything else: cloud is a look, those two are the harm.",
            )
        )
    poisoned = (q.ammonia_mg_n_l or 0) > q.kit.zero_mg_n_l("ammonia") or (q.nitrite_mg_n_l or 0) > q.kit.zero_mg_n_l(
        "nitrite"
    )
    if poisoned and q.animals_in:
        steps.append(
            CloudStep(
                title="Treat the reading, not the cloud",
                detail="Follow the emergency plan: change water, feed little, test daily.",
            )
        )
    if q.settles_in_glass is None and q.colour in ("white", "grey-brown"):
        steps.append(
            CloudStep(
                title="A glass overnight",
                detail="What settles is dirt; what stays milky is a bloom; what is clear but brown is tannin.",
            )
        )
    if q.animals_in:
        steps.append(CloudStep(title="Feed half", detail="Take out what lies uneaten."))
    ends: dict[Cause, tuple[str, str]] = {
        "bloom": ("Wait", "It clears by itself in days to two weeks, when the film has taken over the food."),
        "dust": ("Wait a day, with floss in the filter", "Floss or a fine pad catches it; rinse that in tank water."),
        "algae": ("Less light", "Three days dark, then fewer hours; nitrate and phosphate down by changes."),
        "tannin": ("Leave it, or carbon", "Harmless; changes and carbon take it out if you mind the colour."),
        "overfeeding": ("Take out the food, change a quarter", "Then feed half for a week and test daily."),
        "air": (
            "Look for the air",
            "A loose hose end or a canister still purging; it passes in hours or at the joint.",
        ),
        "precipitate": ("Wait", "It settles in a day; next time dissolve it first and give it in halves."),
    }
    steps.append(CloudStep(title=ends[first][0], detail=ends[first][1]))
    verdict = f"Most likely {_TITLES[first][0].lower()}{_TITLES[first][1:]}. "
    if untested:
        verdict += "Test ammonia and nitrite first; the cloud itself mostly passes by waiting."
    elif poisoned and q.animals_in:
        verdict += "The tests matter more than the cloud: act on them."
    else:
        verdict += f"The tests are clear of harm. {ends[first][0]}."
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
