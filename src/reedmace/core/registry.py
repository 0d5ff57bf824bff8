"""Registry of computations: finds one by name and imports only its own package."""

import json
from importlib import import_module
from typing import Any

from pydantic import ValidationError

from reedmace.core.contract import REGISTERED, Answer, Computation, Issue
from reedmace.core.errors import CannotAnswer

PACKAGES: dict[str, tuple[str, ...]] = {
    "quantity": ("read-quantity",),
    "chemistry": (
        "un-ionised-ammonia",
        "water-change",
        "water-speciation",
        "salinity-scales",
        "ammonia-dose",
        "alkalinity-dose",
        "kh-titration",
        "tap-fit",
        "oxygen-saturation",
        "dissolved-co2",
    ),
    "film": ("film-capacity",),
    "vial": ("vial-reading",),
    "stock": (
        "waste-load",
        "outgrow",
        "brood",
    ),
    "cycle": (
        "emergency-plan",
        "stocking-ramp",
        "cycle-readiness",
        "cycle-advice",
        "nitrogen-balance",
        "cloudy-water",
        "cycle-forecast",
        "cycle-history",
        "illness-check",
        "cycle-methods",
        "cycle-plan",
        "standby-trial",
        "filter-stop",
        "read-test-line",
        "cycle-what-if",
    ),
    "air": ("air-supply", "airline-bucket", "room-air"),
    "flow": (
        "airlift-flow",
        "oxygen-balance",
        "bucket-test",
        "currents",
        "operating-point",
        "overflow-check",
        "plumbing-heads",
        "shared-sump",
        "sock-days",
        "throttle-marks",
        "flow-transit",
        "level-drop",
    ),
    "filter": (
        "flow-requirement",
        "noise-heard",
        "running-cost",
        "filter-flow",
        "label-check",
        "read-label",
        "media-stack",
        "rank-filters",
        "type-and-size",
        "fish-room-year",
    ),
    "upkeep": (
        "care-plan",
        "flow-fade",
        "holiday-page",
        "hospital-filter",
        "nitrate-rhythm",
        "quarantine",
        "room-round",
        "year-cost",
    ),
    "fit": (
        "care-steps",
        "fitting-plan",
        "flood-risk",
        "filter-move",
        "sponge-seed",
        "shopping-list",
        "fitting-steps",
    ),
    "tank": (
        "evaporation",
        "heater-size",
        "skimmer-size",
        "tank-volume",
        "usual-tank",
    ),
}
"""Computations of each package; `core.computations` imports all of them, and a test holds the two equal."""


def named(name: str) -> Computation[Any, Any] | None:
    """A computation by name, its package imported if needed; None for an unknown name. name: as asked for."""
    for room, names in PACKAGES.items():
        if name in names:
            import_module(f"reedmace.core.{room}")
            return REGISTERED[name]
    return None


def answered(computation: Computation[Any, Any], data: object) -> Answer:
    """Answer from plain data. computation: which; data: what its schema describes.

    Raises pydantic.ValidationError or CannotAnswer for bad input.
    """
    answer: Answer = computation.function(computation.question.model_validate(data))
    return answer


WHOLE_INPUT = "input"
"""Where a fault stands that is no single field's."""
SECRETS = frozenset({"password", "old", "new", "code", "token"})
"""Fields whose value is never repeated in a message."""


def issues_of(error: ValidationError | CannotAnswer) -> list[Issue]:
    """Faults of an input, each with where, what and the remedy. error: as raised."""
    if isinstance(error, CannotAnswer):
        return [Issue(where=error.where, what=error.what, remedy=error.remedy)]
    found = []
    for item in error.errors(include_url=False):
        where = ".".join(str(piece) for piece in item["loc"]) or WHOLE_INPUT
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
            got = "" if SECRETS & {str(piece) for piece in item["loc"]} else f" (got {_brief(item['input'])})"
            found.append(
                Issue(
                    where=where,
                    what=f"{item['msg'][0].lower()}{item['msg'][1:]}{got}.",
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
