"""Entries of rounds and broods."""

import pytest
from pydantic import ValidationError

from reedmace.logbook.replay.breeding_entries import BroodStep, OnRound
from tests.support.entries import NOW, entry

STEP = {"kind": "brood", "brood": "pair-1", "what": "spawned", "species_id": "zebra-danio"}
TASK = {"what": "clean", "filter_key": "f1", "due_at": NOW, "days": ["2026-11-26"]}


def test_a_round_without_tasks_was_given_back() -> None:
    assert OnRound.model_validate({"kind": "on-round", "from_day": "2026-11-23"}).tasks == []


def test_both_are_entries_of_a_logbook() -> None:
    assert entry(1, STEP).body == BroodStep.model_validate(STEP)
    taken = {"kind": "on-round", "from_day": "2026-11-23", "tasks": [TASK]}
    assert entry(2, taken).body.tasks[0].due_at == NOW


@pytest.mark.parametrize(
    "wrong",
    [{"brood": "a b c d"}, {"brood": "ab"}, {"what": "flown"}, {"count": -1}, {"count": 20_001}, {"count": 2.5},
     {"length_cm": 0}],
)  # fmt: skip
def test_a_step_outside_its_ranges_is_refused(wrong: dict) -> None:
    with pytest.raises(ValidationError):
        BroodStep.model_validate({**STEP, **wrong})


@pytest.mark.parametrize("wrong", [{"what": "polish"}, {"days": ["2026-11-26"] * 8}])
def test_a_task_is_one_there_is_on_days_of_one_week(wrong: dict) -> None:
    with pytest.raises(ValidationError):
        OnRound.model_validate({"kind": "on-round", "from_day": "2026-11-23", "tasks": [{**TASK, **wrong}]})
