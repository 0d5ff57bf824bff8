"""Conversion of a formula to the MathML that SBML requires; covers what the cycle model needs."""

from xml.etree import ElementTree as ET

import pytest

from reedmace.formats.mathml import MATHML, TIME, math_of


def value_of(node: ET.Element, names: dict[str, float]):
    """What a MathML tree means, worked out apart from what wrote it."""
    tag, kids = node.tag.removeprefix(f"{{{MATHML}}}"), list(node)
    if tag == "math":
        return value_of(kids[0], names)
    if tag == "cn":
        if node.get("type") == "e-notation":
            return float(node.text) * 10 ** int(kids[0].tail)
        return float(node.text)
    if tag == "ci":
        return names[node.text]
    if tag == "csymbol":
        assert node.get("definitionURL") == TIME
        return names["time"]
    if tag == "piecewise":
        then, condition = list(kids[0])
        return value_of(then if value_of(condition, names) else next(iter(kids[1])), names)
    operator, *parts = kids
    a, *rest = (value_of(p, names) for p in parts)
    b = rest[0] if rest else None
    return {
        "plus": lambda: a + b, "minus": lambda: -a if b is None else a - b, "times": lambda: a * b,
        "divide": lambda: a / b, "power": lambda: a**b, "gt": lambda: a > b, "geq": lambda: a >= b,
        "lt": lambda: a < b, "leq": lambda: a <= b,
    }[operator.tag.removeprefix(f"{{{MATHML}}}")]()  # fmt: skip


@pytest.mark.parametrize(
    "formula",
    [
        "a + b * 2 - 3", "-a / (b + 0.5)", "1 / (1 + (a * 5.62e6) ** 3 + (6.3e-10 / b) ** 2)", "max(a - b, 0.1)",
        "if_(a < b, a, b ** 2)", "time * a", "a * (1 - b / 14) - 0.04 * 1.08",
    ],
)  # fmt: skip
@pytest.mark.parametrize("names", [{"a": 1.5, "b": 4.0, "time": 3.0}, {"a": 7.0, "b": 0.3, "time": 0.0}])
def test_a_formula_means_the_same_in_mathml(formula: str, names: dict[str, float]) -> None:
    python = {**names, "max": max, "if_": lambda condition, then, otherwise: then if condition else otherwise}
    assert value_of(math_of(formula), names) == pytest.approx(eval(formula, {}, python))  # noqa: S307 - our own text


@pytest.mark.parametrize("formula", ["f(a)", "a if b else c", "'a'", "a < b < c", "[a]", "a.b", "~a"])
def test_what_sbml_cannot_carry_is_refused(formula: str) -> None:
    with pytest.raises(ValueError, match="not a formula"):
        math_of(formula)
