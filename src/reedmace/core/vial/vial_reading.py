"""A vial read beside the kit's own card in one picture: between which steps it stands, and how surely."""

from itertools import pairwise
from typing import Annotated, NamedTuple

import numpy as np
from pydantic import Field, model_validator

from reedmace.core.contract import Answer, Part, Question, Working, computation, number, whole
from reedmace.core.vial.colour import Floats, Lab, ciede2000, linear, seen_under

OVEREXPOSED, TOO_DARK = 0.985, 0.08
"""Share of full scale, linear, from which a channel of the white is lost, and under which noise drowns it (memory)."""
SURE_DE, NEAR_DE, STEP_DE = 1.5, 12.0, 3.0
"""CIEDE2000: doubt of any reading, as liquid is no print; a colour further from every step is none of the card's; steps
nearer to each other cannot be told apart (memory).
"""
GLARE_DE, GLARE_SHARE = 15.0, 0.25
"""A pixel further in CIELAB from the middle of its touch is glare or shadow; more of them are said (memory)."""
PARTS = 24
"""Places looked at between two steps."""
ZERO_SHARE = 0.5
"""Part of the first step under which a reading is a zero."""


class Pixel(Part):
    """A pixel as the picture has it."""

    r: Annotated[int, whole(0, 255, "sRGB")]
    g: Annotated[int, whole(0, 255, "sRGB")]
    b: Annotated[int, whole(0, 255, "sRGB")]


Pixels = Annotated[list[Pixel], Field(min_length=4, max_length=400, description="Of one touch, from its middle")]


class CardStep(Part):
    """One step of the kit's card: its figure, and pixels of its colour."""

    figure_on_card: Annotated[float, number("as the card says", 0, 10_000)]
    pixels: Pixels


class VialQuestion(Question):
    """Pixels of the card's white, of the vial, and of every step of the card, from one picture."""

    white: Pixels
    vial: Pixels
    steps: Annotated[list[CardStep], Field(min_length=3, max_length=12)]

    @model_validator(mode="after")
    def _steps_rise(self) -> "VialQuestion":
        figures = [step.figure_on_card for step in self.steps]
        if any(b <= a for a, b in pairwise(figures)):
            raise ValueError("steps: each figure must be above the one before it")
        return self


class VialAnswer(Answer):
    """Figure with its range; doubts say what kept it from being sure."""

    figure_on_card: Annotated[float, number("as the card says", 0, 10_000)]
    low_on_card: Annotated[float, number("as the card says", 0, 10_000)]
    high_on_card: Annotated[float, number("as the card says", 0, 10_000)]
    nearest_on_card: Annotated[float, number("as the card says", 0, 10_000, "The step it looks most like")]
    to_log: str = Field(
        description='As a test line takes it: "0" where surely nothing, "0.25-0.5" between steps, "8+" at the last'
    )
    zero: bool = Field(description="Whether all of the range is nearer to nothing than to the first step")
    sure: bool
    doubts: list[str]


class _Patch(NamedTuple):
    """Middle colour of a touch, usual distance of a pixel from it in CIELAB, share of glare and shadow."""

    middle: Lab
    scatter: float
    strays: float


@computation("vial-reading", "What a vial reads beside its card in one picture")
def vial_reading(question: VialQuestion) -> VialAnswer:
    """The place of a vial's colour on the line through the card's steps.

    question: pixels of one picture. The white takes the lamp out, so that vial and card are compared under one light;
    the distance is CIEDE2000. Source: CIE 15, Sharma, Wu and Dalal (2005); limits from memory.
    """
    w = Working()
    white = np.median(linear(_array(question.white)), axis=0)
    doubts = _of_the_light(white)
    white = np.maximum(white, 1e-3)
    vial = _patch(question.vial, white)
    steps = [_patch(step.pixels, white) for step in question.steps]
    figures = [step.figure_on_card for step in question.steps]
    line = _line(figures, steps)
    distances = [ciede2000(vial.middle, lab) for _, lab in line]
    best = int(np.argmin(distances))
    w.line("nearest", "CIEDE2000 to the card", f"{len(steps)} steps", distances[best], "ΔE", "sharma2005")
    reach = distances[best] + _doubt_de(vial, steps)
    first, last = _around(distances, best, reach)
    figure, low, high = line[best][0], line[first][0], line[last][0]
    nearest = figures[int(np.argmin([ciede2000(vial.middle, step.middle) for step in steps]))]
    doubts += _of_the_colours(distances[best], vial, steps)
    w.line("reading", "place on the card", f"{low:g} to {high:g}", figure, "as the card says", "geometry")
    zero = figures[0] == 0 and high < ZERO_SHARE * figures[1] and not doubts
    return VialAnswer(
        verdict=_words(figure, low, high, zero=zero, doubts=doubts),
        figure_on_card=figure,
        low_on_card=low,
        high_on_card=high,
        nearest_on_card=nearest,
        to_log=_to_log(figure, low, high, top=figures[-1], zero=zero),
        zero=zero,
        sure=not doubts and sum(low < f < high for f in figures) <= 1,
        doubts=doubts,
        working=w.lines,
    )


