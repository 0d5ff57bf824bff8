"""Helpers that build the demo's entries."""

from typing import Any

from reedmace.demo.sample_boxes import SAMPLE_BOXES

Row = tuple[float, dict[str, Any]]
"""(days ago, an entry's body)."""


def filter_of(filter_id: str) -> dict[str, Any]:
    """A sample box as an entry stores it. filter_id: its id."""
    return next(f for f in SAMPLE_BOXES if f.id == filter_id).model_dump()


def installed(filter_id: str, **more: Any) -> list[dict[str, Any]]:
    """One filter alone on a tank. filter_id: its id; more: its settings."""
    return [{"key": "f1", "filter": filter_of(filter_id), **more}]


def ticks(days_ago: float, *steps: str) -> list[Row]:
    """Fitting steps done. days_ago: days; steps: their ids."""
    return [(days_ago, {"kind": "step-done", "step_id": step}) for step in steps]
