"""What a tank asks of any filter."""

import pytest

from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.margins import Available
from reedmace.core.filter.choice.ranking_columns import stirred
from reedmace.core.filter.choice.requirement import (
    COARSE_G,
    YOUNG_CM,
    is_enough_by_film,
    requirement_of,
    tank_requirement,
    water_of,
)
from reedmace.core.stock import body_mass_g
from reedmace.core.stock.flow_demand import SLOWEST_PER_HOUR
from reedmace.core.stock.species import find_species
from tests.support.ranking import ROOM, SAMPLES, SHOAL


def asked(**changes) -> RankFiltersQuestion:
    return RankFiltersQuestion.model_validate({"site": ROOM, "animals": SHOAL, **changes})


def test_filters_and_wishes_change_nothing_about_what_a_tank_asks_for() -> None:
    bare = asked()
    looked = asked(own_filters=SAMPLES, priorities={"quiet": 5}, running_ids=[SAMPLES[0]["id"]])
    assert water_of(bare) == water_of(looked)
    assert tank_requirement(bare) is tank_requirement(looked)
    assert water_of(bare) != water_of(asked(temperature_c=20))


def test_margins_and_ranking_start_from_the_same_requirement() -> None:
    whole, on_any_set = tank_requirement(asked()), requirement_of(asked())
    assert on_any_set.low_lph == whole.low > 0
    assert on_any_set.grown_mg_n_day == whole.load_mg_n_day
    assert whole.high >= whole.low


def test_film_for_today_where_the_young_are_small() -> None:
    grown = tank_requirement(asked(animals=[{"species_id": "oscar", "count": 1}]))
    small = tank_requirement(asked(animals=[{"species_id": "oscar", "count": 1, "length_cm": 6}]))
    assert small.today_mg_n_day < grown.today_mg_n_day
    assert small.film_m2 < grown.film_m2
    # The filter itself is bought for the adult.
    assert small.low == grown.low


def test_young_are_those_an_intake_can_draw_in() -> None:
    fish = "zebra-danio"
    assert tank_requirement(asked(animals=[{"species_id": fish, "count": 9, "length_cm": YOUNG_CM}])).has_young
    assert not tank_requirement(asked(animals=[{"species_id": fish, "count": 9}])).has_young
    assert tank_requirement(asked(animals=[{"species_id": "cherry-shrimp", "count": 9}])).has_young


@pytest.mark.parametrize("species", ["oscar", "fancy-goldfish", "zebra-danio", "musk-turtle"])
def test_dirt_is_strained_where_one_messy_animal_is_heavy(species: str) -> None:
    one = find_species(species, "animals", [])
    heavy = body_mass_g(one.adult_length_cm, one.body_form) >= COARSE_G
    messy = one.sizing in ("messy", "cichlid", "turtle", "goldfish") and one.current != "gentle"
    assert tank_requirement(asked(animals=[{"species_id": species, "count": 1}])).coarse == (heavy and messy)


def test_a_slow_set_is_enough_where_its_film_carries_a_light_stock() -> None:
    question = asked()
    need, slow_lph = tank_requirement(question), 1.1 * SLOWEST_PER_HOUR * ROOM["net_l"]
    stirred_here = stirred(question, need.low, [])

    def enough(film_m2: float, service_lph: float) -> bool:
        has = Available(film_m2, service_lph, service_lph, 0.8, 30, *stirred_here)
        return is_enough_by_film(question, has)

    assert slow_lph < need.low
    assert enough(10 * need.film_m2, slow_lph)
    # Film alone does not move the water.
    assert not enough(10 * need.film_m2, 0.5 * slow_lph)
