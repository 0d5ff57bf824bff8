"""Oxygen in ordinary tanks that live for years, of which none may come out short, and in tanks that run short."""

from typing import Any, NamedTuple

import pytest

from reedmace.core.flow import OxygenBalanceAnswer
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.stages import filter_view
from tests.support.lives import Row, lived

Stock = tuple[str, int, float | None]


class Tank(NamedTuple):
    """Inside sizes in cm, animals with their length today, filters by kind and box flow in L/h, and °C."""

    name: str
    size: tuple[int, int, int]
    animals: list[Stock]
    filters: list[tuple[str, int]]
    temperature_c: float = 25
    water: str = "fresh"
    place: dict[str, Any] | None = None


ORDINARY = [
    Tank("a slider, which breathes air", (120, 50, 50), [("slider", 1, 20)], [("canister", 1500)]),
    Tank("frogs on a sponge", (45, 30, 30), [("african-dwarf-frog", 6, None)], [("sponge", 200)]),
    Tank("an axolotl in the cool", (90, 40, 40), [("axolotl", 1, None)], [("canister", 500)], 17),
    Tank(
        "a show tank under a canister alone",
        (120, 40, 50),
        [("neon-tetra", 30, None), ("bronze-cory", 8, None), ("pearl-gourami", 4, None)],
        [("canister", 900)],
    ),
    Tank(
        "a reef over its sump",
        (120, 60, 55),
        [("ocellaris-clownfish", 2, None), ("yellow-tang", 1, 12), ("royal-gramma", 1, None)],
        [("sump", 2000)],
        26,
        "salt",
    ),
    Tank("discus at 28", (130, 50, 50), [("discus", 6, 14)], [("canister", 1200)], 28),
    Tank("discus at 29, hang-on", (130, 50, 50), [("discus", 5, 14)], [("hang-on", 1200), ("sponge", 300)], 29),
    Tank("sixty half-grown cichlids on a sponge", (100, 40, 45), [("yellow-lab", 60, 6)], [("sponge", 600)]),
    Tank("ten large cichlids", (200, 60, 55), [("jack-dempsey", 10, 18)], [("canister", 1500), ("canister", 1500)]),
    Tank("two oscars", (180, 50, 55), [("oscar", 2, 28)], [("canister", 1500)], 26),
    Tank("goldfish in the cool", (110, 45, 45), [("fancy-goldfish", 4, 14)], [("hang-on", 1500)], 20),
    Tank("a betta", (35, 25, 28), [("betta", 1, None)], [("sponge", 60)], 26),
    Tank("guppies under a hang-on", (60, 30, 36), [("guppy", 15, None)], [("hang-on", 300)]),
    Tank("shrimp on a sponge", (45, 25, 30), [("cherry-shrimp", 40, None)], [("sponge", 100)], 22),
    Tank("corydoras by an internal", (80, 35, 40), [("bronze-cory", 20, None)], [("internal", 400)]),
    Tank("mbuna", (120, 50, 55), [("yellow-lab", 20, 9), ("demasoni", 10, None)], [("canister", 1800)], 26),
    Tank("angelfish", (100, 40, 55), [("angelfish", 6, 11)], [("canister", 900)], 26),
    Tank("a large pleco", (150, 50, 55), [("common-pleco", 1, 35), ("severum", 4, 16)], [("canister", 1500)], 26),
    Tank("clown loaches", (180, 60, 55), [("clown-loach", 8, 18)], [("canister", 1800)], 27),
    Tank(
        "a planted tank with CO2 by day",
        (90, 40, 45),
        [("neon-tetra", 30, None), ("cherry-shrimp", 20, None)],
        [("canister", 700)],
        25,
        "fresh",
        {"planted": True, "co2": "by-day"},
    ),
    Tank(
        "a community under a shut lid",
        (80, 35, 40),
        [("zebra-danio", 12, None)],
        [("internal", 500)],
        25,
        "fresh",
        {"lid": True},
    ),
    Tank("fry on a sponge", (45, 30, 30), [("guppy", 60, 1.2)], [("sponge", 150)]),
]
SHORT = [
    Tank("a crowd at 31", (100, 40, 45), [("yellow-lab", 60, 9)], [("canister", 900)], 31),
    Tank("eight goldfish in sixty litres", (60, 30, 36), [("fancy-goldfish", 8, 15)], [("internal", 300)], 28),
    Tank("six oscars in 150 litres", (100, 40, 45), [("oscar", 6, 25)], [("canister", 900)], 27),
    Tank("a dozen discus on a small sponge", (100, 40, 55), [("discus", 12, 16)], [("sponge", 150)], 30),
    Tank(
        "CO2 through the night under a film",
        (90, 40, 45),
        [("neon-tetra", 40, None), ("angelfish", 4, 10)],
        [("canister", 500)],
        27,
        "fresh",
        {"planted": True, "co2": "day-and-night", "surface_film": True},
    ),
    Tank(
        "a film and a lid over goldfish",
        (80, 35, 40),
        [("fancy-goldfish", 4, 13)],
        [("internal", 400)],
        24,
        "fresh",
        {"surface_film": True, "lid": True},
    ),
    Tank("twice the cichlids, grown on", (100, 40, 45), [("yellow-lab", 120, 7)], [("sponge", 300)], 27),
]


def chosen(kind: str, lph: int, key: str) -> dict[str, Any]:
    """The filter of a kind whose box is nearest to a flow."""
    boxes = [f for f in SAMPLE_BOXES if f.kind == kind]
    nearest = min(boxes, key=lambda f: abs((f.box_lph or 0) - lph))
    return {"key": key, "filter": nearest.model_dump()}


def oxygen(tank: Tank) -> OxygenBalanceAnswer:
    length, width, height = tank.size
    rows: list[Row] = [
        (
            100.0,
            {
                "kind": "tank-plan",
                "tank": {"length_cm": length, "width_cm": width, "height_cm": height},
                "surroundings": {"temperature_c": tank.temperature_c, "water": tank.water, **(tank.place or {})},
            },
        ),
        (
            99.0,
            {
                "kind": "stock-plan",
                "animals": [{"species_id": s, "count": n, "length_cm": cm} for s, n, cm in tank.animals],
            },
        ),
        (
            98.0,
            {
                "kind": "filter-plan",
                "filters": [chosen(kind, lph, f"f{i}") for i, (kind, lph) in enumerate(tank.filters)],
            },
        ),
    ]
    hanging = filter_view(lived(*rows)).hanging
    assert hanging is not None
    return hanging.oxygen


@pytest.mark.parametrize("tank", ORDINARY, ids=lambda tank: tank.name)
def test_no_ordinary_tank_comes_out_short(tank: Tank) -> None:
    found = oxygen(tank)
    assert found.enough
    assert "too little" not in found.verdict


@pytest.mark.parametrize("tank", SHORT, ids=lambda tank: tank.name)
def test_a_tank_that_runs_short_is_called_so(tank: Tank) -> None:
    found = oxygen(tank)
    assert not found.enough
    assert "too little" in found.verdict


@pytest.mark.parametrize("tank", ORDINARY[3:6], ids=lambda tank: tank.name)
def test_with_everything_off_the_hours_are_counted_to_a_cautious_end(tank: Tank) -> None:
    found = oxygen(tank)
    assert found.standing_mg_l < found.running_mg_l
    assert found.short_after_h is None or found.short_after_h > 0
