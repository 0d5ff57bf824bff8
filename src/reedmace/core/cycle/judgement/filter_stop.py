"""A stopped filter: how much of its bacteria it lost, and what to do during the stop and in the week after."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, Question, Share, Working, computation, number
from reedmace.core.cycle.record.film_losses import GONE_SHARE, airless_share
from reedmace.core.cycle.record.proof import FALLS_AT_SHARE

FOUL_AFTER_H = 2.0
"""Hours after which a closed canister is opened and rinsed before it runs:

it turns anoxic within hours (common practice).
"""
WATCH_DAYS = 7.0
"""Days a tank is watched like a new one after filter bacteria were lost (common practice)."""
TESTED_DAYS = 1.2
"""Age in days up to which a daily test counts as fresh (memory)."""


class FilterStopQuestion(Question):
    """One stop of one filter."""

    name: Name = "The filter"
    closed: bool = False
    hours: Annotated[float, number("h", 0, 100000, "Until it ran again, or until now")] = 8
    film_share: Share = 1.0
    standing: bool = False
    taken_off: bool = Field(default=False, description="It was taken off, and its film with it; hours do not count")
    since_days: Annotated[float, number("days", 0, 10000, "Since it ran again; 0 while it stands")] = 0
    animals_in: bool = True
    salt: bool = Field(default=False, description="Salt or brackish water: what is poured in is mixed first")
    tested_days: Annotated[float, number("days", 0, 10000, "Since both poisons were tested")] | None = None
    oxygen_h: (
        Annotated[float, number("h", 0, 400, "Until the animals are short of oxygen with everything off")] | None
    ) = Field(default=None, description="As `oxygen-balance` finds it; left out where it never comes to that")


class FilterStopAnswer(Answer):
    """What the stop cost and what to do; `urgent` where animals cannot wait; empty once it is over."""

    lost_share: Share
    urgent: bool
    over: bool
    first: str
    steps: list[str]
    caution: str = "Unplug before hands go in; dry the plug before it goes back."


def _air(q: FilterStopQuestion) -> list[str]:
    """Aeration for the animals while the filter stands."""
    until = "Until it runs: an air stone or any pump that breaks the surface, and no food."
    if q.oxygen_h is None:
        return [until]
    left = q.oxygen_h - q.hours
    if left <= 0:
        return [
            f"Air first: with the surface still they have been short of oxygen for {_long(max(-left, 0.25))}. Stir by"
            " hand until a battery pump or an air stone runs; no food."
        ]
    return [f"With the surface still they are short of oxygen in about {_long(max(left, 0.25))}. {until}"]


def _long(hours: float) -> str:
    if hours < 1.5:
        return f"{hours * 60:.0f} minutes"
    return f"{hours:.0f} hours" if hours < 48 else f"{hours / 24:.0f} days"


@computation("filter-stop", "What a stop of the filter cost, and what to do about it")
def filter_stop(question: FilterStopQuestion) -> FilterStopAnswer:
    """Effect of one filter stop on the bacteria, and what to do about it.

    question: hours it stood, whether its body is closed, the share of the filters' film it holds. Source: film halves
    every 6 h in a closed body without flow, 24 h in an open one (memory); a closed body turns airless within hours, and
    a tank that lost film is tested daily for a week (common practice).
    """
    q, w = question, Working()
    own = GONE_SHARE if q.taken_off else airless_share(q.hours, q.closed)
    lost = w.line(
        "film lost",
        "share × what goes with it" if q.taken_off else "share × (1 − ½^(hours / half))",
        f"{q.film_share:.2f} × {own:.3f}",
        q.film_share * own,
        "share",
        "memory",
    )
    foul = q.closed and q.hours >= FOUL_AFTER_H
    watched = lost >= FALLS_AT_SHARE and q.since_days <= WATCH_DAYS
    tested = q.tested_days is not None and q.tested_days <= min(TESTED_DAYS, max(q.since_days, 0.05))
    steps: list[str] = []
    if q.standing:
        first = "Open it, rinse it, then get it running" if foul else "Get it running"
        if foul:
            steps.append(
                "Pour away what stood in the body and rinse the media in tank water before it runs: airless water must"
                " not reach the tank."
            )
        else:
            steps.append(
                "Look at the plug, the impeller and the hoses; prime what must be primed; see that water moves."
            )
        if q.animals_in:
            steps.extend(_air(q))
        watch = "Then test" if lost >= FALLS_AT_SHARE else ""
    else:
        first = "Test ammonia and nitrite today"
        watch = "Test" if watched else ""
    if watch:
        steps.append(f"{watch} ammonia and nitrite every day for a week, and feed a third.")
    if watch and q.animals_in:
        mixed = ", treated and mixed to the tank's own salinity," if q.salt else ", treated,"
        steps.append(f"At the first trace change a third of the water{mixed} and test again the next day.")
    stood = f"{'has stood' if q.standing else 'stood'} still for {_long(q.hours)}"
    how = f"{q.name} {'was taken off' if q.taken_off else stood}"
    cost = f"about {lost:.0%} of the filters' film is lost" if lost >= FALLS_AT_SHARE else "most of the film lives"
    return FilterStopAnswer(
        verdict=f"{how}: {cost}.",
        working=w.lines,
        lost_share=lost,
        urgent=q.animals_in and (q.standing or (watched and not tested)),
        over=not q.standing and not watched,
        first=first,
        steps=steps,
    )
