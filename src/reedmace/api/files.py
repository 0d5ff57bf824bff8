"""Helpers for files in request and response bodies."""

import tempfile
from collections.abc import Callable, Iterable, Iterator
from typing import IO, AnyStr

from flask import Response, request, stream_with_context

from reedmace.api.problems import MOST_ISSUES, ProblemError
from reedmace.formats import RowError


def csv_text() -> str:
    """The request's body as text. Raises a 422 problem when it is not UTF-8."""
    try:
        return request.get_data().decode("utf-8")
    except UnicodeDecodeError as error:
        raise ProblemError(422, "Not a text file", "Save the file as UTF-8 CSV and send it again.") from error


def refuse_rows(errors: list[RowError]) -> None:
    """Raise a 422 problem naming each faulty row, if any. errors: from the reader."""
    if not errors:
        return
    faults = [e.issue() for e in errors[:MOST_ISSUES]]
    many = "s" if len(errors) > 1 else ""
    raise ProblemError(422, "Nothing was imported", f"{len(errors)} fault{many} found; nothing was written.", faults)


def streamed(parts: Iterable[AnyStr], mimetype: str, name: str) -> Response:
    """A download sent as it is made, so that its size costs no memory. parts: of its content; name: of the file."""
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    # With the request's context, so that the database connection is returned after the last part only.
    return Response(stream_with_context(iter(parts)), mimetype=mimetype, headers=headers)


IN_MEMORY = 1_000_000
"""Size from which a zip is held on disk, bytes."""


def streamed_zip(write: Callable[[IO[bytes]], None], name: str) -> Response:
    """A zip as a download. write: writes it to a seekable file; name: of the download."""

    def pieces() -> Iterator[bytes]:
        # On disk beyond a megabyte: a zip's directory is written last.
        with tempfile.SpooledTemporaryFile(max_size=IN_MEMORY) as packed:
            write(packed)
            packed.seek(0)
            while piece := packed.read(IN_MEMORY):
                yield piece

    return streamed(pieces(), "application/zip", name)


def csv_response(text: str, name: str) -> Response:
    """A CSV download. text: its content; name: of the file."""
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(text, mimetype="text/csv", headers=headers)
