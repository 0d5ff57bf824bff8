"""Tanks, their logbook, and what follows from it: standing, today, plumbing, calendar."""

from datetime import timedelta
from typing import Annotated, Any

from apiflask import APIBlueprint
from flask import Response, g
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.problems import ProblemError
from reedmace.api.session import tanks
from reedmace.core.cycle import (
    CycleAdviceAnswer,
    CycleAdviceQuestion,
    CycleForecastQuestion,
    cycle_advice,
    cycle_forecast,
)
from reedmace.core.filter import RankFiltersQuestion
from reedmace.formats import plumbing_inp, write_calendar
from reedmace.logbook import (
    Due,
    Entry,
    NewEntry,
    Seed,
    Stage,
    Standing,
    calibration,
    cycle_due,
    cycle_log,
    due,
    fold,
    plumbing_question,
    rank_question,
    seeds,
    stem,
)

door = APIBlueprint("tanks", __name__, url_prefix="/api", tag="Tanks")

NAME = Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
REFUSED = {401: "Not signed in", 403: "CSRF token missing", 404: "No such tank", 422: "Not usable"}
READ = {401: "Not signed in", 404: "No such tank"}


class TankIn(BaseModel):
    """A tank's name."""

    model_config = ConfigDict(extra="forbid")
    name: NAME


class TankOut(BaseModel):
    """A tank."""

    id: int = Field(ge=1, le=2**53)
    name: str
    made_at: AwareDatetime
    stem: list[Stage] = []


class TankList(BaseModel):
    """All tanks, oldest first."""

    tanks: list[TankOut]


class EntryPage(BaseModel):
    """Entries, newest first; `next_before` asks for the next page, null at the end."""

    entries: list[Entry]
    next_before: int | None


class TankState(BaseModel):
    """A tank, where it stands, its stem, and what its filter is chosen for, as the ranking takes it."""

    tank: TankOut
    standing: Standing
    rank: RankFiltersQuestion
    due: list[Due]
    calibration: float | None = Field(description="Measured over computed flow, by the newest test", ge=0, le=1e6)


class TodayRow(BaseModel):
    """One tank on Today. `cycle_started_at` turns the days of the advice into dates."""

    tank: TankOut
    verdict: str
    stage: str
    advice: CycleAdviceAnswer | None
    cycle_started_at: AwareDatetime | None = None
    net_l: float | None = Field(default=None, ge=0, le=1e6)
    growth_seen: bool = False
    due: list[Due] = []


class SeedRow(BaseModel):
    """One spare sponge and the tank it seeds in."""

    tank_id: int = Field(ge=1, le=2**53)
    tank: str
    seed: Seed


class TodayList(BaseModel):
    """All tanks on Today, and every spare sponge."""

    rows: list[TodayRow]
    seeds: list[SeedRow]


class PageQuery(BaseModel):
    """Keyset paging."""

    before: int | None = Field(default=None, ge=1, le=2**53)
    limit: int = Field(default=100, ge=1, le=200)


class Removed(BaseModel):
    """What was taken away."""

    removed: bool


@door.get("/tanks")
@door.output(TankList)
@door.doc(responses={401: "Not signed in"})
def list_tanks() -> TankList:
    """Your tanks."""
    mine = tanks()
    entries = mine.entries_of_all()
    return TankList(tanks=[_out(t, stem(fold(entries.get(t.id, [])), g.now)) for t in mine.all()])


