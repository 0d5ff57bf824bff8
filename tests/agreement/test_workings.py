"""Every line of a working that is plain arithmetic comes to the value beside it, in every view of generated tanks."""

import math
import re
from collections.abc import Iterator

import pytest
from pydantic import BaseModel

from reedmace.core.computations import compute
from reedmace.core.contract import Answer, WorkingLine
from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.stages import filter_view, fit_view, keep_view, shopping_list_view, stock_view, tank_view
from tests.core.test_registry import EXAMPLES
from tests.support.tanks import AT, bodies_of, state_of

SIGNS = {"×": "*", "−": "-", "·": "*", "^": "**", "√": "sqrt", "½": "0.5", "²": "**2", "³": "**3"}
PLAIN = re.compile(r"(?:\d+(?:\.\d+)?(?:e[-+]?\d+)?|sqrt|min|max|[-+*/(),\s])+")
FIGURE = re.compile(r"\d+(?:\.\d+)?(?:e[-+]?\d+)?")


def lines_in(thing: object) -> Iterator[WorkingLine]:
    """Every line of a working anywhere in an answer or a view."""
    if isinstance(thing, WorkingLine):
        yield thing
    elif isinstance(thing, BaseModel):
        for name in type(thing).model_fields:
            yield from lines_in(getattr(thing, name))
    elif isinstance(thing, list | tuple):
        for one in thing:
            yield from lines_in(one)
    elif isinstance(thing, dict):
        for one in thing.values():
            yield from lines_in(one)


def reckoned(put_in: str) -> tuple[float, float] | None:
    """Lowest and highest value of the figures within their rounding; None where words stand between them."""
    for sign, plain in SIGNS.items():
        put_in = put_in.replace(sign, plain)
    if not PLAIN.fullmatch(put_in) or not re.search(r"\d\s*[-+*/]", put_in) or re.search(r"[\d)]\s*\(|\d\s+\d", put_in):
        return None
    figures = FIGURE.findall(put_in)

    def worked(shift: list[float]) -> float:
        moved = iter(shift)
        text = FIGURE.sub(lambda m: f"({float(m[0]) + next(moved)!r})", put_in)
        return float(eval(text, {"__builtins__": {}}, {"sqrt": math.sqrt, "min": min, "max": max}))  # noqa: S307

    def rounding(figure: str) -> float:
        # Whole figures are exact or rounded to the unit; others to their last place.
        digits = figure.split("e")[0].partition(".")[2]
        return 0.5 * 10.0 ** -len(digits)

    middle = worked([0.0] * len(figures))
    spread = 0.0
    for i, figure in enumerate(figures):
        step = [0.0] * len(figures)
        step[i] = rounding(figure)
        up = worked(step)
        step[i] = -step[i]
        spread += max(abs(up - middle), abs(worked(step) - middle))
    return middle - spread, middle + spread


def views(seed: int) -> list[object]:
    state = state_of(*bodies_of(seed))
    return [
        tank_view(state),
        stock_view(state),
        filter_view(state),
        fit_view(state, AT),
        keep_view(state, AT),
        shopping_list_view(state),
    ]


def at_odds(lines: list[WorkingLine]) -> list[str]:
    """Those whose figures do not come to their value."""
    wrong = []
    for line in lines:
        low, high = reckoned(line.with_numbers) or (line.value, line.value)
        room = 0.002 * abs(line.value) + 1e-9
        if not low - room <= line.value <= high + room:
            wrong.append(f"{line.symbol} = {line.formula} = {line.with_numbers} = {line.value:g} {line.unit}")
    return wrong


@pytest.mark.parametrize("seed", range(0, 66, 3))
def test_a_line_of_plain_arithmetic_comes_to_its_value(seed: int) -> None:
    lines = list(lines_in(views(seed)))
    assert at_odds(lines) == []
    assert sum(reckoned(line.with_numbers) is not None for line in lines) > 20


@pytest.mark.parametrize("name", EXAMPLES)
def test_a_computations_own_lines_come_to_their_values(name: str) -> None:
    assert at_odds(list(lines_in(compute(name, EXAMPLES[name])))) == []


@pytest.mark.parametrize("seed", [0, 1, 2])
def test_a_figure_opens_the_line_that_came_to_it(seed: int) -> None:
    state = state_of(*bodies_of(seed))
    shown: list[tuple[Answer, tuple[str, ...]]] = [
        (tank_view(state).volume, ("net_l", "gross_l", "water_depth_cm", "filled_kg", "floor_kpa")),
        (stock_view(state).load, ("ammonia_mg_n_day", "ammonia_mg_n_l_day", "feed_g_day", "mass_g")),
        (keep_view(state, AT).cost, ("kwh_year", "money_year")),
        *((one.flow, ("delivered_lph",)) for one in installed_filters(state)),
    ]
    for answer, figures in shown:
        for figure in figures:
            own = [line for line in answer.working if figure in line.gives]
            assert own, f"{type(answer).__name__}.{figure} opens no line of its own"
            assert all(line.value == getattr(answer, figure) for line in own)
