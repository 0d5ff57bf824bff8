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
    half = None
    if len(flows) > 1:
        spread = w.line("s", "standard deviation", f"{len(flows)} fills", statistics.stdev(flows), "L/h", "arithmetic")
        half = w.line(
            "±",
            "√((t s/√n)² + (container share × Q)²)",
            f"t {T95[len(flows) - 1]:g}, n {len(flows)}, container {q.container_uncertainty_percent:g} %",
            math.hypot(
                T95[len(flows) - 1] * spread / math.sqrt(len(flows)), q.container_uncertainty_percent / 100 * mean
            ),
            "L/h",
            "student",
        )
    ratio = None
    finding: Literal["as-computed", "short", "more", "one-fill", "no-comparison"]
    verdict = f"You measured {formatting.lph(mean)}" + (
        f", give or take {formatting.lph.bare(half)}."
        if half is not None
        else "; one fill says nothing of how sure that is, so time two more."
    )
    if q.computed_lph:
        ratio = w.sum(
            "k",
            "measured / computed",
            {"measured": mean, "computed": q.computed_lph},
            "ratio",
            "arithmetic",
        )
        if half is None:
            finding = "one-fill"
        elif mean + half < 0.95 * q.computed_lph:
            finding = "short"
            verdict += (
                f" The sums said {formatting.lph.bare(q.computed_lph)}: it is {100 * (1 - ratio):.0f} % short, more"
                " than the test's own doubt."
            )
        elif mean - half > 1.05 * q.computed_lph:
            finding = "more"
            verdict += (
                f" That is more than the {formatting.lph.bare(q.computed_lph)} computed: check the container's mark or"
                " the box figures."
            )
        else:
            finding = "as-computed"
            verdict += f" That agrees with the {formatting.lph.bare(q.computed_lph)} computed."
    else:
        finding = "no-comparison" if half is not None else "one-fill"
    return BucketTestAnswer(
        verdict=verdict,
        working=w.lines,
        measured_lph=mean,
        plus_minus_lph=half,
        ratio_to_computed=ratio,
        finding=finding,
        likely_causes=q.causes if finding == "short" else [],
    )
