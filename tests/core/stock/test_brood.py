"""Broods: growth and food against closed forms, the day a tank is too small, and what half-knowledge says."""

import math

import pytest

from reedmace.core.errors import CannotAnswer
from reedmace.core.stock import SPECIES, BroodQuestion, body_mass_g, brood
from reedmace.core.stock.brood import (
    FOODS,
    MOST_RATION_PERCENT,
    USUAL_COUNT,
    early_days,
    fry_length_cm,
    fry_load_mg_n_day,
    ration_percent,
)
from reedmace.core.stock.flow_demand import CROWDED_MG_N_L_DAY

GUPPY, ANGEL = SPECIES["guppy"], SPECIES["angelfish"]


def asked(**more) -> BroodQuestion:
    return BroodQuestion(**{"species_id": "angelfish", "count": 100, "age_days": 30, "net_l": 54, **more})


def test_length_follows_its_growth_curve_from_the_length_at_first() -> None:
    assert fry_length_cm(ANGEL, 0) == pytest.approx(0.55)
    # dL/dt = K (L∞ − L), integrated by small steps.
    length, k, step = 0.55, 1.1 / 365.25, 0.01
    for _ in range(int(120 / step)):
        length += step * k * (ANGEL.adult_length_cm - length)
    assert fry_length_cm(ANGEL, 120) == pytest.approx(length, rel=1e-3)


@pytest.mark.parametrize("species", SPECIES.values(), ids=lambda s: s.id)
def test_fry_grow_eat_relatively_more_and_make_less_than_the_grown(species) -> None:
    ages = [0, 10, 40, 160, 640]
    lengths = [fry_length_cm(species, a) for a in ages]
    assert lengths == sorted(lengths)
    assert lengths[-1] <= species.adult_length_cm
    rations = [ration_percent(species, x) for x in lengths]
    assert rations == sorted(rations, reverse=True)
    assert rations[0] <= max(MOST_RATION_PERCENT, species.ration_percent_day)
    assert ration_percent(species, species.adult_length_cm) == pytest.approx(species.ration_percent_day)
    loads = [fry_load_mg_n_day(species, x) for x in lengths]
    assert loads == sorted(loads)


def test_food_itself_goes_with_mass_to_the_power_of_four_fifths() -> None:
    small, large = 2.0, 4.0
    food = [body_mass_g(x, GUPPY.body_form) * ration_percent(GUPPY, x) for x in (small, large)]
    masses = [body_mass_g(x, GUPPY.body_form) for x in (small, large)]
    assert math.log(food[1] / food[0]) / math.log(masses[1] / masses[0]) == pytest.approx(0.8)


def test_the_day_the_water_is_too_small_is_the_first_week_over_the_limit() -> None:
    a = brood(asked())
    assert a.too_small_for == "the water"
    over = [p.day for p in a.course if p.load_mg_n_day > CROWDED_MG_N_L_DAY * 54]
    assert a.too_small_in_days == over[0]
    assert a.too_small_in_days > 0
    assert brood(asked(net_l=200)).too_small_in_days > a.too_small_in_days
    # As many as it raises to that length do not crowd it there.
    fit = brood(asked(count=a.raises_count))
    assert fit.too_small_in_days is None or fit.too_small_in_days >= fit.sale_in_days


def test_film_others_and_length_bring_the_day_nearer() -> None:
    free = brood(asked())
    film = brood(asked(carries_mg_n_day=20))
    assert film.too_small_for == "the filters' film"
    assert film.too_small_in_days < free.too_small_in_days
    assert brood(asked(others_mg_n_day=60)).too_small_in_days < free.too_small_in_days
    short = brood(asked(count=1, tank_length_cm=40))
    assert short.too_small_for == "the tank's length"
    day = short.too_small_in_days
    assert [p.length_cm > 10 for p in short.course if p.day in (day - 7, day)] == [False, True]
    # What the others exceed alone is not the brood's doing.
    assert brood(asked(count=1, others_mg_n_day=500, tank_length_cm=400)).too_small_in_days is None


def test_before_they_swim_they_eat_nothing_and_warmth_shortens_the_wait() -> None:
    a = brood(asked(age_days=-5))
    assert (a.food, a.food_g_day, a.load_mg_n_day, a.swims_in_days) == (None, 0, 0, 5)
    assert a.verdict.startswith("Free-swimming in about 5 days: no food before.")
    assert sum(early_days(ANGEL, 28)) < sum(early_days(ANGEL, 25)) == 8
    assert early_days(GUPPY, 25) == (0, 0)


def test_nobody_counted_is_said_and_reckoned_with_a_usual_brood() -> None:
    a = brood(asked(count=None))
    assert a.assumed
    assert a.count == USUAL_COUNT
    assert f"About {USUAL_COUNT} (not counted)" in a.verdict
    assert brood(asked(count=0)).verdict == "No young are left."


def test_a_measured_length_counts_and_the_food_goes_by_length() -> None:
    assert brood(asked(length_cm=3.0)).length_cm == 3.0
    found = [brood(asked(length_cm=x)).food for x in (0.3, 0.7, 1.2, 2.0, 5.0)]
    assert found == [food for _, food, _ in FOODS]


def test_an_unknown_animal_is_refused() -> None:
    with pytest.raises(CannotAnswer, match="species_id"):
        brood(asked(species_id="nobody"))
