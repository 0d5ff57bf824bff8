"""Volumes, units, body mass and waste on worked examples and edges."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import CACO3_PER_DKH, L_PER_IMP_GAL, L_PER_US_GAL, NITROGEN_SHARE, as_nitrogen
from reedmace.core.stock import SPECIES, body_mass_g


def test_a_bare_glass_box_holds_length_times_width_times_depth() -> None:
    # 60 × 30 × 36 outside in 6 mm glass: 58.8 × 28.8 × (36 − 0.6 − 3) = 54.868 L.
    answer = compute(
        "tank-volume", {"length_cm": 60, "width_cm": 30, "height_cm": 36, "glass_mm": 6, "fill_below_rim_cm": 3}
    )
    assert answer.net_l == pytest.approx(58.8 * 28.8 * 32.4 / 1000)
    assert answer.net_us_gal == pytest.approx(answer.net_l / 3.785411784)
    assert answer.water_depth_cm == pytest.approx(32.4)


def test_inside_sizes_take_no_glass_off() -> None:
    answer = compute(
        "tank-volume", {"length_cm": 60, "width_cm": 30, "height_cm": 36, "measured": "inside", "fill_below_rim_cm": 0}
    )
    assert answer.net_l == pytest.approx(64.8)
    assert answer.gross_l == pytest.approx(64.8)


def test_substrate_stone_and_wood_displace_only_their_solid_part() -> None:
    bare = {"length_cm": 100, "width_cm": 50, "height_cm": 50, "measured": "inside", "fill_below_rim_cm": 0}
    full = compute("tank-volume", {**bare, "substrate_depth_cm": 5, "stone_kg": 26, "wood_kg": 1.1})
    assert full.net_l == pytest.approx(250 - 25 * 0.6 - 10 - 1)
    # Water 224, grains 15 L × 2.65, 27.1 kg of scape, and the glass.
    glass_l = (101.2 * 51.2 * 50.6 - 100 * 50 * 50) / 1000
    assert full.filled_kg == pytest.approx(224 + 15 * 2.65 + 27.1 + glass_l * 2.5)


def test_water_in_a_canister_is_dosed_too() -> None:
    base = {"length_cm": 60, "width_cm": 30, "height_cm": 36}
    assert compute("tank-volume", {**base, "water_outside_l": 4}).net_l == pytest.approx(
        compute("tank-volume", base).net_l + 4
    )


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"glass_mm": 50, "length_cm": 9}, "glass_mm"),
        ({"fill_below_rim_cm": 40}, "fill_below_rim_cm"),
        ({"substrate_depth_cm": 35}, "substrate_depth_cm"),
        ({"stone_kg": 400}, "stone_kg"),
    ],
    ids=["all glass", "filled below the base", "substrate over the water", "more stone than room"],
)
def test_a_tank_without_water_is_refused_at_the_field_to_blame(change: dict, where: str) -> None:
    with pytest.raises(CannotAnswer) as caught:
        compute("tank-volume", {"length_cm": 60, "width_cm": 30, "height_cm": 36, **change})
    assert caught.value.where == where
    assert caught.value.remedy


@given(st.floats(20, 400), st.floats(20, 200), st.floats(20, 150), st.floats(0, 10), st.floats(0, 8))
def test_more_substrate_never_holds_more_water(
    length: float, width: float, height: float, fill: float, substrate: float
) -> None:
    base = {"length_cm": length, "width_cm": width, "height_cm": height, "glass_mm": 5, "fill_below_rim_cm": fill}
    less, more = (compute("tank-volume", {**base, "substrate_depth_cm": s}).net_l for s in (substrate / 2, substrate))
    assert 0 < more <= less <= length * width * height / 1000


@pytest.mark.parametrize(
    ("text", "kind", "home"),
    [
        ("60", "length", 60),
        ("24 in", "length", 60.96),
        ("4 ft", "length", 121.92),
        ("4' 2\"", "length", 127),
        ("4ft 2in", "length", 127),
        ("90cm", "length", 90),
        ("0.9 m", "length", 90),
        ("20 gal", "volume", 75.70823568),
        ("20 US gal", "volume", 75.70823568),
        ("16 imp gal", "volume", 72.73744),
        ("20 L", "volume", 20),
        ("185 gph", "flow", 700.3011800),
        ("700 l/h", "flow", 700),
        ("700 lph", "flow", 700),
        ("2,5 kg", "mass", 2.5),
        ("500 g", "mass", 0.5),
        ("4 lb", "mass", 1.81436948),
        ("77F", "temperature", 25),
        ("25 °C", "temperature", 25),
        ("25", "temperature", 25),
        ("70 mg/L", "hardness", 70 / 17.85),
        ("4 dKH", "hardness", 4),
        ("71.4 ppm", "hardness", 4),
    ],
)
def test_what_people_type_is_read_in_its_home_unit(text: str, kind: str, home: float) -> None:
    assert compute("read-quantity", {"text": text, "kind": kind}).value == pytest.approx(home, rel=1e-6)


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("blue", "length"),
        ("12 kg", "length"),
        ("1 2", "volume"),
        ("4 ft 2", "length"),
        ("12 !", "mass"),
        ("1e400", "mass"),
        ("(", "flow"),
    ],
)
def test_what_makes_no_sense_is_refused_with_an_example(text: str, kind: str) -> None:
    with pytest.raises(CannotAnswer, match="Type for example"):
        compute("read-quantity", {"text": text, "kind": kind})


def test_gallons_are_the_exact_ones() -> None:
    assert pytest.approx(231 * 2.54**3 / 1000, rel=1e-12) == L_PER_US_GAL
    assert L_PER_IMP_GAL == 4.54609
    assert pytest.approx(17.85, abs=0.01) == CACO3_PER_DKH


@pytest.mark.parametrize(("form", "factor"), [("NH3", 1.2159), ("NH4", 1.2878), ("NO2", 3.2845), ("NO3", 4.4268)])
def test_nitrogen_shares_follow_the_atomic_masses(form: str, factor: float) -> None:
    assert pytest.approx(factor, rel=2e-4) == 1 / NITROGEN_SHARE[form]


def test_a_reading_as_nitrogen_is_left_alone() -> None:
    assert as_nitrogen(2, "nitrite", "N") == 2
    assert as_nitrogen(3.2845, "nitrite", "ion") == pytest.approx(1, rel=1e-4)


def test_species_are_real_enough_to_use() -> None:
    assert len(SPECIES) >= 20
    for s in SPECIES.values():
        assert s.temperature_low_c < s.temperature_high_c
        assert s.ph_low < s.ph_high
        assert 0 < body_mass_g(s.adult_length_cm, s.body_form) < 5000
        assert "memory" in s.figures or "common practice" in s.figures
    for needed in (
        "harlequin-rasbora",
        "zebra-danio",
        "pearl-gourami",
        "cherry-shrimp",
        "ricefish",
        "rosy-barb",
        "weather-loach",
        "axolotl",
    ):
        assert needed in SPECIES


def test_body_mass_follows_length_cubed_or_so() -> None:
    assert body_mass_g(10, "fusiform") == pytest.approx(0.0112 * 10**3.04)
    assert body_mass_g(20, "fusiform") / body_mass_g(10, "fusiform") == pytest.approx(2**3.04)


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
