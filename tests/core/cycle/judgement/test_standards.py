"""The standards of readiness: which is followed, and what each lacks."""

from typing import Any

import pytest

from reedmace.core.contract import Working
from reedmace.core.cycle.judgement.standards import (
    dose_standard,
    film_came,
    planted_standard,
    seeded_standard,
    standard_for,
)
from reedmace.core.cycle.record.log import CycleLog

IN: dict[str, Any] = {"animals_in_mg_n_l_day": 0.2, "stocked_day": 5}


def log(day: Any = 40, **more: Any) -> CycleLog:
    return CycleLog.model_validate({"day_now": day, "net_l": 100, "start_kh_dkh": 6, **more})


def read(day: float, ammonia: float = 0, nitrite: float = 0, nitrate: float | None = None) -> dict:
    return {"day": day, "ammonia_mg_n_l": ammonia, "nitrite_mg_n_l": nitrite, "nitrate_mg_n_l": nitrate}


@pytest.mark.parametrize(
    ("more", "name"),
    [
        ({}, "load-matched"),
        ({"method": "planted"}, "planted"),
        ({"method": "planted", **IN}, "seeded"),
        ({"method": "animals-in"}, "seeded"),
        ({"method": "seeded-filter"}, "seeded"),
        ({"method": "seeded-filter", "doses": [{"day": 2, "raise_mg_n_l": 1}]}, "load-matched"),
        ({"method": "fish-food", "food_g_day": 0.5}, "seeded"),
    ],
)
def test_the_method_and_what_was_done_decide_which_is_followed(more: dict, name: str) -> None:
    assert standard_for(log(**more)) == name


def test_film_comes_with_a_filter_food_or_animals() -> None:
    assert not film_came(log())
    assert not film_came(log(method="fish-food"))
    for more in ({"method": "fish-food", "food_g_day": 1}, {"method": "side-by-side"}, IN):
        assert film_came(log(**more))


CLEARED: dict[str, Any] = {
    "doses": [{"day": 36, "raise_mg_n_l": 1}, {"day": 38, "raise_mg_n_l": 1}],
    "readings": [
        read(20, 1, 2, 5),
        *[one for d in (36, 38) for one in (read(d + 0.05, 1), read(d + 1, 0, 0, 20))],
    ],
}


def test_two_doses_seen_and_gone_in_a_day_pass_for_their_size_and_no_larger() -> None:
    one = log(39.2, **CLEARED)
    passed = dose_standard(one, "one-ppm", "", 1.0, False, Working())
    assert (passed.passes, passed.cleared, passed.missing) == (True, 2, "nothing")
    larger = dose_standard(one, "two-ppm", "", 2.0, False, Working())
    assert not larger.passes
    assert "two doses of" in larger.missing


def test_poison_read_later_takes_it_back() -> None:
    later = CLEARED["readings"] + [read(39.9, 0.5)]
    again = dose_standard(log(40, **CLEARED | {"readings": later}), "one-ppm", "", 1.0, False, Working())
    assert (again.passes, again.cleared) == (False, 0)


def test_a_dose_nobody_saw_in_the_water_proves_nothing() -> None:
    unseen = [r for r in CLEARED["readings"] if r["day"] % 1 != 0.05 and r["ammonia_mg_n_l"] == 0]
    standard = dose_standard(log(39.2, **CLEARED | {"readings": unseen}), "one-ppm", "", 1.0, False, Working())
    assert not standard.passes


def test_plants_prove_by_weeks_of_growth_with_zeros() -> None:
    zeros = [read(d) for d in range(8, 41, 7)]
    grown = {"method": "planted", "plants": "many", "readings": zeros}
    assert planted_standard(log(**grown, plants_growing_day=8), True, Working()).passes
    assert not planted_standard(log(**grown, plants_growing_day=25), True, Working()).passes
    assert "new growth" in planted_standard(log(**grown), True, Working()).missing
    assert "plants in plenty" in planted_standard(log(**grown | {"plants": "none"}), True, Working()).missing


def test_a_moved_film_proves_by_a_week_of_zeros_with_nitrate_rising() -> None:
    week = [read(d, nitrate=d - 29) for d in range(30, 41, 2)]
    moved = {"method": "seeded-filter", "seed_share": 0.5}
    assert seeded_standard(log(**moved, readings=week), True, Working()).passes
    flat = [read(d, nitrate=5) for d in range(30, 41, 2)]
    assert "nitrate seen to rise" in seeded_standard(log(**moved, readings=flat), True, Working()).missing
    short = [read(d, nitrate=3 * (d - 36)) for d in range(37, 41)]
    assert "of zeros" in seeded_standard(log(**moved, readings=short), True, Working()).missing
    assert "only where the film came" in seeded_standard(log(readings=week), True, Working()).missing
