"""Tanks, their logbook, and what follows from it: state, today, plumbing, calendar."""

from datetime import timedelta
from typing import Annotated, Any

from apiflask import APIBlueprint
from flask import Response, g
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.described import CSV, READ, file_of
from reedmace.api.files import csv_response
from reedmace.api.problems import ProblemError
from reedmace.api.session import tanks
from reedmace.core.cycle import (
    CycleAdviceAnswer,
    CycleAdviceQuestion,
    CycleForecastQuestion,
    FilterStopAnswer,
    cycle_advice,
    cycle_forecast,
)
from reedmace.core.fit import ShoppingListAnswer
from reedmace.core.working import CannotAnswer
from reedmace.formats import plumbing_inp, write_calendar, write_shopping
from reedmace.logbook import (
    PLAN_KINDS,
    Body,
    Due,
    Entry,
    LogbookState,
    NewEntry,
    Seed,
    Stage,
    cycle_due,
    cycle_log,
    due,
    hang,
    path_of,
    replay,
    seeds,
    stage_rows,
)
from reedmace.logbook.entries import FilterKey, KitPlan
from reedmace.logbook.equipment import temperature_c
from reedmace.logbook.questions import care_log
from reedmace.logbook.stages import (
    Draft,
    FilterView,
    FitView,
    KeepView,
    StockView,
    TankView,
    buying_view,
    filter_view,
    fit_view,
    in_danger,
    keep_view,
    rows_or_fault,
    stock_view,
    tank_view,
    with_draft,
    with_plan,
)
from reedmace.logbook.stops import stops

door = APIBlueprint("tanks", __name__, url_prefix="/api", tag="Tanks")

NAME = Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
REFUSED = {401: "Not signed in", 403: "CSRF token missing", 404: "No such tank", 422: "Not usable"}


class TankIn(BaseModel):
    """A tank's name."""

    model_config = ConfigDict(extra="forbid")
    name: NAME


class TankOut(BaseModel):
    """A tank."""

    id: int = Field(ge=1, le=2**53)
    name: str
    made_at: AwareDatetime
    stages: list[Stage] = []


class TankList(BaseModel):
    """All tanks, oldest first."""

    tanks: list[TankOut]


class EntryPage(BaseModel):
    """Entries, newest first; `next_before` asks for the next page, null at the end."""

    entries: list[Entry]
    next_before: int | None


class TankState(BaseModel):
    """A tank, where it stands, and what is due. Temperature: one for every stage."""

    tank: TankOut
    state: LogbookState
    temperature_c: float | None = Field(ge=0, le=45)
    due: list[Due]
    fault: str | None = Field(description="Why its plans cannot be worked out; its forms stay open to be mended")


class TodayRow(BaseModel):
    """One tank on Today. `cycle_started_at` turns the days of the advice into dates."""

    tank: TankOut
    verdict: str
    stage: str
    advice: CycleAdviceAnswer | None
    cycle_started_at: AwareDatetime | None = None
    net_l: float | None = Field(default=None, ge=0, le=1e6)
    growth_seen: bool = False
    urgent: bool = Field(default=False, description="Animals or the cycle cannot wait")
    stop: FilterStopAnswer | None = None
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
    return TankList(tanks=[_out(t, rows_or_fault(replay(entries.get(t.id, [])), g.now)[0]) for t in mine.all()])


