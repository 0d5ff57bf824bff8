"""The contract of a named computation: a question, an answer, and the working between them."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any, Generic, Self, TypeVar, get_type_hints

from pydantic import BaseModel, ConfigDict, Field, model_validator

from reedmace.core.expression import evaluate, substitute
from reedmace.core.sources import SOURCES


class WorkingLine(BaseModel):
    """One line of a calculation that a person can follow on paper."""

    model_config = ConfigDict(frozen=True, defer_build=True)

    symbol: str
    formula: str
    with_numbers: str = Field(description="The formula with the numbers put in")
    value: float = Field(ge=-1e15, le=1e15, description="In `unit`")
    unit: str
    source: str = Field(description="Key of the source")
    gives: list[str] = Field(default_factory=list, description="Figures of the answer that this line is the working of")


class Question(BaseModel):
    """Base of every input; unknown fields and infinities are rejected."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, defer_build=True)


class Part(BaseModel):
    """Base of the parts of inputs and answers."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, defer_build=True)


class ComputedPart(Part):
    """A part with computed fields. Those that come back with an answer are dropped and computed again."""

    @model_validator(mode="before")
    @classmethod
    def _drop_computed(cls, given: Any) -> Any:
        if not isinstance(given, dict):
            return given
        return {name: value for name, value in given.items() if name not in cls.model_computed_fields}


class Issue(Part):
    """One fault: where, what, and the remedy."""

    where: str = Field(description="The field, part or basket it is about")
    what: str
    remedy: str

    def __str__(self) -> str:
        return f"{self.where}: {self.what} {self.remedy}".strip()


class Answer(BaseModel):
    """Base of every output. `verdict` is a sentence; `working` holds the lines behind the numbers."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, defer_build=True)

    verdict: str
    working: list[WorkingLine]

    @model_validator(mode="after")
    def _say_what_each_line_gives(self) -> Self:
        # A line belongs to the figure with exactly its value, so the two are matched by value.
        figures: dict[float, list[str]] = {}
        for name in type(self).model_fields:
            value = getattr(self, name)
            if isinstance(value, float | int) and not isinstance(value, bool):
                figures.setdefault(float(value), []).append(name)
        self.working = [
            line.model_copy(update={"gives": figures.get(line.value, [])})
            if figures.get(line.value, []) != line.gives
            else line
            for line in self.working
        ]
        return self


class Working:
    """Collects the working lines of one answer. Rejects an unknown source."""

    def __init__(self) -> None:
        self.lines: list[WorkingLine] = []

    def line(self, symbol: str, formula: str, with_numbers: str, value: float, unit: str, source: str) -> float:
        """Append one line and return `value` (in `unit`). KeyError if `source` is unknown."""
        SOURCES[source]
        self.lines.append(
            WorkingLine(
                symbol=symbol, formula=formula, with_numbers=with_numbers, value=float(value), unit=unit, source=source
            )
        )
        return value

    def sum(self, symbol: str, formula: str, figures: dict[str, float], unit: str, source: str) -> float:
        """Evaluate `formula` with `figures`, append the line and return the result, in `unit`.

        The text shown is the sum done: see `core.expression`. KeyError if `source` is unknown.
        """
        return self.line(symbol, formula, substitute(formula, figures), evaluate(formula, figures), unit, source)


Q = TypeVar("Q", bound=Question)
A = TypeVar("A", bound=Answer)


@dataclass(frozen=True)
class Computation(Generic[Q, A]):
    """One named computation: what it answers, its input and output types, and its pure function."""

    name: str
    answers: str
    question: type[Q]
    answer: type[A]
    function: Callable[[Q], A]

    def schema(self) -> dict[str, Any]:
        """Both JSON schemas, with units and ranges."""
        return {
            "name": self.name,
            "answers": self.answers,
            "input": self.question.model_json_schema(),
            "output": self.answer.model_json_schema(mode="serialization"),
        }


REGISTERED: dict[str, Computation[Any, Any]] = {}
"""Registry filled by `computation` as the packages are imported;

read through `core.computations`, which imports them all.
"""


def computation(name: str, answers: str) -> Callable[[Callable[[Q], A]], Callable[[Q], A]]:
    """Register a pure function as a named computation; its signature gives question and answer.

    name: as asked for; answers: what it answers, in a line. ValueError if the name is taken.
    """

    def register(function: Callable[[Q], A]) -> Callable[[Q], A]:
        hints = get_type_hints(function)
        if name in REGISTERED:
            raise ValueError(f"{name} is registered twice")
        REGISTERED[name] = Computation(name, answers, hints["question"], hints["return"], function)
        return function

    return register


def number(unit: str, low: float, high: float, about: str = "") -> Any:
    """A pydantic field for a number in `unit` from `low` to `high`. The range is enforced and published."""
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
    "REGISTERED",
    "Answer",
    "BaseModel",
    "Celsius",
    "Computation",
    "Issue",
    "Litres",
    "Lph",
    "Metres",
    "MgNPerL",
    "Name",
    "NetLitres",
    "Part",
    "Question",
    "Share",
    "UsGallons",
    "Watts",
    "Working",
    "WorkingLine",
    "computation",
    "model_validator",
    "number",
    "whole",
]
