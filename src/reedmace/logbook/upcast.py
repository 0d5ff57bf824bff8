"""Converts entries of older versions on reading. Stored entries are never rewritten.

Version 1 (0.1) knew one chosen filter, perhaps a second, one plumbing, one place for the parts, and steps, tests and
stops that named no filter. Version 2 has a list of filters, each with a key.
"""

from collections.abc import Callable
from typing import Any

FIRST, SECOND = "f1", "f2"
"""Keys given to 0.1's chosen filter and its second."""

Body = dict[str, Any]


def _filter_plan(body: Body) -> Body:
    new = {k: v for k, v in body.items() if k not in ("chosen", "second", "media")}
    plumbing = body.get("plumbing") or {}
    filters = []
    if body.get("chosen"):
        filters.append({"key": FIRST, "filter": body["chosen"], "media": body.get("media") or [], "plumbing": plumbing})
    if body.get("second"):
        filters.append({"key": SECOND, "filter": body["second"], "plumbing": plumbing})
    return {**new, "filters": filters, "version": 2}


def _fit_plan(body: Body) -> Body:
    new = {k: v for k, v in body.items() if k != "layout"}
    return {**new, "places": {FIRST: body.get("layout") or {}}, "version": 2}


def _is_first(body: Body) -> bool:
    """Whether a body says version 1, or none. Anything that is no number is left for its schema to refuse."""
    version = body.get("version", 1)
    return isinstance(version, int | float) and version < 2


_OLD: dict[str, tuple[Callable[[Body], bool], Callable[[Body], Body]]] = {
    "filter-plan": (lambda b: _is_first(b) and "filters" not in b, _filter_plan),
    "fit-plan": (lambda b: _is_first(b) and "places" not in b, _fit_plan),
}


def upcast(body: object) -> object:
    """A body in the present version.

    body: as stored, sent or bundled by any version; anything else is returned unchanged.
    """
    if not isinstance(body, dict):
        return body
    is_old, lift = _OLD.get(str(body.get("kind")), (lambda _: False, lambda b: b))
    return lift(body) if is_old(body) else body
