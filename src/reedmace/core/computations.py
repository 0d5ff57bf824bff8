"""All named computations, imported once; used by the HTTP API, the command line and the working panel."""

from collections.abc import Mapping
from importlib import import_module
from types import MappingProxyType
from typing import Any

from reedmace.core.contract import REGISTERED, Computation
from reedmace.core.registry import PACKAGES, answered

# Importing a package registers its computations.
for _package in PACKAGES:
    import_module(f"reedmace.core.{_package}")

COMPUTATIONS: Mapping[str, Computation[Any, Any]] = MappingProxyType(REGISTERED)


def compute(name: str, data: object) -> Any:
    """Answer a named computation from plain data: an Answer of the class that the computation names.

    name: one of COMPUTATIONS; data: what its schema describes.
    Raises KeyError for an unknown name, pydantic.ValidationError or CannotAnswer for bad input.
    """
    return answered(COMPUTATIONS[name], data)
