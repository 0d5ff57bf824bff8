"""Growth of animals, and until when filter, water and tank do."""

import math

import pytest

from reedmace.core.computations import compute
from reedmace.core.stock.compatibility import SWIM_LENGTHS
from reedmace.core.stock.growth import GROWTH_PER_YEAR, USUAL_PER_YEAR, length_at
from reedmace.core.stock.species import find_species

OSCAR = find_species("oscar", "animals", [])


def outgrow(length_cm: float = 5.0, **more: object):
    animals = [{"species_id": "oscar", "count": 1, "length_cm": length_cm}]
    return compute("outgrow", {"net_l": 250, "animals": animals, **more})


@pytest.mark.parametrize("days", [0.0, 30.0, 365.25, 4000.0])
def test_length_follows_von_bertalanffy_from_todays(days: float) -> None:
    k = GROWTH_PER_YEAR.get(OSCAR.group, USUAL_PER_YEAR)
    full = OSCAR.adult_length_cm
    assert length_at(OSCAR, 5.0, days) == pytest.approx(full - (full - 5) * math.exp(-k * days / 365.25))
    assert length_at(OSCAR, full + 1, days) == full + 1


def test_the_tank_is_too_short_on_the_day_the_animal_reaches_a_quarter_of_it() -> None:
    answer = outgrow(tank_length_cm=80)
    assert answer.length_does_days is not None
    assert length_at(OSCAR, 5.0, answer.length_does_days) == pytest.approx(80 / SWIM_LENGTHS)
    assert outgrow(tank_length_cm=SWIM_LENGTHS * OSCAR.adult_length_cm).length_does_days is None
    assert outgrow(25.0, tank_length_cm=80).length_does_days == 0


def test_the_film_is_outgrown_on_the_first_day_its_load_is_larger() -> None:
    course = outgrow().course
    middle = course[len(course) // 2]
    carried = outgrow(carries_mg_n_day=middle.load_mg_n_day).filter_does_days
    assert carried == course[len(course) // 2 + 1].day
    assert outgrow(carries_mg_n_day=1e6).filter_does_days is None
    assert outgrow(carries_mg_n_day=0).filter_does_days == 0
    loads = [point.load_mg_n_day for point in course]
    assert loads == sorted(loads)


def test_the_first_that_ends_is_said() -> None:
    assert "longer tank" in outgrow(tank_length_cm=40, carries_mg_n_day=1e6).verdict
    roomy = compute("outgrow", {"net_l": 100, "animals": [{"species_id": "neon-tetra", "count": 6}]})
    assert roomy.verdict == "This filter and this tank do for them grown as well."
