"""Today: what to do now, across all tanks."""

from apiflask import APIBlueprint
from pydantic import BaseModel, Field

from reedmace.api.session import tanks
from reedmace.api.snapshot_cache import snapshots
from reedmace.api.tanks import TankOut, tank_out
from reedmace.logbook.care.spare_sponges import Seed
from reedmace.logbook.stages import TodayView

blueprint = APIBlueprint("today", __name__, url_prefix="/api", tag="Today")


class TodayRow(TodayView):
    """One tank on Today."""

    tank: TankOut


class SeedRow(BaseModel):
    """One spare sponge and its donor tank."""

    tank_id: int = Field(ge=1, le=2**53)
    tank: str
    seed: Seed


class TodayList(BaseModel):
    """All tanks on Today, and every spare sponge."""

    rows: list[TodayRow]
    seeds: list[SeedRow]


@blueprint.get("/today")
@blueprint.output(TodayList)
@blueprint.doc(responses={401: "Not signed in"})
def read_today() -> TodayList:
    """What to do now, across all tanks."""
    mine = tanks().all()
    seen = snapshots(mine)
    rows: list[TodayRow] = []
    spare: list[SeedRow] = []
    for tank in mine:
        one = seen[tank.id]
        rows.append(TodayRow(tank=tank_out(tank, one.stages), **dict(one.view)))
        spare += [SeedRow(tank_id=tank.id, tank=tank.name, seed=s) for s in one.seeds]
    # Animals in danger come before a cycle that stands still.
    return TodayList(rows=sorted(rows, key=lambda row: not row.harm), seeds=spare)
