"""Whether zeros of the nitrite test are believed with animals in."""

from typing import Any

import pytest

from reedmace.core.cycle import CycleAdviceQuestion, CycleLog, cycle_advice
from reedmace.core.cycle.advice.water_alarm import is_stable
from reedmace.core.cycle.record.kit_checks import nitrite_is_missed
from reedmace.core.cycle.record.nitrite_doubt import (
    nitrite_is_doubted,
    read_none_beside_another,
    waste_is_unseen,
)

A, NI, NA = 0.7765, 0.3045, 0.2259
SLOW_FALL = [0.5] * 10 + [0.25] * 4 + [0.0] * 3


def fish_in(ammonia_ppm: list[float], rows: dict[int, dict[str, Any]] | None = None, **more: Any) -> CycleLog:
    """A tank with fish from the first day, tested every day from day 5 on, all nitrite and nitrate none but in rows."""
    read = [
        {"day": 5.0 + n, "ammonia_mg_n_l": A * ppm, "nitrite_mg_n_l": 0.0, "nitrate_mg_n_l": 0.0, "ph": 7.4}
        | (rows or {}).get(n, {})
        for n, ppm in enumerate(ammonia_ppm)
    ]
    question = {
        "net_l": 40,
        "day_now": read[-1]["day"] + 0.02,
        "method": "animals-in",
        "stocked_day": 0.0,
        "animals_in_mg_n_l_day": 0.022,
        "present": [{"species_id": "zebra-danio", "count": 2}],
        "readings": read,
    }
    return CycleLog.model_validate(question | more)


def test_waste_that_no_test_shows_is_doubted_though_ammonia_fell_a_step_a_week() -> None:
    log = fish_in(SLOW_FALL)
    assert waste_is_unseen(log)
    assert not nitrite_is_missed(log)
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert advice.first.do == "change-water"
    assert any(action.do == "test-other-kit" for action in advice.then)
    # While the ammonia stands, all of it is seen.
    assert not waste_is_unseen(fish_in(SLOW_FALL[:10]))


@pytest.mark.parametrize(
    ("rows", "more"),
    [
        ({8: {"nitrite_mg_n_l": NI}}, {}),
        ({n: {"nitrate_mg_n_l": 5 * NA} for n in (15, 16)}, {}),
        ({16: {"other_kit": True}}, {}),
        ({}, {"helpers": ["seed-media"]}),
        ({}, {"plants": "many"}),
        ({}, {"changes": [{"day": 17.5, "share": 0.8}]}),
        ({}, {"animals_in_mg_n_l_day": 0.0, "method": "measured-ammonia", "present": [], "stocked_day": None}),
    ],
    ids=["nitrite was read", "nitrate rose", "another kit reads none", "seeded", "planted", "changed", "no animals"],
)
def test_waste_is_not_unseen_where_something_tells_of_it(rows: dict[int, dict[str, Any]], more: dict[str, Any]) -> None:
    assert not waste_is_unseen(fish_in(SLOW_FALL, rows, **more))


def test_one_step_of_nitrate_that_comes_and_goes_tells_of_no_rise() -> None:
    assert waste_is_unseen(fish_in(SLOW_FALL, {7: {"nitrate_mg_n_l": 5 * NA}}))


def test_fish_added_late_do_not_end_the_doubt_about_what_the_others_made() -> None:
    assert waste_is_unseen(fish_in([*SLOW_FALL, 0.0, 0.0], stocked_day=21.5))


def test_the_doubt_outlives_the_change_it_asked_for() -> None:
    assert waste_is_unseen(fish_in([*SLOW_FALL, 0.0, 0.0], changes=[{"day": 21.5, "share": 1 / 3}]))


def beside(other_ppm: float, *then: dict[str, Any]) -> CycleLog:
    """Seven days of zeros; on the last another kit reads nitrite an hour after this one read none."""
    log = fish_in([0.0] * 7)
    other = {"day": 11.04, "nitrite_mg_n_l": NI * other_ppm, "other_kit": True}
    rows = [*log.model_dump()["readings"], other, *then]
    return CycleLog.model_validate(log.model_dump() | {"readings": rows, "day_now": max(r["day"] for r in rows) + 0.1})


def test_a_kit_that_read_none_where_another_read_nitrite_is_not_believed_the_next_day() -> None:
    none_again = {"day": 12.0, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0}
    log = beside(1.0, none_again)
    assert read_none_beside_another(log)
    assert nitrite_is_doubted(log)
    assert "Another kit read nitrite where this one read none" in cycle_advice(CycleAdviceQuestion(log=log)).verdict
    assert not read_none_beside_another(beside(0.25, none_again))
    assert not read_none_beside_another(beside(1.0, none_again | {"nitrite_mg_n_l": NI}))
    assert not read_none_beside_another(beside(1.0, none_again | {"other_kit": True}))
    assert not read_none_beside_another(beside(1.0, none_again | {"day": 40.0}))


def test_six_weeks_with_animals_prove_nothing_while_ammonia_stands_and_no_film_was_seen() -> None:
    rows = [
        {"day": float(day), "ammonia_mg_n_l": A * 0.25, "nitrite_mg_n_l": 0.0, "nitrate_mg_n_l": 0.0, "ph": 7.4}
        for day in range(3, 46, 3)
    ]
    assert not is_stable(fish_in([0.0], None, day_now=45.0, readings=rows))
    rows[5]["nitrite_mg_n_l"] = NI
    assert is_stable(fish_in([0.0], None, day_now=45.0, readings=rows))
