"""The Stock stage opens with whether its animals fit this water and each other."""

import pytest

from reedmace.core.stock import SPECIES, Animals, Species, WasteLoadAnswer, WasteLoadQuestion, body_mass_g, waste_load
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.stages import filter_view, stock_view
from tests.support.tanks import state_of

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
    assert verdict(("yellow-lab", 120, None)).verdict.startswith("Too many for ")


@pytest.mark.parametrize(
    ("species", "length", "low", "high"),
    [
        ("zebra-danio", 4.0, 0.5, 1.0),
        ("neon-tetra", 3.0, 0.2, 0.4),
        ("otocinclus", 4.0, 0.5, 1.0),
        ("weather-loach", 20.0, 30, 60),
        ("kuhli-loach", 8.0, 1.2, 3.5),
        ("rosy-barb", 8.0, 6, 12),
        ("fancy-goldfish", 15.0, 75, 130),
        ("trumpet-snail", 2.5, 0.4, 1.2),
        ("mystery-snail", 5.0, 12, 30),
        ("slider", 22.0, 900, 1800),
        ("oscar", 25.0, 230, 400),
        ("clown-loach", 25.0, 150, 280),
        ("angelfish", 12.0, 20, 45),
        ("common-pleco", 20.0, 70, 130),
        ("bronze-cory", 6.0, 3, 6),
    ],
)
def test_a_body_weighs_what_one_of_its_length_does(species: str, length: float, low: float, high: float) -> None:
    # Ranges from memory: weights at length of these animals, wide on purpose.
    assert low <= body_mass_g(length, SPECIES[species].body_form) <= high


@pytest.mark.parametrize(("species", "count", "enough"), [("fancy-goldfish", 2, False), ("yellow-lab", 8, True)])
def test_film_makes_up_for_flow_on_the_page_as_in_the_ranking(species: str, count: int, enough: bool) -> None:
    sponge = next(f for f in SAMPLE_BOXES if f.id == "watermint-120")
    stock = {"kind": "stock-plan", "animals": [{"species_id": species, "count": count, "length_cm": 5}]}
    installed = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": sponge.model_dump(mode="json")}]}
    view = filter_view(state_of(TANK, stock, installed))
    assert view.hanging.enough_by_film is enough
    # Goldfish keepers take a sponge as an extra only: never called enough for its film.
    assert view.enough is enough or "goldfish" not in species
    ranked = any(c.filter_id == sponge.id for c in view.ranking.ranked)
    assert ranked is enough


def test_flow_and_film_without_oxygen_are_not_enough_in_any_voice() -> None:
    canister = next(f for f in SAMPLE_BOXES if f.id == "sweetflag-1200")
    stock = {"kind": "stock-plan", "animals": [{"species_id": "discus", "count": 12}]}
    installed = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": canister.model_dump(mode="json")}]}
    view = filter_view(state_of(TANK, stock, installed))
    assert {m.about: m.level for m in view.hanging.margins} == {
        "biology": "short",
        "clarity": "ample",
        "movement": "short",
    }
    assert not view.hanging.oxygen.enough
    assert (view.enough, view.ranking.enough) == (False, None)
    # Too many for any filter is said first, then what they would die of.
    assert view.verdict.startswith("Too many for ")
    assert "Too little oxygen: " in view.verdict


def _load(*animals: tuple[str, int], **more: object) -> WasteLoadAnswer:
    stock = [Animals(species_id=s, count=n) for s, n in animals]
    return waste_load(WasteLoadQuestion(net_l=300, animals=stock, **more))


@pytest.mark.parametrize(
    ("animals", "words"),
    [
        ([("oscar", 1), ("neon-tetra", 10)], "eats what fits its mouth, and that is: Neon tetra"),
        ([("tiger-barb", 8), ("betta", 1)], "nips at long fins"),
        ([("betta", 2)], "one to a tank"),
        ([("crystal-shrimp", 10), ("molly", 4)], "wants softer water"),
        ([("slider", 1), ("common-goldfish", 2)], "eats what fits its mouth"),
        ([("royal-gramma", 1), ("guppy", 3)], "lives in salt water"),
    ],
)
def test_animals_that_harm_or_cannot_share_are_named(animals: list[tuple[str, int]], words: str) -> None:
    assert any(words in c.text for c in _load(*animals).clashes)


@pytest.mark.parametrize(
    "animals",
    [
        [("oscar", 1), ("mystery-snail", 3)],
        [("neon-tetra", 10), ("bronze-cory", 6)],
        [("fancy-goldfish", 2), ("common-goldfish", 2)],
        [("axolotl", 2)],
        [("angelfish", 2), ("bleeding-heart-tetra", 8)],
    ],
)
def test_animals_that_are_kept_together_everywhere_are_not_parted(animals: list[tuple[str, int]]) -> None:
    assert _load(*animals).clashes == []


def test_a_lonely_shoal_fish_is_advised_not_barred() -> None:
    short, enough = _load(("neon-tetra", 2)), _load(("neon-tetra", 6))
    assert short.clashes == []
    assert enough.advice == []
    assert "group of 6 or more" in short.advice[0]


def test_breeds_of_one_animal_want_one_water() -> None:
    breeds = [s for s in SPECIES.values() if s.sizing == "goldfish"]
    assert len(breeds) >= 4
    assert len({(s.ph_low, s.ph_high, s.hardness_low_dgh, s.hardness_high_dgh) for s in breeds}) == 1


def test_every_livebearer_wants_a_guard_for_its_fry() -> None:
    assert all(s.needs_guard for s in SPECIES.values() if s.group == "livebearer")


@pytest.mark.parametrize("species", SPECIES.values(), ids=lambda s: s.id)
def test_a_row_of_the_table_agrees_with_itself(species: Species) -> None:
    assert species.together == {"any": 1, "alone": 1, "pair": 2}.get(species.company, species.together)
    assert species.company != "group" or species.together >= 2
    assert " " in species.scientific_name
    assert species.adult_length_cm < 25 or species.ration_percent_day <= 1.2, (
        "a large animal eats a small share of itself"
    )
    assert not (species.water == "fresh" and species.hardness_low_dgh >= species.hardness_high_dgh)
