"""Figures of a pasted label: numbers with their units, and which of them may be what."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from reedmace.core.quantity.units import CM_PER_INCH, L_PER_IMP_GAL, L_PER_US_GAL, M_PER_FT

Dimension = Literal["flow", "volume", "length", "power", "sound", "money"]


M_PER_BAR = 10.2
"""Metres of water in a bar."""


DUAL_APART = 0.06
"""Share by which two units of one figure may differ by rounding."""


PLAUSIBLE: dict[Dimension, tuple[float, float]] = {
    "flow": (20, 60_000), "volume": (3, 20_000), "length": (0.1, 30), "power": (0.5, 2000), "sound": (10, 80),
    "money": (1, 20_000),
}  # fmt: skip
"""What a filter's label may say, in L/h, L, m, W, dB and money; it decides between two readings of a decimal mark."""


_NUM = r"\d{1,3}(?:[ \u00a0\u202f'’]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)*"


_UNITS: tuple[tuple[str, Dimension, float, str], ...] = (
    # Longer spellings first: "m3/h" before "m", "gal/h" before "gal".
    (r"(?:m3|m³|cbm|cubic met(?:er|re)s?)\s*(?:/|per\s+|an\s+)\s*h(?:ou)?r?\b", "flow", 1000.0, ""),
    (r"(?:imp(?:erial|\.)?|uk|brit(?:ish)?)\s*\.?\s*(?:gal(?:lon)?s?\s*(?:/|per\s+|an\s+)\s*h(?:ou)?r?|gph)\b",
     "flow", L_PER_IMP_GAL, "imp"),
    (r"(?:us|u\.s\.)\s*\.?\s*(?:gal(?:lon)?s?\s*(?:/|per\s+|an\s+)\s*h(?:ou)?r?|gph)\b", "flow", L_PER_US_GAL, "us"),
    (r"gal(?:lon)?s?\.?\s*(?:/|per\s+|an\s+)\s*h(?:ou)?r?\b|g\.?p\.?h\b\.?|gal\s?ph\b", "flow", L_PER_US_GAL, "gal"),
    (r"gal(?:lon)?s?\.?\s*(?:/|per\s+|a\s+)\s*min(?:ute)?\b|gpm\b", "flow", 60 * L_PER_US_GAL, "gal"),
    (r"(?:l|lt|ltr|lit(?:er|re)s?)s?\.?\s*(?:/|per\s+|an\s+|p\.?)\s*h(?:ou)?r?s?\b|lph\b|l\.p\.h\b", "flow", 1.0, ""),
    (r"(?:l|lt|ltr|lit(?:er|re)s?)s?\.?\s*(?:/|per\s+|a\s+)\s*min(?:ute)?s?\b|lpm\b", "flow", 60.0, ""),
    (r"(?:imp(?:erial|\.)?|uk|brit(?:ish)?)\s*\.?\s*gal(?:lon)?s?\b", "volume", L_PER_IMP_GAL, "imp"),
    (r"(?:us|u\.s\.)\s*\.?\s*gal(?:lon)?s?\b", "volume", L_PER_US_GAL, "us"),
    (r"gal(?:lon)?s?\b\.?", "volume", L_PER_US_GAL, "gal"),
    (r"(?:lit(?:er|re)s?|ltrs?|lt)\b\.?|l\b(?!\s*/)", "volume", 1.0, ""),
    (r"mbar\b", "length", M_PER_BAR / 1000, ""),
    (r"bar\b", "length", M_PER_BAR, ""),
    (r"mm\b", "length", 0.001, ""),
    (r"cm\b", "length", 0.01, ""),
    (r"(?:met(?:er|re)s?)\b|m\b(?!\s*[³3/])", "length", 1.0, ""),
    (r"(?:feet|foot|ft)\b\.?|['’′](?!\d{3})", "length", M_PER_FT, ""),
    (r"(?:inch(?:es)?|in)\b\.?|[\"”″]", "length", CM_PER_INCH / 100, ""),
    (r"db\b(?:\s*\(?a\)?)?", "sound", 1.0, ""),
    (r"kw\b", "power", 1000.0, ""),
    (r"(?:watts?)\b|w\b", "power", 1.0, ""),
)  # fmt: skip


_UNIT = "|".join(f"(?P<u{n}>{pattern})" for n, (pattern, *_) in enumerate(_UNITS))


_FIGURE = re.compile(
    rf"(?P<money>[£$€]\s?)?(?<![\w.,])(?P<num>{_NUM})(?:\s*(?:-|–|—|to|\.\.\.?)\s*(?P<to>{_NUM}))?[^\S\n]*-?[^\S\n]*"
    rf"(?:(?:{_UNIT})|(?P<after>[£$€]|(?:gbp|usd|eur|aud|cad|sek|nok|dkk|chf)\b))?",
    re.IGNORECASE,
)


REACH = 34
"""Letters before a figure in which its meaning is looked for, and a few after it."""


@dataclass(frozen=True)
class Figure:
    """One figure of the text: its value in L/h, L, m or W, its words, what else it may be, and what stands round it."""

    dimension: Dimension
    value: float
    words: str
    doubt: str
    gallons: str
    before: str
    after: str
    start: int


def _readings(text: str) -> list[float]:
    """What a number may mean, the likeliest first. text: digits with marks."""
    plain = re.sub(r"[ \u00a0\u202f'’]", "", text)
    dots, commas = plain.count("."), plain.count(",")
    if dots and commas:
        last = max(plain.rfind("."), plain.rfind(","))
        return [float(re.sub(r"[.,]", "", plain[:last]) + "." + plain[last + 1 :])]
    if dots + commas > 1:
        return [float(re.sub(r"[.,]", "", plain))]
    if dots + commas == 0:
        return [float(plain)]
    mark = "." if dots else ","
    whole, part = plain.split(mark)
    small = float(f"{whole}.{part}")
    if len(part) == 3 and whole.lstrip("0"):
        return [float(whole + part), small] if mark == "," else [small, float(whole + part)]
    return [small]


def _value(text: str, factor: float, dimension: Dimension) -> tuple[float, str] | None:
    """(value in the home unit, doubt); None where no reading is plausible. text: the number; factor: of its unit."""
    low, high = PLAUSIBLE[dimension]
    able = [number * factor for number in _readings(text) if low <= number * factor <= high]
    if not able:
        return None
    doubt = f"“{text.strip()}” may be {able[0]:g} or {able[1]:g}" if len(able) > 1 else ""
    return able[0], doubt


def figures_of(text: str) -> Iterator[Figure]:
    """Numbers of a label with their units, in order. text: as pasted."""
    for found in _FIGURE.finditer(text):
        n = next((i for i in range(len(_UNITS)) if found[f"u{i}"]), None)
        money = found["money"] or found["after"]
        if n is None and not money:
            continue
        _, dimension, factor, gallons = _UNITS[n] if n is not None else ("", "money", 1.0, "")
        # Of a range the upper end is what a label promises.
        read = _value(found["to"] or found["num"], factor, dimension)
        if read is None:
            continue
        start, end = found.span()
        line = text.rfind("\n", 0, start) + 1
        before = text[max(line, start - REACH) : start]
        # What belongs to the figure before it says nothing of this one.
        before = re.split(r"[;|•·,()/]|\d", before)[-1]
        after = re.split(r"[\n;|•·,()/]|\d", text[end : end + REACH])[0]
        yield Figure(dimension, read[0], found[0].strip(" -"), read[1], gallons, before, after, start)
