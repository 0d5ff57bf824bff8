"""A number that two rules compare with is one named constant, or says here why it is not."""

import ast
from collections import defaultdict
from pathlib import Path

import reedmace.core

CORE = Path(reedmace.core.__file__).parent
COUNTS = {0.0, 1.0, 2.0, 3.0, 4.0, 100.0}
"""Counts of things, whole shares and percent."""
SETTLED = {
    1e-9: "rounding of floating-point numbers",
    1e-6: "rounding of floating-point numbers",
    1e-5: "where two root searches stop",
    0.02: "a kit's first step of phosphate, an even slope, a grain of soda, a whole count: four unlike units",
    0.05: "a slope, a chance, a portion of soda, a share of flow: four unlike units",
    0.2: "a step of pH; spread of a probe",
    0.3: "a trace of nitrite or ammonia; KH; part of a day",
    0.5: "halves",
    0.6: "a part of a score; a trace of nitrite",
    1.5: "days, hours and degrees, each rounded to one",
    5.0: "points of confidence; days of a log",
    7.0: "a week; pH; standard deviations",
    10.0: "grams and litres that are weighed or measured whole",
    48.0: "two days in hours: from there words count in days",
    60.0: "days of a new tank; minutes out of the water",
    1e9: "the largest number that is a number of the job",
}


def compared() -> dict[float, set[str]]:
    """Modules of the core by the bare number they compare with."""
    found: dict[float, set[str]] = defaultdict(set)
    for path in CORE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if not isinstance(node, ast.Compare):
                continue
            for side in (node.left, *node.comparators):
                number = side.operand if isinstance(side, ast.UnaryOp) else side
                if isinstance(number, ast.Constant) and isinstance(number.value, int | float):
                    if isinstance(number.value, bool):
                        continue
                    found[float(number.value)].add(str(path.relative_to(CORE)))
    return found


def test_no_number_stands_in_two_rules() -> None:
    twice = {n: sorted(where) for n, where in compared().items() if len(where) > 1 and n not in COUNTS | SETTLED.keys()}
    assert twice == {}


def test_what_is_settled_still_stands_twice() -> None:
    found = compared()
    assert [n for n in SETTLED if len(found[n]) < 2] == []
