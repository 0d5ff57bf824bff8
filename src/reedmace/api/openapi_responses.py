"""Shared OpenAPI responses."""

from typing import Any

Responses = dict[int | str, Any]

READ: Responses = {401: "Not signed in", 404: "No such tank"}
WRITE: Responses = {**READ, 403: "CSRF token missing"}


def file_of(media_type: str, what: str) -> Responses:
    """Response of a file. media_type: as sent; what: its description."""
    schema = {"type": "object" if media_type.endswith("json") else "string"}
    return {200: {"description": what, "content": {media_type: {"schema": schema}}}}


CSV = file_of("text/csv", "CSV")
