"""The Stock stage: whether these animals fit."""

from typing import Any

import pytest

from reedmace.logbook.replay.current_plans import DEFAULT_TANK
from reedmace.logbook.stages.stock import stock_view
from tests.support.fitting import state_of

TANK = (9, {"kind": "tank-plan", "tank": DEFAULT_TANK.model_dump()})


def view(*animals: tuple[str, int], length_cm: float | None = None) -> Any:
    stock = [{"species_id": name, "count": n, "length_cm": length_cm} for name, n in animals]
    return stock_view(state_of(TANK, (8, {"kind": "stock-plan", "animals": stock})))


@pytest.mark.parametrize(
    ("animals", "fits", "words"),
    [
        ((), None, "Who will live in it?"),
        ((("neon-tetra", 8),), True, "They fit this tank"),
        ((("neon-tetra", 8), ("ember-tetra", 8)), True, "These animals fit together"),
        ((("neon-tetra", 8), ("common-goldfish", 2)), False, "Not all of this fits"),
        ((("guppy", 300),), False, "Too many for"),
    ],
)
def test_the_verdict_says_whether_they_fit(animals: tuple, fits: bool | None, words: str) -> None:
    found = view(*animals)
    assert (found.fits, found.verdict.startswith(words)) == (fits, True), found.verdict


def test_the_filter_is_asked_for_by_the_same_load() -> None:
    few, many = view(("guppy", 5)), view(("guppy", 40))
    assert many.load.ammonia_mg_n_l_day > few.load.ammonia_mg_n_l_day
    low = [next(r.low_lph for r in v.requirement.sizing_rules if r.rule == "delivered") for v in (few, many)]
    assert low[1] >= low[0] > 0
    assert few.volume == many.volume
