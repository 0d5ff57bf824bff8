"""The cycle of a tank: advice, readiness, readings in and out, its model as SBML."""

from typing import Any

from apiflask import APIBlueprint
from flask import Response, g
from pydantic import BaseModel, Field

from reedmace.api.files import csv_text, refuse_rows, streamed
from reedmace.api.openapi_responses import CSV, READ, file_of
from reedmace.api.problems import ProblemError
from reedmace.api.session import state_of, tanks
from reedmace.core.chemistry import WaterSpeciationQuestion
from reedmace.core.contract import Issue
from reedmace.core.cycle import (
    CycleAdviceAnswer,
    CycleAdviceQuestion,
    CycleForecastAnswer,
    CycleForecastQuestion,
    CycleLog,
    CycleReadinessAnswer,
    CycleReadinessQuestion,
    EmergencyPlanAnswer,
    IllnessAnswer,
    NitrogenBalanceAnswer,
    NitrogenBalanceQuestion,
    StockingRampAnswer,
    cycle_advice,
    cycle_forecast,
    cycle_readiness,
    emergency_today,
    nitrogen_balance,
    ramp_ahead,
)
from reedmace.core.cycle.judgement.cloudy_water import CloudyWaterQuestion, cloudy_question
from reedmace.core.cycle.record.speciation_question import speciation_question
from reedmace.formats import FoundColumn, FoundRow, MappedCsv, csv_parts, cycle_sbml, read_csv, read_mapped, reading_key
from reedmace.logbook.care.sick_animals import illness
from reedmace.logbook.care.takeover import Takeover, takeover
from reedmace.logbook.replay.cycle_log import care_log, cycle_log
from reedmace.logbook.replay.entries import NewEntry, Reading

blueprint = APIBlueprint("cycle", __name__, url_prefix="/api", tag="Cycle")

REFUSED = {401: "Not signed in", 403: "CSRF token missing", 404: "No such tank", 422: "Not usable"}
SHOWN_ROWS = 200


class CycleState(BaseModel):
    """Everything the Cycle stage shows. `log` is the input of the computations, so they can be repeated."""

    log: CycleLog | None
    advice: CycleAdviceAnswer | None
    readiness: CycleReadinessAnswer | None
    forecast: CycleForecastAnswer | None
    forecast_left_alone: CycleForecastAnswer | None
    balance: NitrogenBalanceAnswer | None
    ramp: StockingRampAnswer | None
    emergency: EmergencyPlanAnswer | None = Field(
        default=None, description="Animals are in and both poisons were tested"
    )
    stocked: bool = Field(default=False, description="Animals have come, so nothing is dosed any more")
    settled: bool = Field(default=False, description="They came so long ago that the cycle is over")
    takeover: Takeover | None = Field(default=None, description="A new filter beside an old one")
    animals_in: bool = Field(default=False, description="Animals live in it, so nothing is dosed")
    illness: IllnessAnswer | None = Field(
        default=None, description="What to look at first where animals were seen unwell or were lost"
    )
    cloudy: CloudyWaterQuestion | None = Field(default=None, description="What is known before a cloud is described")
    water: WaterSpeciationQuestion | None = Field(default=None, description="The newest tests, to see the species of")


class CsvImport(BaseModel):
    """Number of new readings; rows already present are not added twice."""

    added: int = Field(ge=0)
    known: int = Field(ge=0)


class CsvPreview(BaseModel):
    """Preview of an import, with every fault; nothing is written."""

    columns: list[FoundColumn]
    date_order: str
    rows: list[FoundRow] = Field(description=f"The first {SHOWN_ROWS}")
    good: int = Field(ge=0, description="Rows that can be written")
    known: int = Field(ge=0, description="Of them, in the logbook already")
    faults: list[Issue]


