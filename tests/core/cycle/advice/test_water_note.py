"""What a settled tank's newest tests show that is no emergency."""

from typing import Any

import pytest

from reedmace.core.cycle.advice.water_note import LATELY_DAYS, TRACE_DAYS, condition_note, water_note
from reedmace.core.cycle.record.log import CycleLog

DANIOS = [{"species_id": "zebra-danio", "count": 8}]


def settled(*readings: dict[str, Any], **known: Any) -> CycleLog:
    """Two hundred days after its zebra danios came, with these readings."""
    usual = {
        "net_l": 100,
        "day_now": 300,
        "method": "animals-in",
        "start_kh_dkh": 5,
        "animals": DANIOS,
        "present": DANIOS,
        "stocked_day": 100,
        "animals_in_mg_n_l_day": 0.15,
    }
    clean = [{"day": d, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0} for d in (230.0, 260.0, 290.0)]
    return CycleLog.model_validate({**usual, "readings": [*clean, *readings], **known})


def said(*readings: dict[str, Any], **known: Any) -> str:
    note = water_note(settled(*readings, **known))
    return "" if note is None else note.words


def test_a_tank_whose_tests_are_clean_is_not_spoken_of() -> None:
    clean = {"day": 299.9, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "ph": 7.4, "temperature_c": 24.0}
    assert water_note(settled(clean)) is None


@pytest.mark.parametrize(("ago", "speaks"), [(0.1, True), (TRACE_DAYS - 0.1, True), (TRACE_DAYS + 0.1, False)])
def test_a_trace_of_nitrite_is_spoken_of_for_four_days(ago: float, speaks: bool) -> None:
    trace = {"day": 300 - ago, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.12}
    assert ("of nitrite, where a settled tank has none" in said(trace)) == speaks


def test_a_trace_halves_the_food_now_and_tests_tomorrow() -> None:
    note = water_note(settled({"day": 299.9, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.12}))
    assert note is not None
    assert [(a.do, a.when) for a in note.actions] == [("feed-little", "now"), ("test", "tomorrow")]


def test_a_kit_that_always_reads_its_first_step_is_no_trace() -> None:
    stuck = [{"day": 240.0 + n, "ammonia_mg_n_l": 0.19, "nitrite_mg_n_l": 0.0, "ph": 7.0} for n in range(0, 60, 5)]
    assert "ammonia" not in said(*stuck)


@pytest.mark.parametrize(
    ("before", "now", "apart", "speaks"),
    [(25.0, 22.0, 0.04, True), (25.0, 22.5, 0.04, False), (25.0, 21.0, 0.9, True), (25.0, 22.0, 0.9, False)],
)
def test_a_swing_of_warmth_counts_by_its_pace(before: float, now: float, apart: float, speaks: bool) -> None:
    readings = [{"day": 299.9 - apart, "temperature_c": before}, {"day": 299.9, "temperature_c": now}]
    assert ("within a day" in said(*readings)) == speaks


@pytest.mark.parametrize(("before", "now", "words"), [(24.0, 28.0, "rose"), (28.0, 24.0, "fell")])
def test_a_swing_says_which_way_and_what_to_look_at(before: float, now: float, words: str) -> None:
    note = water_note(settled({"day": 299.0, "temperature_c": before}, {"day": 299.9, "temperature_c": now}))
    assert note is not None
    assert f"The water {words} from" in note.words
    assert ("stuck" if words == "rose" else "plugged in") in note.actions[0].detail


def test_a_swing_of_ph_asks_for_ph_and_kh_never_for_a_bottle() -> None:
    note = water_note(settled({"day": 299.0, "ph": 6.6}, {"day": 299.9, "ph": 7.6}))
    assert note is not None
    assert note.words == "pH went from 6.6 to 7.6 within a day."
    assert [a.do for a in note.actions] == ["test"]


def test_warmth_and_acidity_they_do_not_like_are_told_with_their_bound() -> None:
    assert "warmer than they like" in said({"day": 299.9, "temperature_c": 28.5})
    assert "cooler than they like" in said({"day": 299.9, "temperature_c": 15.0})
    assert said({"day": 300 - LATELY_DAYS - 0.1, "temperature_c": 15.0}) == ""
    assert "is not what they like" in said({"day": 299.9, "ph": 8.9, "ammonia_mg_n_l": 0.0})


def test_little_oxygen_in_hand_is_told_unless_they_breathe_air() -> None:
    low = {"day": 299.9, "oxygen_mg_l": 4.2}
    assert said(low) == "Oxygen of 4.2 mg/L leaves little in hand."
    turtles = [{"species_id": "slider", "count": 1}]
    assert "Oxygen" not in said(low, animals=turtles, present=turtles)


def test_much_co2_is_told_only_where_it_is_given() -> None:
    read = {"day": 299.9, "ph": 6.5, "kh_dkh": 5.0}
    note = water_note(settled(read, co2_given=True))
    assert note is not None
    assert [a.title for a in note.actions] == ["Give less CO2"]
    assert "CO2" not in said(read)


def test_an_alarm_speaks_for_itself() -> None:
    poisoned = {"day": 299.9, "ammonia_mg_n_l": 4.0, "nitrite_mg_n_l": 3.0, "ph": 8.2, "temperature_c": 28.5}
    assert water_note(settled(poisoned)) is None
    assert condition_note(settled(poisoned)) is None


def test_a_new_tank_hears_of_its_conditions_and_not_of_a_trace() -> None:
    new = {"stocked_day": 295, "day_now": 300}
    trace = {"day": 299.9, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.12}
    warm = {"day": 299.9, "temperature_c": 28.5}
    assert condition_note(settled(trace, readings=[trace], **new)) is None
    note = condition_note(settled(readings=[warm], **new))
    assert note is not None
    assert "warmer" in note.words
    assert condition_note(settled(warm, method="measured-ammonia", animals_in_mg_n_l_day=0, present=[])) is None
