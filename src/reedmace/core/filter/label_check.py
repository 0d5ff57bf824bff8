"""Consistency of the figures on a filter's box."""

from collections.abc import Iterator
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Part, Working, computation, number
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter.box_label import FLOWS_AGREE, BoxLabel, box_of_label, flow_of_label, possible_kinds
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.sizing_demand import RATED_BAND
from reedmace.core.filter.sizing_schools import SPONGE_L
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import L_PER_IMP_GAL, L_PER_US_GAL
from reedmace.core.stock.species import Sizing

G, WATER = 9.80665, 998.0
BEST_EFFICIENCY = 0.45
"""Highest hydraulic efficiency of a small aquarium pump (memory)."""


class LabelCheckQuestion(BoxLabel):
    """The figures on the box; what is not printed is left out."""


class Carries(Part):
    """Tank volumes it suits by turnover, from the careful end of the band to its least, L."""

    low_l: Annotated[float, number("L", 0, 1e6)]
    high_l: Annotated[float, number("L", 0, 1e6)]


class LabelCheckAnswer(Answer):
    """The flow to take from the box, and each figure that disagrees with another."""

    lph: Annotated[float, number("L/h", 0, 1e7)]
    findings: list[str]
    agrees: bool
    missing: list[str] = Field(description="What the box does not say, what stands in for it, and what it would add")
    normal: Carries = Field(description="With a community")
    heavy: Carries = Field(description="With goldfish or large messy fish")
    carries_words: str
    filters: list[Filter] = Field(description="The box as each kind it may be; what it does not say is as usual")
    kind_known: bool = Field(description="Whether it can be of one kind only")


def _flow_on_the_box(q: LabelCheckQuestion, w: Working) -> tuple[float, list[str]]:
    """(L/h, fault): the flow on the box, the smaller where it gives two that differ."""
    if q.box_us_gal_per_hour is None:
        return q.box_lph or w.line(
            "Q", "usual for a tank of that size", f"{q.tank_up_to_l:g} L", flow_of_label(q) or 0.0, "L/h", "memory"
        ), []
    from_us = w.sum(
        "Q", "gal/h × 3.785411784", {"gal/h": q.box_us_gal_per_hour, "3.785411784": L_PER_US_GAL}, "L/h", "si"
    )
    if q.box_lph is None:
        return from_us, []
    if abs(from_us / q.box_lph - 1) <= FLOWS_AGREE:
        return q.box_lph, []
    from_imperial = w.sum(
        "Q imp", "gal/h × 4.54609", {"gal/h": q.box_us_gal_per_hour, "4.54609": L_PER_IMP_GAL}, "L/h", "si"
    )
    text = (
        f"The box's two flows differ by {abs(from_us / q.box_lph - 1):.0%}: {q.box_us_gal_per_hour:g} US gal/h is"
        f" {formatting.lph(from_us)}, not {formatting.lph.bare(q.box_lph)}."
    )
    if abs(from_imperial / q.box_lph - 1) < FLOWS_AGREE:
        text += " It agrees if its gallons are imperial."
    return min(from_us, q.box_lph), [text + " The smaller is taken."]


def _power_finding(q: LabelCheckQuestion, lph: float, w: Working) -> Iterator[str]:
    """Whether its electricity could lift that water."""
    if q.max_head_m is None or not q.watts:
        return
    power = w.sum(
        "P",
        "ρ × g × Q / 2 × 0.75 × H / 3600000",
        {"ρ": WATER, "g": G, "Q": lph, "H": q.max_head_m},
        "W of lifted water",
        "pumpcurve",
    )
    share = w.sum("η", "P / W", {"P": power, "W": q.watts}, "share", "arithmetic")
    if share > BEST_EFFICIENCY:
        yield (
            f"At {q.watts:g} W it cannot have both {formatting.lph(lph)} and {formatting.metres(q.max_head_m, 'g')}:"
            f" that would turn {share:.0%} of its electricity into lifted water, and good pumps reach about"
            f" {BEST_EFFICIENCY:.0%}."
        )


