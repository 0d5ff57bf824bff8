"""Files of a room: one bundle with all its tanks, out and in, and one calendar."""

from urllib.parse import urlsplit

from apiflask import APIBlueprint
from flask import Response, g, request
from flask_login import current_user
from pydantic import BaseModel, Field

from reedmace.api.bundles import LARGEST_BUNDLE
from reedmace.api.files import streamed
from reedmace.api.openapi_responses import READ, file_of
from reedmace.api.session import keeper, tanks
from reedmace.core.errors import CannotAnswer
from reedmace.formats import write_calendar
from reedmace.formats.address_code import address_code
from reedmace.formats.room_bundle import RoomBundle, room_bundle_parts
from reedmace.logbook.care.ahead import calendar_rows
from reedmace.logbook.care.due import Due
from reedmace.logbook.plans.room_plan import RoomPlan, for_copies
from reedmace.logbook.replay.state import replay
from reedmace.logbook.rooms.label_words import label_words
from reedmace.logbook.rooms.room_round import walk_order
from reedmace.logbook.stages.stage_rows import stage_rows
from reedmace.store import KeptRoom, Rooms, TankName

blueprint = APIBlueprint("room_files", __name__, url_prefix="/api", tag="Rooms")


@blueprint.before_request
def _room_for_logbooks() -> None:
    """Raise the size limit: a room's logbooks may be larger than any other request."""
    if request.method == "POST" and current_user.is_authenticated:
        request.max_content_length = LARGEST_BUNDLE


class ImportedRoom(BaseModel):
    """The room made from a bundle, and its tanks."""

    room_id: int = Field(ge=1, le=2**53)
    tank_ids: list[int]


def _room(room_id: int) -> tuple[KeptRoom, list[TankName]]:
    """A room and those of its tanks that are in use."""
    room = Rooms(g.database, keeper().id).get(room_id)
    mine = {t.id: t for t in tanks().all()}
    return room, [mine[i] for i in dict.fromkeys(s.tank_id for s in room.plan.spots) if i in mine]


class TankLabel(BaseModel):
    """The label of one tank: what to read on it, and the code that opens its test line."""

    tank_id: int = Field(ge=1, le=2**53)
    name: str
    words: str
    address: str
    path: str = Field(description="Dark cells of the code, as an SVG path")
    side: int = Field(ge=1, le=400, description="Side of the code in cells")


class LabelSheet(BaseModel):
    """Labels of a room's tanks, in the order of the walk."""

    room: str
    own_machine: bool = Field(description="Whether the address is this machine's own, which no phone can open")
    labels: list[TankLabel]


@blueprint.get("/rooms/<int:room_id>/labels")
@blueprint.output(LabelSheet)
@blueprint.doc(responses=READ)
def read_labels(room_id: int) -> LabelSheet:
    """A label for each tank of a room, with a code that a phone's camera opens: a test is logged there."""
    (room, here), mine = _room(room_id), tanks()
    entries = mine.recent_of([t.id for t in here])
    names = {t.id: t.name for t in here}
    # The address by which the keeper came, for the phone in the same house.
    base = request.host_url.rstrip("/")
    found = []
    for tank_id, _ in walk_order(room.plan):
        if tank_id in names:
            state = replay(entries.get(tank_id, []))
            address = f"{base}/tanks/{tank_id}/cycle"
            code = address_code(address)
            found.append(
                TankLabel(
                    tank_id=tank_id, name=names[tank_id], words=label_words(state), address=address, **code._asdict()
                )
            )
    alone = urlsplit(base).hostname in ("127.0.0.1", "::1", "localhost")
    return LabelSheet(room=room.name, own_machine=alone, labels=found)


@blueprint.get("/rooms/<int:room_id>/bundle.json")
@blueprint.doc(responses={**file_of("application/json", "Room bundle"), **READ})
def read_room_bundle(room_id: int) -> Response:
    """A room with its plan and the whole logbook of every tank on it."""
    (room, here), mine = _room(room_id), tanks()
    parts = room_bundle_parts(room.name, room.plan, ((t.id, t.name, mine.each_entry(t.id)) for t in here), g.now)
    return streamed(parts, "application/json", f"room-{room_id}.json")


@blueprint.post("/rooms/bundle")
@blueprint.input(RoomBundle)
@blueprint.output(ImportedRoom, status_code=201)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"})
def import_room_bundle(json_data: RoomBundle) -> ImportedRoom:
    """Make a room and its tanks from a bundle: all of it or nothing."""
    for one in json_data.tanks:
        stage_rows(replay(one.entries), g.now)
    mine = tanks()
    with g.database.atomic():
        made = [mine.bring(one.tank.strip(), one.entries, g.now).id for one in json_data.tanks]
        twins = dict(zip(json_data.tank_ids, made, strict=True))
        plan: RoomPlan = for_copies(json_data.plan, twins)
        room = Rooms(g.database, keeper().id).make(json_data.room.strip(), plan, g.now)
    return ImportedRoom(room_id=room.id, tank_ids=made)


@blueprint.get("/rooms/<int:room_id>/calendar.ics")
@blueprint.doc(responses={**file_of("text/calendar", "iCalendar"), **READ})
def read_room_calendar(room_id: int) -> Response:
    """What is due in every tank of a room as iCalendar."""
    _, here = _room(room_id)
    entries = tanks().recent_of([t.id for t in here])
    rows: list[tuple[int, str, Due]] = []
    for tank in here:
        try:
            found = calendar_rows(replay(entries.get(tank.id, [])), g.now)
        except CannotAnswer:
            # A tank with inconsistent figures does not hide the others' dates.
            continue
        rows += [(tank.id, tank.name, one) for one in found]
    headers = {"Content-Disposition": f'attachment; filename="room-{room_id}.ics"'}
    return Response(write_calendar(rows, g.now), mimetype="text/calendar", headers=headers)
