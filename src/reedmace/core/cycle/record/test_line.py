"""Parser for one line of test results as people jot it: "a 0.5 n 1 no3 20 ph 7.4 26C"."""

import re
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import PH, Answer, Celsius, Question, computation, number
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting
from reedmace.core.quantity.parsing import ask_thousands

Ppm = Annotated[float, number("ppm", 0, 2000, "As typed, on the kit's own basis")]
_KEYS = {
    "a": "ammonia_ppm",
    "am": "ammonia_ppm",
    "ammonia": "ammonia_ppm",
    "nh3": "ammonia_ppm",
    "nh4": "ammonia_ppm",
    "tan": "ammonia_ppm",
    "n": "nitrite_ppm",
    "no2": "nitrite_ppm",
    "nitrite": "nitrite_ppm",
    "no3": "nitrate_ppm",
    "nitrate": "nitrate_ppm",
    "po4": "phosphate_ppm",
    "phosphate": "phosphate_ppm",
    "ph": "ph",
    "kh": "kh_dkh",
    "t": "temperature_c",
    "temp": "temperature_c",
    "s": "salinity_g_kg",
    "sal": "salinity_g_kg",
    "salinity": "salinity_g_kg",
}
_RANGE = {
    "ammonia_ppm": (0, 100, "ppm"),
    "nitrite_ppm": (0, 100, "ppm"),
    "nitrate_ppm": (0, 1000, "ppm"),
    "phosphate_ppm": (0, 100, "ppm"),
    "ph": (4, 10, "pH"),
    "kh_dkh": (0, 40, "dKH"),
    "temperature_c": (0.5, 40, "°C"),
    "salinity_g_kg": (0, 45, "g/kg"),
}


class ReadTestLineQuestion(Question):
    """The line as typed."""

    text: Annotated[str, Field(min_length=1, max_length=200)]
    degrees: Annotated[Literal["°C", "°F"], Field(description="Of a temperature typed without its unit")] = "°C"


class ReadTestLineAnswer(Answer):
    """Each figure found; the rest null. `off_scale` names those typed with a plus."""

    ammonia_ppm: Ppm | None = None
    nitrite_ppm: Ppm | None = None
    nitrate_ppm: Ppm | None = None
    phosphate_ppm: Annotated[float, number("ppm", 0, 100, "As PO4")] | None = None
    ph: PH | None = None
    kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    temperature_c: Celsius | None = None
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] | None = None
    off_scale: list[Literal["ammonia", "nitrite", "nitrate"]]


def _span(low: float, high: float, unit: str) -> str:
    if unit == "°C":
        return f"{formatting.celsius.bare(low)} to {formatting.celsius(high)}"
    return f"{low:g} to {high:g} {unit}"


@computation("read-test-line", "What a jotted test line means")
def read_test_line(question: ReadTestLineQuestion) -> ReadTestLineAnswer:
    """The figures in a jotted line.

    question: pairs of a name (a, n, no3, po4, ph, kh, t) and a figure; "5+" is off the scale; "26C" or "79F" needs no
    name. Raises CannotAnswer naming the piece that was not understood, a figure out of range, or one given twice.
    """
    found: dict[str, float] = {}
    off: list[str] = []
    ask_thousands(question.text)
    # A comma between digits is a decimal mark; any other separates two tests.
    rest = re.sub(r"(?<=\d),(?=\d)", ".", question.text.lower()).replace(",", " ").replace("=", " ").replace(":", " ")
    token = re.compile(
        r"\s*(?:(no2|no3|nh3|nh4|po4|[a-z]+)\s*)?(\d+(?:\.\d+)?|\.\d+)\s*(\+)?\s*(°?\s*[cf]\b)?", re.IGNORECASE
    )
    position = 0
    while position < len(rest.rstrip()):
        match = token.match(rest, position)
        piece = rest[position:].strip()[:20]
        if not match or match.end() == position:
            raise CannotAnswer("text", f'"{piece}" is not understood.', "Write it as: a 0.5 n 1 no3 20 ph 7.4 kh 4 26C")
        name, figure, plus, degrees = match.groups()
        key = _KEYS.get(name or ("t" if degrees else ""))
        if key is None:
            raise CannotAnswer("text", f'"{piece}" has no name Reedmace knows.', "Names: a, n, no3, po4, ph, kh, t.")
        value = float(figure)
        if key == "temperature_c" and (("f" in degrees) if degrees else question.degrees == "°F"):
            value = (value - 32) / 1.8
        low, high, unit = _RANGE[key]
        if not low <= value <= high:
            raise CannotAnswer(
                "text", f"{key.split('_')[0]} {figure} is outside {_span(low, high, unit)}.", "Check the figure."
            )
        if key in found:
            raise CannotAnswer(
                "text", f"{key.split('_')[0]} is given twice.", "Keep one; n is nitrite, no3 is nitrate."
            )
        found[key] = value
        if plus:
            if not key.endswith("_ppm") or key == "phosphate_ppm":
                raise CannotAnswer("text", f"{key.split('_')[0]} cannot be off a colour scale.", "Leave out the plus.")
            off.append(key.removesuffix("_ppm"))
        position = match.end()
    words = {
        "ammonia_ppm": "ammonia {:g} ppm",
        "nitrite_ppm": "nitrite {:g} ppm",
        "nitrate_ppm": "nitrate {:g} ppm",
        "phosphate_ppm": "phosphate {:g} ppm",
        "ph": "pH {:g}",
        "kh_dkh": "KH {:g} dKH",
        "temperature_c": "{}",
        "salinity_g_kg": "salinity {:g} g/kg",
    }
    if not found:
        raise CannotAnswer("text", "there is no figure in it.", "Write it as: a 0.5 n 1 no3 20 ph 7.4 kh 4 26C")
    verdict = ", ".join(
        words[k].format(formatting.celsius(v, ".3g") if k == "temperature_c" else v)
        + (" or more" if k.removesuffix("_ppm") in off else "")
        for k, v in found.items()
    )
    return ReadTestLineAnswer.model_validate({"verdict": verdict, "working": [], "off_scale": off, **found})