@blueprint.get("/tanks/<int:tank_id>/cycle")
@blueprint.output(CycleState)
@blueprint.doc(responses=READ)
def read_cycle(tank_id: int) -> CycleState:
    """Today's actions, the forecast, and readiness."""
    state = state_of(tank_id)
    # Animals without a cycle plan are judged too.
    log = cycle_log(state, g.now) or care_log(state, g.now)
    if log is None:
        return CycleState(
            log=None, advice=None, readiness=None, forecast=None, forecast_left_alone=None, balance=None, ramp=None
        )
    readiness = cycle_readiness(CycleReadinessQuestion(log=log))
    return CycleState(
        log=log,
        advice=cycle_advice(CycleAdviceQuestion(log=log)),
        readiness=readiness,
        forecast=cycle_forecast(CycleForecastQuestion(log=log)),
        forecast_left_alone=cycle_forecast(CycleForecastQuestion(log=log, hold_kh_dkh=0)),
        balance=nitrogen_balance(NitrogenBalanceQuestion(log=log)),
        ramp=ramp_ahead(log, readiness),
        emergency=emergency_today(log) if log.animals_are_in() else None,
        stocked=log.stocked_day is not None,
        settled=log.settled(),
        takeover=takeover(state, g.now),
        animals_in=log.animals_are_in(),
        illness=illness(state, g.now),
        cloudy=cloudy_question(log),
        water=speciation_question(log),
    )


@blueprint.get("/tanks/<int:tank_id>/readings.csv")
@blueprint.doc(responses={**CSV, **READ})
def read_readings(tank_id: int) -> Response:
    """The readings as CSV."""
    return streamed(csv_parts(tanks().each_reading(tank_id)), "text/csv", f"readings-{tank_id}.csv")


@blueprint.post("/tanks/<int:tank_id>/readings.csv")
@blueprint.output(CsvImport, status_code=201)
@blueprint.doc(responses=REFUSED)
def import_readings(tank_id: int) -> CsvImport:
    """Import readings from CSV: all rows or none, each faulty row named."""
    tanks().get(tank_id)
    news, errors = read_csv(csv_text(), g.now)
    refuse_rows(errors)
    return _write(tank_id, news)


def _known(tank_id: int, news: list[NewEntry]) -> set[str]:
    """Keys by content of the readings made when these were, so that an exported reading is not imported again."""
    there = tanks().readings_at(tank_id, [n.at for n in news])
    return {reading_key(e.at, e.body) for e in there if isinstance(e.body, Reading)}


@blueprint.post("/tanks/<int:tank_id>/readings/preview")
@blueprint.input(MappedCsv)
@blueprint.output(CsvPreview)
@blueprint.doc(responses=REFUSED)
def preview_readings(tank_id: int, json_data: MappedCsv) -> CsvPreview:
    """Preview of a CSV of past readings under this mapping. Writes nothing."""
    tanks().get(tank_id)
    found = read_mapped(json_data, g.now)
    kept = _known(tank_id, [e for _, e in found.entries])
    return CsvPreview(
        columns=found.columns,
        date_order=found.date_order,
        rows=[
            FoundRow(line=line, at=e.at.isoformat(), reading=e.body)
            for line, e in found.entries[:SHOWN_ROWS]
            if isinstance(e.body, Reading)
        ],
        good=len(found.entries),
        known=sum(e.key in kept for _, e in found.entries),
        faults=[f.issue() for f in found.faults[:SHOWN_ROWS]],
    )


@blueprint.post("/tanks/<int:tank_id>/readings/import")
@blueprint.input(MappedCsv)
@blueprint.output(CsvImport, status_code=201)
@blueprint.doc(responses=REFUSED)
def import_mapped(tank_id: int, json_data: MappedCsv) -> CsvImport:
    """Import past readings under this mapping: all rows or none."""
    tanks().get(tank_id)
    found = read_mapped(json_data, g.now)
    refuse_rows(found.faults)
    return _write(tank_id, [e for _, e in found.entries])


def _write(tank_id: int, news: list[NewEntry]) -> CsvImport:
    kept = _known(tank_id, news)
    written = tanks().add_many(tank_id, [n for n in news if n.key not in kept], g.now)
    added = sum(new for _, new in written)
    return CsvImport(added=added, known=len(news) - added)


@blueprint.get("/tanks/<int:tank_id>/cycle.sbml")
@blueprint.doc(responses={**file_of("application/xml", "SBML L3V1"), **READ, 409: "No cycle is planned"})
def read_sbml(tank_id: int) -> Response:
    """The cycle's model with this tank's parameters."""
    mine = tanks()
    name, log = mine.get(tank_id).name, cycle_log(state_of(tank_id), g.now)
    if log is None:
        raise ProblemError(409, "No cycle", "Begin the cycle first; the model is made from its log.")
    headers: Any = {"Content-Disposition": f'attachment; filename="cycle-{tank_id}.sbml"'}
    return Response(cycle_sbml(log, name=name), mimetype="application/xml", headers=headers)
