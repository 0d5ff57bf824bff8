"""Every change the ranking names, made: the filter does come first, and nothing smaller brings it there."""

import random
from typing import Any

import pytest

from reedmace.core.computations import compute
from reedmace.core.filter.choice.changes import CM_PER_STEP
from reedmace.core.filter.site.site import Priorities
from tests.support.bounds import bounded

pytestmark = pytest.mark.slow

KEEPERS_A_GROUP, GROUPS = 15, bounded(20, 8)
SPECIES = (
    "neon-tetra", "guppy", "fancy-goldfish", "zebra-danio", "harlequin-rasbora", "bronze-cory", "cherry-shrimp",
    "yellow-lab", "angelfish", "betta", "tiger-barb", "oscar",
)  # fmt: skip
WEIGHED = tuple(k for k in Priorities.model_fields if k != "redundant")
A_LITTLE_CM = 0.2


def keeper(rng: random.Random) -> dict[str, Any]:
    length, width, depth = rng.choice((30, 45, 60, 90, 120, 150)), rng.choice((25, 30, 40, 50)), rng.randint(24, 55)
    room = {
        "net_l": round(length * width * depth / 1000 * 0.92, 1),
        "length_cm": length,
        "width_cm": width,
        "water_depth_cm": depth,
        "behind_cm": rng.choice((1, 3, 5, 8, 12)),
        "beneath_cm": rng.choice((0, 20, 35, 45, 60, 75)),
        "rim_to_water_cm": rng.choice((1, 2, 3, 5, 8)),
        "sockets": rng.choice((0, 1, 2)),
    }
    animals = [{"species_id": rng.choice(SPECIES), "count": rng.randint(1, 15)} for _ in range(rng.randint(1, 2))]
    return {"site": room, "animals": animals, "priorities": {k: rng.randint(0, 5) for k in Priorities.model_fields}}


def changed(question: dict[str, Any], name: str, value: float) -> dict[str, Any]:
    part = "priorities" if name in question["priorities"] else "site"
    told: float | bool = bool(value) if name == "overflow_box" else int(value) if name != "behind_cm" else value
    if name in ("beneath_cm", "rim_to_water_cm"):
        told = value
    return {**question, part: {**question[part], name: told}}


def first(question: dict[str, Any]) -> str | None:
    ranked = compute("rank-filters", question).ranked
    return ranked[0].filter_id if ranked else None


@pytest.mark.parametrize("group", range(GROUPS))
def test_a_named_change_does_what_it_says_and_none_smaller_does(group: int) -> None:
    rng = random.Random(20261126 + group)  # noqa: S311 - keepers made up, no secret
    named = 0
    for number in range(KEEPERS_A_GROUP):
        question = keeper(rng)
        for change in compute("rank-filters", question).changes:
            named += 1
            assert first(changed(question, change.input, change.then)) == change.filter_id, change.text
            if change.input in ("behind_cm", "beneath_cm", "rim_to_water_cm"):
                back = A_LITTLE_CM if change.then < change.now else -A_LITTLE_CM
                less = change.then + back
                assert first(changed(question, change.input, less)) != change.filter_id, change.text
            if number == 0 and steps_of(change.input, change.now, change.then) > 1:
                # Any one step of any slider would be smaller.
                for k in WEIGHED:
                    for step in (-1, 1):
                        there = question["priorities"][k] + step
                        if 0 <= there <= 5:
                            assert first(changed(question, k, there)) != change.filter_id, f"{k}: {change.text}"
    assert named > 6


def steps_of(name: str, now: float, then: float) -> float:
    return abs(then - now) / (CM_PER_STEP if name.endswith("_cm") else 1)
