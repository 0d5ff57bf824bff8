"""A tank's whole logbook as a JSON bundle, out and in, and the bundle's schema."""

import shutil
import tempfile
from collections.abc import Iterator
from typing import Any

from apiflask import APIBlueprint
from flask import Response, g, request
from flask_login import current_user
from pydantic import BaseModel, Field

from reedmace.api.files import IN_MEMORY, streamed, streamed_zip
from reedmace.api.openapi_responses import READ, file_of
from reedmace.api.photos import photo_bytes_allowed
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, tanks
from reedmace.core.contract import Issue
from reedmace.core.errors import CannotAnswer
from reedmace.formats import Bundle, bundle_parts, bundle_schema
from reedmace.formats.bundle_zip import BundledPhoto, BundleZip, write_bundle_zip
from reedmace.formats.photo import clean_photo
from reedmace.logbook.replay.state import replay
from reedmace.logbook.stages.stage_rows import stage_rows
from reedmace.store.photos import NewPhoto, Photos, StoredPhoto

blueprint = APIBlueprint("bundles", __name__, url_prefix="/api", tag="Bundles")

LARGEST_BUNDLE = 48_000_000
"""Largest accepted bundle in bytes: some hundred thousand entries, years of device readings."""


LARGEST_ZIP = 130_000_000
"""Largest accepted zip, bytes."""


@blueprint.before_request
def _room_for_a_logbook() -> None:
    """Raise the size limit: a logbook may be larger than any other request."""
    if request.method == "POST" and current_user.is_authenticated:
        request.max_content_length = LARGEST_ZIP if request.path.endswith("/zip") else LARGEST_BUNDLE


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


def bundled(photo: StoredPhoto) -> BundledPhoto:
    """A photograph as the index of a zip describes it."""
    return BundledPhoto(
        key=photo.key, at=photo.at, of=photo.of, entry_key=photo.entry_key, words=photo.words, shown=photo.shown
    )


@blueprint.get("/tanks/<int:tank_id>/bundle.zip")
@blueprint.doc(responses={**file_of("application/zip", "Bundle and photographs"), **READ})
def read_bundle_zip(tank_id: int) -> Response:
    """A tank's whole logbook and its photographs in one zip."""
    mine = tanks()
    parts = bundle_parts(mine.get(tank_id).name, mine.each_entry(tank_id), g.now)
    photos = ((bundled(p), image) for p, image in Photos(g.database, mine, keeper().id).bundled(tank_id))
    return streamed_zip(lambda packed: write_bundle_zip(packed, parts, photos), f"tank-{tank_id}.zip")


@blueprint.post("/bundles/zip")
@blueprint.output(ImportedTank, status_code=201)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 413: "Too large", 422: "Not usable"})
def import_bundle_zip() -> ImportedTank:
    """Make a tank from a bundle with photographs, sent as the body: all of it or nothing."""
    mine = tanks()
    with tempfile.SpooledTemporaryFile(max_size=IN_MEMORY) as sent:
        shutil.copyfileobj(request.stream, sent)
        try:
            packed = BundleZip(sent)
            bundle = Bundle.model_validate_json(packed.bundle_text())
            pictures = [(photo, clean_photo(image)) for photo, image in packed.images()]
        except CannotAnswer as error:
            issue = Issue(where=error.where, what=error.what, remedy=error.remedy)
            raise ProblemError(422, "Nothing was imported", f"{error.where} {error.what}", [issue]) from error
    stage_rows(replay(bundle.entries), g.now)
    with g.database.atomic():
        tank = mine.bring(bundle.tank.strip(), bundle.entries, g.now)
        photos = Photos(g.database, mine, keeper().id)
        for photo, picture in pictures:
            new = NewPhoto(photo.key, photo.at, photo.of, photo.entry_key, photo.words, picture, photo.shown)
            photos.add(tank.id, new, g.now, photo_bytes_allowed())
    return ImportedTank(tank_id=tank.id, entries=len(bundle.entries))


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
