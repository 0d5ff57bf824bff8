"""Reading a filter's label: any text typed off a box or copied from a page, into fields with the words they came from.

Nothing is guessed silently: what could mean two things is marked, and what is read as nothing is left out.
"""

import re
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Part, Question, Working, computation, number
from reedmace.core.filter.box_label import BoxLabel
from reedmace.core.filter.kind_parts.traits import kind_traits
from reedmace.core.filter.label_figures import DUAL_APART, Figure, figures_of
from reedmace.core.quantity.units import L_PER_IMP_GAL, L_PER_US_GAL

LabelField = Literal[
    "box_lph",
    "box_us_gal_per_hour",
    "max_head_m",
    "watts",
    "tank_up_to_l",
    "noise_db",
    "media_l",
    "price",
    "kind",
    "name",
]
LONGEST = 4000


class ReadLabelQuestion(Question):
    """Text off a box or a page."""

    text: Annotated[str, Field(min_length=1, max_length=LONGEST)]


class ReadField(Part):
    """One field read, with the words it came from and what is doubtful about it."""

    field: LabelField
    words: str
    value: Annotated[float, number("see field", 0, 1e9)] | None = Field(description="Null for kind and name")
    says: str = Field(description="The value as understood, in its unit or as a word")
    doubt: str = Field(description="What else it may mean; empty where it is plain")


class ReadLabelAnswer(Answer):
    """The label as read; a doubtful field is filled in and marked."""

    label: BoxLabel
    fields: list[ReadField]
    doubts: list[str]
    left_out: list[str] = Field(description="Figures that are none of the fields, as they stand")


_HEAD = re.compile(
    r"h[\s_.-]?max|max(?:imum|\.)?\s*(?:delivery\s*|pump\s*|pumping\s*|water\s*)?(?:head|lift|height)|head(?!er)|lift(?!\s*tube)|"
    r"delivery\s*height|pump(?:ing)?\s*height|water\s*column|rise\b|shut[\s-]?off|pressure",
    re.IGNORECASE,
)
_NOT_HEAD = re.compile(
    r"hose|tub(?:e|ing)|cable|cord|lead\b|dimension|size|width|depth|long|length|high\b|footprint|measures|bore|"
    r"diameter|ø|body|\bh\b\s*[x×]|[x×]\s*$|spray|thick|stand",
    re.IGNORECASE,
)
_MEDIA = re.compile(r"media|basket|tray|filter\s*(?:volume|capacity)", re.IGNORECASE)
_NOT_TANK = re.compile(
    r"media|basket|tray|chamber|canister\s*volume|filter\s*(?:volume|capacity)|contain|holds?\b|content|inside|bucket|"
    r"box\s*volume|reservoir|weigh",
    re.IGNORECASE,
)
_TANK = re.compile(r"tank|aquari|up\s*to|for\b|suit|rated|max(?:imum)?|recommend", re.IGNORECASE)
_NOT_POWER = re.compile(r"heater|lamp|light\b|uv|led\b", re.IGNORECASE)
_LOWERED = re.compile(
    r"with media|filled|real|actual|in use|circulation|filter(?:ing)?\s*(?:flow|output)", re.IGNORECASE
)
MOST_MEDIA_L = 500.0
"""Largest volume of media a label is read as."""


def _role(figure: Figure) -> LabelField | None:
    """Which field a figure is; None where it is none of them."""
    near = f"{figure.before} {figure.after}"
    match figure.dimension:
        case "flow":
            return "box_us_gal_per_hour" if figure.gallons in ("us", "gal") else "box_lph"
        case "power":
            return None if _NOT_POWER.search(near) else "watts"
        case "sound":
            return "noise_db"
        case "money":
            return "price"
        case "volume":
            if _MEDIA.search(near) and figure.value <= MOST_MEDIA_L:
                return "media_l"
            return None if _NOT_TANK.search(near) else "tank_up_to_l"
        case "length":
            if _NOT_HEAD.search(figure.after) or (_NOT_HEAD.search(figure.before) and not _HEAD.search(figure.before)):
                return None
            return "max_head_m" if _HEAD.search(near) else None


def _own_value(field: LabelField, figure: Figure) -> float:
    return figure.value / L_PER_US_GAL if field == "box_us_gal_per_hour" else figure.value


def _says(field: LabelField, value: float) -> str:
    units = {"box_lph": "L/h", "box_us_gal_per_hour": "US gal/h", "max_head_m": "m", "watts": "W", "tank_up_to_l": "L",
             "noise_db": "dB", "media_l": "L"}  # fmt: skip
    return f"{value:.4g} {units.get(field, '')}".strip()


def _chosen(field: LabelField, figures: list[Figure]) -> ReadField:
    """One field of the figures that may fill it; those that disagree make a doubt."""
    best = figures[0]
    if field == "tank_up_to_l":
        best = next((f for f in figures if _TANK.search(f.before)), best)
    value, doubts = _own_value(field, best), [best.doubt] if best.doubt else []
    for other in figures:
        if abs(other.value / best.value - 1) > DUAL_APART:
            doubts.append(f"it also says “{other.words}”")
    if field == "box_us_gal_per_hour" and best.gallons == "gal":
        pair = f"{value * L_PER_US_GAL:.0f} L/h if US gallons, {value * L_PER_IMP_GAL:.0f} L/h if imperial"
        doubts += [pair] if any(f.gallons == "imp" for f in figures) else []
    if field == "box_lph" and _LOWERED.search(best.before + best.after):
        doubts.append("that may be the flow with media, not the pump's")
    if field == "price" and len({round(f.value, 2) for f in figures}) > 1:
        doubts = [f"it also says “{f.words}”" for f in figures[1:]]
    return ReadField(
        field=field, words=best.words, value=value, says=_says(field, value), doubt="; ".join(dict.fromkeys(doubts))
    )


