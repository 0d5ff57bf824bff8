"""Relations of typical boxes, moved by the boxes that keepers typed and the flows that they timed (empirical Bayes)."""

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Annotated

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.filter.kind_parts.traits import KindName, kind_traits
from reedmace.core.flow.materials import FLOW_SPREAD

PRIOR_BOXES = 8.0
"""Number of boxes that the relations from memory count for beside those typed (a stated judgement)."""
OUTLIER_SPREADS = 4.0
"""Spreads from the median beyond which a figure is taken for a slip of the pen (a stated judgement)."""
MOST_OF_ONE_KEEPER = 20
"""Boxes, and timed flows, of one keeper that count for one kind (a stated judgement)."""
PUMPED_FLOW = "flow"
"""Name of the ratio of measured over computed flow, where others are fields of a box."""
PRINTED = ("max_head_m", "watts", "tank_up_to_l")
"""Figures that a box prints, besides its flow."""


@dataclass(frozen=True)
class TypedBox:
    """A box as a keeper typed it: kind, printed flow in L/h, and its printed figures by name."""

    keeper: int
    kind: str
    box_lph: float
    figures: tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class TimedRatio:
    """A flow that a keeper timed, over the flow computed for it that day."""

    keeper: int
    kind: str
    ratio: float


class LearnedRelation(Part, frozen=True):
    """How far one figure of a kind's boxes lies from memory, and what that rests on."""

    kind: KindName
    figure: Name
    shift_share: Annotated[float, number("natural log", -3, 3, "Of the median over the median from memory")]
    spread_share: Annotated[float, number("natural log", 0.01, 3, "From make to make")]
    count: Annotated[int, whole(1, 1_000_000, "Boxes typed, or flows timed, that it rests on")]


def learn(boxes: Iterable[TypedBox], flows: Iterable[TimedRatio]) -> list[LearnedRelation]:
    """The relations that typed boxes and timed flows move, by kind and figure.

    boxes, flows: of this installation, newest first; of one keeper only so many count. The shift is the mean of the
    log residuals, drawn towards none by a prior worth eight boxes; the spread the pooled one of prior and residuals.
    Source: empirical Bayes for a normal mean of known variance (Efron and Morris, JASA 68, 1973, 117).
    """
    residuals: dict[tuple[str, str], list[float]] = defaultdict(list)
    taken: dict[tuple[int, str, str], int] = defaultdict(int)
    seen: set[TypedBox] = set()
    for box in boxes:
        kind = kind_traits().get(box.kind)
        if kind is None or kind.typical is None or box in seen:
            continue
        seen.add(box)
        for name, value in box.figures:
            if name in PRINTED and name in kind.typical.figures and value > 0:
                off = kind.typical.spreads_off(name, box.box_lph, value) * kind.typical.figures[name][2]
                _take(residuals, taken, box.keeper, (box.kind, name), off)
    for flow in flows:
        kind = kind_traits().get(flow.kind)
        if kind is not None and kind.typical is not None and flow.ratio > 0:
            _take(residuals, taken, flow.keeper, (flow.kind, PUMPED_FLOW), math.log(flow.ratio))
    found = (_moved(*at, some) for at, some in sorted(residuals.items()))
    return [one for one in found if one is not None]


def _take(
    residuals: dict[tuple[str, str], list[float]],
    taken: dict[tuple[int, str, str], int],
    keeper: int,
    at: tuple[str, str],
    off: float,
) -> None:
    """Count one residual, unless this keeper has given enough or it lies far out. off: natural log."""
    if taken[keeper, *at] < MOST_OF_ONE_KEEPER and abs(off) <= OUTLIER_SPREADS * _prior_spread(*at):
        taken[keeper, *at] += 1
        residuals[at].append(off)


def _prior_spread(kind: str, figure: str) -> float:
    """Spread from make to make from memory, natural log. kind: with typical boxes; figure: of them, or the flow."""
    boxes = kind_traits()[kind].typical
    return FLOW_SPREAD if figure == PUMPED_FLOW or boxes is None else boxes.figures[figure][2]


def _moved(kind: str, figure: str, off: Sequence[float]) -> LearnedRelation | None:
    n, prior = len(off), _prior_spread(kind, figure)
    if n == 0:
        return None
    shift = sum(off) / (n + PRIOR_BOXES)
    around = sum((one - shift) ** 2 for one in off)
    spread = math.sqrt((PRIOR_BOXES * prior**2 + around) / (PRIOR_BOXES + n))
    return LearnedRelation(kind=kind, figure=figure, shift_share=shift, spread_share=spread, count=n)
