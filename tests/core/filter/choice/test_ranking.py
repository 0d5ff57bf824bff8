"""Shapes, own animals, media, labels, air, jets, overflow, fade and the shopping list."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.typical import typical_box
from reedmace.core.stock import SPECIES
from reedmace.demo.sample_boxes import SAMPLE_BOXES

BY_ID = {f.id: f for f in SAMPLE_BOXES}
DANIO = SPECIES["zebra-danio"].model_dump()


def tank(**changes):
    return compute("tank-volume", {"length_cm": 80, "width_cm": 35, "height_cm": 45, "glass_mm": 8, **changes})


def counted_area(inside, length: float, width: float) -> float:
    """Area in cm² by counting squares of a millimetre or so: as independent as it gets."""
    x, y = np.meshgrid(np.linspace(-length, length, 2401), np.linspace(-width, width, 2401))
    return float(np.mean(inside(x, y)) * 4 * length * width)


def test_a_cylinder_a_prism_a_bow_front_and_a_corner_hold_what_counting_squares_says() -> None:
    g = 0.8
    cases = {
        "cylinder": ({"shape": "cylinder", "length_cm": 60}, lambda x, y: x**2 + y**2 <= (30 - g) ** 2),
        "hexagon": (
            {"shape": "prism", "length_cm": 60, "sides_count": 6},
            lambda x, y: np.all(
                [x * math.cos(a) + y * math.sin(a) <= 30 - g for a in np.arange(6) * math.pi / 3], axis=0
            ),
        ),
        "corner": (
            {"shape": "corner", "length_cm": 60},
            lambda x, y: (x >= g) & (y >= g) & (x**2 + y**2 <= (60 - g) ** 2),
        ),
        "bow-front": (
            {"shape": "bow-front", "length_cm": 80, "width_cm": 30, "bow_cm": 10},
            # The arc through (±40, 30) and (0, 40): radius 85, middle at y = -45.
            lambda x, y: (np.abs(x) <= 40 - g) & (y >= g) & (x**2 + (y + 45) ** 2 <= (85 - g) ** 2),
        ),
    }
    for name, (shape, inside) in cases.items():
        answer = tank(**shape, fill_below_rim_cm=0)
        assert answer.surface_cm2 == pytest.approx(counted_area(inside, 62, 62), rel=3e-3), name
        assert answer.net_l == pytest.approx(answer.surface_cm2 * 44.2 / 1000), name


def test_a_prism_of_four_sides_is_a_box_and_many_sides_a_cylinder() -> None:
    box, square = tank(length_cm=50, width_cm=50), tank(shape="prism", length_cm=50, sides_count=4)
    assert square.net_l == pytest.approx(box.net_l)
    round_, many = tank(shape="cylinder", length_cm=50), tank(shape="prism", length_cm=50, sides_count=12)
    assert round_.net_l < many.net_l < 1.03 * round_.net_l


def test_a_counted_fill_beats_the_estimate_and_says_so() -> None:
    answer = tank(counted_l=88, stone_kg=10)
    assert answer.net_l == 88
    assert any(line.source == "keeper" and line.value == 88 for line in answer.working)
    with pytest.raises(CannotAnswer, match="the glass holds"):
        tank(counted_l=900)


def test_a_bow_deeper_than_a_half_circle_is_refused_with_its_limit() -> None:
    with pytest.raises(CannotAnswer, match="at most 40 cm"):
        tank(shape="bow-front", bow_cm=60)


@given(st.sampled_from(["box", "bow-front", "cylinder", "prism", "corner"]), st.floats(30, 200), st.floats(4, 12))
def test_thicker_glass_never_holds_more_and_inside_sizes_hold_more_than_outside(shape, length, glass) -> None:
    at = {"shape": shape, "length_cm": length, "bow_cm": 5}
    thin, thick = tank(**at, glass_mm=glass), tank(**at, glass_mm=glass + 2)
    assert thick.net_l < thin.net_l < tank(**at, glass_mm=glass, measured="inside").net_l
    assert thin.footprint_cm2 >= thin.surface_cm2


# --- stock


def test_the_species_table_is_broad_and_each_figure_says_where_it_is_from() -> None:
    assert len(SPECIES) >= 150
    groups = {s.group for s in SPECIES.values()}
    assert {"goldfish", "cichlid", "catfish", "loach", "livebearer", "nano fish", "shrimp", "snail", "turtle"} <= groups
    assert sum(s.water == "salt" for s in SPECIES.values()) >= 8
    assert all("memory" in s.figures or "practice" in s.figures for s in SPECIES.values())


@pytest.mark.parametrize(
    ("species", "length", "low", "high"),
    [
        ("common-goldfish", 20, 90, 200),
        ("zebra-danio", 3.5, 0.15, 0.7),
        ("oscar", 25, 200, 420),
        ("guppy", 3, 0.2, 0.6),
    ],
)
def test_weights_at_length_are_those_anglers_and_breeders_weigh(species, length, low, high) -> None:
    # Ranges as published length-weight tables give them (FishBase, species pages; from memory).
    from reedmace.core.stock import body_mass_g

    assert low < body_mass_g(length, SPECIES[species].body_form) < high


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


# --- media


STACKED = BY_ID["sweetflag-800"].model_copy(update={"media_l": 4.4, "face_cm2": 260})
PACKED: dict[str, Any] = {
    "filter": STACKED.model_dump(),
    "site": {"net_l": 100, "water_depth_cm": 40, "length_cm": 80, "width_cm": 35},
    "feed_g_day": 2,
}


def stack(*media: str, **more):
    baskets = [{"media": m, "litres": 1.4} for m in media]
    return compute("media-stack", {**PACKED, "baskets": baskets, **more})


def test_coarse_to_fine_then_film_is_in_order() -> None:
    assert stack("foam-10", "foam-30", "ceramic-rings").faults == []


@pytest.mark.parametrize(
    ("media", "words"),
    [
        (("floss", "foam-10", "ceramic-rings"), "before a coarser one"),
        (("ceramic-rings", "foam-10", "foam-20"), "meets the dirt before the foam"),
        (("carbon", "foam-10", "ceramic-rings"), "comes early"),
    ],
    ids=["fine first", "film first", "chemistry first"],
)
def test_each_order_fault_is_named_with_its_remedy(media, words) -> None:
    faults = stack(*media).faults
    assert any(words in f.what and f.remedy and f.where == "basket 1" for f in faults)


def test_bags_loose_trays_cramming_and_gaps_are_faults() -> None:
    one = {"media": "foam-20", "litres": 4.4}
    bagged = compute("media-stack", {**PACKED, "baskets": [{**one, "bagged": True}]})
    loose = compute("media-stack", {**PACKED, "baskets": [{**one, "seated": False}]})
    assert "plastic bag" in bagged.faults[0].what
    assert "20%" in loose.faults[0].what
    assert any("way round" in f.what for f in stack("foam-20").faults)
    # What fits a canister to the brim is crammed in a hang-on.
    full = {**PACKED, "baskets": [{**one, "litres": 4.2}]}
    installed = BY_ID["millrace-60"].model_copy(update={"media_l": 4.4}).model_dump()
    assert compute("media-stack", full).faults == []
    assert "spills over the back" in compute("media-stack", {**full, "filter": installed}).faults[0].what


def test_a_finer_first_medium_wants_cleaning_sooner_and_never_passes_more() -> None:
    heavy = {"feed_g_day": 20}
    coarse, fine = (
        stack("foam-10", "ceramic-rings", "sintered", **heavy),
        stack("floss", "ceramic-rings", "sintered", **heavy),
    )
    assert fine.service_days < coarse.service_days
    assert fine.clean_lph <= coarse.clean_lph
    # One limit: 70 % of the clean flow, or the kind's usual interval where that comes first.
    assert fine.dirty_lph == pytest.approx(0.7 * fine.clean_lph, rel=1e-3)
    assert stack("foam-10", "ceramic-rings", "sintered", feed_g_day=0.3).service_days == 60


def test_the_media_school_counts_ceramic_and_asks_twice_for_heavy_stock() -> None:
    big = {**PACKED["site"], "net_l": 150}
    answer, heavy = (
        stack("foam-10", "ceramic-rings", "sintered", site=big),
        stack("foam-10", site=big, animals=[{"species_id": "oscar", "count": 1}]),
    )
    assert answer.asked_kg == pytest.approx(1.5)
    assert heavy.asked_kg == pytest.approx(3.0)
    assert answer.has_kg == pytest.approx(1.4 * 0.55 + 1.4 * 0.5)


def test_a_cartridge_gets_both_sides() -> None:
    advice = " ".join(stack("cartridge").advice)
    assert "shops and some beginners like it" in advice
    assert "takes the film with it" in advice


# --- label


def test_gallons_and_litres_that_agree_pass_and_imperial_ones_are_spotted() -> None:
    assert compute("label-check", {"box_lph": 800, "box_us_gal_per_hour": 211}).agrees
    wrong = compute("label-check", {"box_lph": 800, "box_us_gal_per_hour": 176})
    assert "imperial" in wrong.findings[0]
    assert wrong.lph == pytest.approx(176 * 3.785411784)


def test_a_pump_cannot_give_more_power_than_it_takes() -> None:
    assert any(
        "cannot have both" in f for f in compute("label-check", {"box_lph": 3000, "max_head_m": 3, "watts": 6}).findings
    )
    assert compute("label-check", {"box_lph": 800, "max_head_m": 1.4, "watts": 14}).agrees


def test_a_boastful_tank_range_is_cut_down() -> None:
    answer = compute("label-check", {"box_lph": 300, "tank_up_to_l": 300})
    assert "up to about 60 L" in answer.findings[0]


def test_a_box_in_hand_says_for_which_tanks_it_is_with_a_normal_and_a_heavy_stock() -> None:
    found = compute("label-check", {"box_lph": 900, "kind": "hang-on"})
    assert (found.normal.low_l, found.normal.high_l) == (150, 225)
    assert (found.heavy.low_l, found.heavy.high_l) == (75, 90)
    assert "150 to 225 L with a community, 75 to 90 L with goldfish" in found.carries_words
    sponge = compute("label-check", {"box_lph": 200, "kind": "sponge"})
    assert "up to 115 L" in sponge.carries_words
    assert "community" not in sponge.carries_words


def test_what_the_box_does_not_say_is_as_usual_for_its_kind_and_size() -> None:
    (found,) = compute("label-check", {"box_lph": 790, "kind": "canister", "watts": 9}).filters
    usual = typical_box(kind_of("canister"), 790)
    assert (found.box_lph, found.watts) == (790, 9)
    assert (found.height_cm, found.max_head_m) == (usual.height_cm, usual.max_head_m)
    answer = compute("label-check", {"box_lph": 790, "watts": 9})
    assert [m.split(":")[0] for m in answer.missing] == ["No kind", "No lift", "No tank size"]
    assert not answer.kind_known
    assert {"canister", "hang-on", "internal"} <= {f.kind for f in answer.filters}
    assert all(f.kind in answer.missing[0] for f in answer.filters)
    said = compute("label-check", {"box_lph": 790, "watts": 9, "kind": "hang-on"})
    assert [f.kind for f in said.filters] == ["hang-on"]
    assert not any(m.startswith("No kind") for m in said.missing)
    with pytest.raises(CannotAnswer, match="no flow"):
        compute("label-check", {"watts": 9})


# --- one filter on one tank

ROOM = {"net_l": 131, "water_depth_cm": 41, "length_cm": 89, "width_cm": 39, "beneath_cm": 66, "rim_to_water_cm": 3}


def on_tank(filter_id: str, **more):
    return compute("filter-flow", {"filter": BY_ID[filter_id].model_dump(), "site": ROOM, **more})


def test_height_costs_a_canister_nothing_a_sump_all_and_a_hang_on_its_lip() -> None:
    canister, sump, installed_filters = on_tank("sweetflag-800"), on_tank("millpond-60"), on_tank("millrace-60")
    assert canister.rise_m == 0
    assert "costs nothing" in canister.loop
    assert sump.rise_m == pytest.approx((66 + 41 - 20) / 100)
    assert installed_filters.rise_m == pytest.approx((BY_ID["millrace-60"].lip_cm + 1) / 100)
    assert "evaporation" in installed_filters.loop
    above = on_tank("sweetflag-800", plumbing={"outlet_above_water_cm": 30})
    assert above.rise_m == pytest.approx(0.3)
    assert above.pumped.delivered_lph < canister.pumped.delivered_lph


def test_flow_falls_through_the_service_interval() -> None:
    flows = [p.flow_lph for p in on_tank("sweetflag-800").pumped.interval]
    assert flows == sorted(flows, reverse=True)
    assert flows[0] > flows[-1]


def test_a_pump_turned_down_follows_the_affinity_laws_in_the_ranking_too() -> None:
    slow = {"speed_share": 0.6}
    one = on_tank("sweetflag-800", plumbing=slow).pumped.delivered_lph
    answer = compute(
        "rank-filters", {"site": ROOM, "plumbing": slow, "own_filters": [f.model_dump() for f in SAMPLE_BOXES]}
    )
    assert next(
        e for e in [*answer.ranked, *answer.excluded] if e.filter_id == "sweetflag-800"
    ).delivered_lph == pytest.approx(one, rel=1e-6)
    assert 0.5 < one / on_tank("sweetflag-800").pumped.delivered_lph < 0.62


def test_air_lifts_answer_by_their_own_law() -> None:
    answer = on_tank("burreed-40")
    assert answer.pumped is None
    assert answer.lifted.delivered_lph > answer.lifted.dirty_lph > 0
    assert answer.lifted.evaporated_lph < answer.lifted.delivered_lph


# --- jets, overflow, air, fade


def overflow(**more):
    return compute("overflow-check", {"return_lph": 2000, "tank_surface_cm2": 9000, "sump_free_l": 30, **more})


def test_an_overflow_is_francis_and_bernoulli() -> None:
    answer = overflow(weir_cm=30, weir_head_mm=15)
    assert answer.weir_lph == pytest.approx(1.84 * 0.3 * 0.015**1.5 * 3.6e6)
    # Frictionless, lossless pipe: v = sqrt(2 g h).
    from reedmace.core.flow.overflow import siphon_m3s

    bare = siphon_m3s(0.05, 1e-9, 0.5, 0.0)
    assert bare == pytest.approx(math.sqrt(2 * 9.80665 * 0.5) * math.pi / 4 * 0.05**2, rel=1e-6)


def test_a_power_cut_that_overfills_the_sump_is_said_in_litres() -> None:
    assert overflow().holds
    flood = overflow(return_below_surface_cm=8)
    assert not flood.holds
    assert flood.run_back_l == pytest.approx(9000 * 8 / 1000 + 2)
    assert "floods" in flood.verdict
    assert flood.remedies


def test_a_narrow_drain_is_found_out() -> None:
    assert not overflow(drain_bore_mm=12).drains


def air(**more):
    one = {"count": 4, "depth_cm": 35, "air_l_min": 0.8, **more.pop("outlet", {})}
    return compute("air-supply", {"pump_l_min": 10, "pump_kpa": 20, "outlets": [one], **more})


def test_depth_presses_back_with_its_own_weight() -> None:
    deeper = air(outlet={"depth_cm": 45})
    assert deeper.needed_kpa - air().needed_kpa == pytest.approx(998 * 9.80665 * 0.10 / 1000)
    with pytest.raises(CannotAnswer, match="gives up"):
        air(outlet={"depth_cm": 250})


def test_a_pump_carries_as_many_more_as_it_says_and_not_one_beyond() -> None:
    more = air().more_count
    assert more > 0
    assert air(outlet={"count": 4 + more}).carries
    assert not air(outlet={"count": 5 + more}).carries


def test_a_ring_main_costs_less_than_a_dead_end() -> None:
    long = {"main_length_m": 20, "main_bore_mm": 4}
    assert air(**long, ring=True).needed_kpa < air(**long).needed_kpa


def test_a_small_air_pump_can_carry_a_room_of_sponges() -> None:
    # Common practice: one small air pump carries dozens of sponges.
    answer = compute(
        "air-supply",
        {
            "pump_l_min": 30,
            "pump_kpa": 25,
            "outlets": [{"count": 24, "depth_cm": 30, "air_l_min": 0.5}],
            "main_bore_mm": 19,
            "main_length_m": 8,
        },
    )
    assert answer.carries


def test_fade_finds_the_rate_it_was_made_with() -> None:
    clean, rate = 750.0, 6e-6

    def at(day):
        r = rate * day * clean
        return clean * (math.sqrt(r * r + 4) - r) / 2

    answer = compute("flow-fade", {"tests": [{"day": d, "flow_lph": at(d)} for d in (0, 30, 75, 120)]})
    assert answer.clean_lph == pytest.approx(clean, rel=0.01)
    assert at(answer.service_day) == pytest.approx(0.7 * clean, rel=0.02)


def test_fade_needs_time_between_tests_and_a_flow_that_falls() -> None:
    with pytest.raises(CannotAnswer, match="within a day"):
        compute("flow-fade", {"tests": [{"day": 0, "flow_lph": 700}, {"day": 0.2, "flow_lph": 690}]})
    assert (
        compute("flow-fade", {"tests": [{"day": 0, "flow_lph": 700}, {"day": 60, "flow_lph": 700}]}).service_day is None
    )


# --- shopping


def shopping(filter_id: str, **more):
    one = {"filter": BY_ID[filter_id].model_dump(), "site": {**PACKED["site"], "behind_cm": 12}}
    one |= {k: more.pop(k) for k in ("plumbing", "media", "layout") if k in more}
    answer = compute("shopping-list", {"filters": [one], "net_l": 131, **more})
    return {i.item: i for i in answer.items}


def test_a_canister_brings_hose_cut_long_clamps_valves_and_a_spare_seal() -> None:
    items = shopping("sweetflag-800")
    plan = compute("fitting-plan", {"filter": BY_ID["sweetflag-800"].model_dump(), "site": PACKED["site"]})
    cut_m = sum(c.amount for c in plan.cuts if c.unit == "cm") / 100
    assert cut_m <= items["Hose, 16 mm bore"].amount < cut_m + 0.5
    pieces = {c.item.capitalize(): c.amount for c in plan.cuts if c.unit == "piece"}
    assert pieces["Valves with quick release"] == items["Valves with quick release"].amount
    assert items["Hose clamps"].amount == 4
    assert items["Spare O-ring or seal"].need == "spare"
    assert "Check valve" not in items


def test_air_brings_a_check_valve_and_small_animals_a_guard() -> None:
    assert "Check valve" in shopping("burreed-20", needs_guard=True)
    assert "Guard sponge for the intake" not in shopping("burreed-20", needs_guard=True)
    assert shopping("millrace-60", needs_guard=True)["Guard sponge for the intake"].amount == 2


def test_the_ammonia_is_eight_doses_for_this_water() -> None:
    dose = compute("ammonia-dose", {"net_l": 131, "product": {"form": "ammonium-chloride"}, "target_ppm": 2}).grams
    assert shopping("millrace-60")["Ammonia source, aquarium grade"].amount == pytest.approx(8 * dose, rel=0.01)


def test_media_are_bought_by_weight_or_by_volume() -> None:
    items = shopping(
        "sweetflag-800", media=[{"media": "foam-10", "litres": 1}, {"media": "ceramic-rings", "litres": 3}]
    )
    assert (items["Coarse foam, 10 ppi"].amount, items["Coarse foam, 10 ppi"].unit) == (1, "L")
    assert (items["Ceramic rings"].amount, items["Ceramic rings"].unit) == (pytest.approx(1.65), "kg")
