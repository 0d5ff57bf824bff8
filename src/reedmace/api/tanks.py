"""Tanks, their logbook, and what is derived from it: state, today, plumbing, calendar."""

from datetime import timedelta
from typing import Annotated

from apiflask import APIBlueprint
from flask import Response, g
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.files import csv_response
from reedmace.api.openapi_responses import CSV, READ, file_of
from reedmace.api.problems import ProblemError
from reedmace.api.session import helps, keeper, state_of, tanks
from reedmace.core.contract import Issue
from reedmace.core.fit import ShoppingListAnswer
from reedmace.core.flow.plumbing_heads import PlumbingState
from reedmace.formats import plumbing_inp, write_shopping
from reedmace.logbook.care.due import Due, due
from reedmace.logbook.plans.plan_kinds import FilterKey, FilterPlan, KitPlan
from reedmace.logbook.replay.arrival import box_of
from reedmace.logbook.replay.entries import PLAN_KINDS, Body, Entry, NewEntry, Situation, Stands
from reedmace.logbook.replay.equipment import installed_filters, path_of, temperature_c
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.logbook.replay.sump_overflow import overflow_question
from reedmace.logbook.stages import Plans, plans_of, rows_or_fault, shopping_list_view, with_plan
from reedmace.logbook.stages.stage_rows import NextStep, Stage, next_step, stage_rows
from reedmace.logbook.times import OurTime
from reedmace.practice.record import Practice
from reedmace.store import EntryFilter, NoSuchEntry, PracticeTanks, Role, TankName, Tanks, learned_boxes

blueprint = APIBlueprint("tanks", __name__, url_prefix="/api", tag="Tanks")

LONGEST_AGO = timedelta(days=50 * 365)
NAME = Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
REFUSED = {401: "Not signed in", 403: "CSRF token missing", 404: "No such tank", 422: "Not usable"}


class TankIn(BaseModel):
    """A tank's name."""

    model_config = ConfigDict(extra="forbid")
    name: NAME


class NewTank(TankIn):
    """A new tank: its name, its situation and since when, and its litres where known."""

    stands: Stands = "empty"
    since: OurTime | None = Field(default=None, description="Of a cycle, of the animals, of a tank that runs")
    litres: Annotated[float, Field(ge=1, le=5000, description="Net, L; its sizes can be measured later")] | None = None


class TankOut(BaseModel):
    """A tank."""

    id: int = Field(ge=1, le=2**53)
    name: str
    made_at: AwareDatetime
    stages: list[Stage] = []
    next: NextStep | None = None
    practice: bool = Field(default=False, description="Whether it is a practice tank, with a clock of its own")
    of: str | None = Field(default=None, description="Whose it is, where it is another's")
    role: Role | None = Field(default=None, description="What this keeper may do in it, where it is another's")


class TankList(BaseModel):
    """All tanks, oldest first."""

    tanks: list[TankOut]


class EntryPage(BaseModel):
    """Entries, newest first; `next_before` asks for the next page, null at the end."""

    entries: list[Entry]
    replacing: list[Entry] = Field(description="What corrects or takes back one of them")
    next_before: int | None


class StateOut(LogbookState):
    """State of a tank, with every plan complete."""

    plans: Plans


class TankState(BaseModel):
    """A tank, its state, and what is due. Temperature: one for every stage."""

    tank: TankOut
    state: StateOut
    temperature_c: float | None = Field(ge=0, le=45)
    due: list[Due]
    fault: str | None = Field(description="Why its plans cannot be worked out; its forms stay open to be mended")


class PageQuery(BaseModel):
    """Keyset paging."""

    before: int | None = Field(default=None, ge=1, le=2**53)
    limit: int = Field(default=100, ge=1, le=200)
    kind: str | None = Field(default=None, max_length=32, pattern="^[a-z-]+$", description="Only entries of this kind")
    search: str | None = Field(
        default=None, min_length=1, max_length=80, description="Only entries that hold these words"
    )
    until: OurTime | None = Field(default=None, description="Only what happened before then")


class Removed(BaseModel):
    """What was removed."""

    removed: bool


@blueprint.get("/tanks")
@blueprint.output(TankList)
@blueprint.doc(responses={401: "Not signed in"})
def list_tanks() -> TankList:
    """Your tanks."""
    mine = tanks()
    entries = mine.recent_of_all()
    return TankList(tanks=[tank_out(t, rows_or_fault(replay(entries.get(t.id, [])), g.now)[0]) for t in mine.all()])


