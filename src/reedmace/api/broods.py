"""Broods of every tank on one board, and a brood that moves to another tank."""

from typing import Annotated

from apiflask import APIBlueprint
from flask import g
from pydantic import BaseModel, ConfigDict, Field

from reedmace.api.problems import ProblemError
from reedmace.api.rooms import REFUSED, ManyWritten, TankId, own_tanks
from reedmace.api.session import state_of, tanks
from reedmace.core.contract import Issue
from reedmace.logbook.replay.breeding_entries import BroodKey, BroodStep
from reedmace.logbook.replay.broods import Brood, broods_of, fry_length_now_cm, species_of
from reedmace.logbook.replay.entries import Key, NewEntry
from reedmace.logbook.replay.state import replay
from reedmace.logbook.rooms.brood_board import BroodRow, board_verdict, brood_board
from reedmace.logbook.rooms.shared_resources import RoomTank

blueprint = APIBlueprint("broods", __name__, url_prefix="/api", tag="Rooms")


class BroodList(BaseModel):
    """Every brood that lives, those that press first, and what to know of them in a sentence."""

    verdict: str
    broods: list[BroodRow]


class BroodMove(BaseModel):
    """A brood, or part of it, that moves to another tank."""

    model_config = ConfigDict(extra="forbid")
    key: Annotated[Key, Field(max_length=56)]
    brood: BroodKey
    from_id: TankId
    to_id: TankId
    count: Annotated[int | None, Field(ge=1, le=20000, description="All of them where left out")] = None


@blueprint.get("/broods")
@blueprint.output(BroodList)
@blueprint.doc(responses={401: "Not signed in"})
def read_broods() -> BroodList:
    """The broods of all tanks on one board."""
    mine = tanks()
    all_tanks = mine.all()
    entries = mine.recent_of([t.id for t in all_tanks])
    here = [RoomTank(t.id, t.name, replay(entries.get(t.id, []))) for t in all_tanks]
    rows = brood_board(here, g.now)
    return BroodList(verdict=board_verdict(rows, g.now), broods=rows)


def _brood_in(tank_id: int, key: str) -> Brood | None:
    """The brood of that key that lives in a tank; None where none does."""
    found = broods_of(state_of(tank_id))
    return next((b for b in found if b.key == key and not b.over), None)


def _measured_cm(tank_id: int, brood: Brood) -> float | None:
    """Length of its young today where it was once measured, so that it goes with them; None where it was not."""
    species = species_of(state_of(tank_id), brood.species_id)
    return None if brood.length_cm is None or species is None else fry_length_now_cm(species, brood, g.now)


@blueprint.post("/broods/move")
@blueprint.input(BroodMove)
@blueprint.output(ManyWritten, status_code=201)
@blueprint.doc(responses=REFUSED)
def move_brood(json_data: BroodMove) -> ManyWritten:
    """Move a brood, or part of it, to another tank: recorded in both or in neither."""
    ask, mine = json_data, tanks()
    own_tanks([ask.from_id, ask.to_id], "from_id, to_id")
    keys = {ask.from_id: f"{ask.key}-from", ask.to_id: f"{ask.key}-to"}
    if mine.is_written(ask.from_id, keys[ask.from_id]):
        # The answer was lost on its way: what was written then is told again.
        return ManyWritten(entries=[e for tank, key in keys.items() for e in mine.recent(tank) if e.key == key])
    here, there = _brood_in(ask.from_id, ask.brood), _brood_in(ask.to_id, ask.brood)
    if here is None or ask.from_id == ask.to_id:
        what = "names no brood of that tank, or both tanks are the same."
        issue = Issue(where="brood", what=what, remedy="Look at the board again, and choose another tank.")
        raise ProblemError(422, "Not movable", f"brood {what}", [issue])
    if ask.count is not None and here.count is not None and ask.count > here.count:
        what = f"is {ask.count}, and there are {here.count}."
        issue = Issue(where="count", what=what, remedy="Count them first, or move fewer.")
        raise ProblemError(422, "Too many", f"count {what}", [issue])
    went = ask.count if ask.count is not None else here.count
    # Where nobody counted those that go, or those of the same brood that are there, nobody knows how many it will be.
    unknown = went is None or (there is not None and there.count is None)
    gone = BroodStep(kind="brood", brood=ask.brood, what="moved", species_id=here.species_id, count=ask.count)
    came = BroodStep(
        kind="brood",
        brood=ask.brood,
        what="came" if here.free_at else "hatched" if here.hatched_at else "spawned" if here.spawned_at else "pair",
        species_id=here.species_id,
        count=None if unknown else (went or 0) + (there.count or 0 if there else 0),
        length_cm=_measured_cm(ask.from_id, here),
        free_at=here.free_at,
    )
    # Eggs keep the day they were laid, so that the day they hatch stays.
    begun = g.now if here.free_at else here.hatched_at or here.spawned_at or g.now
    with g.database.atomic():
        written = [
            mine.add(ask.from_id, NewEntry(key=keys[ask.from_id], at=g.now, body=gone), g.now)[0],
            mine.add(ask.to_id, NewEntry(key=keys[ask.to_id], at=begun, body=came), g.now)[0],
        ]
    return ManyWritten(entries=written)
