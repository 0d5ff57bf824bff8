"""What a care plan is asked for."""

from typing import get_args

import pytest
from pydantic import ValidationError

from reedmace.core.upkeep.care_schemas import CHANGE_DAYS, CaredFilter, CarePlanQuestion, CareWhat, RoundVisit

SPONGE = {"key": "f1", "name": "Sponge", "title": "Squeeze the sponge", "every_days": 30, "since_cleaned_days": 4}


def test_a_bare_question_is_a_tank_whose_water_is_changed_weekly() -> None:
    asked = CarePlanQuestion()
    assert asked.change_every_days == CHANGE_DAYS
    assert asked.filters == []
    # What a tank may lack is not presumed to be late.
    assert (asked.since_animals_days, asked.since_trouble_days, asked.top_up, asked.kh) == (None, None, None, None)


def test_what_a_filter_lacks_is_told_by_nothing_and_not_by_zero_days() -> None:
    one = CaredFilter.model_validate(SPONGE)
    assert (one.since_guard_days, one.since_carbon_days, one.since_socks_days) == (None, None, None)


@pytest.mark.parametrize("field", ["every_days", "since_cleaned_days"])
def test_days_that_cannot_be_are_refused(field: str) -> None:
    with pytest.raises(ValidationError, match=field):
        CaredFilter.model_validate({**SPONGE, field: -1})


def test_a_visit_names_a_task_there_is() -> None:
    for what in get_args(CareWhat):
        assert RoundVisit(what=what, due_day=1, walk_days=[]).what == what
    with pytest.raises(ValidationError):
        RoundVisit(what="polish", due_day=1, walk_days=[])
