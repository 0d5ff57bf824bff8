"""The six stages in a few words, and what comes next."""

from datetime import timedelta
from typing import Any

import pytest

from reedmace.logbook.replay.current_plans import DEFAULT_TANK
from reedmace.logbook.stages.stage_rows import DISAGREE, next_step, rows_or_fault, stage_rows
from tests.support.fitting import BY_ID, NOW, state_of

TANK = (9, {"kind": "tank-plan", "tank": DEFAULT_TANK.model_dump()})
STOCK = (8, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 8}]})
FILTER = (7, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BY_ID["burreed-20"].model_dump()}]})


def rows(*entries: Any) -> dict[str, tuple[str, str]]:
    return {r.stage: (r.state, r.words) for r in stage_rows(state_of(*entries), NOW)}


def test_an_empty_tank_is_open_all_the_way() -> None:
    assert {state for state, _ in rows().values()} == {"open"}
    assert rows()["keep"][1] == "logbook empty"


@pytest.mark.parametrize(
    ("entries", "step", "left"),
    [
        ((), "measure the tank", 4),
        ((TANK,), "choose the animals", 3),
        ((TANK, STOCK), "choose its filter", 2),
        ((TANK, STOCK, FILTER), "fit it", 1),
    ],
)
def test_the_first_that_is_open_comes_next(entries: tuple, step: str, left: int) -> None:
    found = next_step(stage_rows(state_of(*entries), NOW))
    assert found is not None
    assert (found.words, len(found.left)) == (step, left)


def test_steps_are_counted_and_what_ran_before_is_fitted() -> None:
    done, words = rows(TANK, FILTER)["fit"]
    assert (done, words.startswith("0 of ")) == ("open", True)
    ticked = (6, {"kind": "step-done", "step_id": "sponge-rinse", "filter_key": "f1"})
    assert rows(TANK, FILTER, ticked)["fit"][0] == "begun"
    ran = (8, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=300)).isoformat()})
    assert rows(TANK, ran, FILTER)["fit"] == ("done", "runs already")


def test_stocked_is_told_in_days_and_later_in_months() -> None:
    came = {"kind": "stocking", "species_id": "guppy", "count": 8}
    assert rows(TANK, STOCK, FILTER, (5, came))["cycle"] == ("done", "stocked day 5")
    assert rows(TANK, STOCK, (95, came))["cycle"][1] == "stocked 3 months"


def test_figures_that_do_not_agree_close_no_other_tank() -> None:
    impossible = (9, {"kind": "tank-plan", "tank": DEFAULT_TANK.model_dump() | {"counted_l": 900}})
    found, fault = rows_or_fault(state_of(impossible), NOW)
    assert fault
    assert {r.words for r in found} == {DISAGREE}
    assert next_step(found) is None
    assert rows_or_fault(state_of(TANK), NOW)[1] is None
