"""Flow where no outlet can be caught: a float or dye over a marked distance, or the fill time of a hang-on."""

import math
import statistics
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Lph, Question, Working, computation, number
from reedmace.core.flow.bucket_test import T95
from reedmace.core.quantity import formatting

MEAN_OF_MIDDLE = 0.8
"""Mean speed over the centre speed of a stream or hose (memory; 0.5 laminar, about 0.82 turbulent)."""


class FlowTransitQuestion(Question):
    """A float, a bubble or dye timed over a marked distance of known cross section."""

    way_cm: Annotated[float, number("cm", 5, 2000)]
    times_s: Annotated[list[Annotated[float, number("s", 0.2, 3600)]], Field(min_length=1, max_length=10)]
    bore_mm: Annotated[float, number("mm", 3, 110, "A clear hose's bore")] | None = None
    width_cm: Annotated[float, number("cm", 0.5, 200, "An open spill's width")] = 10
    depth_mm: Annotated[float, number("mm", 1, 500, "An open spill's depth")] = 10


class LevelDropQuestion(Question):
    """Time a hang-on, with its return held off, takes to fill to a mark."""

    area_cm2: Annotated[float, number("cm²", 10, 1e5, "Of the box's inside, media taken out")]
    rise_cm: Annotated[float, number("cm", 0.2, 50)]
    times_s: Annotated[list[Annotated[float, number("s", 0.2, 3600)]], Field(min_length=1, max_length=10)]


class TimedFlowAnswer(Answer):
    """Measured flow and the half width of its 95 % interval."""

    measured_lph: Lph
    plus_minus_lph: Lph | None = Field(description="95 %; null after a single try")


def _answer(flows: list[float], own_doubt: float, w: Working, what: str) -> TimedFlowAnswer:
    mean = w.line("Q mean", "average", f"{len(flows)} tries", statistics.fmean(flows), "L/h", "arithmetic")
    half = None
    if len(flows) > 1:
        spread = T95[len(flows) - 1] * statistics.stdev(flows) / math.sqrt(len(flows))
        half = w.line(
            "±",
            "√((t s/√n)² + (own doubt × Q)²)",
            f"own doubt {own_doubt:.0%}",
            math.hypot(spread, own_doubt * mean),
            "L/h",
            "student",
        )
    doubt = (
        f", give or take {formatting.lph.bare(half)}"
        if half is not None
        else "; time it twice more to know how sure that is"
    )
    return TimedFlowAnswer(
        verdict=f"By {what} it moves {formatting.lph(mean)}{doubt}.",
        working=w.lines,
        measured_lph=mean,
        plus_minus_lph=half,
    )


@computation("flow-transit", "Flow from a float over a marked way")
def flow_transit(question: FlowTransitQuestion) -> TimedFlowAnswer:
    """Flow from the time of a float or bubble over a marked distance.

    question: way in cm, times in s, bore in mm or width in cm and depth in mm.
    Source: continuity; the mean over the middle speed from memory, good to about 15 %.
    """
    q, w = question, Working()
    area = math.pi / 4 * (q.bore_mm / 10) ** 2 if q.bore_mm is not None else q.width_cm * q.depth_mm / 10
    w.line("A", "π d² / 4" if q.bore_mm else "width × depth", "cross section", area, "cm²", "geometry")
    flows = [
        w.sum(
            "Q",
            "0.8 × way / time × A × 3.6",
            {"0.8": MEAN_OF_MIDDLE, "way": q.way_cm, "time": t, "A": area},
            "L/h",
            "memory",
        )
        for t in q.times_s
    ]
    return _answer(flows, 0.15, w, "a float")


@computation("level-drop", "Flow of a hang-on from the rise in its box")
def level_drop(question: LevelDropQuestion) -> TimedFlowAnswer:
    """Flow of a hang-on from the rise of the water in its empty box.

    question: inside area in cm², rise in cm, times in s. Source: volume over time; the mark read to about 5 %.
    """
    q, w = question, Working()
    flows = [
        w.sum("Q", "area × rise / time × 3.6", {"area": q.area_cm2, "rise": q.rise_cm, "time": t}, "L/h", "geometry")
        for t in q.times_s
    ]
    return _answer(flows, 0.05, w, "the level in the box")
