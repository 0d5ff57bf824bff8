"""The shelf: boxes seen or owned, in and out, and shown by a link."""

from hashlib import sha256
from pathlib import Path
from typing import Annotated

from apiflask import APIBlueprint
from flask import Response, current_app, g, request
from flask_login import current_user
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.files import csv_response, csv_text, refuse_rows
from reedmace.api.openapi_responses import CSV, file_of
from reedmace.api.photos import PictureQuery, photo_bytes_allowed, photo_of_body, picture_response
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper
from reedmace.core.filter import Filter
from reedmace.core.filter.shelf_box import ShelfBox, ShelfItem, box_of_filter, boxes_of, number_of
from reedmace.formats import read_boxes, write_boxes
from reedmace.formats.photo import LARGEST
from reedmace.logbook.replay.entries import Key
from reedmace.store import Shelf, shown_shelf
from reedmace.store.photos import BoxPhotos

blueprint = APIBlueprint("shelf", __name__, url_prefix="/api", tag="Shelf")

SIGNED = {401: "Not signed in", 403: "CSRF token missing"}
REFUSED = {**SIGNED, 404: "No such box", 422: "Not usable"}
MOST_AT_ONCE = 500


@blueprint.before_request
def _room_for_a_photo() -> None:
    """Raise the size limit for a photograph of whoever is signed in."""
    if request.path.endswith("/photo") and current_user.is_authenticated:
        request.max_content_length = LARGEST + 1000


class ShelfOut(BaseModel):
    """Every box, oldest first; those an operator gives to all come last and cannot be changed."""

    items: list[ShelfItem]
    given: list[ShelfItem]
    on_tanks: dict[str, list[str]] = Field(description="Names of the tanks that a box hangs on, by its number")
    photos: dict[str, str] = Field(description="Digest of a box's photograph, by its number")


class NewBox(BaseModel):
    """A box with its client's key, so that a repeated send makes no second one."""

    model_config = ConfigDict(extra="forbid")
    key: Key
    box: ShelfBox


class NewBoxes(BaseModel):
    """Several boxes at once: all or none."""

    model_config = ConfigDict(extra="forbid")
    boxes: Annotated[list[NewBox], Field(min_length=1, max_length=MOST_AT_ONCE)]


class BoxesPut(BaseModel):
    """Boxes put on the shelf, and the id of each as a filter: as the likeliest kind it may be."""

    items: list[ShelfItem]
    filter_ids: list[str]


class ShelfLinkOut(BaseModel):
    """Creation time of the link; null without one."""

    made_at: AwareDatetime | None


class ShelfLinkMade(ShelfLinkOut):
    """The secret of the link, shown only here."""

    token: str


class SharedShelf(BaseModel):
    """A shelf as somebody shows it."""

    items: list[ShelfItem]


def shelf_of(account_id: int) -> list[ShelfItem]:
    """Boxes of an account, with those an operator gives to all. account_id: the owner of the shelf."""
    return [*Shelf(g.database, account_id).all(), *given()]


def shelf_here(owner_id: int) -> list[ShelfItem]:
    """Boxes spoken of at a tank: its owner's, and a helper's own. owner_id: account of the tank's owner."""
    own = [] if keeper().id == owner_id else _mine().all()
    return [*own, *shelf_of(owner_id)]


def given() -> list[ShelfItem]:
    """Boxes an operator gives to every account."""
    boxes: list[ShelfItem] = current_app.config["REEDMACE_SHELF"]
    return boxes


def read_given(path: Path | None) -> list[ShelfItem]:
    """Boxes of an operator's file. path: a CSV; None gives none. ValueError names the first faulty row."""
    if path is None:
        return []
    found, errors = read_boxes(path.read_text(encoding="utf-8"))
    if errors:
        raise ValueError(f"{path.name}, line {errors[0].line}, {errors[0].column}: {errors[0].what}")
    return [ShelfItem(id=-n, box=box_of_filter(f)) for n, f in enumerate(found, 1)]


def _mine() -> Shelf:
    return Shelf(g.database, keeper().id)


@blueprint.get("/shelf")
@blueprint.output(ShelfOut)
@blueprint.doc(responses={401: "Not signed in"})
def read_shelf() -> ShelfOut:
    """The boxes on this keeper's shelf."""
    return _shelf_out()


def _shelf_out() -> ShelfOut:
    photos = {str(number): digest for number, digest in _box_photos().digests().items()}
    return ShelfOut(items=_mine().all(), given=given(), on_tanks=_on_tanks(), photos=photos)


def _box_photos() -> BoxPhotos:
    return BoxPhotos(g.database, keeper().id)


def _on_tanks() -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for name, plan in _mine().boxes_on_tanks():
        for number in (number_of(one.filter.id) for one in plan.hanging):
            if number is not None:
                found.setdefault(str(number), []).append(name)
    return found


