"""Events of a tank as CSV out and in: notes, changes, doses, cleanings."""

from apiflask import APIBlueprint
from flask import Response, g

from reedmace.api.cycle import CsvImport
from reedmace.api.files import csv_response, csv_text, refuse_rows
from reedmace.api.openapi_responses import CSV, READ
from reedmace.api.session import state_of, tanks
from reedmace.formats import HappeningTank, event_key, read_events, write_events
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

blueprint = APIBlueprint("happenings", __name__, url_prefix="/api", tag="Logbook")


def _done(state: LogbookState) -> list[Entry]:
    return sorted([*state.doses, *state.changes, *state.events], key=lambda e: e.at)


def _names(state: LogbookState) -> dict[str, str]:
    return {f.key: f.filter.name for f in state.filters()}


@blueprint.get("/tanks/<int:tank_id>/happenings.csv")
@blueprint.doc(responses={**CSV, **READ})
def export_events(tank_id: int) -> Response:
    """Notes, changes, doses and cleanings as CSV."""
    state = state_of(tank_id)
    return csv_response(write_events(_done(state), _names(state)), f"happenings-{tank_id}.csv")


@blueprint.post("/tanks/<int:tank_id>/happenings.csv")
@blueprint.output(CsvImport, status_code=201)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 404: "No such tank", 422: "Not usable"})
def import_events(tank_id: int) -> CsvImport:
    """Import notes, changes, doses and cleanings from CSV: all rows or none, each faulty row named."""
    state = state_of(tank_id)
    names = _names(state)
    installed = HappeningTank(net_litres(state), {name: key for key, name in names.items()})
    news, errors = read_events(csv_text(), g.now, installed)
    refuse_rows(errors)
    kept = {event_key(e.at, e.body, names) for e in _done(state)}
    written = tanks().add_many(tank_id, [n for n in news if n.key not in kept], g.now)
    added = sum(new for _, new in written)
    return CsvImport(added=added, known=len(news) - added)
