"""Arithmetic of a working line: evaluates a formula and writes it with its figures put in.

One text is both what is shown and what is reckoned, so the two cannot part.
"""

import ast
import math
import operator
import re
from collections.abc import Callable, Mapping
from functools import lru_cache

_SIGNS = {"×": "*", "−": "-", "^": "**", "√": "sqrt", "½": "0.5", "⌈": "ceil(", "⌉": ")"}
_FUNCTIONS: dict[str, Callable[..., float]] = {"max": max, "min": min, "sqrt": math.sqrt, "ceil": math.ceil}
_OPERATORS: dict[type[ast.AST], Callable[..., float]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
    ast.USub: operator.neg,
}
_NUMERAL = re.compile(r"\d+(?:\.(\d+))?")


def evaluate(formula: str, figures: Mapping[str, float]) -> float:
    """Value of `formula` with `figures` substituted for their names; unitless, the caller knows the unit.

    formula: numerals, names of figures, + − × / ^ √ ½ ⌈ ⌉, brackets, max and min. A figure may be named by a numeral
    ("7.14") that stands for its exact value; it must round to it. ValueError for a name that is not given, a figure
    that does not occur, or a numeral that is not its figure's.
    """
    for name, value in figures.items():
        if numeral := _NUMERAL.fullmatch(name):
            step = 10.0 ** -len(numeral[1] or "")
            if abs(float(name) - value) > 0.51 * step:
                raise ValueError(f"{formula!r} shows {name} where {value!r} is reckoned with")
    return _value(_tree(formula, tuple(figures)), list(figures.values()))


def substitute(formula: str, figures: Mapping[str, float]) -> str:
    """`formula` with the names of `figures` replaced by their values, to four significant digits; unitless."""
    return _names(tuple(figures)).sub(lambda found: _written(figures[found[0]], found[0]), formula)


def _written(value: float, name: str) -> str:
    if _NUMERAL.fullmatch(name):
        return name
    return f"{value:.0f}" if abs(value) >= 1000 else f"{value:.4g}"


@lru_cache(maxsize=512)
def _names(names: tuple[str, ...]) -> re.Pattern[str]:
    if not names:
        return re.compile(r"(?!)")
    longest_first = sorted(names, key=len, reverse=True)
    return re.compile(r"(?<![\w.])(?:" + "|".join(re.escape(name) for name in longest_first) + r")(?![\w.])")


@lru_cache(maxsize=512)
def _tree(formula: str, names: tuple[str, ...]) -> ast.expr:
    """The formula as a syntax tree in which figure i is the name _i."""
    found: set[str] = set()

    def numbered(match: re.Match[str]) -> str:
        found.add(match[0])
        return f"_{names.index(match[0])}"

    text = _names(names).sub(numbered, formula)
    for sign, plain in _SIGNS.items():
        text = text.replace(sign, plain)
    if unused := set(names) - found:
        raise ValueError(f"{formula!r} does not say where {', '.join(sorted(unused))} goes")
    try:
        return ast.parse(text, mode="eval").body
    except SyntaxError as problem:
        raise ValueError(f"{formula!r} cannot be reckoned: {problem.msg}") from problem


def _value(node: ast.expr, figures: list[float]) -> float:
    match node:
        case ast.BinOp(left, op, right):
            return _OPERATORS[type(op)](_value(left, figures), _value(right, figures))
        case ast.UnaryOp(op, operand):
            return _OPERATORS[type(op)](_value(operand, figures))
        case ast.Call(ast.Name(called), args) if called in _FUNCTIONS:
            return _FUNCTIONS[called](*(_value(arg, figures) for arg in args))
        case ast.Constant(value) if isinstance(value, int | float):
            return value
        case ast.Name(name) if name.startswith("_"):
            return figures[int(name[1:])]
        case _:
            raise ValueError(f"{ast.unparse(node)!r} is no figure given")