def _tank_gallons(fields: list[ReadField], figures: list[Figure]) -> None:
    """Mark gallons that may be imperial: where litres beside them agree only with those."""
    tank = [f for f in figures if _role(f) == "tank_up_to_l"]
    for field in fields:
        mine = next((f for f in tank if f.words == field.words), None)
        if field.field != "tank_up_to_l" or mine is None or mine.gallons != "gal":
            continue
        litres = next((f.value for f in tank if not f.gallons), None)
        imperial = mine.value / L_PER_US_GAL * L_PER_IMP_GAL
        if litres and abs(imperial / litres - 1) <= DUAL_APART < abs(mine.value / litres - 1):
            field.value, field.says, field.doubt = litres, _says("tank_up_to_l", litres), "its gallons are imperial"


def _kinds(text: str) -> list[tuple[str, str]]:
    """(kind, words) of every kind named, in the order of the text; longer names hide those inside them."""
    found: list[tuple[int, int, str]] = []
    for kind in kind_traits().values():
        for word in sorted(kind.about.called, key=len, reverse=True):
            for hit in re.finditer(rf"(?<![\w-]){re.escape(word)}s?(?![\w-])", text, re.IGNORECASE):
                found.append((hit.start(), hit.end(), kind.name))
    kept = [one for one in found if not any(_hides(other, one) for other in found)]
    return [(name, text[a:b]) for a, b, name in sorted(kept)]


def _hides(outer: tuple[int, int, str], inner: tuple[int, int, str]) -> bool:
    """Whether a longer name stands round a shorter one. outer, inner: start, end, kind."""
    return outer[0] <= inner[0] and inner[1] <= outer[1] and outer[1] - outer[0] > inner[1] - inner[0]


def _kind_field(text: str) -> ReadField | None:
    named = _kinds(text)
    if not named:
        return None
    counts: dict[str, str] = {}
    for name, words in named:
        counts.setdefault(name, words)
    first = next(iter(counts))
    others = [words for name, words in counts.items() if name != first]
    doubt = "; ".join(f"it also says “{words}”" for words in others)
    return ReadField(field="kind", words=counts[first], value=None, says=kind_traits()[first].title, doubt=doubt)


def _name(text: str) -> ReadField | None:
    """The first line with letters and without a figure that has a unit."""
    for line in text.splitlines():
        words = line.strip(" \t-–:·•|*#")
        if re.search(r"[^\W\d_]{2}", words) and not list(figures_of(words)) and len(words) <= 80:
            return ReadField(field="name", words=words, value=None, says=words, doubt="")
        if words:
            return None
    return None


@computation("read-label", "What a filter's label says, field by field, with the words it came from")
def read_label(question: ReadLabelQuestion) -> ReadLabelAnswer:
    """The fields of a label, each with its words; doubtful ones are marked.

    question: up to 4,000 letters. A text without any figure gives no field.
    Source: exact unit definitions; the words of labels common practice.
    """
    text, w = question.text, Working()
    figures = list(figures_of(text))
    by_field: dict[LabelField, list[Figure]] = {}
    left_out = []
    for figure in figures:
        role = _role(figure)
        if role is None:
            left_out.append(figure.words)
        else:
            by_field.setdefault(role, []).append(figure)
    fields = [_chosen(field, found) for field, found in by_field.items()]
    _tank_gallons(fields, figures)
    fields += [one for one in (_kind_field(text), _name(text)) if one is not None]
    _cross_check(fields)
    for one in fields:
        if one.value is not None:
            w.line(one.field, "as printed", one.words, one.value, one.says.partition(" ")[2] or "money", "si")
    doubts = [f"{one.words}: {one.doubt}." for one in fields if one.doubt]
    return ReadLabelAnswer(
        verdict=_verdict(fields, doubts),
        working=w.lines,
        label=_label(fields),
        fields=fields,
        doubts=doubts,
        left_out=left_out,
    )


def _cross_check(fields: list[ReadField]) -> None:
    """Mark both flows where they disagree."""
    by = {one.field: one for one in fields}
    metric, us = by.get("box_lph"), by.get("box_us_gal_per_hour")
    if metric is None or us is None or not metric.value or not us.value:
        return
    from_us = us.value * L_PER_US_GAL
    if abs(from_us / metric.value - 1) > DUAL_APART:
        imperial = abs(us.value * L_PER_IMP_GAL / metric.value - 1) <= DUAL_APART
        why = "its gallons agree if they are imperial" if imperial else f"in US gallons that is {from_us:.0f} L/h"
        us.doubt = "; ".join(filter(None, (us.doubt, why)))
        metric.doubt = "; ".join(filter(None, (metric.doubt, f"“{us.words}” says otherwise")))


def _label(fields: list[ReadField]) -> BoxLabel:
    values: dict[str, object] = {one.field: one.value for one in fields if one.value is not None}
    for one in fields:
        if one.field == "name":
            values["name"] = one.words
        if one.field == "kind":
            values["kind"] = next(k.name for k in kind_traits().values() if k.title == one.says)
    return BoxLabel.model_validate(values)


def _verdict(fields: list[ReadField], doubts: list[str]) -> str:
    figures = [one for one in fields if one.value is not None]
    if not figures:
        return "No figure with a unit was found: type the flow as “700 L/h” or “185 gph”."
    read = ", ".join(one.says for one in figures)
    return f"Read: {read}." + (f" {len(doubts)} to look at." if doubts else "")