@door.post("/tanks")
@door.input(TankIn)
@door.output(TankOut, status_code=201)
@door.doc(responses={401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"})
def make_tank(json_data: TankIn) -> TankOut:
    """A new tank."""
    return _out(tanks().make(json_data.name.strip(), g.now), stage_rows(LogbookState(), g.now))


@door.get("/tanks/<int:tank_id>")
@door.output(TankState)
@door.doc(responses=READ)
def read_tank(tank_id: int) -> TankState:
    """Where a tank stands."""
    mine = tanks()
    tank, state = mine.get(tank_id), replay(mine.entries(tank_id))
    rows, fault = rows_or_fault(state, g.now)
    return TankState(
        tank=_out(tank, rows),
        state=state,
        temperature_c=None if fault else temperature_c(state),
        due=[] if fault else due(state, g.now),
        fault=fault,
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
    """Write in the logbook. The same key again answers with the entry that stands. A plan is worked out first."""
    mine = tanks()
    if json_data.body.kind in PLAN_KINDS:
        _refuse_impossible(replay(mine.entries(tank_id)), json_data.body)
    return mine.add(tank_id, json_data, g.now)[0]


def _refuse_impossible(state: LogbookState, body: Body) -> None:
    """Raise what is wrong with a plan that cannot be worked out on this tank, unless it could not be before either."""
    if body.kind != "tank-plan" and rows_or_fault(state, g.now)[1] is not None:
        return
    if isinstance(body, KitPlan):
        body.kit.check()
    stage_rows(with_plan(state, body), g.now)


class FilterQuery(BaseModel):
    """Which filter of the tank; left out, the first that fits."""

    filter_key: FilterKey | None = None


@door.get("/tanks/<int:tank_id>/plumbing.inp")
@door.input(FilterQuery, location="query")
@door.doc(responses={**file_of("text/plain", "EPANET 2.2 input"), **READ, 409: "No pumped filter is chosen"})
def read_plumbing(tank_id: int, query_data: FilterQuery) -> Response:
    """The plumbing as an EPANET input file, to be solved by anyone."""
    state = replay(tanks().entries(tank_id))
    hung = [h for h in hang(state) if query_data.filter_key in (None, h.key)]
    question = next((q for h in hung if (q := path_of(state, h)) is not None), None)
    if question is None:
        raise ProblemError(409, "No plumbing", "Choose a filter with a pump first; air-driven ones have no pump curve.")
    headers = {"Content-Disposition": f'attachment; filename="plumbing-{tank_id}.inp"'}
    return Response(plumbing_inp(question), mimetype="text/plain", headers=headers)


def _seen(tank_id: int, draft: Draft) -> LogbookState:
    return with_draft(replay(tanks().entries(tank_id)), draft)


@door.post("/tanks/<int:tank_id>/views/tank")
@door.input(Draft)
@door.output(TankView)
@door.doc(responses=REFUSED)
def see_tank(tank_id: int, json_data: Draft) -> TankView:
    """The Tank stage with what is typed on screen; nothing is written."""
    return tank_view(_seen(tank_id, json_data))


@door.post("/tanks/<int:tank_id>/views/stock")
@door.input(Draft)
@door.output(StockView)
@door.doc(responses=REFUSED)
def see_stock(tank_id: int, json_data: Draft) -> StockView:
    """The Stock stage with what is typed on screen; nothing is written."""
    return stock_view(_seen(tank_id, json_data))


@door.post("/tanks/<int:tank_id>/views/filter")
@door.input(Draft)
@door.output(FilterView)
@door.doc(responses=REFUSED)
def see_filter(tank_id: int, json_data: Draft) -> FilterView:
    """The Filter stage with what is typed on screen; nothing is written."""
    return filter_view(_seen(tank_id, json_data), json_data.seen)


@door.post("/tanks/<int:tank_id>/views/fit")
@door.input(Draft)
@door.output(FitView)
@door.doc(responses=REFUSED)
def see_fit(tank_id: int, json_data: Draft) -> FitView:
    """The Fit stage with what is typed on screen; nothing is written."""
    return fit_view(_seen(tank_id, json_data))


@door.get("/tanks/<int:tank_id>/views/keep")
@door.output(KeepView)
@door.doc(responses=READ)
def see_keep(tank_id: int) -> KeepView:
    """Flow over time and costs."""
    return keep_view(replay(tanks().entries(tank_id)), g.now)


@door.get("/tanks/<int:tank_id>/buying")
@door.output(ShoppingListAnswer)
@door.doc(responses={**READ, 409: "No filter is chosen"})
def read_buying(tank_id: int) -> ShoppingListAnswer:
    """What to buy for this tank, by its own fitting plans."""
    return _buying(tank_id)


def _buying(tank_id: int) -> ShoppingListAnswer:
    found = buying_view(replay(tanks().entries(tank_id)))
    if found is None:
        raise ProblemError(409, "Nothing to buy yet", "Choose a filter first; the list is made for it.")
    return found


@door.get("/tanks/<int:tank_id>/buying.csv")
@door.doc(responses={**CSV, **READ, 409: "No filter is chosen"})
def read_buying_csv(tank_id: int) -> Response:
    """The same list as CSV."""
    return csv_response(write_shopping(_buying(tank_id)), f"shopping-{tank_id}.csv")


@door.get("/tanks/<int:tank_id>/calendar.ics")
@door.doc(responses={**file_of("text/calendar", "iCalendar"), **READ})
def read_calendar(tank_id: int) -> Response:
    """Leak checks, flow tests, service, spare sponges and what comes next in the cycle of one tank as iCalendar."""
    mine = tanks()
    name, state = mine.get(tank_id).name, replay(mine.entries(tank_id))
    rows = due(state, g.now)
    log = cycle_log(state, g.now)
    if log is not None and not log.settled():
        advice = cycle_advice(CycleAdviceQuestion(log=log))
        forecast = cycle_forecast(CycleForecastQuestion(log=log, draws=400))
        rows = sorted([*rows, *cycle_due(state, g.now, advice, forecast)], key=lambda d: (d.at, d.key))
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
        state = replay(entries.get(t.id, []))
        stages, fault = rows_or_fault(state, g.now)
        try:
            row = _today(_out(t, stages), state) if fault is None else None
        except CannotAnswer as error:
            row, fault = None, str(error)
        if row is None:
            words = f"Its figures do not agree: {fault}"
            rows.append(TodayRow(tank=_out(t, stages), verdict=words, stage="tank", advice=None))
            continue
        soon = [d for d in due(state, g.now) if d.at <= g.now + timedelta(days=2)]
        rows.append(row.model_copy(update={"due": soon}))
        spare += [SeedRow(tank_id=t.id, tank=t.name, seed=s) for s in seeds(state, g.now)]
    return TodayList(rows=rows, seeds=spare)


def _today(tank: TankOut, state: LogbookState) -> TodayRow:
    log = care_log(state, g.now) or cycle_log(state, g.now)
    advice = cycle_advice(CycleAdviceQuestion(log=log)) if log is not None else None
    stopped, danger = stops(state, g.now), in_danger(state, g.now) is not None
    urgent = danger or any(s.urgent for s in stopped) or (advice is not None and advice.stalled)
    # Poison before a stop, a stop before the rest: the first action is one. A stop that does not press
    # gives way to the cycle's own advice, which knows of it.
    if stopped and not danger and (stopped[0].urgent or advice is None):
        return TodayRow(
            tank=tank, verdict=stopped[0].verdict, stage="keep", advice=None, stop=stopped[0], urgent=urgent
        )
    # A settled tank is the Keep stage's, until a test says otherwise.
    if log is not None and advice is not None and (not log.settled() or danger):
        started = g.now - timedelta(days=log.day_now)
        return TodayRow(
            tank=tank,
            verdict=advice.verdict,
            stage="cycle",
            advice=advice,
            cycle_started_at=started,
            net_l=log.net_l,
            growth_seen=log.plants_growing_day is not None,
            urgent=urgent,
        )
    waiting = next((s for s in tank.stages if s.state != "done"), tank.stages[-1])
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
    return TankOut(id=tank.id, name=tank.name, made_at=tank.made_at, stages=stages)
