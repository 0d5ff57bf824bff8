"""Replacing a filter or moving a tank while the film survives."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Share, Working, computation, number
from reedmace.core.film import COLDEST_C, FULL_DAYS, HALF_LIFE_MIN, WARMEST_C, Travels, alive_share, grown_share
from reedmace.core.quantity import formatting


class FilterMoveQuestion(Question):
    """What is replaced or moved, for how long, and how the media travel."""

    what: Literal["replace-filter", "move-tank"] = "replace-filter"
    days_side_by_side: Annotated[float, number("days", 0, 400)] = 0
    media_moved_share: Annotated[float, number("share", 0, 1, "Of the old filter's media put into the new")] = 0
    minutes_out: Annotated[float, number("min", 0, 3000, "Out of running water")] = 0
    travels: Travels = "wet-open"
    temperature_c: Annotated[float, number("°C", 0, 60)] = 22


class MoveStep(Part):
    """One step."""

    id: Name
    title: Name
    detail: str


class FilterMoveAnswer(Answer):
    """Film carried across, when the old filter may be removed, and the steps."""

    carried_share: Share
    retire_after_days: Annotated[float, number("days", 0, 400)] | None = Field(
        description="More days side by side; null once it may go"
    )
    light_stock_days: Annotated[float, number("days", 0, 400, "Feed little and test daily for so long")]
    warnings: list[str]
    steps: list[MoveStep]


REPLACING = (
    MoveStep(
        id="move-beside",
        title="Run the new one beside the old",
        detail="A month is usual, two to three weeks are common; both at once, neither cleaned.",
    ),
    MoveStep(
        id="move-media",
        title="Carry media across wet",
        detail="As much of the old media as fits, in tank water, never rinsed under the tap.",
    ),
    MoveStep(
        id="move-things",
        title="Leave rock, wood and gravel",
        detail="They carry film too; clean none of them in the same fortnight.",
    ),
    MoveStep(
        id="move-retire",
        title="Retire the old one last",
        detail="Only when tests have stayed at zero; half of it at a time if it can be parted.",
    ),
    MoveStep(id="move-test", title="Test daily for a week", detail="Ammonia and nitrite; feed little."),
)
"""Steps of replacing a filter, in order (common practice)."""
MOVING = (
    MoveStep(
        id="move-water",
        title="Buckets of tank water first",
        detail="For animals and for media, apart; lids off or an air stone.",
    ),
    MoveStep(
        id="move-media-wet",
        title="Media out last, in last",
        detail="Wet, open to air, shaded, between 15 and 28 °C (59 to 82 °F). Start the clock.",
    ),
    MoveStep(id="move-empty", title="Empty the tank", detail="Never move a filled tank, nor one with stone in it."),
    MoveStep(
        id="move-start",
        title="Filter running before animals",
        detail="Water of the same temperature, treated; media back within the hour if you can.",
    ),
    MoveStep(id="move-test", title="Test daily for a week", detail="Ammonia and nitrite; feed little."),
)
"""Steps of moving a tank, in order (common practice)."""
CARRIED_SHARE = 0.8
"""Share of the film that must be across before an old filter is taken off (common practice)."""


def _warnings(q: FilterMoveQuestion) -> Iterator[str]:
    if not COLDEST_C <= q.temperature_c <= WARMEST_C:
        yield f"{formatting.celsius(q.temperature_c)} on the way kills most of it: a cool box, not a parked car."
    if q.travels == "wet-closed" and q.minutes_out > 60:
        yield "Shut in with its own water it turns airless within hours: leave the lid off or add an air stone."
    if q.travels == "dry":
        yield "Dry media are dead media: keep them in a bucket of tank water."


@computation("filter-move", "How much film comes across when a filter is replaced or a tank moved")
def filter_move(question: FilterMoveQuestion) -> FilterMoveAnswer:
    """Film carried across, and the order of steps.

    question: days, minutes and °C. Source: side-by-side times common practice; survival out of water from memory.
    """
    q, w = question, Working()
    alive = w.line(
        "alive",
        "½^(minutes / half life)",
        f"½^({q.minutes_out:g} / {HALF_LIFE_MIN[q.travels]:g}), {q.temperature_c:g} °C",
        alive_share(q.minutes_out, q.travels, q.temperature_c),
        "share",
        "memory",
    )
    grown = w.line(
        "grown",
        "days side by side / 30, at most 1",
        f"{q.days_side_by_side:g} / 30",
        grown_share(q.days_side_by_side),
        "share",
        "practice",
    )
    moved = q.media_moved_share * alive if q.what == "replace-filter" else alive
    carried = w.sum("carried", "1 − (1 − grown) × (1 − moved)", {"grown": grown, "moved": moved}, "share", "arithmetic")
    if q.what == "move-tank":
        carried = moved
    missing = 1 - carried
    retire = None
    if q.what == "replace-filter" and carried < CARRIED_SHARE:
        whole = max((CARRIED_SHARE - moved) / max(1 - moved, 0.01), 0) * FULL_DAYS
        retire = max(whole - q.days_side_by_side, 1.0)
    light = w.sum("light", "missing film × 14", {"missing film": missing}, "days", "memory")
    verdict = f"About {carried:.0%} of the film comes across"
    verdict += (
        f": keep the old filter running {retire:.0f} more days."
        if retire is not None
        else (f"; feed little for {light:.0f} days." if light >= 1 else ": carry on as before.")
    )
    return FilterMoveAnswer(
        verdict=verdict,
        working=w.lines,
        carried_share=carried,
        retire_after_days=retire,
        light_stock_days=light,
        warnings=list(_warnings(q)),
        steps=list(REPLACING if q.what == "replace-filter" else MOVING),
    )
