"""Rooms of many tanks: plan, board and air, bulk entries, and import from a table."""

from typing import Annotated

from apiflask import APIBlueprint
from flask import g
from pydantic import BaseModel, ConfigDict, Field

from reedmace.api.archive import copied_plans
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, state_of, tanks
from reedmace.api.shelf import shelf_of
from reedmace.api.snapshot_cache import snapshots
from reedmace.api.tanks import NAME
from reedmace.core.contract import Issue
from reedmace.core.filter.shelf_box import boxes_of
from reedmace.formats.room_table import read_room
from reedmace.logbook.plans.room_plan import RoomPlan, placed
from reedmace.logbook.replay.animals import grown_in
from reedmace.logbook.replay.breeding_entries import OnRound
from reedmace.logbook.replay.current_plans import tank_plan
from reedmace.logbook.replay.entries import PLAN_KINDS, Body, Entry, Key, NewEntry, Stocking
from reedmace.logbook.replay.state import replay
from reedmace.logbook.rooms.room_view import RoomTank, RoomView, room_view
from reedmace.logbook.times import OurTime
from reedmace.store import KeptRoom, Rooms

blueprint = APIBlueprint("rooms", __name__, url_prefix="/api", tag="Rooms")

MOST_AT_ONCE = 200
REFUSED = {401: "Not signed in", 403: "CSRF token missing", 404: "No such room", 422: "Not usable"}
READ = {401: "Not signed in", 404: "No such room"}
TankId = Annotated[int, Field(ge=1, le=2**53)]


class NewRoom(BaseModel):
    """A new room and its tanks, placed on shelves in order."""

    model_config = ConfigDict(extra="forbid")
    name: NAME
    tank_ids: Annotated[list[TankId], Field(max_length=MOST_AT_ONCE)] = []


class RoomSave(BaseModel):
    """A room's plan, and the version it was edited from."""

    model_config = ConfigDict(extra="forbid")
    name: NAME
    plan: RoomPlan
    version: Annotated[int, Field(ge=1, le=2**31)]


class RoomOut(BaseModel):
    """A room as stored."""

    id: int = Field(ge=1, le=2**53)
    name: str
    plan: RoomPlan
    version: int = Field(ge=1, le=2**31)


class RoomList(BaseModel):
    """Every room, oldest first."""

    rooms: list[RoomOut]


class RoomSeen(BaseModel):
    """A room with its board and its air."""

    room: RoomOut
    view: RoomView


class ManyEntries(BaseModel):
    """One entry for many tanks. `key` makes a repeated send harmless: each tank's entry key is derived from it."""

    model_config = ConfigDict(extra="forbid")
    key: Annotated[Key, Field(max_length=44)]
    at: OurTime
    tank_ids: Annotated[list[TankId], Field(min_length=1, max_length=MOST_AT_ONCE)]
    body: Body


class ManyWritten(BaseModel):
    """The entry of each tank, in the order asked."""

    entries: list[Entry]


class Copies(BaseModel):
    """A number of tanks planned like one of the room's."""

    model_config = ConfigDict(extra="forbid")
    tank_id: TankId
    count: Annotated[int, Field(ge=1, le=50)]


class Moving(BaseModel):
    """Animals moved from one tank to another. `key` makes a repeated send harmless."""

    model_config = ConfigDict(extra="forbid")
    key: Annotated[Key, Field(max_length=56)]
    at: OurTime
    from_id: TankId
    to_id: TankId
    species_id: Annotated[str, Field(min_length=1, max_length=80)]
    count: Annotated[int, Field(ge=1, le=2000)]


class RoomTable(BaseModel):
    """A table of tanks as text: name, sizes in cm, filter, animals."""

    model_config = ConfigDict(extra="forbid")
    name: NAME
    text: Annotated[str, Field(max_length=200_000)]


def _rooms() -> Rooms:
    return Rooms(g.database, keeper().id)


def _out(room: KeptRoom) -> RoomOut:
    return RoomOut(id=room.id, name=room.name, plan=room.plan, version=room.version)


def _seen(plan: RoomPlan) -> RoomView:
    """The board and the air of a plan's tanks that are in use."""
    mine = {t.id: t for t in tanks().all()}
    here = [mine[i] for i in dict.fromkeys(s.tank_id for s in plan.spots) if i in mine]
    found = snapshots(here)
    standing = [RoomTank(t.id, t.name, found[t.id].state) for t in here]
    return room_view(plan, standing, g.now, [found[t.id].row for t in here])


