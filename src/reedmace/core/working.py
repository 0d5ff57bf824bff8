"""The contract every named computation keeps: a question, an answer, and the working between them."""

from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, model_validator

from reedmace.core.sources import SOURCES


class ReedmaceError(Exception):
    """Base of every error the core raises on purpose. The text is built from the fields and fit to be shown."""


class CannotAnswer(ReedmaceError, ValueError):
    """The question is well formed but makes no sense together (where: field name; what; remedy)."""

    def __init__(self, where: str, what: str, remedy: str) -> None:
        self.where, self.what, self.remedy = where, what, remedy
        super().__init__(f"{where}: {what} {remedy}")


class WorkingLine(BaseModel):
    """One line a person can follow on paper."""

    model_config = ConfigDict(frozen=True)

    symbol: str
    formula: str
    put_in: str = Field(description="The formula with the numbers put in")
    value: float = Field(ge=-1e15, le=1e15, description="In `unit`")
    unit: str
    source: str = Field(description="Key of the source")


class Question(BaseModel):
    """Base of every input: unknown fields and infinities are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Part(BaseModel):
    """Base of the parts an input or answer is made of."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Answer(BaseModel):
    """Base of every output. `verdict` is a sentence; `working` the lines behind the numbers."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    verdict: str
    working: list[WorkingLine]


class Working:
    """Collects the lines of one answer. Refuses a source nobody has written down."""

    def __init__(self) -> None:
        self.lines: list[WorkingLine] = []

    def line(self, symbol: str, formula: str, put_in: str, value: float, unit: str, source: str) -> float:
        """Write one line and hand back `value` (in `unit`), so sums read top down. KeyError if `source` is unknown."""
        SOURCES[source]
        self.lines.append(
            WorkingLine(symbol=symbol, formula=formula, put_in=put_in, value=float(value), unit=unit, source=source)
        )
        return value


def number(unit: str, low: float, high: float, about: str = "") -> Any:
    """A pydantic field for a figure in `unit` from `low` to `high`. The range is enforced and published."""
    return Field(ge=low, le=high, description=about or None, json_schema_extra={"unit": unit})


def whole(low: int, high: int, about: str = "") -> Any:
    """A pydantic field for a count from `low` to `high`."""
    return Field(ge=low, le=high, description=about or None, json_schema_extra={"unit": "count"})


Litres = Annotated[float, number("L", 0, 1e7)]
NetLitres = Annotated[float, number("L", 0.5, 1e6, "Net water volume, what is dosed")]
UsGallons = Annotated[float, number("US gal", 0, 1e7)]
Lph = Annotated[float, number("L/h", 0, 1e7)]
Metres = Annotated[float, number("m", -1000, 1000)]
Share = Annotated[float, number("share", 0, 1)]
Watts = Annotated[float, number("W", 0, 5000)]
MgNPerL = Annotated[float, number("mg N/L", 0, 1e5)]
Celsius = Annotated[float, number("°C", 0.5, 40)]
PH = Annotated[float, number("pH", 4, 10)]
Name = Annotated[str, Field(min_length=1, max_length=80)]

__all__ = [
    "PH",
    "Answer",
    "BaseModel",
    "CannotAnswer",
    "Celsius",
    "Litres",
    "Lph",
    "Metres",
    "MgNPerL",
    "Name",
    "NetLitres",
    "Part",
    "Question",
    "ReedmaceError",
    "Share",
    "UsGallons",
    "Watts",
    "Working",
    "WorkingLine",
    "model_validator",
    "number",
    "whole",
]
