"""Oxygen that was read: an alarm where it harms, a note where little is in hand, nothing to those that breathe air."""

import pytest

from reedmace.core.cycle import CycleAdviceQuestion, CycleLog, cycle_advice, emergency_today

LOG = {"net_l": 100, "day_now": 200, "method": "animals-in", "stocked_day": 0, "animals_in_mg_n_l_day": 0.2}


def with_oxygen(oxygen_mg_l: float, more: dict[str, float], species: str = "zebra-danio", ago: float = 0.1) -> CycleLog:
    kept = [{"species_id": species, "count": 6}]
    readings = [{"day": 200 - ago, "oxygen_mg_l": oxygen_mg_l} | more]
    return CycleLog.model_validate({**LOG, "animals": kept, "present": kept, "readings": readings})


WELL = {"ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "ph": 7.4, "temperature_c": 25.0}


@pytest.mark.parametrize("more", [{}, WELL], ids=["read alone", "with the rest"])
@pytest.mark.parametrize("oxygen", [0.0, 1.5, 2.9])
def test_too_little_is_told_at_once_with_air_first_and_no_food(oxygen: float, more: dict[str, float]) -> None:
    log = with_oxygen(oxygen, more)
    assert emergency_today(log).in_danger
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert advice.verdict.startswith(f"Oxygen is down to {oxygen:.1f} mg/L")
    assert (advice.first.do, advice.first.when) == ("aerate", "now")
    assert {a.title for a in advice.then} >= {"No food today"}
    assert not any(a.do == "change-water" for a in [advice.first, *advice.then])


def test_little_is_a_note_and_enough_is_none() -> None:
    advice = cycle_advice(CycleAdviceQuestion(log=with_oxygen(3.9, WELL)))
    assert advice.verdict == "Oxygen of 3.9 mg/L leaves little in hand."
    assert advice.first.do == "aerate"
    assert "xygen" not in cycle_advice(CycleAdviceQuestion(log=with_oxygen(6.0, WELL))).verdict


@pytest.mark.parametrize("species", ["betta", "slider"])
def test_animals_that_breathe_air_are_not_short_of_it(species: str) -> None:
    advice = cycle_advice(CycleAdviceQuestion(log=with_oxygen(2.0, WELL, species)))
    assert "xygen" not in advice.verdict


def test_a_newer_reading_ends_the_alarm() -> None:
    log = with_oxygen(2.0, WELL, ago=0.5)
    better = log.readings[0].model_copy(update={"day": 199.9, "oxygen_mg_l": 6.5})
    assert not emergency_today(log.model_copy(update={"readings": [*log.readings, better]})).in_danger