@door.post("/tanks")
@door.input(TankIn)
@door.output(TankOut, status_code=201)
@door.doc(responses={401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"})
def make_tank(json_data: TankIn) -> TankOut:
    """A new tank."""
    return _out(tanks().make(json_data.name.strip(), g.now), stem(Standing(), g.now))


@door.get("/tanks/<int:tank_id>")
@door.output(TankState)
@door.doc(responses=READ)
def read_tank(tank_id: int) -> TankState:
    """Where a tank stands."""
    mine = tanks()
    tank, standing = mine.get(tank_id), fold(mine.entries(tank_id))
    return TankState(
        tank=_out(tank, stem(standing, g.now)),
        standing=standing,
        rank=rank_question(standing),
        due=due(standing, g.now),
        calibration=calibration(standing),
    )


@door.patch("/tanks/<int:tank_id>")
@door.input(TankIn)
@door.output(TankOut)
@door.doc(responses=REFUSED)
def rename_tank(tank_id: int, json_data: TankIn) -> TankOut:
    """Give a tank another name."""
    return _out(tanks().rename(tank_id, json_data.name.strip()), [])


@door.delete("/tanks/<int:tank_id>")
@door.output(Removed)
@door.doc(responses={401: "Not signed in", 403: "CSRF token missing", 404: "No such tank"})
def remove_tank(tank_id: int) -> Removed:
    """Take a tank and its whole logbook away."""
    tanks().remove(tank_id)
    return Removed(removed=True)


@door.get("/tanks/<int:tank_id>/entries")
@door.input(PageQuery, location="query")
@door.output(EntryPage)
@door.doc(responses={**READ, 422: "Not usable"})
def read_entries(tank_id: int, query_data: PageQuery) -> EntryPage:
    """The logbook, newest first."""
    found = tanks().page(tank_id, query_data.before, query_data.limit)
    return EntryPage(entries=found, next_before=found[-1].id if len(found) == query_data.limit else None)


@door.post("/tanks/<int:tank_id>/entries")
@door.input(NewEntry)
@door.output(Entry, status_code=201)
@door.doc(responses={**REFUSED, 409: "The plan was saved elsewhere since; `current` holds it"})
def add_entry(tank_id: int, json_data: NewEntry) -> Entry:
    """Write in the logbook. The same key again answers with the entry that stands."""
    return tanks().add(tank_id, json_data, g.now)[0]


@door.get("/tanks/<int:tank_id>/plumbing.inp")
@door.doc(
    responses={
        200: {"description": "EPANET 2.2 input", "content": {"text/plain": {"schema": {"type": "string"}}}},
        **READ,
        409: "No pumped filter is chosen",
    }
)
def read_plumbing(tank_id: int) -> Response:
    """The plumbing as an EPANET input file, to be solved by anyone."""
    question = plumbing_question(fold(tanks().entries(tank_id)))
    if question is None:
        raise ProblemError(409, "No plumbing", "Choose a filter with a pump first; air-driven ones have no pump curve.")
    headers = {"Content-Disposition": f'attachment; filename="plumbing-{tank_id}.inp"'}
    return Response(plumbing_inp(question), mimetype="text/plain", headers=headers)


@door.get("/tanks/<int:tank_id>/calendar.ics")
@door.doc(
    responses={200: {"description": "iCalendar", "content": {"text/calendar": {"schema": {"type": "string"}}}}, **READ}
)
def read_calendar(tank_id: int) -> Response:
    """Leak checks, flow tests, service, spare sponges and what comes next in the cycle of one tank as iCalendar."""
    mine = tanks()
    name, standing = mine.get(tank_id).name, fold(mine.entries(tank_id))
    rows = due(standing, g.now)
    log = cycle_log(standing, g.now)
    if log is not None and not log.settled():
        advice = cycle_advice(CycleAdviceQuestion(log=log))
        forecast = cycle_forecast(CycleForecastQuestion(log=log, draws=400))
        rows = sorted([*rows, *cycle_due(standing, g.now, advice, forecast)], key=lambda d: (d.at, d.key))
    text = write_calendar([(tank_id, name, one) for one in rows], g.now)
    headers = {"Content-Disposition": f'attachment; filename="tank-{tank_id}.ics"'}
    return Response(text, mimetype="text/calendar", headers=headers)


@door.get("/today")
@door.output(TodayList)
@door.doc(responses={401: "Not signed in"})
def read_today() -> TodayList:
    """What to do now, across all tanks."""
    mine = tanks()
    entries = mine.entries_of_all()
    rows: list[TodayRow] = []
    spare: list[SeedRow] = []
    for t in mine.all():
        standing = fold(entries.get(t.id, []))
        row = _today(_out(t, stem(standing, g.now)), standing)
        soon = [d for d in due(standing, g.now) if d.at <= g.now + timedelta(days=2)]
        rows.append(row.model_copy(update={"due": soon}))
        spare += [SeedRow(tank_id=t.id, tank=t.name, seed=s) for s in seeds(standing, g.now)]
    return TodayList(rows=rows, seeds=spare)


def _today(tank: TankOut, standing: Standing) -> TodayRow:
    log = cycle_log(standing, g.now)
    advice = cycle_advice(CycleAdviceQuestion(log=log)) if log is not None else None
    # A settled tank is the Keep stage's, until a test says otherwise.
    if log is not None and advice is not None and (not log.settled() or advice.first.do == "change-water"):
        started = getattr(standing.cycle_plan.body, "started_at", None) if standing.cycle_plan else None
        return TodayRow(
            tank=tank,
            verdict=advice.verdict,
            stage="cycle",
            advice=advice,
            cycle_started_at=started,
            net_l=log.net_l,
            growth_seen=log.plants_growing_day is not None,
        )
    waiting = next((s for s in tank.stem if s.state != "done"), tank.stem[-1])
    words = {
        "tank": "Measure the tank: three figures give its litres.",
        "stock": "Choose the animals, so that the filter can be sized for them.",
        "filter": "Choose its filter: the flow is computed through your own hoses.",
        "fit": f"Go on fitting: {waiting.words}.",
        "cycle": "Begin its cycle: nothing lives in the filter yet.",
        "keep": "Running. Test, feed, and time its flow once a month.",
    }
    if log is not None:
        return TodayRow(tank=tank, verdict=words["keep"], stage="keep", advice=None)
    return TodayRow(tank=tank, verdict=words[waiting.stage], stage=waiting.stage, advice=None)


def _out(tank: Any, stages: list[Stage]) -> TankOut:
    return TankOut(id=tank.id, name=tank.name, made_at=tank.made_at, stem=stages)