def _tank_finding(q: LabelCheckQuestion, lph: float, w: Working) -> Iterator[str]:
    """Whether its flow suits the tank it says it is for."""
    if q.tank_up_to_l is None:
        return
    times = w.sum(
        "n", "Q / tank on the label", {"Q": lph, "tank on the label": q.tank_up_to_l}, "per hour", "arithmetic"
    )
    if times < 2:
        yield (
            f"“Tanks up to {formatting.litres(q.tank_up_to_l, 'g')}” would be {times:.1f} volumes an hour on its own"
            " box figure; 4 to 6 is usual for a community. Read it as up to about"
            f" {formatting.litres(lph / 5)}."
        )
    elif times > 12:
        yield (
            f"{times:.0f} volumes an hour for its own tank size is a torrent: check that the flow is per hour, and its"
            " unit."
        )


@computation("label-check", "Whether a box agrees with itself")
def label_check(question: LabelCheckQuestion) -> LabelCheckAnswer:
    """Whether a box's figures agree with each other.

    question: flow in L/h or US gal/h or both, lift in m, power in W, tank size in L.
    Raises CannotAnswer without any flow.
    Source: exact unit definitions; hydraulic power ρ g Q H with Q and H at half flow; the rest common practice.
    """
    q, w = question, Working()
    if flow_of_label(q) is None:
        raise CannotAnswer(
            "box_lph",
            "there is no flow.",
            "Give the flow on the box in L/h or US gal/h; for a sponge, the tank it is sold for.",
        )
    lph, findings = _flow_on_the_box(q, w)
    findings += [*_power_finding(q, lph, w), *_tank_finding(q, lph, w)]
    boxes = [box_of_label(q, lph, kind) for kind in possible_kinds(q, lph)]
    normal, heavy = _carries(lph, "community", w), _carries(lph, "goldfish", w)
    verdict = findings[0] if findings else f"The box agrees with itself: {formatting.lph(lph)}."
    return LabelCheckAnswer(
        verdict=verdict,
        working=w.lines,
        lph=lph,
        findings=findings,
        agrees=not findings,
        missing=_missing(q, boxes),
        normal=normal,
        heavy=heavy,
        carries_words=_carries_words(boxes, normal, heavy),
        filters=boxes,
        kind_known=len(boxes) == 1,
    )


def _carries(lph: float, sizing: Sizing, w: Working) -> Carries:
    """Tank volumes the rated flow suits. lph: L/h; sizing: the stock class."""
    least, most, source = RATED_BAND[sizing]
    low = w.sum(f"tank, {sizing}, careful", "Q / turns", {"Q": lph, "turns": most}, "L", source)
    high = w.sum(f"tank, {sizing}, at most", "Q / turns", {"Q": lph, "turns": least}, "L", source)
    return Carries(low_l=low, high_l=high)


def _carries_words(boxes: list[Filter], normal: Carries, heavy: Carries) -> str:
    if all(box.air for box in boxes):
        return (
            f"One like it is usual for a light stock in up to {formatting.litres(SPONGE_L)}, more of them in more;"
            " goldfish and turtles want another kind beside it."
        )
    return (
        f"By its flow it is for {formatting.litres.bare(normal.low_l)} to {formatting.litres(normal.high_l)} with a"
        f" community, {formatting.litres.bare(heavy.low_l)} to {formatting.litres(heavy.high_l)} with goldfish or large"
        " messy fish; lift and dirt take from that, as a tank of yours would show."
    )


def _missing(q: LabelCheckQuestion, boxes: list[Filter]) -> list[str]:
    """Figures the box leaves out, and what each would add. boxes: as each kind it may be, the likeliest first."""
    found, likeliest = [], boxes[0]
    if q.kind is None:
        titles = [formatting.inside(kind_of(box.kind).title) for box in boxes]
        found.append(
            f"No kind: by its figures it may be {_one_of(titles)}. Say which; the kinds are judged differently."
            if len(titles) > 1
            else f"No kind: by its figures only {_one_of(titles)}."
        )
    if q.max_head_m is None and likeliest.max_head_m is not None:
        found.append(
            f"No lift: {formatting.metres(likeliest.max_head_m, '.2g')} is taken, as usual at this flow; the box's own"
            " would say what hoses and dirt really leave of it."
        )
    if q.watts is None:
        found.append(f"No watts: {likeliest.watts:.2g} W is taken; its own would say what it costs to run.")
    if q.tank_up_to_l is None:
        found.append("No tank size: with it the label could be held against the flow.")
    return found


def _one_of(titles: list[str]) -> str:
    """Titles in a row, as "a hang-on, an internal or a canister". titles: of kinds, one or more."""
    with_article = [f"an {t}" if t[0] in "aeiou" else f"a {t}" for t in titles]
    return " or ".join(filter(None, (", ".join(with_article[:-1]), with_article[-1])))
