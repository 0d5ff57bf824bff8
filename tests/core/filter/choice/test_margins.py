"""Biology, clarity and movement, each with its own verdict."""

from typing import Any, cast

import pytest

from reedmace.core.film import film_needed_m2
from reedmace.core.filter.choice.margins import Available, Margin, Required, cleaned_words, margins, times_words
from reedmace.core.flow import CurrentsAnswer, OxygenBalanceAnswer

NEED = film_needed_m2(100.0, 25.0)


class Calm:
    """Currents or oxygen as a margin reads them."""

    troubled, enough, verdict, running_mg_l, taken_mg_l_day = False, True, "Said.", 7.5, 3.0

    def __init__(self, **changes: object) -> None:
        vars(self).update(changes)


def found(asks: dict[str, float] | None = None, **has: Any) -> dict[str, Margin]:
    calm = cast(CurrentsAnswer, Calm())
    breath = cast(OxygenBalanceAnswer, Calm())
    usual = {"film_m2": 1.5 * NEED, "clean_lph": 600.0, "service_lph": 420.0, "strains": 0.5, "service_days": 30.0}
    available = Available(**{**usual, "currents": calm, "oxygen": breath, **has})
    required = {"grown_mg_n_day": 100.0, "today_mg_n_day": 100.0, "tank_film_m2": 0.0, "temperature_c": 25.0}
    return {m.about: m for m in margins(available, Required(**{**required, "low_lph": 400.0, **(asks or {})}))}


@pytest.mark.parametrize(
    ("times", "level", "words"),
    [(0.8, "short", "would carry 80%"), (1.5, "enough", "1.5 times over"), (12.0, "ample", "12 times over")],
)
def test_film_is_measured_by_what_the_animals_make(times: float, level: str, words: str) -> None:
    biology = found(film_m2=times * NEED)["biology"]
    assert (biology.level, biology.share) == (level, pytest.approx(times))
    assert words in biology.words


def test_what_is_too_little_for_them_grown_is_enough_while_they_are_small() -> None:
    young = found({"today_mg_n_day": 30.0}, film_m2=0.6 * NEED)["biology"]
    assert (young.level, young.share) == ("enough", pytest.approx(0.6))
    assert "once grown" in young.words
    assert "2.0 times at today's size" in young.words


def test_glass_and_gravel_count_and_are_named_where_media_alone_would_not_do() -> None:
    biology = found({"tank_film_m2": 0.7 * NEED}, film_m2=0.6 * NEED)["biology"]
    assert (biology.level, biology.share) == ("enough", 1.0)
    # Water is driven through media only: the rest is a reserve, and no surplus.
    assert biology.words.startswith("Its media carry 60%")


def test_without_animals_there_is_nothing_to_carry() -> None:
    assert found({"grown_mg_n_day": 0.0})["biology"].words.startswith("No animals yet")


@pytest.mark.parametrize(
    ("strains", "days", "level"),
    [(0.7, 30.0, "ample"), (0.7, 5.0, "enough"), (0.5, 30.0, "enough"), (0.5, 3.0, "short"), (0.2, 90.0, "short")],
)
def test_straining_needs_both_foam_and_days(strains: float, days: float, level: str) -> None:
    assert found(strains=strains, service_days=days)["clarity"].level == level


@pytest.mark.parametrize(
    ("flow", "level", "slow"),
    [(900.0, "ample", False), (420.0, "enough", False), (330.0, "short", True), (100.0, "short", True)],
)
def test_flow_in_service_is_held_against_what_is_asked(flow: float, level: str, slow: bool) -> None:
    movement = found(service_lph=flow)["movement"]
    assert (movement.level, movement.slow) == (level, slow)


def test_too_little_oxygen_speaks_before_too_much_current_and_that_before_flow() -> None:
    airless, rough = Calm(enough=False, verdict="No air."), Calm(troubled=True, verdict="Rough.")
    both = found(oxygen=airless, currents=rough)["movement"]
    assert (both.level, both.words, both.slow) == ("short", "No air.", False)
    assert both.share < 1
    only = found(currents=rough)["movement"]
    assert (only.level, only.words) == ("too-much", "Rough.")


def test_intervals_are_said_as_a_day_in_days_or_longer() -> None:
    assert cleaned_words(1.0) == "cleaned about every day"
    assert cleaned_words(12.4) == "cleaned about every 12 days"
    assert "months" in cleaned_words(100.0)
    assert cleaned_words(40.0, 5.8) == "foam cleaned about every 40 days, socks washed every 5 days"


def test_ratios_are_rounded_as_one_would_say_them() -> None:
    assert [times_words(x) for x in (1.44, 9.6, 250.0)] == ["1.4 times", "10 times", "over 100 times"]
