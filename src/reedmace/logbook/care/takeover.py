"""A new filter beside an old one: how much film it has, and when the old one may be removed."""

from datetime import datetime

from reedmace.core.contract import Part
from reedmace.core.film import USABLE_DAYS
from reedmace.core.fit.filter_move import FilterMoveAnswer, FilterMoveQuestion, filter_move
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.state import LogbookState

APART_DAYS = USABLE_DAYS
"""Age difference from which a filter has film to be taken over; closer ones mature together."""
LONGEST_DAYS = 60.0
"""Days side by side after which nothing is left to wait for."""


class Takeover(Part):
    """The old filter, the new one, and what is still missing."""

    old: str
    new: str
    words: str
    question: FilterMoveQuestion
    answer: FilterMoveAnswer


def takeover(state: LogbookState, now: datetime) -> Takeover | None:
    """Progress of the newest filter against the oldest; None where they are of one age, long settled, or without film.

    state: the tank's; now: aware time.
    """
    hanging = sorted((f for f in state.filters() if f.key in state.hung_since), key=lambda f: state.hung_since[f.key])
    if len(hanging) < 2 or not (animals_in(state) or state.cycle_plan):
        return None
    old, new = hanging[0], hanging[-1]
    days = (now - state.hung_since[new.key]).total_seconds() / 86400
    apart = (state.hung_since[new.key] - state.hung_since[old.key]).total_seconds() / 86400
    if apart < APART_DAYS or not 0 <= days <= LONGEST_DAYS:
        return None
    question = FilterMoveQuestion(days_side_by_side=days)
    answer = filter_move(question)
    may = (
        f"{old.filter.name} may be taken off in {answer.retire_after_days:.0f} days"
        if answer.retire_after_days is not None
        else f"{old.filter.name} may be taken off"
    )
    words = (
        f"{new.filter.name} has run beside {old.filter.name} for {days:.0f} days and holds about "
        f"{answer.carried_share:.0%} of the film it will: {may}, if tests stay at zero."
    )
    return Takeover(old=old.filter.name, new=new.filter.name, words=words, question=question, answer=answer)
