"""Bucket test: flow from timed fills, its uncertainty, and its ratio to the computed flow."""

import math
import statistics
from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Lph, Question, Working, computation, number
from reedmace.core.quantity import formatting

T95 = {1: 12.706, 2: 4.303, 3: 3.182, 4: 2.776, 5: 2.571, 6: 2.447, 7: 2.365, 8: 2.306, 9: 2.262}


class BucketTestQuestion(Question):
    """One container filled several times."""

    container_l: Annotated[float, number("L", 0.05, 200)]
    times_s: Annotated[list[Annotated[float, number("s", 0.5, 3600)]], Field(min_length=1, max_length=10)]
    container_uncertainty_percent: Annotated[float, number("%", 0, 20, "How well the mark is known")] = 2
    computed_lph: Lph | None = None
    causes: Annotated[
        list[str],
        Field(max_length=20, description="What a shortfall usually comes from with this kind, likeliest first"),
    ] = Field(default_factory=list)


class BucketTestAnswer(Answer):
    """Measured flow, half width of its 95 % interval, and the factor on the computed flow."""

    measured_lph: Lph
    plus_minus_lph: Lph | None = Field(description="95 %; null after a single fill")
    ratio_to_computed: Annotated[float, number("ratio", 0, 1e6)] | None
    finding: Literal["as-computed", "short", "more", "one-fill", "no-comparison"]
    likely_causes: list[str]


def bucket_lph(container_l: float, times_s: Sequence[float]) -> float:
    """Flow of a bucket test, L/h: the mean of its fills. container_l: L; times_s: s, one or more.

    >>> round(bucket_lph(2.0, [12.0, 12.5, 11.8]), 1)
    595.4
    """
    return statistics.fmean(container_l * 3600 / t for t in times_s)


Finding = Literal["as-computed", "short", "more", "one-fill", "no-comparison"]


def _half_width(q: BucketTestQuestion, flows: list[float], mean: float, w: Working) -> float | None:
    """Half of the interval about the mean flow, L/h; None for one fill."""
    if len(flows) == 1:
        return None
    spread = w.line("s", "standard deviation", f"{len(flows)} fills", statistics.stdev(flows), "L/h", "arithmetic")
    t = T95[len(flows) - 1]
    return w.line(
        "±",
        "√((t s/√n)² + (container share × Q)²)",
        f"t {t:g}, n {len(flows)}, container {q.container_uncertainty_percent:g} %",
        math.hypot(t * spread / math.sqrt(len(flows)), q.container_uncertainty_percent / 100 * mean),
        "L/h",
        "student",
    )


AGREES_SHARE = 0.05
"""Share of the computed flow within which a measured one agrees with it (a stated judgement)."""


def _finding(q: BucketTestQuestion, mean: float, half: float | None) -> Finding:
    """How the measured flow stands to the computed one. mean, half: of the fills, L/h."""
    if half is None:
        return "one-fill"
    if not q.computed_lph:
        return "no-comparison"
    if mean + half < (1 - AGREES_SHARE) * q.computed_lph:
        return "short"
    return "more" if mean - half > (1 + AGREES_SHARE) * q.computed_lph else "as-computed"


def _compared(q: BucketTestQuestion, finding: Finding, ratio: float | None) -> str:
    """The same in a sentence; empty where nothing can be compared. ratio: measured over computed."""
    if not q.computed_lph or ratio is None:
        return ""
    computed = formatting.lph.bare(q.computed_lph)
    if finding == "short":
        return f" The sums said {computed}: it is {100 * (1 - ratio):.0f} % short, more than the test's own doubt."
    if finding == "more":
        return f" That is more than the {computed} computed: check the container's mark or the box figures."
    return f" That agrees with the {computed} computed." if finding == "as-computed" else ""


@computation("bucket-test", "The flow measured with a container and a clock")
def bucket_test(question: BucketTestQuestion) -> BucketTestAnswer:
    """Measured flow from timed fills.

    question: container in L, times in s, and the flow Reedmace computed in L/h if there is one.
    Source: arithmetic; Student's t for the interval, joined with the container's own uncertainty.
    """
    q, w = question, Working()
    flows = [q.container_l * 3600 / t for t in q.times_s]
    for t, flow in zip(q.times_s, flows, strict=True):
        w.line("Q", "container × 3600 / time", f"{q.container_l:g} × 3600 / {t:g}", flow, "L/h", "arithmetic")
    mean = w.line("Q mean", "average", f"{len(flows)} fills", bucket_lph(q.container_l, q.times_s), "L/h", "arithmetic")
    half = _half_width(q, flows, mean, w)
    ratio = None
    if q.computed_lph:
        ratio = w.sum("k", "measured / computed", {"measured": mean, "computed": q.computed_lph}, "ratio", "arithmetic")
    finding = _finding(q, mean, half)
    sure = (
        f", give or take {formatting.lph.bare(half)}."
        if half is not None
        else "; one fill says nothing of how sure that is, so time two more."
    )
    return BucketTestAnswer(
        verdict=f"You measured {formatting.lph(mean)}{sure}{_compared(q, finding, ratio)}",
        working=w.lines,
        measured_lph=mean,
        plus_minus_lph=half,
        ratio_to_computed=ratio,
        finding=finding,
        likely_causes=q.causes if finding == "short" else [],
    )
