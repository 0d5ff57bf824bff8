"""Fading of a filter's flow between cleanings, fitted to the keeper's own bucket tests."""

from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.contract import Answer, Lph, Part, Question, Working, computation, number
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting
from reedmace.core.upkeep.cleaning_interval import LONGEST_DAYS, SERVICE_SHARE

Floats = NDArray[np.float64]


class FadeTest(Part):
    """One flow test."""

    day: Annotated[float, number("days", 0, 4000, "Since the last cleaning")]
    flow_lph: Annotated[float, number("L/h", 1, 1e5)]


class FlowFadeQuestion(Question):
    """Two or more tests since one cleaning."""

    tests: Annotated[list[FadeTest], Field(min_length=2, max_length=100)]
    service_share: Annotated[float, number("share", 0.2, 0.95)] = SERVICE_SHARE
    most_lph: Annotated[float, number("L/h", 1, 1e5, "The most it moved, where a cleaning left dirt")] | None = None


class FadePoint(Part):
    """One point of the fitted curve."""

    day: Annotated[float, number("days", 0, 1e5)]
    flow_lph: Lph


class FlowFadeAnswer(Answer):
    """The clean flow, the day of the next cleaning, and the curve to draw."""

    clean_lph: Lph
    limit_lph: Lph
    service_day: Annotated[float, number("days", 0, 1e5, "Since the cleaning")] | None
    course: list[FadePoint]


def _flow_at(clean: float, rate: float, day: float) -> float:
    # Pump and hoses take (Q/Q0)², dirt a linear head rate × t × Q on the same scale: 1 = (Q/Q0)² + rate t Q.
    r = rate * day * clean
    return float(clean * ((r**2 + 4) ** 0.5 - r) / 2)


def _fitted(days: Floats, flows: Floats) -> tuple[float, float]:
    """(clean flow in L/h, dirt a day) that fit the tests best. days, flows: (n,) of them."""
    best = (np.inf, 0.0, 0.0)
    for clean in np.linspace(flows.max() * 0.9, flows.max() * 1.35, 181):
        # Each test gives its own dirt: (1 − (Q/Q0)²) / Q; a straight line through zero at day 0 fits them.
        dirt = (1 - (flows / clean) ** 2) / flows
        rate = max(float(dirt @ days / (days @ days)), 0.0)
        fitted = np.array([_flow_at(float(clean), rate, float(d)) for d in days])
        miss = float(np.sum((fitted - flows) ** 2))
        if miss < best[0]:
            best = (miss, float(clean), rate)
    return best[1], best[2]


def _verdict(q: FlowFadeQuestion, clean: float, limit: float, due: float | None, last: float) -> str:
    """When service is due, in a sentence. clean, limit: L/h; due, last: days of the limit and of the last test."""
    if due is None:
        return f"The flow has hardly fallen from {formatting.lph(clean)}: no date for service yet."
    if due <= 0:
        return (
            f"Service is due: the last cleaning left it under {formatting.lph(limit)}, {q.service_share:.0%} of the"
            " most it moved."
        )
    if due <= last:
        return (
            f"Service is due: the flow fell under {formatting.lph(limit)} about {last - due:.0f} days before the last"
            " test."
        )
    return (
        f"The flow reaches {formatting.lph(limit)}, {q.service_share:.0%} of clean, about day {due:.0f} after the"
        " cleaning."
    )


@computation("flow-fade", "When the flow will have faded to the service limit")
def flow_fade(question: FlowFadeQuestion) -> FlowFadeAnswer:
    """Day on which the flow will have fallen to the service limit.

    question: flows in L/h with days since cleaning. Raises CannotAnswer when every test was made on one day. Source:
    dirt as a linear resistance growing evenly, h = r1 t Q, on a pump whose head falls with Q²; fitted by least squares.
    """
    q, w = question, Working()
    days = np.array([t.day for t in q.tests])
    flows = np.array([t.flow_lph for t in q.tests])
    if np.ptp(days) < 1:
        raise CannotAnswer("tests", "all tests lie within a day of each other.", "Time it again in a week or more.")
    clean, rate = _fitted(days, flows)
    w.line("Q0", "least squares over the tests", f"{len(q.tests)} tests", clean, "L/h", "arithmetic")
    w.line(
        "r1",
        "dirt each day, as a share of the pump's head",
        f"{len(q.tests)} tests",
        rate * 1000,
        "per day and 1000 L/h",
        "dirtprior",
    )
    # A cleaning in part leaves dirt: what counts as clean is then the most it moved, not what this one left.
    most = max(clean, q.most_lph or 0.0)
    if most > clean:
        w.line("most", "the most it moved within 400 days", "its flow tests", most, "L/h", "practice")
    limit = w.sum("limit", "share × most", {"share": q.service_share, "most": most}, "L/h", "practice")
    left = 1 - (limit / clean) ** 2
    due = max(left, 0.0) / (limit * rate) if rate > 0 else 0.0 if left <= 0 else None
    if due is not None and due > LONGEST_DAYS:
        due = None
    if due is not None:
        w.line(
            "t",
            "(1 − (limit / Q0)²) / (limit × r1)",
            f"(1 − ({limit:.0f} / {clean:.0f})²) / ({limit:.0f} × r1)",
            due,
            "days",
            "arithmetic",
        )
    last = float(days.max())
    end = max(last, due or 0) * 1.15
    return FlowFadeAnswer(
        verdict=_verdict(q, most, limit, due, last),
        working=w.lines,
        clean_lph=most,
        limit_lph=limit,
        service_day=due,
        course=[FadePoint(day=end * i / 30, flow_lph=_flow_at(clean, rate, end * i / 30)) for i in range(31)],
    )
