"""Archived and removed tanks, their restoration, and a copy of a tank's plans."""

from apiflask import APIBlueprint
from flask import g
from pydantic import AwareDatetime, BaseModel, Field

from reedmace.api.session import state_of, tanks
from reedmace.api.tanks import REFUSED, TankIn, TankOut, tank_out
from reedmace.logbook.replay.entries import PLAN_KINDS, Entry
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.logbook.stages.stage_rows import stage_rows
from reedmace.store import KEPT_FOR, Aside

blueprint = APIBlueprint("aside", __name__, url_prefix="/api", tag="Tanks")


class ArchivedTankOut(BaseModel):
    """An archived or removed tank; until when it can be restored, null for always."""

    id: int = Field(ge=1, le=2**53)
    name: str
    how: Aside
    until: AwareDatetime | None


class ArchivedTankList(BaseModel):
    """Archived and removed tanks, newest first."""

    tanks: list[ArchivedTankOut]


@blueprint.get("/tanks/aside")
@blueprint.output(ArchivedTankList)
@blueprint.doc(responses={401: "Not signed in"})
def list_aside() -> ArchivedTankList:
    """Archived and removed tanks."""
    return _aside()


def _aside() -> ArchivedTankList:
    rows = tanks().aside(g.now)
    return ArchivedTankList(
        tanks=[
            ArchivedTankOut(id=t.id, name=t.name, how=t.how, until=t.since + KEPT_FOR if t.how == "removed" else None)
            for t in rows
        ]
    )


@blueprint.post("/tanks/<int:tank_id>/archive")
@blueprint.output(ArchivedTankList)
@blueprint.doc(responses=REFUSED)
def archive_tank(tank_id: int) -> ArchivedTankList:
    """Archive a tank with its logbook."""
    tanks().archive(tank_id, "archived", g.now)
    return _aside()


@blueprint.post("/tanks/<int:tank_id>/back")
@blueprint.output(TankOut)
@blueprint.doc(responses=REFUSED)
def restore(tank_id: int) -> TankOut:
    """Restore an archived tank, or one removed within a day."""
    mine = tanks()
    tank = mine.restore(tank_id, g.now)
    return tank_out(tank, stage_rows(state_of(tank_id), g.now))


def copied_plans(state: LogbookState) -> list[Entry]:
    """Plan entries of a new tank copied from a state. state: of the tank that is copied."""
    plans = [p for p in (state.tank_plan, state.stock_plan, state.filter_plan, state.fit_plan, state.kit_plan) if p]
    return [
        Entry(id=n, key=f"copied-{n}", at=g.now, written_at=g.now, body=p.body)
        for n, p in enumerate(plans, 1)
        if p.body.kind in PLAN_KINDS
    ]


@blueprint.post("/tanks/<int:tank_id>/copy")
@blueprint.input(TankIn)
@blueprint.output(TankOut, status_code=201)
@blueprint.doc(responses=REFUSED)
def copy_tank(tank_id: int, json_data: TankIn) -> TankOut:
    """A new tank planned like this one: sizes, animals, filter, fitting, kit. Its history is not copied."""
    mine = tanks()
    entries = copied_plans(state_of(tank_id))
    tank = mine.bring(json_data.name.strip(), entries, g.now)
    return tank_out(tank, stage_rows(replay(entries), g.now))
