"""What each school of sizing asks of a tank."""

import math

import pytest

from reedmace.core.contract import Working
from reedmace.core.film import AREAL_RATE
from reedmace.core.filter.sizing_demand import FlowRequirementQuestion, sizing_demand
from reedmace.core.filter.sizing_schools import LABEL_FALL, LABEL_TURTLE, RULES, SINGLE_PASS, SPONGE_L, TARGET_TAN


def schools(net_l: float = 120, **changes):
    question = {"net_l": net_l, "animals": [{"species_id": "zebra-danio", "count": 10}], **changes}
    demand = sizing_demand(FlowRequirementQuestion.model_validate(question), Working())
    found = [rule for make in RULES if (rule := make(demand, Working())) is not None]
    return {rule.rule: rule for rule in found}, demand


def of(species: str, count: int) -> list[dict]:
    return [{"species_id": species, "count": count}]


def test_exactly_one_school_is_followed_everywhere() -> None:
    tanks: list[dict] = [{}, {"water": "salt"}, {"animals": of("fancy-goldfish", 3)}, {"animals": []}]
    for changes in tanks:
        found, _ = schools(**changes)
        assert [rule.rule for rule in found.values() if rule.followed] == ["delivered"]
        assert all(rule.why and rule.asks for rule in found.values())


def test_each_school_speaks_only_where_it_is_held() -> None:
    fresh, _ = schools()
    assert {"canister-only", "circulation"} & set(fresh) == set()
    assert "canister-only" in schools(animals=of("fancy-goldfish", 3))[0]
    salt, _ = schools(water="salt", animals=of("ocellaris-clownfish", 2))
    assert "circulation" in salt
    assert "count" not in salt


@pytest.mark.parametrize(("net_l", "count"), [(60, 1), (SPONGE_L, 1), (SPONGE_L + 1, 2), (345, 3)])
def test_a_sponge_for_each_115_litres(net_l: float, count: int) -> None:
    rule = schools(net_l)[0]["count"]
    assert rule.count == count
    assert ("one sponge" in rule.asks) == (count == 1)


def test_the_load_asks_by_a_mass_balance() -> None:
    found, demand = schools(animals=of("fancy-goldfish", 2))
    # Flow × single-pass share × concentration is what is taken out in an hour (Timmons and Ebeling).
    assert found["load"].low_lph * SINGLE_PASS * TARGET_TAN * 24 == pytest.approx(demand.load_mg_n_day)
    assert found["load"].film_m2 * AREAL_RATE == pytest.approx(demand.load_mg_n_day)
    assert "nothing until animals" in schools(animals=[])[0]["load"].asks


def test_media_keepers_ask_for_twice_as_much_where_animals_demand_it() -> None:
    assert schools()[0]["media"].media_kg == pytest.approx(1.2)
    full = schools(animals=of("fancy-goldfish", 6))
    assert full[0]["media"].media_kg == pytest.approx(1.2 * (1 + full[1].demanding))
    assert full[1].demanding > 0.9


def test_a_label_holds_for_less_as_the_tank_fills() -> None:
    empty, some, full = (schools(animals=of("zebra-danio", n))[0]["label"].label_l for n in (1, 20, 400))
    assert 120 < empty < some < full
    assert full == pytest.approx(120 / (1 - LABEL_FALL))
    turtle, demand = schools(animals=of("musk-turtle", 2))
    assert turtle["label"].label_l <= 120 / LABEL_TURTLE
    assert math.isclose(demand.pull["turtle"], 1, abs_tol=0.2)
    goldfish = schools(animals=of("fancy-goldfish", 3))[0]["label"]
    assert (goldfish.label_l, goldfish.asks) == (None, "ignore the label for goldfish")
