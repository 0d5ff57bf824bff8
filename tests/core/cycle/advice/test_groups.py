"""The first group of animals, and the next."""

from reedmace.core.cycle import CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.advice.groups import first_group, next_group, ramp, ramp_ahead
from reedmace.core.cycle.record.log import CycleLog
from tests.support.cycle_logs import CLEARED, STOCKED

DANIOS = [{"species_id": "zebra-danio", "count": 8}]


def judged(log: dict):
    made = CycleLog.model_validate(log)
    return made, cycle_readiness(CycleReadinessQuestion(log=made))


def test_the_first_group_is_named_with_the_day_of_the_next() -> None:
    log, ready = judged({**CLEARED, "animals": DANIOS})
    steps = ramp(log, ready)
    action = first_group(log, ready)
    assert action.title == f"Add {steps[0].words()}"
    assert ("that is all of them" in action.detail) == (len(steps) == 1)
    assert (action.when, first_group(log, ready, changed=True).when) == ("tomorrow", "now")


def test_without_a_plan_a_part_of_the_stock_goes_in_and_no_more_than_is_proven() -> None:
    log, ready = judged(CLEARED)
    action = first_group(log, ready)
    assert action.title == "Add the first animals"
    assert ready.clears
    assert "no more than is proven" in action.detail


def test_a_species_nobody_listed_gives_no_ramp_and_no_error() -> None:
    log, ready = judged({**CLEARED, "animals": [{"species_id": "unheard-of", "count": 3}]})
    assert ramp(log, ready) == []
    assert ramp_ahead(log, ready) is None


def test_after_a_week_of_zeros_the_next_group_or_the_usual_care() -> None:
    log, ready = judged(STOCKED)
    first, weekly = next_group(log, ready)[0], next_group(log, ready)[-1]
    if ramp(log, ready):
        assert first.do == "add-animals"
        assert weekly.when == "later"
    full, all_in = judged({**STOCKED, "present": STOCKED["animals"]})
    assert [(a.do, a.when) for a in next_group(full, all_in)] == [("wait", "now")]
