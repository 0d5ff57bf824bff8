"""The named computations, once: what the HTTP door, the command line and the working panel are all fed from."""

import json
from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from pydantic import ValidationError

from reedmace.core import chemistry, cycle, film, filter, fit, flow, quantity, stock, tank, upkeep
from reedmace.core.contract import REGISTERED, Answer, Computation, Issue
from reedmace.core.errors import CannotAnswer

# Importing a room registers what it computes.
_ROOMS = (tank, stock, film, flow, filter, fit, upkeep, chemistry, cycle, quantity)

COMPUTATIONS: Mapping[str, Computation[Any, Any]] = MappingProxyType(REGISTERED)


def issues_of(error: ValidationError | CannotAnswer) -> list[Issue]:
    """What is wrong with an input, each with where, what and the remedy, fit to show. error: as raised."""
    if isinstance(error, CannotAnswer):
        return [Issue(where=error.where, what=error.what, remedy=error.remedy)]
    found = []
    for item in error.errors(include_url=False):
        where = ".".join(str(piece) for piece in item["loc"]) or "input"
        context = item.get("ctx") or {}
        limits = {"greater_than_equal": ("ge", "at least"), "less_than_equal": ("le", "at most")}
        if item["type"] in limits:
            key, words = limits[item["type"]]
            found.append(
                Issue(
                    where=where,
                    what=f"is {_brief(item['input'])}; it must be {words} {context[key]:g}.",
                    remedy="Give a figure in that range.",
                )
            )
        elif item["type"] == "missing":
            found.append(Issue(where=where, what="is missing.", remedy="Give it."))
        elif item["type"] == "extra_forbidden":
            found.append(
                Issue(
                    where=where,
                    what="is not a field of this computation.",
                    remedy="Take it out; --schema or GET /api/compute lists the fields.",
                )
            )
        else:
            found.append(
                Issue(
                    where=where,
                    what=f"{item['msg'][0].lower()}{item['msg'][1:]} (got {_brief(item['input'])}).",
                    remedy="Correct it.",
                )
            )
    return found


def _brief(value: object) -> str:
    try:
        text = json.dumps(value, ensure_ascii=False, default=str)
    except (TypeError, ValueError):
        text = str(type(value).__name__)
    return text if len(text) <= 40 else text[:37] + "…"


def compute(name: str, data: object) -> Answer:
    """Answer a named computation from plain data.

    name: one of COMPUTATIONS; data: what its schema describes.
    Raises KeyError for an unknown name, pydantic.ValidationError or CannotAnswer for bad input.
    """
    computation = COMPUTATIONS[name]
    answer: Answer = computation.function(computation.question.model_validate(data))
    return answer