def _array(pixels: list[Pixel]) -> Floats:
    return np.array([(p.r, p.g, p.b) for p in pixels], dtype=float)


def _patch(pixels: list[Pixel], white: Floats) -> _Patch:
    labs = seen_under(linear(_array(pixels)), white)
    middle = Lab(*np.median(labs, axis=0))
    apart = np.linalg.norm(labs - np.array(middle), axis=1)
    return _Patch(middle, float(np.median(apart)), float(np.mean(apart > GLARE_DE)))


def _line(figures: list[float], steps: list[_Patch]) -> list[tuple[float, Lab]]:
    """Figures and colours along the card, from the first step to the last."""
    found = [(figures[0], steps[0].middle)]
    for n in range(len(steps) - 1):
        here, there = np.array(steps[n].middle), np.array(steps[n + 1].middle)
        for part in range(1, PARTS + 1):
            share = part / PARTS
            found.append((figures[n] + share * (figures[n + 1] - figures[n]), Lab(*(here + share * (there - here)))))
    return found


def _doubt_de(vial: _Patch, steps: list[_Patch]) -> float:
    """How much further than the nearest another place may lie and still be the right one, CIEDE2000."""
    scatter = max(vial.scatter, *(step.scatter for step in steps))
    return SURE_DE + 0.25 * scatter


def _around(distances: list[float], best: int, reach: float) -> tuple[int, int]:
    """First and last place around the best within reach."""
    first = last = best
    while first > 0 and distances[first - 1] <= reach:
        first -= 1
    while last < len(distances) - 1 and distances[last + 1] <= reach:
        last += 1
    return first, last


def _of_the_light(white: Floats) -> list[str]:
    if white.max() >= OVEREXPOSED:
        return ["The white is burnt out: turn it from the lamp, or touch the picture's bright part before taking it."]
    if white.min() <= TOO_DARK:
        return ["It is too dark to tell colours: take it by a window, or with more light."]
    return []


def _of_the_colours(nearest_de: float, vial: _Patch, steps: list[_Patch]) -> list[str]:
    found = []
    if nearest_de > NEAR_DE:
        found.append("The vial is like no step of the card: glare, shadow, another kit's card, or a touch beside it.")
    if vial.strays > GLARE_SHARE:
        found.append("Glare or shadow lies on the vial: turn it a little, and touch it where it is even.")
    if any(step.strays > GLARE_SHARE for step in steps):
        found.append("Glare or shadow lies on the card: lay it flat, and take it from straight above.")
    if any(ciede2000(a.middle, b.middle) < STEP_DE for a, b in pairwise(steps)):
        found.append("Two steps of the card look alike here: hold it nearer to the window.")
    return found


def _words(figure: float, low: float, high: float, *, zero: bool, doubts: list[str]) -> str:
    if doubts:
        return f"Not sure: {doubts[0]}"
    if zero:
        return "Zero."
    return f"About {_rounded(figure):g}, between {_rounded(low):g} and {_rounded(high):g}."


def _to_log(figure: float, low: float, high: float, *, top: float, zero: bool) -> str:
    """The reading as a keeper would jot it. A range that touches poison is no zero, wherever its middle lies."""
    if zero:
        return "0"
    if figure >= top:
        # The last step stands for all above it.
        return f"{_rounded(top):g}+"
    ends = f"{_rounded(low):g}", f"{_rounded(high):g}"
    return ends[0] if ends[0] == ends[1] else "-".join(ends)


def _rounded(figure: float) -> float:
    """Two figures of a reading: a card tells no more."""
    return float(f"{figure:.2g}")
