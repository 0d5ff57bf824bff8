"""Daily ammonia production of a stock, by ration or by the food actually fed."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer
from reedmace.core.stock import SPECIES


def test_waste_is_food_times_protein_times_0092() -> None:
    # 10 danios of 4 cm: 10 × 0.0085 × 4^3.06 g, 2 % a day, 40 % protein.
    answer = compute("waste-load", {"net_l": 100, "animals": [{"species_id": "zebra-danio", "count": 10}]})
    mass = 10 * 0.0085 * 4**3.06
    assert answer.ammonia_mg_n_day == pytest.approx(mass * 0.02 * 0.40 * 0.092 * 1000)
    assert answer.ammonia_mg_n_l_day == pytest.approx(answer.ammonia_mg_n_day / 100)


def test_food_really_fed_decides_over_the_stock_list() -> None:
    answer = compute(
        "waste-load",
        {"net_l": 100, "animals": [{"species_id": "oscar", "count": 3}], "feed_g_day": 2, "feed_protein_percent": 50},
    )
    assert answer.ammonia_mg_n_day == pytest.approx(2 * 0.5 * 0.092 * 1000)


def test_load_is_counted_once_per_animal_and_doubling_is_shown_beside_it() -> None:
    one, four = (
        compute("waste-load", {"net_l": 100, "animals": [{"species_id": "fancy-goldfish", "count": n}]}) for n in (1, 4)
    )
    assert four.ammonia_mg_n_day == pytest.approx(4 * one.ammonia_mg_n_day)
    assert one.doubled_mg_n_day == pytest.approx(2 * one.ammonia_mg_n_day)


def test_an_empty_tank_makes_no_waste_and_says_so() -> None:
    answer = compute("waste-load", {"net_l": 100})
    assert answer.ammonia_mg_n_day == 0
    assert "No animals" in answer.verdict


def test_animals_that_cannot_share_a_temperature_are_said_to_clash() -> None:
    answer = compute(
        "waste-load",
        {"net_l": 100, "animals": [{"species_id": "axolotl", "count": 1}, {"species_id": "ram", "count": 2}]},
    )
    assert any("temperature" in c.text for c in answer.clashes)
    assert (
        compute(
            "waste-load",
            {"net_l": 100, "animals": [{"species_id": "guppy", "count": 1}, {"species_id": "platy", "count": 2}]},
        ).clashes
        == []
    )


def test_an_unknown_species_is_refused_by_position() -> None:
    with pytest.raises(CannotAnswer) as caught:
        compute(
            "waste-load",
            {
                "net_l": 100,
                "animals": [{"species_id": "zebra-danio", "count": 1}, {"species_id": "kraken", "count": 1}],
            },
        )
    assert caught.value.where == "animals.1.species_id"


DANIO = SPECIES["zebra-danio"].model_dump()


def test_young_animals_make_less_today_and_the_same_when_grown() -> None:
    grown, young = (
        compute("waste-load", {"net_l": 200, "animals": [{"species_id": "oscar", "count": 2, **more}]})
        for more in ({}, {"length_cm": 8})
    )
    assert young.ammonia_mg_n_day == grown.ammonia_mg_n_day
    form = (8 / SPECIES["oscar"].adult_length_cm) ** 3.01
    assert young.today_mg_n_day == pytest.approx(grown.ammonia_mg_n_day * form, rel=0.05)


def test_an_animal_of_ones_own_is_sized_for_like_any_other() -> None:
    own = {**DANIO, "id": "own-x", "common_name": "X", "sizing": "goldfish", "adult_length_cm": 20.0}
    answer = compute(
        "flow-requirement", {"net_l": 100, "animals": [{"species_id": "own-x", "count": 1}], "own_species": [own]}
    )
    assert answer.sizing == "goldfish"
    with pytest.raises(CannotAnswer, match="no species"):
        compute("waste-load", {"net_l": 100, "animals": [{"species_id": "own-x", "count": 1}]})


@pytest.mark.parametrize(
    ("tank_of", "animals", "words"),
    [
        ({"temperature_c": 18}, ["cardinal-tetra"], "this tank is at 18"),
        ({"ph": 8.4}, ["cardinal-tetra"], "this tank reads 8.4"),
        ({"water": "salt"}, ["guppy"], "lives in fresh water; this tank is salt"),
        ({}, ["ocellaris-clownfish"], "lives in salt water; this tank is fresh"),
        ({"tank_length_cm": 60}, ["common-pleco"], "outgrows a tank 60 cm long"),
        ({}, ["hillstream-loach", "betta"], "current"),
        ({}, ["axolotl", "discus"], "no setting suits both"),
    ],
    ids=["cold", "alkaline", "salt", "fresh", "short", "current", "temperature"],
)
def test_what_does_not_go_together_is_said(tank_of: dict, animals: list, words: str) -> None:
    question = {"net_l": 100, "animals": [{"species_id": a, "count": 1} for a in animals], **tank_of}
    assert any(words in c.text for c in compute("waste-load", question).clashes)
