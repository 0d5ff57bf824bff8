"""Consistency of the figures on a filter's box."""

import math
import re
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Watts, Working, computation, number
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter.catalogue import CATALOGUE
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.kinds import USUAL_BOX, kind_of
from reedmace.core.filter.sizing_schools import RATED_BAND, SPONGE_L
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import L_PER_IMP_GAL, L_PER_US_GAL
from reedmace.core.stock.species import Sizing

G, WATER = 9.80665, 998.0
WHEEL_M2_PER_LPH = 0.25 / 500
"""Film of a turning wheel per flow: about a quarter of a square metre at 500 L/h (memory)."""
BEST_EFFICIENCY = 0.45
"""Highest hydraulic efficiency of a small aquarium pump (memory)."""


class LabelCheckQuestion(Question):
    """The figures on the box; what is not printed is left out."""

    box_lph: Annotated[float, number("L/h", 1, 1e6)] | None = None
    box_us_gal_per_hour: Annotated[float, number("US gal/h", 0.2, 3e5)] | None = None
    max_head_m: Annotated[float, number("m", 0.05, 30)] | None = None
    watts: Watts | None = None
    tank_up_to_l: Annotated[float, number("L", 1, 1e6)] | None = None
    kind: KindName | None = None
    name: Name = "From the shop"
    price: Annotated[float, number("money", 0, 1e5)] = 0
    turning_wheel: bool = Field(default=False, description="A wheel in its box that the water turns")
    mid_strainer: bool = Field(default=False, description="A second inlet half-way up the intake")
    pump_in_water: bool | None = Field(default=None, description="Where its motor stands, if the box or a look says")
    front_to_back: bool = Field(default=False, description="Media stand behind each other, not above each other")


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
    filter: Filter = Field(description="With what the box does not say taken from the catalogue's nearest of its kind")


def _flow_on_the_box(q: LabelCheckQuestion, w: Working) -> tuple[float, list[str]]:
    """(L/h, fault): the flow on the box, the smaller where it gives two that differ."""
    if q.box_us_gal_per_hour is None:
        return q.box_lph or 0.0, []
    from_us = w.sum(
        "Q", "gal/h × 3.785411784", {"gal/h": q.box_us_gal_per_hour, "3.785411784": L_PER_US_GAL}, "L/h", "si"
    )
    if q.box_lph is None:
        return from_us, []
    if abs(from_us / q.box_lph - 1) <= 0.04:
        return q.box_lph, []
    from_imperial = w.sum(
        "Q imp", "gal/h × 4.54609", {"gal/h": q.box_us_gal_per_hour, "4.54609": L_PER_IMP_GAL}, "L/h", "si"
    )
    text = (
        f"The box's two flows differ by {abs(from_us / q.box_lph - 1):.0%}: {q.box_us_gal_per_hour:g} US gal/h is"
        f" {formatting.lph(from_us)}, not {formatting.lph.bare(q.box_lph)}."
    )
    if abs(from_imperial / q.box_lph - 1) < 0.04:
        text += " It agrees if its gallons are imperial."
    return min(from_us, q.box_lph), [text + " The smaller is taken."]


@computation("label-check", "Whether a box agrees with itself")
def label_check(question: LabelCheckQuestion) -> LabelCheckAnswer:
    """Whether a box's figures agree with each other.

    question: flow in L/h or US gal/h or both, lift in m, power in W, tank size in L.
    Raises CannotAnswer without any flow.
    Source: exact unit definitions; hydraulic power ρ g Q H with Q and H at half flow; the rest common practice.
    """
    q, w = question, Working()
    if q.box_lph is None and q.box_us_gal_per_hour is None:
        raise CannotAnswer("box_lph", "there is no flow.", "Give the flow on the box in L/h or US gal/h.")
    lph, findings = _flow_on_the_box(q, w)
    if q.max_head_m is not None and q.watts is not None and q.watts > 0:
        power = w.sum(
            "P",
            "ρ × g × Q / 2 × 0.75 × H / 3600000",
            {"ρ": WATER, "g": G, "Q": lph, "H": q.max_head_m},
            "W of lifted water",
            "pumpcurve",
        )
        share = w.sum("η", "P / W", {"P": power, "W": q.watts}, "share", "arithmetic")
        if share > BEST_EFFICIENCY:
            findings.append(
                f"At {q.watts:g} W it cannot have both {formatting.lph(lph)} and"
                f" {formatting.metres(q.max_head_m, 'g')}: that would turn {share:.0%} of its electricity into lifted"
                f" water, and good pumps reach about {BEST_EFFICIENCY:.0%}."
            )
    if q.tank_up_to_l is not None:
        times = w.sum(
            "n", "Q / tank on the label", {"Q": lph, "tank on the label": q.tank_up_to_l}, "per hour", "arithmetic"
        )
        if times < 2:
            findings.append(
                f"“Tanks up to {formatting.litres(q.tank_up_to_l, 'g')}” would be {times:.1f} volumes an hour on its"
                " own box figure; 4 to 6 is usual for a community. Read it as up to about"
                f" {formatting.litres(lph / 5)}."
            )
        elif times > 12:
            findings.append(
                f"{times:.0f} volumes an hour for its own tank size is a torrent: check that the flow is per hour, and"
                " its unit."
            )
    whole = _completed(q, min(max(lph, 10), 1e5))
    normal, heavy = _carries(lph, "community", w), _carries(lph, "goldfish", w)
    verdict = findings[0] if findings else f"The box agrees with itself: {formatting.lph(lph)}."
    return LabelCheckAnswer(
        verdict=verdict,
        working=w.lines,
        lph=lph,
        findings=findings,
        agrees=not findings,
        missing=_missing(q, whole),
        normal=normal,
        heavy=heavy,
        carries_words=_carries_words(whole, normal, heavy),
        filter=whole,
    )


