"""Sizing rules: what each school asks of this tank and stock, side by side, never averaged."""

import pytest

from reedmace.core.computations import compute

SHOAL = [{"species_id": "harlequin-rasbora", "count": 12}, {"species_id": "zebra-danio", "count": 8}]


def schools(net_l: float, species: str, count: int = 2):
    answer = compute("flow-requirement", {"net_l": net_l, "animals": [{"species_id": species, "count": count}]})
    return {s.rule: s for s in answer.sizing_rules}, answer


@pytest.mark.parametrize(
    ("species", "low", "high"),
    [("zebra-danio", 400, 600), ("fancy-goldfish", 1000, 1200), ("slider", 600, 800), ("oscar", 800, 1000)],
    ids=["community", "goldfish", "turtle", "messy"],
)
def test_the_shop_rule_goes_by_the_animal(species: str, low: float, high: float) -> None:
    found, _ = schools(100, species, count=12 if species == "zebra-danio" else 2)
    assert (found["rated"].low_lph, found["rated"].high_lph) == (low, high)
    assert found["delivered"].followed


def test_schools_stand_side_by_side_and_one_is_followed_with_a_reason() -> None:
    found, _ = schools(100, "zebra-danio")
    assert [s.rule for s in found.values() if s.followed] == ["delivered"]
    assert all(s.why for s in found.values())
    assert found["media"].low_lph is None
    assert found["media"].media_kg == pytest.approx(1)
    # As printed for next to no stock, 60 to 70 % of it when full.
    assert found["label"].label_l == pytest.approx(100, abs=6)
    assert schools(100, "zebra-danio", count=40)[0]["label"].label_l == pytest.approx(100 / 0.65)
    assert found["count"].asks == "one sponge, whatever the turnover"
    assert schools(200, "zebra-danio")[0]["count"].asks == "2 sponges, whatever the turnover"


def test_goldfish_bring_the_canister_keepers_and_lose_the_label() -> None:
    found, answer = schools(100, "fancy-goldfish")
    assert answer.heavy
    assert not schools(100, "zebra-danio")[1].heavy
    assert found["canister-only"].low_lph == 600
    assert found["label"].label_l is None
    assert found["media"].media_kg == pytest.approx(2)


def test_load_asks_for_little_in_an_ordinary_tank() -> None:
    answer = compute("flow-requirement", {"net_l": 130, "animals": SHOAL})
    load = next(s for s in answer.sizing_rules if s.rule == "load")
    rated = next(s for s in answer.sizing_rules if s.rule == "rated")
    assert load.low_lph < 0.25 * rated.low_lph


def test_who_wants_calm_water_is_told_in_their_own_lengths_a_second() -> None:
    assert "Cherry shrimp (under 2.5 cm a second)" in schools(100, "cherry-shrimp")[1].calm_words
    assert schools(100, "zebra-danio")[1].calm_words == "None of these animals needs still water."
