"""The Stock stage opens with whether its animals fit this water and each other."""

import pytest

from reedmace.core.filter import CATALOGUE
from reedmace.core.stock import SPECIES, body_mass_g
from reedmace.logbook.stages import filter_view, stock_view
from tests.agreement.tanks import state_of

TANK = {"kind": "tank-plan", "tank": {"length_cm": 100, "width_cm": 45, "height_cm": 50}}


def verdict(*animals: tuple[str, int, float | None]):
    rows = [{"species_id": s, "count": n, "length_cm": length} for s, n, length in animals]
    return stock_view(state_of(TANK, {"kind": "stock-plan", "animals": rows}))


def test_an_empty_list_asks_who_will_live_in_it() -> None:
    view = stock_view(state_of(TANK))
    assert (view.verdict, view.fits) == ("Who will live in it? The filter is sized for them.", None)


def test_animals_that_fit_are_said_to_with_their_warmth() -> None:
    view = verdict(("harlequin-rasbora", 10, None), ("pearl-gourami", 2, None))
    assert view.fits
    assert view.verdict.startswith("These animals fit together, at 24 to 27 °C")


def test_what_does_not_go_together_is_said_first() -> None:
    view = verdict(("neon-tetra", 10, None), ("axolotl", 1, None))
    assert view.fits is False
    assert view.verdict.startswith("Not all of this fits: ")


def test_a_crowd_is_too_much_for_the_water_whatever_its_filter() -> None:
    # Half-grown cichlids that weekly changes kept well (common practice) are let be; twice as many grown are not.
    assert verdict(("yellow-lab", 60, 8.0)).verdict.startswith("Enough room while they are young")
    assert verdict(("yellow-lab", 120, None)).verdict.startswith("Too many for this water")


@pytest.mark.parametrize(
    ("species", "length", "low", "high"),
    [
        ("zebra-danio", 4.0, 0.5, 1.0),
        ("neon-tetra", 3.0, 0.2, 0.4),
        ("otocinclus", 4.0, 0.5, 1.0),
        ("weather-loach", 20.0, 30, 60),
        ("common-pleco", 20.0, 70, 130),
        ("bronze-cory", 6.0, 3, 6),
    ],
)
def test_a_body_weighs_what_one_of_its_length_does(species: str, length: float, low: float, high: float) -> None:
    # Ranges from memory: weights at length of these animals, wide on purpose.
    assert low <= body_mass_g(length, SPECIES[species].body_form) <= high


@pytest.mark.parametrize(("species", "count", "enough"), [("fancy-goldfish", 2, False), ("yellow-lab", 8, True)])
def test_film_makes_up_for_flow_on_the_page_as_in_the_ranking(species: str, count: int, enough: bool) -> None:
    sponge = next(f for f in CATALOGUE if f.id == "watermint-60")
    stock = {"kind": "stock-plan", "animals": [{"species_id": species, "count": count, "length_cm": 5}]}
    hung = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": sponge.model_dump(mode="json")}]}
    view = filter_view(state_of(TANK, stock, hung))
    assert view.hanging.slow_but_enough is enough
    # Goldfish keepers take a sponge as an extra only: never called enough for its film.
    assert view.enough is enough or "goldfish" not in species
    ranked = any(c.filter_id == sponge.id for c in view.ranking.ranked)
    assert ranked is enough
