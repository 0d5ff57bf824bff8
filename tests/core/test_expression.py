"""A working's formula is the sum that was done, and it cannot show another figure than it reckons with."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.contract import Working
from reedmace.core.expression import evaluate, substitute

FIGURE = st.floats(0.001, 9999)


@given(FIGURE, FIGURE, FIGURE)
def test_it_comes_to_what_the_same_sum_in_python_comes_to(a: float, b: float, c: float) -> None:
    figures = {"net litres": a, "L": b, "share of L": c}
    assert evaluate("max(net litres − L, 0) × share of L / 2", figures) == max(a - b, 0) * c / 2
    assert evaluate("√(L^2 + net litres × share of L)", figures) == math.sqrt(b**2 + a * c)
    assert evaluate("⌈L / share of L⌉ + ½^(net litres / 9999)", figures) == math.ceil(b / c) + 0.5 ** (a / 9999)


@given(FIGURE, FIGURE)
def test_what_is_shown_comes_to_what_was_reckoned(a: float, b: float) -> None:
    figures = {"P": a, "P next": b}
    shown = substitute("(P + P next) × 1.2", figures)
    assert evaluate(shown, {}) == pytest.approx(evaluate("(P + P next) × 1.2", figures), rel=6e-4)


@pytest.mark.parametrize(
    ("formula", "figures", "says"),
    [
        ("7.14 × N", {"7.14": 7.29, "N": 1.0}, "shows 7.14 where 7.29"),
        ("2 × N", {"N": 1.0, "litres": 3.0}, "where litres goes"),
        ("N × litres", {"N": 1.0}, "no figure given"),
        ("N litres", {"N": 1.0}, "cannot be reckoned"),
        ("__import__('os')", {}, "no figure given"),
    ],
    ids=["a constant that is another", "a figure unused", "a name unknown", "no sign between", "code"],
)
def test_a_text_that_is_not_the_sum_is_refused(formula: str, figures: dict[str, float], says: str) -> None:
    with pytest.raises((ValueError, KeyError), match=says):
        evaluate(formula, figures)


def test_a_line_is_written_once() -> None:
    working = Working()
    value = working.sum("ΔKH", "7.14 × N / 17.85", {"7.14": 7.1397, "N": 2.0, "17.85": 17.848}, "dKH", "epa1993")
    line = working.lines[0]
    assert line.value == value == 7.1397 * 2 / 17.848
    assert line.with_numbers == "7.14 × 2 / 17.85"
