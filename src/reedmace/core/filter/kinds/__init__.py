"""The kinds of filter, one file a kind: a new kind is a new file here, and no other module names it."""

from importlib import import_module
from pkgutil import iter_modules

from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.traits import register_kind

KINDS: tuple[FilterKind, ...] = tuple(
    sorted((import_module(f"{__name__}.{m.name}").KIND for m in iter_modules(__path__)), key=lambda kind: kind.order)
)
"""Every kind, in the order the table's columns number them."""
BY_NAME: dict[str, FilterKind] = {kind.name: kind for kind in KINDS}
for _kind in KINDS:
    register_kind(_kind)


def kind_of(name: str) -> FilterKind:
    """The record of a kind. name: one of BY_NAME. KeyError for another."""
    return BY_NAME[name]


__all__ = ["BY_NAME", "KINDS", "FilterKind", "kind_of"]