def _carries(lph: float, sizing: Sizing, w: Working) -> Carries:
    """Tank volumes the rated flow suits. lph: L/h; sizing: the stock class."""
    least, most, source = RATED_BAND[sizing]
    low = w.sum(f"tank, {sizing}, careful", "Q / turns", {"Q": lph, "turns": most}, "L", source)
    high = w.sum(f"tank, {sizing}, at most", "Q / turns", {"Q": lph, "turns": least}, "L", source)
    return Carries(low_l=low, high_l=high)


def _carries_words(whole: Filter, normal: Carries, heavy: Carries) -> str:
    if whole.air:
        return (
            f"One like it is usual for a light stock in up to {formatting.litres(SPONGE_L)}, more of them in more;"
            " goldfish and turtles want another kind beside it."
        )
    return (
        f"By its flow it is for {formatting.litres.bare(normal.low_l)} to {formatting.litres(normal.high_l)} with a"
        f" community, {formatting.litres.bare(heavy.low_l)} to {formatting.litres(heavy.high_l)} with goldfish or large"
        " messy fish; lift and dirt take from that, as a tank of yours would show."
    )


def _missing(q: LabelCheckQuestion, whole: Filter) -> list[str]:
    """Figures the box leaves out, and what each would add. whole: the filter as completed."""
    found = []
    if q.kind is None:
        found.append(
            f"No kind: taken for a {kind_of(whole.kind).title.lower()}, as most boxes with such figures are; another"
            " kind of the same flow is judged otherwise."
        )
    if q.max_head_m is None and whole.max_head_m is not None:
        found.append(
            f"No lift: {formatting.metres(whole.max_head_m, 'g')} is taken, as usual at this flow; the box's own would"
            " say what hoses and dirt really leave of it."
        )
    if q.watts is None:
        found.append(f"No watts: {whole.watts:g} W is taken; its own would say what it costs to run.")
    if q.tank_up_to_l is None:
        found.append("No tank size: with it the label could be held against the flow.")
    return found


def _completed(q: LabelCheckQuestion, lph: float) -> Filter:
    """The box as a complete filter: sizes from the catalogue's filter of that kind with the nearest flow."""
    kind = q.kind or USUAL_BOX
    like = min((f for f in CATALOGUE if f.kind == kind), key=lambda f: abs(math.log(f.box_lph / lph)))
    own = "own-" + re.sub(r"[^a-z0-9]+", "-", q.name.lower()).strip("-")[:60]
    known = {
        "id": own,
        "name": q.name,
        "box_lph": lph,
        "price": q.price,
        "curve": [],
        "tank_up_to_l": q.tank_up_to_l and min(q.tank_up_to_l, 1e5),
        "max_head_m": q.max_head_m,
        "watts": q.watts and max(q.watts, 0.1),
        "wheel_m2": min(WHEEL_M2_PER_LPH * lph, 10) if q.turning_wheel else 0,
        "bar_tilts": q.turning_wheel,
        "mid_strainer": q.mid_strainer,
        "pump_in_water": q.pump_in_water,
        "restarts_alone": q.pump_in_water,
        "media_path": "front-to-back" if q.front_to_back else None,
        # More rated flow of an air-driven filter means more air.
        "air_l_min": like.air_l_min and min(max(like.air_l_min * lph / like.box_lph, 0.05), 60),
    }
    return Filter.model_validate(like.model_dump() | {k: v for k, v in known.items() if v is not None})
