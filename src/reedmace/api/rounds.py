"""A room's round: proposed, taken on, walked."""

from datetime import date
from typing import Annotated

from apiflask import APIBlueprint
from flask import g
from pydantic import BaseModel, ConfigDict, Field

from reedmace.api.problems import ProblemError
from reedmace.api.rooms import READ, REFUSED
from reedmace.api.session import keeper, tanks
from reedmace.api.snapshot_cache import snapshots
from reedmace.core.contract import Issue
from reedmace.core.upkeep import room_round
from reedmace.logbook.plans.room_plan import RoomPlan, RoundHabits
from reedmace.logbook.replay.entries import NewEntry
from reedmace.logbook.rooms.room_round import RoundTank, RoundView, round_entries, round_question, round_view, taken_on
from reedmace.store import Rooms

blueprint = APIBlueprint("rounds", __name__, url_prefix="/api", tag="Rooms")

MOST_DAYS_OFF = 2
"""Days by which a device's day may differ from the server's: time zones, and a clock a little wrong."""


class Today(BaseModel):
    """The day where the keeper is."""

    model_config = ConfigDict(extra="forbid")
    today: Annotated[date, Field(description="The day on the keeper's device")]


class RoundAsked(Today):
    """A round as it would be with other habits."""

    habits: RoundHabits


class RoundSave(RoundAsked):
    """Habits to keep, and whether this week's round is taken on with them or given back."""

    take: bool = Field(description="Whether the week is taken on; otherwise a round taken on is given back")


def _near(today: date) -> date:
    """Reject a day that cannot be today anywhere."""
    if abs((today - g.now.date()).days) > MOST_DAYS_OFF:
        what = f"is {today}, and here it is {g.now.date()}."
        issue = Issue(where="today", what=what, remedy="Set the device's clock, or give the day where you are.")
        raise ProblemError(422, "Not today", f"today {what}", [issue])
    return today


def _tanks(plan: RoomPlan) -> dict[int, RoundTank]:
    """The room's tanks with their tasks, by id."""
    mine = {t.id: t for t in tanks().all()}
    here = [mine[i] for i in dict.fromkeys(s.tank_id for s in plan.spots) if i in mine]
    return {
        tank_id: RoundTank(
            tank_id=tank_id,
            name=mine[tank_id].name,
            quarantined=found.row.quarantine is not None,
            air=bool(found.row.air_keys),
            urgent=found.row.verdict if found.row.urgent else None,
            tasks=found.tasks,
        )
        for tank_id, found in snapshots(here).items()
    }


@blueprint.get("/rooms/<int:room_id>/round")
@blueprint.input(Today, location="query")
@blueprint.output(RoundView)
@blueprint.doc(responses={**READ, 422: "Not usable"})
def read_round(room_id: int, query_data: Today) -> RoundView:
    """The round of a room: this week's as it was taken on, or else as it would be."""
    plan = Rooms(g.database, keeper().id).get(room_id).plan
    return round_view(plan, plan.habits, _tanks(plan), g.now, _near(query_data.today))


@blueprint.post("/rooms/<int:room_id>/round/view")
@blueprint.input(RoundAsked)
@blueprint.output(RoundView)
@blueprint.doc(responses=REFUSED)
def see_round(room_id: int, json_data: RoundAsked) -> RoundView:
    """The week as it would be on other days, with more hands or another pump; nothing is written."""
    plan = Rooms(g.database, keeper().id).get(room_id).plan.model_copy(update={"taken": None})
    return round_view(plan, json_data.habits, _tanks(plan), g.now, _near(json_data.today))


@blueprint.put("/rooms/<int:room_id>/round")
@blueprint.input(RoundSave)
@blueprint.output(RoundView)
@blueprint.doc(responses={**REFUSED, 409: "The room was saved elsewhere since; `current` holds it"})
def save_round(room_id: int, json_data: RoundSave) -> RoundView:
    """Keep the habits of the walk, and take this week's round on or give it back."""
    rooms, habits, today = Rooms(g.database, keeper().id), json_data.habits, _near(json_data.today)
    room = rooms.get(room_id)
    here = _tanks(room.plan)
    taken = None
    if json_data.take:
        taken = taken_on(room_round(round_question(habits, room.plan, here, g.now, today)), g.now, today)
    plan = room.plan.model_copy(update={"habits": habits, "taken": taken})
    with g.database.atomic():
        saved = rooms.save(room_id, room.name, plan, room.version)
        for tank_id, body in round_entries(taken, here, today).items():
            # A tank without work this week needs no word of it, unless another round said something before.
            if body.tasks or room.plan.taken is not None:
                key = f"round-{room_id}-{saved.version}-{tank_id}"
                tanks().add(tank_id, NewEntry(key=key, at=g.now, body=body), g.now)
    return round_view(plan, habits, here, g.now, today)
