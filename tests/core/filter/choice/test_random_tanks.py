"""Random tanks: no margin contradicts its headline, no remedy another, and what comes first is nowhere barred."""

import re

import numpy as np
import pytest

from reedmace.core.computations import compute
from reedmace.core.stock import SPECIES
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.stages import filter_view, stock_view
from tests.support.bounds import bounded
from tests.support.lives import Row, lived

SAMPLES = [f.model_dump(mode="json") for f in SAMPLE_BOXES]

SEEDS = range(bounded(3000, 60))
WATERS = {w: sorted(s for s, row in SPECIES.items() if row.water == w) for w in ("fresh", "brackish", "salt")}
ROOMS = ("living", "bedroom", "fish-room", "shop", "workshop")


def site_and_stock(seed: int) -> tuple[dict, list[dict], dict]:
    """A tank's inside sizes, its animals and its surroundings."""
    rng = np.random.default_rng((seed, 28))
    water = str(rng.choice(list(WATERS), p=[0.75, 0.1, 0.15]))
    length = float(rng.choice([30, 45, 60, 90, 120, 180, 250]))
    size = {"length_cm": length, "width_cm": round(length * 0.45), "height_cm": round(length * 0.4) + 12}
    size["substrate_depth_cm"] = float(rng.choice([0, 4, 8]))
    animals = [
        {
            "species_id": str(rng.choice(WATERS[water])),
            "count": int(rng.integers(1, 2 + int(length / 8))),
            **({"length_cm": float(rng.integers(2, 6))} if rng.uniform() < 0.3 else {}),
        }
        for _ in range(int(rng.integers(0, 4)))
    ]
    around = {
        "water": water,
        "room": str(rng.choice(ROOMS)),
        "behind_cm": float(rng.choice([2, 6, 14])),
        "stand_height_cm": float(rng.choice([0, 40, 75])),
        "sockets": int(rng.integers(0, 4)),
        "planted": bool(rng.integers(2)),
        "co2": str(rng.choice(["none", "none", "by-day", "day-and-night"])),
        "surface_film": bool(rng.uniform() < 0.1),
        "lid": bool(rng.integers(2)),
        "drilled": bool(rng.uniform() < 0.2),
        "tanks_here_count": int(rng.choice([1, 1, 8, 60])),
        "temperature_c": float(rng.integers(18, 30)),
    }
    return size, animals, around


def state(seed: int, hangs: int):
    size, animals, around = site_and_stock(seed)
    unique = list({a["species_id"]: a for a in animals}.values())
    rows: list[Row] = [
        (9.0, {"kind": "tank-plan", "tank": size, "surroundings": around}),
        (8.0, {"kind": "stock-plan", "animals": unique}),
    ]
    if hangs:
        rng = np.random.default_rng((seed, 29))
        boxes = [SAMPLE_BOXES[int(i)] for i in rng.integers(0, len(SAMPLE_BOXES), hangs)]
        filters = [{"key": f"f{i}", "filter": f.model_dump()} for i, f in enumerate(boxes)]
        rows.append((7.0, {"kind": "filter-plan", "filters": filters}))
    return lived(*rows)


@pytest.mark.slow
@pytest.mark.parametrize("seed", SEEDS)
def test_what_is_said_of_a_tank_does_not_contradict_itself(seed: int) -> None:
    view = filter_view(state(seed, 0))
    ranking = view.ranking
    barred = {e.filter_id for e in ranking.excluded}
    if len(ranking.first) == 1:
        assert ranking.first[0] not in barred
    for e in ranking.excluded:
        assert len(re.findall(r"fit \d+ of them|choose a larger one", e.remedy)) <= 1, e.remedy
        assert e.remedy
    crowded = ranking.too_many
    assert (crowded is not None) == stock_view(state(seed, 0)).verdict.startswith("Too many for ") or any(
        stock_view(state(seed, 0)).load.clashes
    )
    if crowded:
        assert view.verdict.startswith("Too many for ")
        assert view.enough is not True
    for c in ranking.ranked[:5]:
        assert c.carries_times_count == pytest.approx(next(m.share for m in c.margins if m.about == "biology"))
        asked = re.search(r"where ([\d,]+) is asked", " ".join(m.words for m in c.margins if m.about == "movement"))
        assert asked is None or float(asked[1]) == pytest.approx(ranking.asked_low_lph, abs=1)


@pytest.mark.slow
@pytest.mark.parametrize("seed", SEEDS)
def test_a_verdict_on_what_hangs_there_agrees_with_its_margins(seed: int) -> None:
    view = filter_view(state(seed, 1 + seed % 3))
    assert view.hanging is not None
    by = {m.about: m for m in view.hanging.margins}
    said = view.verdict if view.ranking.too_many is None else view.verdict[len(view.ranking.too_many) + 1 :]
    if said.startswith(("Enough", "More than enough")):
        assert by["biology"].level != "short"
        assert view.hanging.oxygen.enough
        assert by["movement"].level != "short" or "by its film" in said
    if said.startswith("Too little film"):
        assert by["biology"].level == "short"
    if said.startswith("More than enough"):
        assert view.hanging.service_lph >= 2 * view.hanging.asked_lph
    alone = re.search(r"The (.+) alone would do", said)
    if alone is not None:
        one = next(f.installed for f in view.hanging.filters if f.installed.filter.name == alone[1])
        assert one.flow.service_lph >= view.hanging.asked_lph


def test_one_yardstick_every_kind_is_asked_the_same() -> None:
    animals = [{"species_id": "oscar", "count": 1}]
    room = {"net_l": 300, "water_depth_cm": 45, "length_cm": 120, "width_cm": 50, "behind_cm": 14, "beneath_cm": 75}
    answer = compute("rank-filters", {"site": room, "animals": animals, "own_filters": SAMPLES})
    sponge = {e.reason for e in answer.excluded if e.kind == "sponge"}
    hang_on = {e.reason for e in answer.excluded if e.kind == "hang-on"}
    figures = {m for r in sponge | hang_on for m in re.findall(r"where (\d+) is asked", r)}
    assert len(figures) == 1


@pytest.mark.parametrize(
    ("species", "count", "litres", "says"),
    [("oscar", 6, 150, "Not one oscar fits it"), ("discus", 10, 200, "6 × discus"), ("yellow-lab", 120, 170, "×")],
)
def test_too_many_is_the_headline_and_says_what_would_do(species: str, count: int, litres: float, says: str) -> None:
    room = {"net_l": litres, "water_depth_cm": 40, "length_cm": 100, "width_cm": 40}
    answer = compute(
        "rank-filters", {"site": room, "animals": [{"species_id": species, "count": count}], "own_filters": SAMPLES}
    )
    assert answer.verdict.startswith("Too many for ")
    assert says in answer.verdict
    assert "a tank of" in answer.verdict
    kept = re.search(r"(\d+) × ", answer.too_many or "")
    if kept is not None:
        fewer = compute(
            "rank-filters",
            {"site": room, "animals": [{"species_id": species, "count": int(kept[1])}], "own_filters": SAMPLES},
        )
        assert fewer.too_many is None