@blueprint.post("/tanks")
@blueprint.input(NewTank)
@blueprint.output(TankOut, status_code=201)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"})
def make_tank(json_data: NewTank) -> TankOut:
    """A new tank in any situation."""
    if json_data.since is not None and not g.now - LONGEST_AGO <= json_data.since <= g.now + timedelta(hours=1):
        raise ProblemError(
            422,
            "Some of what was sent cannot be used",
            "since: lies in the future or over fifty years ago.",
            [Issue(where="since", what="lies in the future or over fifty years ago.", remedy="Give the day it began.")],
        )
    bodies: list[Body] = []
    if json_data.stands != "empty" or json_data.since is not None:
        bodies.append(Situation(kind="situation", stands=json_data.stands, since=json_data.since))
    if json_data.litres is not None:
        bodies.append(box_of(json_data.litres))
    entries = [Entry(id=n, key=f"arrival-{n}", at=g.now, written_at=g.now, body=b) for n, b in enumerate(bodies, 1)]
    tank = tanks().bring(json_data.name.strip(), entries, g.now)
    return tank_out(tank, stage_rows(replay(entries), g.now))


@blueprint.get("/tanks/<int:tank_id>")
@blueprint.output(TankState)
@blueprint.doc(responses=READ)
def read_tank(tank_id: int) -> TankState:
    """State of a tank."""
    mine = tanks()
    tank, state = mine.get(tank_id), state_of(tank_id)
    rows, fault = rows_or_fault(state, g.now)
    return TankState(
        tank=tank_out(tank, rows),
        state=StateOut(plans=plans_of(state, g.now), **dict(state)),
        temperature_c=None if fault else temperature_c(state),
        due=[] if fault else due(state, g.now),
        fault=fault,
    )


@blueprint.patch("/tanks/<int:tank_id>")
@blueprint.input(TankIn)
@blueprint.output(TankOut)
@blueprint.doc(responses=REFUSED)
def rename_tank(tank_id: int, json_data: TankIn) -> TankOut:
    """Give a tank another name."""
    return tank_out(tanks().rename(tank_id, json_data.name.strip()), [])


@blueprint.delete("/tanks/<int:tank_id>")
@blueprint.output(Removed)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 404: "No such tank"})
def remove_tank(tank_id: int) -> Removed:
    """Remove a tank and its logbook; for a day it can be restored."""
    tanks().archive(tank_id, "removed", g.now)
    return Removed(removed=True)


@blueprint.get("/tanks/<int:tank_id>/entries")
@blueprint.input(PageQuery, location="query")
@blueprint.output(EntryPage)
@blueprint.doc(responses={**READ, 422: "Not usable"})
def read_entries(tank_id: int, query_data: PageQuery) -> EntryPage:
    """The logbook, newest first."""
    mine, q = tanks(), query_data
    found = mine.page(tank_id, q.before, q.limit, EntryFilter(q.kind, q.search, q.until))
    return EntryPage(
        entries=found,
        replacing=mine.replacing(tank_id, [e.id for e in found]),
        next_before=found[-1].id if len(found) == q.limit else None,
    )


@blueprint.post("/tanks/<int:tank_id>/entries")
@blueprint.input(NewEntry)
@blueprint.output(Entry, status_code=201)
@blueprint.doc(responses={**REFUSED, 409: "The plan was saved elsewhere since; `current` holds it"})
def add_entry(tank_id: int, json_data: NewEntry) -> Entry:
    """Add a logbook entry. The same key again returns the existing entry. A plan is checked first."""
    mine = tanks()
    if json_data.body.kind in PLAN_KINDS:
        _refuse_impossible(state_of(tank_id), json_data.body)
    return _added(mine, tank_id, json_data)


class RestorePlan(BaseModel):
    """Key of the entry to be made."""

    model_config = ConfigDict(extra="forbid")

    key: Annotated[str, Field(min_length=8, max_length=64)]


