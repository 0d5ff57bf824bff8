"""Devices: made by the keeper, written to by the device with its own token."""

from typing import Annotated

from apiflask import APIBlueprint
from flask import g, request
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.openapi_responses import READ, WRITE
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, tanks
from reedmace.logbook.plans.plan_kinds import FilterKey
from reedmace.logbook.replay.device_readings import DeviceKind, DeviceReading, entry_of, on_rooms_air
from reedmace.logbook.replay.entries import NewEntry
from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.replay.state import replay
from reedmace.store import Device, Devices, KeptRoom, NoSuchDevice, Tanks, by_token

blueprint = APIBlueprint("devices", __name__, url_prefix="/api", tag="Devices")


class DeviceIn(BaseModel):
    """A device to be registered."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    kind: DeviceKind
    filter_key: FilterKey | None = Field(default=None, description="The filter it stands at, where there are several")


class RoomDeviceIn(BaseModel):
    """A meter on the air pump of a room."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]


class DeviceOut(BaseModel):
    """A device."""

    id: int = Field(ge=1, le=2**53)
    name: str
    kind: DeviceKind
    made_at: AwareDatetime
    filter_key: str | None


class DeviceList(BaseModel):
    """The devices of a tank."""

    devices: list[DeviceOut]


class DeviceMade(BaseModel):
    """A new device and its token, shown only here."""

    device: DeviceOut
    token: str


class DeviceRemoved(BaseModel):
    """A device whose token was revoked."""

    removed: bool


class Taken(BaseModel):
    """Whether a reading made an entry; a repeated reading or one without news makes none."""

    written: bool


def _out(d: Device) -> DeviceOut:
    return DeviceOut.model_validate(
        {"id": d.id, "name": d.name, "kind": d.kind, "made_at": d.made_at, "filter_key": d.filter_key}
    )


def _mine() -> Devices:
    return Devices(g.database, keeper().id, tanks())


@blueprint.get("/tanks/<int:tank_id>/devices")
@blueprint.output(DeviceList)
@blueprint.doc(responses=READ)
def list_devices(tank_id: int) -> DeviceList:
    """The devices that may write in a tank's logbook."""
    return DeviceList(devices=[_out(d) for d in _mine().all(tank_id)])


@blueprint.post("/tanks/<int:tank_id>/devices")
@blueprint.input(DeviceIn)
@blueprint.output(DeviceMade, status_code=201)
@blueprint.doc(responses={**WRITE, 422: "Not usable"})
def make_device(tank_id: int, json_data: DeviceIn) -> DeviceMade:
    """Register a device; its token is shown only here."""
    device, token = _mine().make(tank_id, json_data.name.strip(), json_data.kind, g.now, json_data.filter_key)
    return DeviceMade(device=_out(device), token=token)


@blueprint.delete("/tanks/<int:tank_id>/devices/<int:device_id>")
@blueprint.output(DeviceRemoved)
@blueprint.doc(responses=WRITE)
def remove_device(tank_id: int, device_id: int) -> DeviceRemoved:
    """Revoke a device's token."""
    _mine().remove(tank_id, device_id)
    return DeviceRemoved(removed=True)


@blueprint.get("/rooms/<int:room_id>/devices")
@blueprint.output(DeviceList)
@blueprint.doc(responses=READ)
def list_room_devices(room_id: int) -> DeviceList:
    """Devices of a room."""
    return DeviceList(devices=[_out(d) for d in _mine().all_of_room(room_id)])


@blueprint.post("/rooms/<int:room_id>/devices")
@blueprint.input(RoomDeviceIn)
@blueprint.output(DeviceMade, status_code=201)
@blueprint.doc(responses={**WRITE, 422: "Not usable"})
def make_room_device(room_id: int, json_data: RoomDeviceIn) -> DeviceMade:
    """Register a meter on the room's air pump, writing to every tank on its air; its token is shown only here."""
    device, token = _mine().make_for_room(room_id, json_data.name.strip(), "smart-plug", g.now)
    return DeviceMade(device=_out(device), token=token)


@blueprint.delete("/rooms/<int:room_id>/devices/<int:device_id>")
@blueprint.output(DeviceRemoved)
@blueprint.doc(responses=WRITE)
def remove_room_device(room_id: int, device_id: int) -> DeviceRemoved:
    """Revoke the token of a room's device."""
    _mine().remove_from_room(room_id, device_id)
    return DeviceRemoved(removed=True)


@blueprint.post("/device/readings")
@blueprint.input(DeviceReading)
@blueprint.output(Taken, status_code=201)
@blueprint.doc(responses={401: "No such token", 422: "Not usable"})
def take_reading(json_data: DeviceReading) -> Taken:
    """A device's reading, with its token as `Authorization: Bearer TOKEN`."""
    scheme, _, token = request.headers.get("Authorization", "").partition(" ")
    if scheme.lower() != "bearer" or not token:
        raise ProblemError(401, "No token", "Send the device's token as Authorization: Bearer TOKEN.")
    try:
        where = by_token(g.database, token.strip())
    except NoSuchDevice as error:
        raise ProblemError(401, "No such token", "Make the device anew in Fit and use the token it shows.") from error
    if where.room is not None:
        return _take_for_room(json_data, where.room, where.tanks)
    device, tank_id = where.device, where.tank_id or 0
    state = replay(where.tanks.recent(tank_id))
    installed = installed_filters(state) if device.kind == "flow-meter" else []
    one = next((h for h in installed if h.key == device.filter_key), installed[0] if installed else None)
    computed = one.flow.delivered_lph if one else None
    body = entry_of(device.kind, json_data, state, computed, device.filter_key or (one.key if one else None))
    if body is None:
        return Taken(written=False)
    new = NewEntry(key=json_data.key, at=json_data.at, body=body)
    return Taken(written=where.tanks.add(tank_id, new, g.now)[1])


def _take_for_room(reading: DeviceReading, room: KeptRoom, mine: Tanks) -> Taken:
    """Store a reading of the room's meter: each tank on the room's air stops or runs with the pump, all or none."""
    standing = {t.id for t in mine.all()}
    ids = [s.tank_id for s in room.plan.spots if s.tank_id in standing]
    entries = mine.recent_of(ids)
    written = False
    with g.database.atomic():
        for tank_id in ids:
            for n, body in enumerate(on_rooms_air(reading, replay(entries.get(tank_id, [])))):
                new = NewEntry(key=f"{reading.key[:40]}-{tank_id}-{n}", at=reading.at, body=body)
                written |= mine.add(tank_id, new, g.now)[1]
    return Taken(written=written)
