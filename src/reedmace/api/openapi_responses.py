"""What an address says in the API's description that it may answer, written once."""

from typing import Any

Responses = dict[int | str, Any]

READ: Responses = {401: "Not signed in", 404: "No such tank"}
WRITE: Responses = {**READ, 403: "CSRF token missing"}


def file_of(media_type: str, what: str) -> Responses:
    """A file given out. media_type: as sent; what: it is, in a word."""
    schema = {"type": "object" if media_type.endswith("json") else "string"}
    return {200: {"description": what, "content": {media_type: {"schema": schema}}}}


CSV = file_of("text/csv", "CSV")
