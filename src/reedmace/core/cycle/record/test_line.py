"""Parser for one line of test results as people jot it: "a 0.5 n 0.25-1 no3 20 ph 7.4 26C"."""

import re
from typing import Annotated, Literal, NamedTuple

from pydantic import Field, model_validator

from reedmace.core.chemistry.salinity_scales import salinity_of_gravity
from reedmace.core.contract import Answer, Part, Question, computation
from reedmace.core.cycle.record.log import Off
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting
from reedmace.core.quantity.parsing import ask_thousands
from reedmace.core.water_parameters import BY_FIELD, COLOUR_READ, WATER_PARAMETERS, KitFigures, Ppm

GRAVITY = "gravity"
"""A figure that is typed and kept as salinity."""
_KEYS = {letter: one.field for one in WATER_PARAMETERS for letter in one.letters} | {"sg": GRAVITY}
_RANGE = {one.field: (one.low, one.high, one.unit) for one in WATER_PARAMETERS} | {
    GRAVITY: (0.99, 1.04, "of pure water")
}
_COLOURS = {one.field for one in COLOUR_READ}
GRAVITY_TYPED = re.compile(r"1\.0[0-3]\d+")
"""A figure written as hydrometers are read: 1.000 to 1.039."""
_NAMES = ", ".join(one.letters[0] for one in WATER_PARAMETERS)
_EXAMPLE = "Write it as: a 0.5 n 1 no3 20 ph 7.4 kh 4 26C"
_OTHER_KIT = re.compile(r"\s*\b(?:other|another|second)\s+kit\b", re.IGNORECASE)
_LETTERS = "|".join(letter for letter in _KEYS if letter[-1].isdigit())
"""Names that end in a digit, which would otherwise be read as a figure's beginning."""
_NUMBER = r"(?:\d+(?:\.\d+)?|\.\d+)"
_TOKEN = re.compile(
    rf"\s*(?:({_LETTERS}|[a-z]+)\s*)?({_NUMBER})(?:\s*(?:-|–|\bto\b)\s*({_NUMBER}))?\s*(\+)?\s*(°?\s*[cf]\b)?",
    re.IGNORECASE,
)


class ReadBetween(Part):
    """A figure that stood between two: what was read, and its range on the kit's own basis."""

    what: Off
    low_ppm: Ppm
    high_ppm: Ppm

    @model_validator(mode="after")
    def _ends_rise(self) -> "ReadBetween":
        if self.low_ppm > self.high_ppm:
            raise ValueError(f"low_ppm: must be at most high_ppm, {self.high_ppm:g}")
        return self


class ReadTestLineQuestion(Question):
    """The line as typed."""

    text: Annotated[str, Field(min_length=1, max_length=200)]
    degrees: Annotated[Literal["°C", "°F"], Field(description="Of a temperature typed without its unit")] = "°C"


class ReadTestLineAnswer(Answer, KitFigures):
    """Each figure found; the rest null.

    `off_scale` names those typed with a plus, `between` holds the ranges, of which the figure is the middle.
    """

    off_scale: list[Off]
    between: list[ReadBetween]
    other_kit: bool


class _Figure(NamedTuple):
    """One figure of the line: the middle of its range, its ends, and whether it is this or more."""

    key: str
    value: float
    low: float
    high: float
    off: bool

    @property
    def what(self) -> str:
        return self.key.removesuffix("_ppm")


@computation("read-test-line", "What a jotted test line means")
def read_test_line(question: ReadTestLineQuestion) -> ReadTestLineAnswer:
    """The figures in a jotted line.

    question: pairs of a name (letters of WATER_PARAMETERS) and a figure; "5+" is off the scale, "0.25-1" stands between
    two; "26C" or "79F" needs no name; "other kit" says that another one was used. Raises CannotAnswer naming the piece
    that was not understood, a figure out of range, or one given twice.
    """
    ask_thousands(question.text)
    # A comma between digits is a decimal mark; any other separates two tests.
    rest = re.sub(r"(?<=\d),(?=\d)", ".", question.text.lower()).replace(",", " ").replace("=", " ").replace(":", " ")
    rest, other = _OTHER_KIT.subn(" ", rest)
    found: dict[str, _Figure] = {}
    position = 0
    while position < len(rest.rstrip()):
        figure, position = _next_figure(rest, position, question.degrees)
        if figure.key in found or (figure.key == GRAVITY and "salinity_g_kg" in found):
            raise CannotAnswer(
                "text", f"{_short(figure.key)} is given twice.", "Keep one; n is nitrite, no3 is nitrate."
            )
        found[figure.key] = figure
    if not found:
        raise CannotAnswer("text", "there is no figure in it.", _EXAMPLE)
    _read_hydrometer(found)
    figures = found.values()
    return ReadTestLineAnswer.model_validate(
        {
            "verdict": ", ".join([*(_in_words(f) for f in figures), *(["with another kit"] if other else [])]),
            "working": [],
            "off_scale": [f.what for f in figures if f.off],
            "between": [{"what": f.what, "low_ppm": f.low, "high_ppm": f.high} for f in figures if f.low < f.high],
            "other_kit": other > 0,
            **{f.key: f.value for f in figures},
        }
    )


