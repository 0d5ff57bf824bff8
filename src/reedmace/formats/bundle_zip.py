"""A tank's bundle with its photographs as one zip: `bundle.json`, `photos.json`, and a JPEG each under `photos/`."""

import json
import zipfile
from collections.abc import Iterable, Iterator
from typing import IO, Annotated, Any

from pydantic import Field, TypeAdapter, ValidationError

from reedmace.core.contract import Part
from reedmace.core.errors import CannotAnswer
from reedmace.logbook.photo import PhotoOf
from reedmace.logbook.replay.entries import Key
from reedmace.logbook.times import OurTime

BUNDLE, INDEX = "bundle.json", "photos.json"
MOST_BYTES = 48_000_000
"""Of the logbook in it, unpacked."""
MOST_INDEX_BYTES, MOST_PHOTOS, MOST_PHOTO_BYTES = 1_000_000, 300, 2_000_000
"""Of the list of photographs, unpacked; photographs; bytes of each."""
_REMEDY = "Send a file as Reedmace writes it: This tank, the logbook with its photographs."


class BundledPhoto(Part):
    """A photograph as the index of a zip describes it."""

    key: Key
    at: OurTime
    of: PhotoOf = "tank"
    entry_key: Key | None = None
    words: Annotated[str, Field(max_length=300)] = ""
    shown: bool = False


_INDEX: TypeAdapter[list[BundledPhoto]] = TypeAdapter(Annotated[list[BundledPhoto], Field(max_length=MOST_PHOTOS)])


def write_bundle_zip(out: IO[bytes], bundle: Iterable[str], photos: Iterable[tuple[BundledPhoto, bytes]]) -> None:
    """Write a zip, a piece at a time.

    out: seekable; bundle: parts of the bundle's text; photos: each with its JPEG.
    """
    index: list[Any] = []
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        with packed.open(BUNDLE, "w") as member:
            for part in bundle:
                member.write(part.encode())
        for photo, image in photos:
            index.append(photo.model_dump(mode="json"))
            # A JPEG does not get smaller.
            packed.writestr(zipfile.ZipInfo(_name_of(photo.key)), image, zipfile.ZIP_STORED)
        packed.writestr(INDEX, json.dumps(index, indent=1))


class BundleZip:
    """A zip as somebody sent it; nothing in it is believed.

    sent: seekable. Raises CannotAnswer, with a remedy, for what is no such zip.
    """

    def __init__(self, sent: IO[bytes]) -> None:
        try:
            self._packed = zipfile.ZipFile(sent)
        except (zipfile.BadZipFile, OSError, ValueError) as error:
            raise CannotAnswer("zip", "is no zip, or is cut off.", _REMEDY) from error
        try:
            self.photos = _INDEX.validate_json(self._read(INDEX, MOST_INDEX_BYTES))
        except ValidationError as error:
            raise CannotAnswer(INDEX, f"is not usable: {error.errors()[0]['msg']}.", _REMEDY) from error
        keys = [photo.key for photo in self.photos]
        if len(set(keys)) < len(keys):
            raise CannotAnswer(INDEX, "names a photograph twice.", _REMEDY)

    def bundle_text(self) -> bytes:
        """Text of the bundle. Raises CannotAnswer."""
        return self._read(BUNDLE, MOST_BYTES)

    def images(self) -> Iterator[tuple[BundledPhoto, bytes]]:
        """Each photograph as it was sent, one at a time. Raises CannotAnswer."""
        for photo in self.photos:
            yield photo, self._read(_name_of(photo.key), MOST_PHOTO_BYTES)

    def _read(self, name: str, most: int) -> bytes:
        try:
            with self._packed.open(name) as member:
                # Its header may lie about the size.
                read = member.read(most + 1)
        except KeyError as error:
            raise CannotAnswer(name, "is missing from the zip.", _REMEDY) from error
        except (zipfile.BadZipFile, NotImplementedError, RuntimeError, OSError, ValueError, EOFError) as error:
            raise CannotAnswer(name, "cannot be unpacked.", _REMEDY) from error
        if len(read) > most:
            raise CannotAnswer(name, f"is over {most // 1_000_000} MB.", _REMEDY)
        return read


def _name_of(key: str) -> str:
    return f"photos/{key}.jpg"


__all__ = ["BUNDLE", "INDEX", "BundleZip", "BundledPhoto", "write_bundle_zip"]