def _lengths(ids: list[int]) -> dict[int, float]:
    entries = tanks().recent_of(ids)
    return {i: tank_plan(replay(entries.get(i, []))).tank.length_cm for i in ids}


def own_tanks(ids: list[int], where: str) -> None:
    """Answer 404 for a tank of another account."""
    known = {t.id for t in tanks().all()}
    missing = [i for i in ids if i not in known]
    if missing:
        what = f"holds {missing[0]}, which is no tank of yours."
        raise ProblemError(
            422, "No such tank", f"{where} {what}", [Issue(where=where, what=what, remedy="Leave it out.")]
        )


@blueprint.get("/rooms")
@blueprint.output(RoomList)
@blueprint.doc(responses={401: "Not signed in"})
def list_rooms() -> RoomList:
    """Your rooms."""
    return RoomList(rooms=[_out(r) for r in _rooms().all()])


@blueprint.post("/rooms")
@blueprint.input(NewRoom)
@blueprint.output(RoomOut, status_code=201)
@blueprint.doc(responses=REFUSED)
def make_room(json_data: NewRoom) -> RoomOut:
    """A new room, with the tanks named placed on its shelves."""
    ids = list(dict.fromkeys(json_data.tank_ids))
    own_tanks(ids, "tank_ids")
    return _out(_rooms().make(json_data.name.strip(), placed(ids, _lengths(ids), RoomPlan()), g.now))


@blueprint.get("/rooms/<int:room_id>")
@blueprint.output(RoomSeen)
@blueprint.doc(responses=READ)
def read_room_now(room_id: int) -> RoomSeen:
    """A room: its plan, the board of its tanks, its air."""
    room = _rooms().get(room_id)
    return RoomSeen(room=_out(room), view=_seen(room.plan))


@blueprint.put("/rooms/<int:room_id>")
@blueprint.input(RoomSave)
@blueprint.output(RoomSeen)
@blueprint.doc(responses={**REFUSED, 409: "The room was saved elsewhere since; `current` holds it"})
def save_room(room_id: int, json_data: RoomSave) -> RoomSeen:
    """Save a room's plan."""
    before, staying = _rooms().get(room_id), [s.tank_id for s in json_data.plan.spots]
    own_tanks(staying, "plan.spots")
    with g.database.atomic():
        room = _rooms().save(room_id, json_data.name.strip(), json_data.plan, json_data.version)
        _clear_round_days(before, staying)
    return RoomSeen(room=_out(room), view=_seen(room.plan))


@blueprint.post("/rooms/<int:room_id>/view")
@blueprint.input(RoomPlan)
@blueprint.output(RoomView)
@blueprint.doc(responses=REFUSED)
def see_room(room_id: int, json_data: RoomPlan) -> RoomView:
    """The board and the air with the plan as typed on screen; nothing is written."""
    _rooms().get(room_id)
    return _seen(json_data)


def _clear_round_days(before: KeptRoom, staying: list[int]) -> None:
    """Tell tanks that leave a room on whose round they are that it has no days for them any more."""
    if before.plan.taken is None:
        return
    mine, body = tanks(), OnRound(kind="on-round", from_day=g.now.date())
    leaving = {s.tank_id for s in before.plan.spots}.intersection(t.id for t in mine.all()).difference(staying)
    for tank_id in sorted(leaving):
        key = f"round-{before.id}-{before.version}-{tank_id}-off"
        mine.add(tank_id, NewEntry(key=key, at=g.now, body=body), g.now)


class Gone(BaseModel):
    """What was removed."""

    removed: bool


@blueprint.delete("/rooms/<int:room_id>")
@blueprint.output(Gone)
@blueprint.doc(responses=REFUSED)
def remove_room(room_id: int) -> Gone:
    """Take a room away. Its tanks stay."""
    with g.database.atomic():
        _clear_round_days(_rooms().get(room_id), [])
        _rooms().remove(room_id)
    return Gone(removed=True)