@blueprint.post("/tanks/<int:tank_id>/entries/<int:entry_id>/again")
@blueprint.input(RestorePlan)
@blueprint.output(Entry, status_code=201)
@blueprint.doc(responses={**REFUSED, 409: "Not a plan, or the plan that stands"})
def restore_plan(tank_id: int, entry_id: int, json_data: RestorePlan) -> Entry:
    """Restore an older plan: it is written as the newest. The same key again returns the existing entry."""
    mine = tanks()
    entries = mine.recent(tank_id)
    old = next((e for e in entries if e.id == entry_id), None)
    if old is None:
        raise NoSuchEntry
    if old.body.kind not in PLAN_KINDS:
        raise ProblemError(409, "No plan", "Only a plan can be taken up again; a test or a dose is taken back instead.")
    state = replay(entries)
    stands: Entry | None = getattr(state, old.body.kind.replace("-", "_"))
    body = old.body
    if isinstance(body, FilterPlan) and stands is not None and isinstance(stands.body, FilterPlan):
        body = body.taken_up_again(stands.body)
    _refuse_impossible(state, body)
    new = NewEntry(key=json_data.key, at=g.now, body=body, based_on=stands.id if stands else None)
    return _added(mine, tank_id, new)


def _added(mine: Tanks, tank_id: int, new: NewEntry) -> Entry:
    """An entry written; in a practice tank at its own time, which goes on a little with each."""
    if "practice" not in g:
        return mine.add(tank_id, new, g.now)[0]
    entry, fresh = mine.add(tank_id, new.model_copy(update={"at": g.now}), g.now)
    if fresh:
        PracticeTanks(g.database, keeper().id).change(tank_id, Practice.ticked)
    return entry


def _refuse_impossible(state: LogbookState, body: Body) -> None:
    """Raise the fault of a plan that is inconsistent for this tank, unless it already was."""
    if body.kind != "tank-plan" and rows_or_fault(state, g.now)[1] is not None:
        return
    if isinstance(body, KitPlan):
        body.kit.check()
    stage_rows(with_plan(state, body), g.now)


class PlumbingQuery(BaseModel):
    """A filter of the tank, the first with a pump where left out, and the state it is written in."""

    filter_key: FilterKey | None = None
    state: PlumbingState = "clean"


@blueprint.get("/tanks/<int:tank_id>/plumbing.inp")
@blueprint.input(PlumbingQuery, location="query")
@blueprint.doc(responses={**file_of("text/plain", "EPANET 2.2 input"), **READ, 409: "No pumped filter is chosen"})
def read_plumbing(tank_id: int, query_data: PlumbingQuery) -> Response:
    """The plumbing as an EPANET input file, clean, as a service leaves it, or when due for cleaning."""
    state = state_of(tank_id)
    installed = [h for h in installed_filters(state) if query_data.filter_key in (None, h.key)]
    found = next(((q, overflow_question(h)) for h in installed if (q := path_of(state, h)) is not None), None)
    if found is None:
        raise ProblemError(409, "No plumbing", "Choose a filter with a pump first; air-driven ones have no pump curve.")
    headers = {"Content-Disposition": f'attachment; filename="plumbing-{tank_id}-{query_data.state}.inp"'}
    text = plumbing_inp(found[0], query_data.state, overflow=found[1])
    return Response(text, mimetype="text/plain", headers=headers)


@blueprint.get("/tanks/<int:tank_id>/buying")
@blueprint.output(ShoppingListAnswer)
@blueprint.doc(responses={**READ, 409: "No filter is chosen"})
def read_shopping_list(tank_id: int) -> ShoppingListAnswer:
    """Shopping list for this tank, by its fitting plans."""
    return _buying(tank_id)


def _buying(tank_id: int) -> ShoppingListAnswer:
    found = shopping_list_view(state_of(tank_id), learned_boxes(g.database, g.now))
    if found is None:
        raise ProblemError(409, "Nothing to buy yet", "Choose a filter first; the list is made for it.")
    return found


@blueprint.get("/tanks/<int:tank_id>/buying.csv")
@blueprint.doc(responses={**CSV, **READ, 409: "No filter is chosen"})
def read_shopping_list_csv(tank_id: int) -> Response:
    """The same list as CSV."""
    return csv_response(write_shopping(_buying(tank_id)), f"shopping-{tank_id}.csv")


def tank_out(tank: TankName, stages: list[Stage]) -> TankOut:
    """A tank as the API returns it, with whose it is. tank: its row; stages: of its work."""
    hand = helps().get(tank.owner_id)
    shared = {"of": hand.email, "role": hand.role} if hand else {}
    return TankOut(
        id=tank.id,
        name=tank.name,
        made_at=tank.made_at,
        stages=stages,
        next=next_step(stages),
        practice="practice" in g,
        **shared,
    )
