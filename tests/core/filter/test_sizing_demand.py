"""What sizing asks for, before any school turns it into a figure."""

import pytest

from reedmace.core.contract import Working
from reedmace.core.filter.sizing_demand import AMPLE_TURNOVER, RATED_BAND, FlowRequirementQuestion, sizing_demand
from reedmace.core.stock.flow_demand import required_turnover

DANIOS = [{"species_id": "zebra-danio", "count": 10}]


def demand(**changes):
    question = {"net_l": 120, "animals": DANIOS, **changes}
    return sizing_demand(FlowRequirementQuestion.model_validate(question), Working())


def test_without_animals_nothing_is_made_and_a_community_is_presumed() -> None:
    found = demand(animals=[])
    assert (found.load_mg_n_day, found.sizing, found.demanding, found.light) == (0, "community", 0, False)


def test_more_of_the_same_make_more_and_ask_for_more_flow() -> None:
    few, many = demand(), demand(animals=[{"species_id": "zebra-danio", "count": 40}])
    assert many.load_mg_n_day == pytest.approx(4 * few.load_mg_n_day)
    assert many.delivered_lph[0] > few.delivered_lph[0]


def test_the_delivered_band_runs_from_what_is_asked_to_what_only_costs() -> None:
    found = demand()
    assert found.delivered_lph[1] == pytest.approx(AMPLE_TURNOVER * found.delivered_lph[0])
    assert found.delivered_lph[0] == pytest.approx(
        120 * required_turnover([("community", found.load_mg_n_day)], 120, planted=False)
    )


def test_one_goldfish_in_a_large_tank_pulls_less_than_a_tank_full_of_them() -> None:
    alone = demand(net_l=600, animals=[*DANIOS, {"species_id": "fancy-goldfish", "count": 1}])
    full = demand(net_l=120, animals=[{"species_id": "fancy-goldfish", "count": 4}])
    assert 0 <= alone.demanding < full.demanding <= 1
    assert full.sizing == "goldfish"
    assert alone.low < full.low <= RATED_BAND["goldfish"][0]


def test_plants_ask_for_less_flow_and_salt_water_for_no_more_with_the_stock() -> None:
    assert demand(planted=True).delivered_lph[0] < demand().delivered_lph[0]
    salt = [demand(water="salt", animals=[{"species_id": "ocellaris-clownfish", "count": n}]) for n in (2, 8)]
    assert salt[0].delivered_lph == salt[1].delivered_lph
    assert salt[0].rated_lph == salt[1].rated_lph


@pytest.mark.parametrize(
    ("changes", "light"),
    [({}, False), ({"planted": True}, False), ({"planted": True, "film_here_m2": 50}, True),
     ({"film_here_m2": 50}, False), ({"planted": True, "film_here_m2": 50, "animals": []}, False)],
)  # fmt: skip
def test_light_is_a_planted_tank_with_few_animals_whose_own_film_carries_them(changes: dict, light: bool) -> None:
    assert demand(net_l=240, **changes).light is light
