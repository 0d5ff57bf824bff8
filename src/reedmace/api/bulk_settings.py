"""Settings of many tanks at once: priorities, weekday of changes, the room's air, the price of a kWh."""

from typing import Annotated

from apiflask import APIBlueprint
from flask import g
from pydantic import BaseModel, ConfigDict, Field, model_validator

from reedmace.api.rooms import MOST_AT_ONCE, REFUSED, ManyWritten, TankId, own_tanks
from reedmace.api.session import tanks
from reedmace.core.contract import Celsius, number, whole
from reedmace.core.filter.site.site import Priorities
from reedmace.logbook.plans.plan_kinds import FilterPlan, TankPlan
from reedmace.logbook.replay.current_plans import filter_plan
from reedmace.logbook.replay.entries import Entry, Key, NewEntry
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.logbook.times import OurTime

blueprint = APIBlueprint("settings_of_many", __name__, url_prefix="/api", tag="Rooms")


class Settings(BaseModel):
    """Settings to apply to many tanks; fields left out stay each tank's own."""

    model_config = ConfigDict(extra="forbid")
    key: Annotated[Key, Field(max_length=40)]
    at: OurTime
    tank_ids: Annotated[list[TankId], Field(min_length=1, max_length=MOST_AT_ONCE)]
    priorities: Priorities | None = None
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] | None = None
    change_weekday: Annotated[int, whole(0, 6, "0 for Monday")] | None = None
    room_c: Celsius | None = None

    @model_validator(mode="after")
    def _says_something(self) -> "Settings":
        if all(v is None for v in (self.priorities, self.price_per_kwh, self.change_weekday, self.room_c)):
            raise ValueError("nothing is to be set; give one of priorities, price_per_kwh, change_weekday, room_c")
        return self


def _plans(state: LogbookState, asked: Settings) -> list[tuple[TankPlan | FilterPlan, Entry | None]]:
    """Each changed plan with the one it replaces; none where a tank already has the setting."""
    found: list[tuple[TankPlan | FilterPlan, Entry | None]] = []
    chosen = {n: v for n in ("priorities", "price_per_kwh") if (v := getattr(asked, n)) is not None}
    if chosen:
        found.append((filter_plan(state).model_copy(update=chosen), state.filter_plan))
    place = {n: v for n in ("change_weekday", "room_c") if (v := getattr(asked, n)) is not None}
    body = state.tank_plan.body if state.tank_plan else None
    # A tank that was never measured gets no sizes by this.
    if place and isinstance(body, TankPlan):
        found.append(
            (body.model_copy(update={"surroundings": body.surroundings.model_copy(update=place)}), state.tank_plan)
        )
    return [(plan, old) for plan, old in found if old is None or old.body != plan]


@blueprint.post("/settings/many")
@blueprint.input(Settings)
@blueprint.output(ManyWritten, status_code=201)
@blueprint.doc(responses=REFUSED)
def set_many(json_data: Settings) -> ManyWritten:
    """Apply settings to many tanks: one plan entry each, all or none. A tank never measured keeps no weekday."""
    ids = list(dict.fromkeys(json_data.tank_ids))
    own_tanks(ids, "tank_ids")
    mine = tanks()
    entries = mine.recent_of(ids)
    written = []
    with g.database.atomic():
        for tank_id in ids:
            for plan, old in _plans(replay(entries.get(tank_id, [])), json_data):
                key = f"{json_data.key}-{tank_id}-{plan.kind[:1]}"
                new = NewEntry(key=key, at=json_data.at, body=plan, based_on=old.id if old else None)
                written.append(mine.add(tank_id, new, g.now)[0])
    return ManyWritten(entries=written)
