"""Whether animals are in danger by the newest tests, and whether a tank is watched."""

from typing import Any

import pytest

from reedmace.core.cycle.advice.water_alarm import (
    KNOWN_DAYS,
    emergency_today,
    in_danger_now,
    is_known,
    is_stable,
    needs_watching,
)
from reedmace.core.cycle.record.log import CycleLog

LIVED_IN: dict[str, Any] = {
    "day_now": 200,
    "net_l": 100,
    "method": "animals-in",
    "start_kh_dkh": 6,
    "start_ph": 7.6,
    "temperature_c": 26,
    "stocked_day": 20,
    "animals_in_mg_n_l_day": 0.2,
    "animals": [{"species_id": "guppy", "count": 8}],
    "present": [{"species_id": "guppy", "count": 8}],
}
CLEAR = {"day": 198, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0, "nitrate_mg_n_l": 4, "ph": 7.6, "kh_dkh": 6}


def log(*readings: dict[str, Any], **more: Any) -> CycleLog:
    return CycleLog.model_validate(LIVED_IN | {"readings": list(readings)} | more)


def test_clear_water_of_a_settled_tank_is_stable_and_nobody_watches() -> None:
    one = log(CLEAR)
    assert is_stable(one)
    assert not needs_watching(one)
    assert not in_danger_now(one)


@pytest.mark.parametrize(
    "figures",
    [{"ammonia_mg_n_l": 3}, {"nitrite_mg_n_l": 2}, {"temperature_c": 38}, {"temperature_c": 12}, {"ph": 9.8}],
)
def test_one_figure_out_of_bounds_alone_is_danger(figures: dict[str, float]) -> None:
    one = log({"day": 199.9, "ph": 8.0, **figures})
    assert in_danger_now(one)
    assert needs_watching(one)


def test_a_poison_read_alone_is_judged_though_the_other_was_never_tested() -> None:
    plan = emergency_today(log({"day": 199.9, "ph": 8.2, "ammonia_mg_n_l": 3.1}))
    assert plan is not None
    assert plan.untested == ["nitrite"]
    assert plan.in_danger


def test_nobody_tested_anything_is_no_emergency_and_untreated_water_is() -> None:
    assert emergency_today(log()) is None
    raw = [{"day": 199.8, "share": 0.4, "treated": False}]
    assert in_danger_now(log(CLEAR, changes=raw, tap={"chlorine": "chlorine"}))


def test_poison_in_the_last_week_keeps_it_watched_until_it_has_been_clear() -> None:
    poison = {"day": 195, "nitrite_mg_n_l": 1.5, "ammonia_mg_n_l": 0, "ph": 7.6}
    assert not is_stable(log(poison, CLEAR))
    assert is_stable(log(poison | {"day": 190}, CLEAR))
    # However old: nothing has shown that it passed.
    assert not is_stable(log(poison | {"day": 120}))


def test_animals_that_came_lately_are_watched() -> None:
    assert not is_stable(log(CLEAR, stocked_day=190))


def test_a_test_says_what_the_water_is_for_a_fortnight() -> None:
    one = log(CLEAR)
    assert is_known(one, (200 - KNOWN_DAYS, 1.0))
    assert not is_known(one, (200 - KNOWN_DAYS - 0.1, 1.0))
    assert not is_known(one, None)