@blueprint.post("/entries/many")
@blueprint.input(ManyEntries)
@blueprint.output(ManyWritten, status_code=201)
@blueprint.doc(responses=REFUSED)
def write_many(json_data: ManyEntries) -> ManyWritten:
    """Add one entry to the logbooks of many tanks, all or none. Plans are each tank's own and are rejected."""
    if json_data.body.kind in PLAN_KINDS or json_data.body.kind == "withdrawal":
        what = f"is a {json_data.body.kind}, which belongs to one tank."
        raise ProblemError(
            422, "Not for many tanks", f"body {what}", [Issue(where="body", what=what, remedy="Write it in that tank.")]
        )
    ids = list(dict.fromkeys(json_data.tank_ids))
    own_tanks(ids, "tank_ids")
    mine = tanks()
    with g.database.atomic():
        written = [
            mine.add(i, NewEntry(key=f"{json_data.key}-{i}", at=json_data.at, body=json_data.body), g.now)[0]
            for i in ids
        ]
    return ManyWritten(entries=written)


@blueprint.post("/rooms/<int:room_id>/copies")
@blueprint.input(Copies)
@blueprint.output(RoomSeen, status_code=201)
@blueprint.doc(responses=REFUSED)
def copy_into_room(room_id: int, json_data: Copies) -> RoomSeen:
    """A number of new tanks planned like this one and named after it, placed in the room. All or none."""
    mine, room = tanks(), _rooms().get(room_id)
    name, state = mine.get(json_data.tank_id).name, state_of(json_data.tank_id)
    if len(room.plan.spots) + json_data.count > MOST_AT_ONCE:
        raise ProblemError(422, "Too many tanks", f"A room holds {MOST_AT_ONCE}; this one has {len(room.plan.spots)}.")
    with g.database.atomic():
        made = [mine.bring(f"{name[:70]}, {n}", copied_plans(state), g.now).id for n in range(2, json_data.count + 2)]
        known = [s.tank_id for s in room.plan.spots if s.tank_id in {t.id for t in mine.all()}]
        plan = placed(made, _lengths([*known, *made]), room.plan)
        room = _rooms().save(room_id, room.name, plan, room.version)
    return RoomSeen(room=_out(room), view=_seen(room.plan))


@blueprint.post("/animals/move")
@blueprint.input(Moving)
@blueprint.output(ManyWritten, status_code=201)
@blueprint.doc(responses=REFUSED)
def move_animals(json_data: Moving) -> ManyWritten:
    """Move animals from one tank to another, recorded in both or in neither."""
    ask, mine = json_data, tanks()
    own_tanks([ask.from_id, ask.to_id], "from_id, to_id")
    if ask.from_id == ask.to_id:
        raise ProblemError(
            422,
            "The same tank",
            "to_id is from_id.",
            [Issue(where="to_id", what="is from_id.", remedy="Choose another tank.")],
        )
    inside = {a.species_id: a.count for a in grown_in(state_of(ask.from_id))}
    already = mine.is_written(ask.from_id, f"{ask.key}-out")
    if not already and inside.get(ask.species_id, 0) < ask.count:
        what = f"is {ask.count}; {inside.get(ask.species_id, 0)} of them are in that tank."
        raise ProblemError(
            422, "Not so many there", f"count {what}", [Issue(where="count", what=what, remedy="Give at most so many.")]
        )
    with g.database.atomic():
        written = [
            mine.add(
                tank,
                NewEntry(
                    key=f"{ask.key}-{way}",
                    at=ask.at,
                    body=Stocking(kind="stocking", species_id=ask.species_id, count=sign * ask.count, moved=True),
                ),
                g.now,
            )[0]
            for tank, way, sign in ((ask.from_id, "out", -1), (ask.to_id, "in", 1))
        ]
    return ManyWritten(entries=written)


@blueprint.post("/rooms/import")
@blueprint.input(RoomTable)
@blueprint.output(RoomOut, status_code=201)
@blueprint.doc(responses=REFUSED)
def import_room(json_data: RoomTable) -> RoomOut:
    """A room and its tanks from a table (CSV). All of it or none."""
    boxes = [f for item in shelf_of(keeper().id) for f in boxes_of(item)]
    mine, found = tanks(), read_room(json_data.text, boxes)
    with g.database.atomic():
        made = []
        for row in found:
            entries = [
                Entry(id=n, key=f"room-{n:04d}", at=g.now, written_at=g.now, body=b)
                for n, b in enumerate(row.bodies, 1)
            ]
            made.append(mine.bring(row.name, entries, g.now).id)
        lengths = {i: row.length_cm for i, row in zip(made, found, strict=True)}
        room = _rooms().make(json_data.name.strip(), placed(made, lengths, RoomPlan()), g.now)
    return _out(room)
