"""Position of a flow tap for a wanted flow, interpolated between timed fills at marks."""

from itertools import pairwise
from typing import Annotated, Literal

import numpy as np
from pydantic import Field, model_validator

from reedmace.core.contract import Answer, Lph, Part, Question, Working, computation, number
from reedmace.core.flow.bucket_test import bucket_lph
from reedmace.core.quantity import formatting
from reedmace.core.root_finding import root_between

NOISE = 1.03
"""Uncertainty of a fill timed by hand, about 3 %: smaller differences count as equal (memory)."""

LEAST_APART = 0.001
"""Distance below which two marks cannot be told apart on any scale (a stated judgement)."""

Mark = Annotated[float, number("of its scale", 0, 100, "Any scale of your own: clicks, eighths of a turn, degrees")]


class ThrottleFill(Part):
    """One fill with the tap at a mark."""

    mark_count: Mark
    time_s: Annotated[float, number("s", 0.5, 3600)]


class ThrottleMarksQuestion(Question):
    """One container filled at two or more marks of the tap, and the flow wanted."""

    container_l: Annotated[float, number("L", 0.05, 200)]
    fills: Annotated[list[ThrottleFill], Field(min_length=2, max_length=12)]
    wanted_lph: Annotated[float, number("L/h", 1, 1e5)]

    @model_validator(mode="after")
    def _apart(self) -> "ThrottleMarksQuestion":
        if len({f.mark_count for f in self.fills}) < 2:
            raise ValueError("every fill is at the same mark; fill once more with the tap turned")
        marks = sorted({f.mark_count for f in self.fills})
        if min(b - a for a, b in pairwise(marks)) < LEAST_APART:
            raise ValueError(f"two marks are closer than {LEAST_APART:g}; leave one out, or write both as the same")
        return self


class MarkFlow(Part):
    """Flow at one mark: the mean of its fills."""

    mark_count: Mark
    lph: Lph


class ThrottleMarksAnswer(Answer):
    """The mark to set, where the fills reach that far."""

    mark_count: Mark | None = Field(
        description="None where the wanted flow lies beyond every fill, or the fills contradict"
    )
    found: Literal["between", "at-an-end", "beyond", "contradict"]
    marks: list[MarkFlow]


def _beyond(wanted_lph: float, seen: list[MarkFlow]) -> str:
    """What is said of a flow outside the fills. seen: flow at each mark."""
    flows = [one.lph for one in seen]
    nearest = min(seen, key=lambda one: abs(one.lph - wanted_lph))
    way = "further shut" if wanted_lph < min(flows) else "further open"
    return (
        f"{formatting.lph(wanted_lph)} lies beyond these fills, which reach from {formatting.lph.bare(min(flows))} to"
        f" {formatting.lph(max(flows))}: turn it {way} than mark {nearest.mark_count:g} and fill once more."
    )


@computation("throttle-marks", "Where to set a flow tap, from timed fills")
def throttle_marks(question: ThrottleMarksQuestion) -> ThrottleMarksAnswer:
    """The mark of a tap for a flow.

    question: container in L, times in s, marks of any scale, wanted flow in L/h.
    A curve that rises or falls throughout is drawn through the fills, and nothing is said beyond them.
    Source: arithmetic; monotone cubic interpolation (Fritsch and Carlson 1980, in SciPy).
    """
    q, w = question, Working()
    marks = sorted({f.mark_count for f in q.fills})
    flows = [bucket_lph(q.container_l, [f.time_s for f in q.fills if f.mark_count == m]) for m in marks]
    for m, flow in zip(marks, flows, strict=True):
        w.line("Q", "container × 3600 / time", f"at mark {m:g}", flow, "L/h", "arithmetic")
    seen = [MarkFlow(mark_count=m, lph=f) for m, f in zip(marks, flows, strict=True)]

    def answer(
        verdict: str, found: Literal["between", "at-an-end", "beyond", "contradict"], mark: float | None = None
    ) -> ThrottleMarksAnswer:
        return ThrottleMarksAnswer(verdict=verdict, working=w.lines, mark_count=mark, found=found, marks=seen)

    rising = flows[-1] > flows[0]
    if any((b < a / NOISE) if rising else (b > a * NOISE) for a, b in pairwise(flows)):
        return answer(
            "These fills contradict each other: the flow both rises and falls as the tap is turned one way. Time them"
            " once more.",
            "contradict",
        )
    least, most = min(flows), max(flows)
    if not least / NOISE <= q.wanted_lph <= most * NOISE:
        return answer(_beyond(q.wanted_lph, seen), "beyond")
    # Monotone, so that one flow has one mark.
    held = np.maximum.accumulate(flows) if rising else np.minimum.accumulate(flows)
    from scipy.interpolate import PchipInterpolator

    curve = PchipInterpolator(marks, held)
    wanted = float(np.clip(q.wanted_lph, held.min(), held.max()))
    if wanted in (held[0], held[-1]):
        mark = marks[0] if wanted == held[0] else marks[-1]
        return answer(
            f"Set the tap to mark {mark:g}: that is {formatting.lph(q.wanted_lph)} as nearly as a fill tells.",
            "at-an-end",
            mark,
        )
    mark = w.line(
        "mark",
        "monotone curve through the fills meets the wanted flow",
        f"{formatting.lph(q.wanted_lph)}",
        root_between(lambda x: float(curve(x)) - wanted, marks[0], marks[-1]),
        "of its scale",
        "pchip",
    )
    return answer(
        f"Set the tap to mark {mark:.2g} for {formatting.lph(q.wanted_lph)}, and time one more fill there to be sure.",
        "between",
        mark,
    )
