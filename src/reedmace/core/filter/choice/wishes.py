"""What matters to the keeper, as plain choices over the priorities."""

from pydantic import Field

from reedmace.core.contract import Name, Part
from reedmace.core.filter.site.site import Priorities


class Wish(Part):
    """One thing that may matter to the keeper, and what a press makes of the priorities."""

    priority: Name
    chosen: bool
    pressed: Priorities = Field(description="The priorities once it is pressed: chosen, or let go")


WISHES = ("young_safe", "quiet", "easy_clean", "clear_water", "price", "running_cost", "hidden", "redundant")
"""Priorities that are offered as plain choices, in their order on screen."""
CHOSEN_FROM, CHOSEN_WEIGHT, LET_GO_WEIGHT = 4, 5, 1
"""Weight from which a priority counts as chosen, and the weights of one chosen and one let go (a stated judgement)."""


def wishes_of(priorities: Priorities) -> list[Wish]:
    """The choices as they stand. priorities: the keeper's, or the default of the place."""
    found = []
    for name in WISHES:
        chosen = getattr(priorities, name) >= CHOSEN_FROM
        pressed = priorities.model_copy(update={name: LET_GO_WEIGHT if chosen else CHOSEN_WEIGHT})
        found.append(Wish(priority=name, chosen=chosen, pressed=pressed))
    return found
