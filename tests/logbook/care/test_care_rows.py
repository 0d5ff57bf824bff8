"""A task of the care plan with its day and what its press writes."""

from datetime import timedelta
from typing import Any

import pytest

from reedmace.core.upkeep import CareTask
from reedmace.logbook.care.care_rows import care_row
from reedmace.logbook.care.upkeep_log import care
from tests.support.fitting import CHOSEN, NOW, state_of

RUNS = (300, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=600)).isoformat()})
STATE = state_of(RUNS, CHOSEN, (300, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 8}]}))


def task(what: str, **more: Any) -> CareTask:
    plan = care(STATE, NOW, rounds=False)
    assert plan is not None
    return plan.tasks[0].model_copy(update={"what": what, "filter_key": None, "in_days": 3.0, **more})


@pytest.mark.parametrize(
    ("what", "kind", "stage"),
    [
        ("change", "water-change", None),
        ("look", "air-seen", None),
        ("guard", "care", None),
        ("top-up", "care", None),
        ("flow-test", None, "fit"),
        ("test", None, "cycle"),
        ("soda", None, "cycle"),
    ],
)
def test_a_press_writes_what_was_done_or_leads_to_where_it_is_measured(
    what: str, kind: str | None, stage: str | None
) -> None:
    row = care_row(STATE, task(what), {}, NOW)
    assert (None if row.done is None else row.done.kind, row.stage) == (kind, stage)
    assert row.at == NOW + timedelta(days=3)
    assert (row.pour is not None) == (what == "change")


def test_a_cleaning_touches_the_share_its_kind_allows() -> None:
    row = care_row(STATE, task("clean", filter_key="f1"), {"f1": 0.5}, NOW)
    assert row.done is not None
    assert row.done.model_dump(include={"share", "filter_key", "what"}) == {
        "share": 0.5,
        "filter_key": "f1",
        "what": "rinsed",
    }