@blueprint.post("/shelf")
@blueprint.input(NewBoxes)
@blueprint.output(BoxesPut, status_code=201)
@blueprint.doc(responses=REFUSED)
def put_boxes(json_data: NewBoxes) -> BoxesPut:
    """Put boxes on the shelf, all or none."""
    return _put([(one.key, one.box) for one in json_data.boxes])


@blueprint.put("/shelf/<int:box_id>")
@blueprint.input(ShelfBox)
@blueprint.output(ShelfItem)
@blueprint.doc(responses=REFUSED)
def save_box(box_id: int, json_data: ShelfBox) -> ShelfItem:
    """Write a box anew."""
    return _mine().save(box_id, json_data)


@blueprint.delete("/shelf/<int:box_id>")
@blueprint.output(ShelfOut)
@blueprint.doc(responses=REFUSED)
def remove_box(box_id: int) -> ShelfOut:
    """Take a box off the shelf; a tank that holds it keeps its figures."""
    _mine().remove(box_id)
    return _shelf_out()


@blueprint.get("/shelf.csv")
@blueprint.doc(responses={**CSV, 401: "Not signed in"})
def export_shelf() -> Response:
    """The shelf as CSV, each box as the likeliest kind it may be."""
    return csv_response(write_boxes(boxes_of(item)[0] for item in _mine().all()), "shelf.csv")


@blueprint.post("/shelf.csv")
@blueprint.output(BoxesPut, status_code=201)
@blueprint.doc(responses={422: "Not usable; each faulty row is named", **SIGNED})
def import_shelf() -> BoxesPut:
    """Put the boxes of a CSV on the shelf: all rows or none. The same file sent again adds nothing."""
    found, errors = read_boxes(csv_text())
    refuse_rows(errors)
    return _put([(_key_of(f), box_of_filter(f)) for f in found])


def _put(boxes: list[tuple[str, ShelfBox]]) -> BoxesPut:
    items = _mine().put(boxes, g.now)
    return BoxesPut(items=items, filter_ids=[boxes_of(item)[0].id for item in items])


def _key_of(f: Filter) -> str:
    return sha256(f.model_dump_json().encode()).hexdigest()[:40]


@blueprint.get("/shelf/link")
@blueprint.output(ShelfLinkOut)
@blueprint.doc(responses={401: "Not signed in"})
def read_shelf_link() -> ShelfLinkOut:
    """Whether a link shows this shelf. The link itself is shown only when it is made."""
    return ShelfLinkOut(made_at=_mine().link_since())


@blueprint.post("/shelf/link")
@blueprint.output(ShelfLinkMade, status_code=201)
@blueprint.doc(responses=SIGNED)
def make_shelf_link() -> ShelfLinkMade:
    """Make a link that shows this shelf; an older one stops working."""
    return ShelfLinkMade(made_at=g.now, token=_mine().make_link(g.now))


@blueprint.delete("/shelf/link")
@blueprint.output(ShelfLinkOut)
@blueprint.doc(responses=SIGNED)
def end_shelf_link() -> ShelfLinkOut:
    """Revoke the link."""
    _mine().end_link()
    return ShelfLinkOut(made_at=None)


@blueprint.get("/shelf/shown/<token>")
@blueprint.output(SharedShelf)
@blueprint.doc(responses={404: "No such shelf"})
def read_shared_shelf(token: str) -> SharedShelf:
    """A shelf by its link; anyone with the link may read it. Prices and notes of the keeper are left out."""
    shelf = shown_shelf(g.database, token)
    if shelf is None:
        raise ProblemError(404, "Not found", "This link opens nothing: it was revoked, or made anew.")
    bare = [item.box.model_copy(update={"note": "", "seen_where": "", "bought": False}) for item in shelf.all()]
    return SharedShelf(items=[ShelfItem(id=n, box=box) for n, box in enumerate(bare, 1)])


@blueprint.put("/shelf/<int:box_id>/photo")
@blueprint.output(ShelfOut)
@blueprint.doc(responses={**REFUSED, 413: "Too large", 429: "No room"})
def put_box_photo(box_id: int) -> ShelfOut:
    """Put a photograph of a box on the shelf, sent as the body; one it had is replaced."""
    _box_photos().put(box_id, photo_of_body(), g.now, photo_bytes_allowed())
    return _shelf_out()


@blueprint.get("/shelf/<int:box_id>/photo.jpg")
@blueprint.input(PictureQuery, location="query", arg_name="query")
@blueprint.doc(responses={**file_of("image/jpeg", "The picture"), 401: "Not signed in", 404: "None"})
def read_box_photo(box_id: int, query: PictureQuery) -> Response:
    """The photograph of a box, whole or small."""
    image, digest = _box_photos().picture(box_id, small=query.size == "small")
    return picture_response(f"{digest}-{query.size}", image)


@blueprint.delete("/shelf/<int:box_id>/photo")
@blueprint.output(ShelfOut)
@blueprint.doc(responses=REFUSED)
def remove_box_photo(box_id: int) -> ShelfOut:
    """Delete the photograph of a box for good."""
    _box_photos().remove(box_id)
    return _shelf_out()
