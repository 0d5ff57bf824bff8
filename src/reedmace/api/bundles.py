"""A tank's whole logbook as a JSON bundle, out and in, and the bundle's schema."""

from typing import Any

from apiflask import APIBlueprint
from flask import Response, g, request
from flask_login import current_user
from pydantic import BaseModel, Field

from reedmace.api.openapi_responses import READ, file_of
from reedmace.api.session import tanks
from reedmace.formats import Bundle, bundle_schema, write_bundle
from reedmace.logbook.replay.state import replay
from reedmace.logbook.stages.stage_rows import stage_rows

blueprint = APIBlueprint("bundles", __name__, url_prefix="/api", tag="Bundles")

LARGEST_BUNDLE = 48_000_000
"""Largest accepted bundle in bytes: some hundred thousand entries, years of device readings."""


@blueprint.before_request
def _room_for_a_logbook() -> None:
    """Raise the size limit: a logbook may be larger than any other request."""
    if request.method == "POST" and current_user.is_authenticated:
        request.max_content_length = LARGEST_BUNDLE


class ImportedTank(BaseModel):
    """The tank made from a bundle."""

    tank_id: int = Field(ge=1, le=2**53)
    entries: int = Field(ge=0)


@blueprint.get("/bundle/schema")
@blueprint.doc(responses=file_of("application/schema+json", "JSON Schema"))
def read_bundle_schema() -> Any:
    """The bundle's JSON Schema."""
    return bundle_schema()


@blueprint.get("/tanks/<int:tank_id>/bundle.json")
@blueprint.doc(responses={**file_of("application/json", "Bundle"), **READ})
def read_bundle(tank_id: int) -> Response:
    """A tank's whole logbook, corrected and withdrawn entries included."""
    mine = tanks()
    text = write_bundle(mine.get(tank_id).name, mine.entries(tank_id), g.now)
    headers = {"Content-Disposition": f'attachment; filename="tank-{tank_id}.json"'}
    return Response(text, mimetype="application/json", headers=headers)


@blueprint.get("/account/everything.json")
@blueprint.doc(responses={**file_of("application/json", "Every bundle"), 401: "Not signed in"})
def read_everything() -> Response:
    """Every tank's whole logbook in one file, archived ones too: a list of bundles, each importable."""
    mine = tanks()
    held = [(t.id, t.name) for t in mine.all()] + [(t.id, t.name) for t in mine.aside(g.now) if t.how == "archived"]
    text = ",\n".join(write_bundle(name, mine.entries(tank_id), g.now) for tank_id, name in held)
    headers = {"Content-Disposition": 'attachment; filename="reedmace-everything.json"'}
    return Response(
        f'{{"format": "reedmace-everything", "version": 1, "bundles": [\n{text}\n]}}',
        mimetype="application/json",
        headers=headers,
    )


@blueprint.post("/bundles")
@blueprint.input(Bundle)
@blueprint.output(ImportedTank, status_code=201)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"})
def import_bundle(json_data: Bundle) -> ImportedTank:
    """Make a tank from a bundle: all of it or nothing."""
    # An inconsistent plan is rejected here rather than failing on every page later.
    stage_rows(replay(json_data.entries), g.now)
    tank = tanks().bring(json_data.tank.strip(), json_data.entries, g.now)
    return ImportedTank(tank_id=tank.id, entries=len(json_data.entries))
