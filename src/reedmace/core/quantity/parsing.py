r"""Parser for quantities as people type them: "20 gal", "4 ft", "4' 2\"", "78F", "185 gph"."""

import re
from functools import lru_cache
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Question, Working, computation, number
from reedmace.core.errors import CannotAnswer

_HOME: dict[str, tuple[str, str]] = {
    "length": ("cm", "cm"),
    "volume": ("L", "L"),
    "flow": ("L/hour", "L/h"),
    "mass": ("kg", "kg"),
    "temperature": ("degC", "°C"),
    "hardness": ("dKH", "dKH"),
    "number": ("dimensionless", ""),
}
_EXAMPLE = {
    "length": "60 cm, 24 in, 4 ft or 4' 2\"",
    "volume": "75 L, 20 gal or 16 imp gal",
    "flow": "700 L/h or 185 gph",
    "mass": "2 kg, 500 g or 4 lb",
    "temperature": "25 °C or 77 F",
    "hardness": "4 dKH or 70 mg/L",
    "number": "12, 0.5 or 0,5",
}
if TYPE_CHECKING:
    import pint

# Spoken and box-label spellings mapped to pint's names. Order matters: longer first.
_SPELLINGS = (
    (r"(?:imperial|imp\.?|uk)\s*gal(?:lon)?s?\b", "imperial_gallon"),
    (r"(?:us\.?\s*)?gal(?:lon)?s?\s*(?:/|per\s*)\s*h(?:ou)?r?\b", "gallon/hour"),
    (r"\bgph\b", "gallon/hour"),
    (r"\blph\b", "L/hour"),
    (r"\b(?:us\.?\s*)gal(?:lon)?s?\b", "gallon"),
    (r"\bgals?\b", "gallon"),
    (r"\b(?:litres?|liters?|l)\b", "L"),
    (r"/\s*h(?:ou)?r?\b", "/hour"),
    (r"\binches\b|\binch\b|″|\"", " inch "),
    (r"\bfeet\b|\bfoot\b|′|'", " foot "),
    (r"°\s*c\b|\bc\b|\bcelsius\b", "degC"),
    (r"°\s*f\b|\bf\b|\bfahrenheit\b", "degF"),
    (r"°\s*d?kh\b|\bdkh\b|\bkh\b", "dKH"),
    (r"\bppm\b", "mg/L"),
)
_NUMBER = r"(\d+(?:[.,]\d+)?|[.,]\d+)"


class ReadQuantityQuestion(Question):
    """Text as typed, and what kind of figure is expected."""

    text: Annotated[str, Field(min_length=1, max_length=40)]
    kind: Literal["length", "volume", "flow", "mass", "temperature", "hardness", "number"]
    unit: Annotated[
        str | None, Field(max_length=12, description="Of a figure typed without one; the home unit if not given")
    ] = None


class ReadQuantityAnswer(Answer):
    """The figure in Reedmace's home unit for its kind (`unit`)."""

    value: Annotated[float, number("see unit", -1e9, 1e9)]
    unit: str


@lru_cache(maxsize=1)
def _registry() -> "pint.UnitRegistry[float]":
    # Imported on first use: it takes a third of a second, and most computations parse nothing.
    import pint

    registry: pint.UnitRegistry[float] = pint.UnitRegistry(autoconvert_offset_to_baseunit=True)
    registry.define("dKH = 17.85 mg/L")
    return registry


def _to_home(amount: float, unit_text: str, kind: str) -> float:
    """Convert to the home unit. Raises ValueError where there is no such unit, or it measures something else."""
    registry = _registry()
    from pint.errors import PintError

    home, _ = _HOME[kind]
    try:
        return float(registry.Quantity(amount, registry.parse_units(unit_text)).to(home).magnitude)
    except PintError as error:
        raise ValueError(unit_text) from error


def _spelled(typed: str) -> str:
    text = re.sub(r"(?<=\d)[ \u00a0\u202f'’](?=\d{3}(?!\d))", "", typed.strip().lower())
    # Two groups, or a group and a decimal mark, are unambiguous.
    if re.search(r"\d,\d{3}(,\d{3})+(?!\d)|\d,\d{3}\.\d", text):
        text = text.replace(",", "")
    elif re.search(r"\d\.\d{3}(\.\d{3})+(?!\d)|\d\.\d{3},\d", text):
        text = text.replace(".", "").replace(",", ".")
    text = re.sub(r"(?<=\d)(?=[a-z])", " ", text)
    for pattern, replacement in _SPELLINGS:
        text = re.sub(pattern, replacement, text, flags=re.IGNORECASE)
    return text.strip()


def ask_thousands(typed: str) -> None:
    """Raise CannotAnswer for an ambiguous separator: "1,000 gal" is asked, "0,25" and "12,5" are plain.

    typed: the text. Raises CannotAnswer with both readings.
    """
    found = re.search(r"(?<![\d.,])([1-9]\d{0,2})([.,])(\d{3})(?![\d.,])", typed)
    if found is None or (found[2] == "." and found[3] != "000"):
        return
    thousands, small = found[1] + found[3], f"{found[1]}.{found[3]}".rstrip("0").rstrip(".")
    raise CannotAnswer("text", f'"{found[0]}" may be {thousands} or {small}.', f"Type {thousands} or {small} instead.")


@computation("read-quantity", "What a typed figure means")
def read_quantity(question: ReadQuantityQuestion) -> ReadQuantityAnswer:
    """The typed figure in the home unit of its kind.

    question: text (a number, or numbers each with a unit, such as "4 ft 2 in"), its kind, and the unit of a bare
    number. Raises CannotAnswer with an example of what would be understood. Source: pint's unit definitions, themselves
    exact (NIST SP 811); dKH 17.85 mg/L CaCO3.
    """
    home, shown = _HOME[question.kind]
    ask_thousands(question.text)
    text, plain = _spelled(question.text), _spelled(question.unit or "")
    pairs = re.findall(rf"(-?{_NUMBER})\s*([A-Za-z_][A-Za-z_/]*)?", text)
    refusal = CannotAnswer(
        "text", f'"{question.text}" is not a {question.kind}.', f"Type for example {_EXAMPLE[question.kind]}."
    )
    leftover = re.sub(rf"-?{_NUMBER}\s*([A-Za-z_][A-Za-z_/]*)?", "", text).strip()
    if not pairs or leftover or len(pairs) > 2 or (len(pairs) == 2 and question.kind != "length"):
        raise refusal
    total = 0.0
    for amount_text, _, unit_text in pairs:
        amount = float(amount_text.replace(",", "."))
        if not unit_text and len(pairs) == 2:
            raise refusal
        try:
            total += _to_home(amount, unit_text or plain or home, question.kind)
        except (AttributeError, ValueError) as error:
            raise refusal from error
    if abs(total) > 1e9:
        raise refusal
    if total < 0 and question.kind in ("volume", "flow", "mass"):
        raise CannotAnswer("text", f"a {question.kind} is not below 0.", f"Type for example {_EXAMPLE[question.kind]}.")
    working = Working()
    working.line("x", "typed figure → home unit", f"{question.text.strip()} → {total:.6g}", total, shown, "si")
    return ReadQuantityAnswer(verdict=f"{total:.6g} {shown}", working=working.lines, value=total, unit=shown)
