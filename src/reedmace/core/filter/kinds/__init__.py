"""The kinds of filter, a file a kind. A ninth kind is a ninth file here; nothing else need know its name."""

from importlib import import_module
from pkgutil import iter_modules
from typing import Annotated

from pydantic import AfterValidator, Field

from reedmace.core.filter.kinds.record import Kind

_SHARED = ("hosed", "record", "air", "shared")
KINDS: tuple[Kind, ...] = tuple(
    sorted(
        (import_module(f"{__name__}.{m.name}").KIND for m in iter_modules(__path__) if m.name not in _SHARED),
        key=lambda kind: kind.order,
    )
)
"""Every kind, in the order the table's columns number them."""
BY_NAME: dict[str, Kind] = {kind.name: kind for kind in KINDS}
USUAL_BOX: str = next(kind.name for kind in KINDS if kind.usual_box)
"""What a box is taken for until its kind is said."""


def _known(name: str) -> str:
    if name not in BY_NAME:
        raise ValueError(f"there is no filter kind {name!r}; use one of {', '.join(BY_NAME)}")
    return name


FilterKind = Annotated[str, AfterValidator(_known), Field(json_schema_extra={"enum": list(BY_NAME)})]


def kind_of(name: str) -> Kind:
    """The record of a kind. name: one of BY_NAME. KeyError for another."""
    return BY_NAME[name]


__all__ = ["BY_NAME", "KINDS", "USUAL_BOX", "FilterKind", "Kind", "kind_of"]
