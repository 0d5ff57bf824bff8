"""An air pump nothing is printed on: its air from a jug filled by one of its lines, held upside down under water."""

import math
import statistics
from typing import Annotated

from pydantic import Field

from reedmace.core.air.air_supply import VALVE_KPA, line_loss_kpa
from reedmace.core.air.plan import USUAL_KPA, USUAL_KPA_RANGE
from reedmace.core.contract import Answer, Question, Working, computation, number, whole
from reedmace.core.errors import CannotAnswer
from reedmace.core.flow.bucket_test import T95
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import WATER_KG_M3, G

JUG_SHARE, ONE_FILL_SHARE = 0.05, 0.15
"""How well a jug's mark is known, and a single fill timed by hand (stated judgements)."""


class AirlineBucketQuestion(Question):
    """Fills of one jug by one line, and what else the pump blows into meanwhile."""

    jug_ml: Annotated[float, number("mL", 50, 20_000)]
    times_s: Annotated[list[Annotated[float, number("s", 0.5, 600)]], Field(min_length=1, max_length=10)]
    depth_cm: Annotated[float, number("cm", 0, 200, "Of the line's end under the surface")] = 20
    lines_count: Annotated[int, whole(1, 500, "Lines alike that the pump blows into meanwhile, this one with them")] = 1
    line_bore_mm: Annotated[float, number("mm", 2, 25)] = 4
    line_length_m: Annotated[float, number("m", 0.05, 50)] = 1.5
    kpa: Annotated[float, number("kPa", 1, 200, "Pressure at which the pump gives up, if its box says")] | None = None


class AirlineBucketAnswer(Answer):
    """Air of the line, of all lines, and of the pump with nothing before it, with its range."""

    line_l_min: Annotated[float, number("L/min", 0, 1e4)]
    all_l_min: Annotated[float, number("L/min", 0, 1e6)]
    at_kpa: Annotated[float, number("kPa", 0, 500, "What the pump works against meanwhile")]
    free_l_min: Annotated[float, number("L/min", 0, 1e7, "Of the pump with nothing before it")]
    low_l_min: Annotated[float, number("L/min", 0, 1e7)]
    high_l_min: Annotated[float, number("L/min", 0, 1e7)]


def _spread_share(times_s: list[float]) -> float:
    """Half of the 95 % interval of the mean fill, over the mean; of one fill a stated share."""
    if len(times_s) == 1:
        return ONE_FILL_SHARE
    scatter = statistics.stdev(times_s) / statistics.fmean(times_s)
    return T95[len(times_s) - 1] * scatter / math.sqrt(len(times_s))


@computation("airline-bucket", "How much air a pump gives, from one jug held under water")
def airline_bucket(question: AirlineBucketQuestion) -> AirlineBucketAnswer:
    """Air of a pump by a jug filled with air under water.

    question: mL, s, cm, mm, m, kPa. The pump's curve is taken straight from its free flow to where it gives up, which
    is usual for such pumps where the box does not say. Raises CannotAnswer where such a pump could not have blown so
    deep. Source: hydrostatics; Darcy-Weisbach; pressures of small pumps from memory.
    """
    q, w = question, Working()
    time_s = statistics.fmean(q.times_s)
    line = w.sum("q", "jug × 0.06 / time", {"jug": q.jug_ml, "0.06": 0.06, "time": time_s}, "L/min", "arithmetic")
    total = w.sum("Q", "q × lines", {"q": line, "lines": q.lines_count}, "L/min", "arithmetic")
    water_kpa = WATER_KG_M3 * G * q.depth_cm / 100 / 1000
    lost_kpa = line_loss_kpa(line / 60_000, q.line_bore_mm / 1000, q.line_length_m)
    against = w.line(
        "p",
        "ρ g depth + check valve + line",
        f"{water_kpa:.2f} + {VALVE_KPA:g} + {lost_kpa:.2f}",
        water_kpa + VALVE_KPA + lost_kpa,
        "kPa",
        "darcy",
    )
    gives_up = USUAL_KPA if q.kpa is None else q.kpa
    if against >= gives_up:
        said = "its box says" if q.kpa is not None else "such pumps do"
        raise CannotAnswer(
            "depth_cm",
            f"the line's end lies so deep that {against:.1f} kPa are needed, and the pump gives up at {gives_up:g} as"
            f" {said}.",
            "Time it nearer to the surface, or correct the figures.",
        )
    free = w.line(
        "Q free",
        "Q / (1 − p / p max)",
        f"{total:.2f} / (1 − {against:.2f} / {gives_up:g})",
        total / (1 - against / gives_up),
        "L/min",
        "pumpcurve",
    )
    weak, strong = (q.kpa, q.kpa) if q.kpa is not None else USUAL_KPA_RANGE
    doubt = math.hypot(_spread_share(q.times_s), JUG_SHARE)
    # A weaker pump was throttled more by the same depth, so it would give more with nothing before it.
    high = (1 + doubt) * total / max(1 - against / weak, 0.1)
    low = max(1 - doubt, 0.0) * total / (1 - against / max(strong, gives_up))
    return AirlineBucketAnswer(
        verdict=(
            f"The pump gives about {free:.2g} L/min with nothing before it, {low:.2g} to {high:.2g}; {line:.2g} L/min"
            f" come out of this line {formatting.cm(q.depth_cm, 'g')} down."
        ),
        working=w.lines,
        line_l_min=line,
        all_l_min=total,
        at_kpa=against,
        free_l_min=free,
        low_l_min=min(low, free),
        high_l_min=max(high, free),
    )
