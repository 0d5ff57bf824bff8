"""A tank's whole logbook as a JSON bundle, out and in, and the bundle's schema."""

from collections.abc import Iterator
from typing import Any

from apiflask import APIBlueprint
from flask import Response, g, request
from flask_login import current_user
from pydantic import BaseModel, Field

from reedmace.api.files import streamed
from reedmace.api.openapi_responses import READ, file_of
from reedmace.api.session import tanks
from reedmace.formats import Bundle, bundle_parts, bundle_schema
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
    parts = bundle_parts(mine.get(tank_id).name, mine.each_entry(tank_id), g.now)
    return streamed(parts, "application/json", f"tank-{tank_id}.json")


@blueprint.get("/account/everything.json")
@blueprint.doc(responses={**file_of("application/json", "Every bundle"), 401: "Not signed in"})
def read_everything() -> Response:
    """Every tank's whole logbook in one file, archived ones too: a list of bundles, each importable."""
    mine = tanks()
    held = [(t.id, t.name) for t in mine.all()] + [(t.id, t.name) for t in mine.aside(g.now) if t.how == "archived"]

    def parts() -> Iterator[str]:
        yield '{"format": "reedmace-everything", "version": 1, "bundles": [\n'
        for n, (tank_id, name) in enumerate(held):
            yield ",\n" if n else ""
            yield from bundle_parts(name, mine.each_entry(tank_id), g.now)
        yield "\n]}"

    return streamed(parts(), "application/json", "reedmace-everything.json")


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
