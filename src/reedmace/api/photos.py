"""Photographs of a tank: sent as they are, kept small, upright and without tags; private to who may see the tank."""

from typing import Annotated, Literal

from apiflask import APIBlueprint
from flask import Response, g, request
from flask_login import current_user
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.openapi_responses import READ, WRITE, file_of
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, tanks
from reedmace.core.contract import Issue
from reedmace.core.errors import CannotAnswer
from reedmace.formats.photo import LARGEST, clean_photo
from reedmace.logbook.photo import Photo, PhotoOf
from reedmace.logbook.replay.entries import Key
from reedmace.logbook.times import OurTime
from reedmace.store.photos import NewPhoto, Photos, StoredPhoto
from reedmace.store.quotas import PHOTO_BYTES, PHOTO_BYTES_OF_GUEST

blueprint = APIBlueprint("photos", __name__, url_prefix="/api", tag="Photographs")

KEPT_S = 365 * 86_400
"""How long a browser may keep a picture, s: it never changes under its address."""


@blueprint.before_request
def _room_for_a_photo() -> None:
    """Raise the size limit for whoever is signed in."""
    if request.method == "POST" and current_user.is_authenticated:
        request.max_content_length = LARGEST + 1000


class PhotoQuery(BaseModel):
    """What a photograph is of, when it was taken, and its key."""

    model_config = ConfigDict(extra="forbid")
    key: Key
    at: OurTime
    of: PhotoOf = "tank"
    entry_key: Annotated[Key | None, Field(description="Of the logbook entry it belongs to")] = None
    words: Annotated[str, Field(max_length=300)] = ""


class PhotoOut(BaseModel):
    """A photograph; its picture has an address of its own."""

    id: int = Field(ge=1, le=2**53)
    key: str
    at: AwareDatetime
    of: PhotoOf
    entry_key: str | None = Field(description="Key of the logbook entry it belongs to")
    words: str
    width: int
    height: int
    shown: bool = Field(description="Whether it stands on the page shown to neighbours")


class PhotoList(BaseModel):
    """Photographs of a tank, oldest first."""

    photos: list[PhotoOut]


class Shown(BaseModel):
    """Whether a photograph stands on the page shown to neighbours."""

    model_config = ConfigDict(extra="forbid")
    shown: bool


class PictureQuery(BaseModel):
    """The size wanted."""

    size: Literal["small", "full"] = "full"
    v: Annotated[str, Field(max_length=64, description="Of the digest, so that a replaced picture is fetched anew")] = (
        ""
    )


def _photos() -> Photos:
    return Photos(g.database, tanks(), keeper().id)


def photo_out(photo: StoredPhoto) -> PhotoOut:
    """A photograph as it is answered."""
    return PhotoOut(
        id=photo.id, key=photo.key, at=photo.at, of=photo.of, entry_key=photo.entry_key,
        words=photo.words, width=photo.width, height=photo.height, shown=photo.shown,
    )  # fmt: skip


def picture_response(digest: str, read: bytes | None) -> Response:
    """A picture, or 304 where the browser has it. digest: of it; read: its bytes, None where it need not be sent."""
    response = Response(read or b"", mimetype="image/jpeg")
    response.headers["Cache-Control"] = f"private, max-age={KEPT_S}, immutable"
    # A picture opened by its address is a picture and nothing else.
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    response.set_etag(digest)
    response.make_conditional(request)
    return response


def photo_of_body() -> Photo:
    """The photograph in the request's body, as it is kept. Raises a 422 problem for anything else."""
    try:
        return clean_photo(request.get_data(cache=False))
    except CannotAnswer as error:
        issue = Issue(where="photo", what=error.what, remedy=error.remedy)
        raise ProblemError(422, "Not kept", f"The photograph {error.what} {error.remedy}", [issue]) from error


def photo_bytes_allowed() -> int:
    """Bytes of photographs the one signed in may keep."""
    return PHOTO_BYTES_OF_GUEST if keeper().guest or keeper().visiting else PHOTO_BYTES


@blueprint.get("/tanks/<int:tank_id>/photos")
@blueprint.output(PhotoList)
@blueprint.doc(responses=READ)
def read_photos(tank_id: int) -> PhotoList:
    """Photographs of a tank, oldest first."""
    return PhotoList(photos=[photo_out(p) for p in _photos().all(tank_id)])


@blueprint.post("/tanks/<int:tank_id>/photos")
@blueprint.input(PhotoQuery, location="query", arg_name="query")
@blueprint.output(PhotoOut, status_code=201)
@blueprint.doc(responses={**WRITE, 413: "Too large", 422: "No picture", 429: "No room"})
def add_photo(tank_id: int, query: PhotoQuery) -> PhotoOut:
    """Add a photograph, sent as the body. The same key again adds nothing."""
    # Who may not write here is told before anything is decoded.
    photos, mine = _photos(), tanks()
    mine.get(tank_id)
    clean = photo_of_body()
    new = NewPhoto(query.key, query.at, query.of, query.entry_key, query.words.strip(), clean)
    return photo_out(photos.add(tank_id, new, g.now, photo_bytes_allowed())[0])


@blueprint.get("/tanks/<int:tank_id>/photos/<int:photo_id>.jpg")
@blueprint.input(PictureQuery, location="query", arg_name="query")
@blueprint.doc(responses={**file_of("image/jpeg", "The picture"), **READ})
def read_picture(tank_id: int, photo_id: int, query: PictureQuery) -> Response:
    """The picture of one, whole or small."""
    small = query.size == "small"
    digest = f"{_photos().digest(tank_id, photo_id)}-{query.size}"
    if digest in request.if_none_match:
        return picture_response(digest, None)
    return picture_response(digest, _photos().picture(tank_id, photo_id, small=small)[0])


@blueprint.put("/tanks/<int:tank_id>/photos/<int:photo_id>")
@blueprint.input(Shown)
@blueprint.output(PhotoOut)
@blueprint.doc(responses={**WRITE, 422: "Not usable"})
def show_photo(tank_id: int, photo_id: int, json_data: Shown) -> PhotoOut:
    """Choose whether one stands on the page shown to neighbours."""
    return photo_out(_photos().show(tank_id, photo_id, shown=json_data.shown))


@blueprint.delete("/tanks/<int:tank_id>/photos/<int:photo_id>")
@blueprint.output(PhotoList)
@blueprint.doc(responses=WRITE)
def remove_photo(tank_id: int, photo_id: int) -> PhotoList:
    """Delete one for good."""
    photos = _photos()
    photos.remove(tank_id, photo_id)
    return PhotoList(photos=[photo_out(p) for p in photos.all(tank_id)])
