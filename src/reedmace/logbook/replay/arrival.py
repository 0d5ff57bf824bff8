"""State of a tank when it was added: empty, cycling, with animals, running for years, or only a filter in hand."""

from datetime import datetime, timedelta

from reedmace.core.tank import UsualTankQuestion, usual_tank
from reedmace.logbook.plans.plan_kinds import TankPlan
from reedmace.logbook.replay.breeding_entries import BroodStep
from reedmace.logbook.replay.entries import Situation, Stocking
from reedmace.logbook.replay.state import LogbookState

ALIVE = ("animals-in", "running")
RAN_ALREADY = ("cycling", *ALIVE)
SAME_TIME = timedelta(days=2)
"""Filters recorded within this time of the situation belong to it."""


def situation(state: LogbookState) -> Situation | None:
    """The situation as last stated; None where nobody was asked. state: the tank's."""
    body = state.situation.body if state.situation else None
    return body if isinstance(body, Situation) else None


def since(state: LogbookState) -> datetime | None:
    """Start of the situation; None for an empty tank. state: the tank's."""
    said = situation(state)
    if said is None or state.situation is None or said.stands not in RAN_ALREADY:
        return None
    return min(said.since or state.situation.at, state.situation.at)


def came_with_animals(state: LogbookState) -> datetime | None:
    """When the animals came, where they were in before the logbook began; otherwise None. state: the tank's."""
    said = situation(state)
    return since(state) if said is not None and said.stands in ALIVE else None


def is_filled(state: LogbookState) -> bool:
    """Whether water stands in the tank already: it runs, is tested, or animals came. state: the tank's."""
    return since(state) is not None or bool(came_at(state) or state.readings or state.doses or state.changes)


def came_at(state: LogbookState) -> list[datetime]:
    """Every day on which animals came, oldest first. state: the tank's."""
    added = [
        e.at
        for e in state.events
        if (isinstance(e.body, Stocking) and e.body.count > 0)
        or (isinstance(e.body, BroodStep) and e.body.what in ("hatched", "free-swimming", "came"))
    ]
    before = came_with_animals(state)
    return sorted([*added, *([before] if before else [])])


def ran_already(state: LogbookState, key: str) -> bool:
    """Whether a filter ran before the logbook began, so that no step is asked for.

    state: the tank's; key: its key. Only the first filters written down were there: a later one is new, on the same
    evening too.
    """
    said, installed = situation(state), state.hung_since.get(key)
    if said is None or state.situation is None or installed is None or said.stands not in RAN_ALREADY:
        return False
    return installed == state.first_hung and installed - state.situation.at <= SAME_TIME


def box_of(litres: float) -> TankPlan:
    """A tank of usual proportions for a volume. litres: net, 1 to 5000 L."""
    return TankPlan(kind="tank-plan", tank=usual_tank(UsualTankQuestion(litres=litres)).tank, by_litres=True)