def _next_figure(text: str, position: int, degrees: str) -> tuple[_Figure, int]:
    """The figure at a place of the line, and the place after it. Raises CannotAnswer."""
    match = _TOKEN.match(text, position)
    piece = text[position:].strip()[:20]
    if not match or match.end() == position:
        raise CannotAnswer("text", f'"{piece}" is not understood.', _EXAMPLE)
    name, first, last, plus, unit = match.groups()
    key = _KEYS.get(name or ("t" if unit else ""))
    if key is None:
        raise CannotAnswer("text", f'"{piece}" has no name Reedmace knows.', f"Names: {_NAMES}.")
    ends = [float(end) for end in (first, last) if end]
    if key == "temperature_c" and (("f" in unit) if unit else degrees == "°F"):
        ends = [(end - 32) / 1.8 for end in ends]
    if key == "salinity_g_kg":
        _check_gravity(first)
    for end, typed in zip(ends, (first, last), strict=False):
        _check_range(key, end, typed)
    if plus and key not in _COLOURS:
        raise CannotAnswer("text", f"{_short(key)} cannot be off a colour scale.", "Leave out the plus.")
    if last and (key not in _COLOURS or plus):
        raise CannotAnswer(
            "text", f"{_short(key)} {first}-{last} is not one figure.", "Write the figure in the middle."
        )
    if ends[-1] < ends[0]:
        raise CannotAnswer("text", f"{_short(key)} {first}-{last} falls.", "Write the lower figure first.")
    return _Figure(key, (ends[0] + ends[-1]) / 2, ends[0], ends[-1], bool(plus)), match.end()


def _read_hydrometer(found: dict[str, _Figure]) -> None:
    """Put the salinity that a specific gravity means in its place, at the line's temperature or 25 °C."""
    shown = found.pop(GRAVITY, None)
    if shown is None:
        return
    warmth = found.get("temperature_c")
    salinity = round(salinity_of_gravity(shown.value, warmth.value if warmth else 25.0), 1)
    found["salinity_g_kg"] = _Figure("salinity_g_kg", salinity, salinity, salinity, off=False)


def _check_gravity(typed: str) -> None:
    """Raise CannotAnswer for a salinity that was read off a hydrometer."""
    if GRAVITY_TYPED.fullmatch(typed):
        raise CannotAnswer(
            "text",
            f"salinity {typed} looks like a specific gravity.",
            f"Write it as sg {typed}; sal is in g/kg, 35 in the sea.",
        )


def _check_range(key: str, value: float, typed: str) -> None:
    low, high, unit = _RANGE[key]
    if not low <= value <= high:
        where = f"{low:g} to {high:g} {unit}"
        if unit == "°C":
            where = f"{formatting.celsius.bare(low)} to {formatting.celsius(high)}"
        raise CannotAnswer("text", f"{_short(key)} {typed} is outside {where}.", "Check the figure.")


def _short(key: str) -> str:
    """A figure's name without its unit."""
    return BY_FIELD[key].key if key in BY_FIELD else key


def _in_words(figure: _Figure) -> str:
    if figure.key == "temperature_c":
        return formatting.celsius(figure.value, ".3g")
    value = f"{figure.low:g} to {figure.high:g}" if figure.low < figure.high else f"{figure.value:g}"
    one = BY_FIELD[figure.key]
    unit = "" if one.unit == "pH" else f" {one.unit}"
    return f"{one.word} {value}{unit}" + (" or more" if figure.off else "")
