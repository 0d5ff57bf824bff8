"""The contract of a computation: workings, ranges, computed parts."""

from typing import Annotated

import pytest
from pydantic import ValidationError, computed_field

from reedmace.core.computations import COMPUTATIONS
from reedmace.core.contract import Answer, ComputedPart, Issue, Question, Working, computation, number, whole


class Tub(Question):
    """A test's question."""

    litres: Annotated[float, number("L", 1, 100, "Held")]
    count: Annotated[int, whole(0, 5)] = 1


def test_ranges_are_enforced_and_published_with_their_unit() -> None:
    for wrong in ({"litres": 0.5}, {"litres": 101}, {"litres": float("inf")}, {"litres": 5, "count": 6}, {"litre": 5}):
        with pytest.raises(ValidationError):
            Tub.model_validate(wrong)
    schema = Tub.model_json_schema()["properties"]
    assert schema["litres"] | {"unit": "L", "minimum": 1, "maximum": 100, "description": "Held"} == schema["litres"]
    assert schema["count"]["unit"] == "count"


def test_a_line_is_worked_out_from_its_formula_and_keeps_its_numbers() -> None:
    working = Working()
    assert working.sum("A", "a × (b + 2)", {"a": 3.0, "b": 4.0}, "cm²", "geometry") == 18
    (line,) = working.lines
    assert (line.symbol, line.formula, line.value, line.unit, line.source) == (
        "A",
        "a × (b + 2)",
        18,
        "cm²",
        "geometry",
    )
    assert "3" in line.with_numbers
    assert "4" in line.with_numbers


def test_a_line_without_a_known_source_is_refused() -> None:
    with pytest.raises((KeyError, ValueError)):
        Working().line("A", "a", "1", 1.0, "cm", "somebody said so")


class Doubled(ComputedPart):
    """A part with a computed figure."""

    one: int

    @computed_field  # type: ignore[prop-decorator]
    @property
    def two(self) -> int:
        """Twice it."""
        return 2 * self.one


def test_a_computed_field_that_comes_back_is_worked_out_again() -> None:
    assert Doubled.model_validate({"one": 3, "two": 99}).model_dump() == {"one": 3, "two": 6}


def test_an_issue_reads_as_a_sentence() -> None:
    assert str(Issue(where="litres", what="is too little.", remedy="Give more.")) == "litres: is too little. Give more."


def test_a_name_is_registered_once() -> None:
    def twin(question: Tub) -> Answer:
        return Answer(verdict="", working=[])

    with pytest.raises(ValueError, match="registered twice"):
        computation(next(iter(COMPUTATIONS)), "again")(twin)
