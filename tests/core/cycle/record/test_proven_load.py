"""For how much a ready tank is proven, and what takes from it."""

from typing import Any

import pytest

from reedmace.core.cycle import CycleAdviceQuestion, CycleLog, CycleReadinessQuestion, cycle_advice, cycle_readiness
from reedmace.core.cycle.record.proven_load import proven_capacity
from tests.support.cycling import proving

ZERO = {"ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0}
PLAN: dict[str, Any] = {"net_l": 100, "animals": [{"species_id": "zebra-danio", "count": 8}]}
PROVED = {**PLAN, "day_now": 40.1, "planned_load_mg_n_l_day": 0.4, **proving(38, 39, kh_dkh=5, ph=7.4)}


def ready(**changes: Any) -> bool:
    return cycle_readiness(CycleReadinessQuestion(log=CycleLog.model_validate({**PROVED, **changes}))).ready


def with_readings(*more: dict[str, Any]) -> list[dict[str, Any]]:
    return [*PROVED["readings"], *more]


def weeks_of_zeros(**more: Any) -> CycleLog:
    """A month of zeros, tested every third day."""
    readings = [{"day": d, **ZERO, "nitrate_mg_n_l": 2 + d * more.get("rises", 0.0)} for d in range(2, 35, 3)]
    rest = {k: v for k, v in more.items() if k != "rises"}
    return CycleLog.model_validate({**PLAN, "day_now": 33, "readings": readings, **rest})


def test_the_proof_of_an_empty_tank_holds_at_a_little_less_warmth() -> None:
    assert ready(readings=with_readings({"day": 40.05, "temperature_c": 23}), temperature_c=26)


@pytest.mark.parametrize("degrees", [16, 34.5])
def test_a_proof_does_not_hold_in_the_cold_or_the_heat(degrees: float) -> None:
    assert not ready(readings=with_readings({"day": 40.05, "temperature_c": degrees}), temperature_c=25.5)


def test_nothing_proved_in_fresh_water_holds_in_salt() -> None:
    assert not ready(readings=with_readings({"day": 40.05, "salinity_g_kg": 35}))


def test_small_losses_add_up() -> None:
    one = [{"day": 40.02, "what": "rinsed-tank-water", "share": 0.5}]
    assert ready(media=one)
    many = [{"day": 40.01 + 0.01 * i, "what": "rinsed-tank-water", "share": 1} for i in range(6)]
    answer = cycle_readiness(CycleReadinessQuestion(log=CycleLog.model_validate({**PROVED, "media": many})))
    assert not answer.ready
    assert "small losses added up" in answer.missing[0]


def test_losses_far_apart_grow_back_between() -> None:
    stops = [{"day": float(d), "hours": 3.0} for d in (1, 16)]
    assert ready(outages=stops)


def test_nitrate_that_was_read_and_stood_still_is_no_proof() -> None:
    flat = [{**r, "nitrate_mg_n_l": 0.0} if "nitrate_mg_n_l" in r else r for r in PROVED["readings"]]
    flat = [{"day": 0.0, "nitrate_mg_n_l": 0.0}, *flat]
    answer = cycle_readiness(CycleReadinessQuestion(log=CycleLog.model_validate({**PROVED, "readings": flat})))
    assert not answer.ready
    assert "nitrate was read and did not rise" in answer.missing[0]


def test_food_under_zeros_proves_what_was_fed_and_no_more() -> None:
    fed = weeks_of_zeros(method="fish-food", food_g_day=0.05, planned_load_mg_n_l_day=3, rises=0.02)
    assert proven_capacity(fed) == pytest.approx(fed.food_mg_n_l_day(), rel=0.01)
    answer = cycle_readiness(CycleReadinessQuestion(log=fed))
    assert answer.ready
    assert "% of what the planned animals make" in answer.verdict
    advice = cycle_advice(CycleAdviceQuestion(log=fed))
    assert "not for all you plan" in advice.verdict
    add = next(a for a in [advice.first, *advice.then] if a.do == "add-animals")
    assert "all of them" not in add.detail


def test_nitrate_made_under_zeros_proves_what_was_worked_through() -> None:
    moved = weeks_of_zeros(method="seeded-filter", rises=0.5, planned_load_mg_n_l_day=1)
    # 15 mg N/L in 30 days, less what the kit's steps leave open.
    assert 0.2 < proven_capacity(moved) < 0.5


def test_a_planted_tank_is_proven_for_a_first_group() -> None:
    grown = weeks_of_zeros(method="planted", plants="many", plants_growing_day=1, planned_load_mg_n_l_day=1)
    answer = cycle_readiness(CycleReadinessQuestion(log=grown))
    assert answer.ready
    assert 0 < answer.proven_mg_n_l_day < 0.5
    assert "not for all you plan" in cycle_advice(CycleAdviceQuestion(log=grown)).verdict


@pytest.mark.parametrize(("load", "words"), [(0.4, "all of what the planned"), (1.7, "50% of what the planned")])
def test_ready_says_for_how_much(load: float, words: str) -> None:
    proved = {**PLAN, "day_now": 40.1, "planned_load_mg_n_l_day": load, **proving(38, 39, size=0.85)}
    log = CycleLog.model_validate(proved)
    assert words in cycle_readiness(CycleReadinessQuestion(log=log, standard="one-ppm")).verdict
