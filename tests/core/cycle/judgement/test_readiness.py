"""Readiness of a cycle for animals, by every standard in use, with what is missing."""

from typing import Any

import pytest

from reedmace.core.computations import compute
from tests.support.cycle_logs import CLEARED, STOCKED, advice, reading, ready
from tests.support.cycling import NA, proving


def test_two_doses_gone_in_a_day_are_ready() -> None:
    answer = ready(CLEARED)
    assert answer.ready
    assert answer.verdict.startswith("Ready, by the load-matched standard")
    first = advice(CLEARED)
    assert first.first.do == "change-water"
    assert first.then[0].do == "add-animals"
    # The large change is sized to bring nitrate from 45 to 20 ppm, and never under 60 %.
    assert first.first.amount == pytest.approx(60)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"readings": []}, "no ammonia test"),
        ({"readings": [{**r, "nitrite_mg_n_l": None} for r in CLEARED["readings"]]}, "no nitrite test"),
        ({"readings": CLEARED["readings"][:2], "day_now": 39.2, "doses": CLEARED["doses"][:-1]}, "one more dose"),
        ({"day_now": 47}, "7 days old"),
        ({"readings": [*CLEARED["readings"][:3], reading(40, 0, 0.5)]}, "nitrite still reads"),
        (
            {"readings": [*CLEARED["readings"][:3], {**CLEARED["readings"][3], "off_scale": ["nitrate", "nitrite"]}]},
            "one more dose",
        ),
        ({"planned_load_mg_n_l_day": 2.0}, "two doses of 3.1 ppm"),
    ],
    ids=[
        "no tests",
        "no nitrite",
        "one zero is not enough",
        "stale",
        "nitrite left",
        "off the scale never counts",
        "a heavier stock asks more",
    ],
)
def test_not_yet_says_why(change: dict, words: str) -> None:
    answer = ready({**CLEARED, **change})
    assert not answer.ready
    assert answer.verdict.startswith("Not yet, because ")
    assert any(words in m for m in answer.missing)


def test_standards_disagree_side_by_side() -> None:
    standards = {s.standard: s for s in ready(CLEARED).standards}
    assert standards["load-matched"].passes
    assert not standards["two-ppm"].passes
    assert standards["load-matched"].followed


def test_a_moved_filter_needs_seven_days_of_zeros_with_nitrate_rising() -> None:
    log: dict[str, Any] = {
        "net_l": 100,
        "day_now": 8.1,
        "method": "seeded-filter",
        "readings": [reading(d, 0, 0, 5 if d < 5 else 10) for d in range(1, 9)],
    }
    assert ready(log, "seeded").ready
    assert not ready({**log, "readings": log["readings"][3:]}, "seeded").ready
    # One dose that was never cleared in a day takes nothing from a week of zeros.
    assert ready({**log, "doses": [{"day": 0.2, "raise_mg_n_l": 0.3}]}, None).standards[-1].followed


def readiness(log: dict, **more):
    return compute("cycle-readiness", {"log": log, **more})


PLANTED: dict[str, Any] = {
    "net_l": 60,
    "day_now": 40,
    "method": "planted",
    "plants": "many",
    "plants_growing_day": 8,
    "readings": [reading(d, 0, 0, 2) for d in (9, 16, 23, 30, 37)],
}


def test_a_planted_quiet_start_is_ready_after_four_weeks_of_growth_and_zeros() -> None:
    assert readiness(PLANTED).ready
    assert not readiness({**PLANTED, "plants_growing_day": 15}).ready
    unseen = readiness({**PLANTED, "plants_growing_day": None})
    assert not unseen.ready
    assert "new growth" in unseen.missing[-1]
    assert not readiness({**PLANTED, "readings": PLANTED["readings"][::4]}).ready


def test_food_and_animals_are_proved_by_a_week_of_zeros() -> None:
    week = [reading(d, 0, 0, n) for d, n in ((30, 10), (32, 10), (34, 20), (36, 20), (37, 20))]
    for method in ("fish-food", "animals-in", "side-by-side"):
        log = {"net_l": 60, "day_now": 37.2, "method": method, "readings": week, "food_g_day": 0.5}
        assert readiness(log).ready, method
        # A difference that the kit's own steps could feign is no rise.
        assert not readiness(
            {**log, "readings": [{**r, "nitrate_mg_n_l": (10 + i) * NA} for i, r in enumerate(week)]}
        ).ready
        assert not readiness({**log, "readings": week[2:]}).ready, method


def test_one_reading_after_two_doses_counts_for_neither() -> None:
    log = {
        "net_l": 100,
        "day_now": 40,
        "planned_load_mg_n_l_day": 0.4,
        "doses": [{"day": 38.8, "raise_mg_n_l": 0.6}, {"day": 39.05, "raise_mg_n_l": 0.6}],
        "readings": [reading(38.85, 0.6, 0), reading(39.1, 1, 0), reading(40, 0, 0, 40)],
    }
    answer = readiness(log)
    assert not answer.ready
    assert next(s for s in answer.standards if s.followed).cleared == 1


def test_an_expired_kit_proves_nothing() -> None:
    log = {"net_l": 100, "day_now": 40.1, "planned_load_mg_n_l_day": 0.4, **proving(38, 39)}
    assert readiness(log).ready
    expired = readiness({**log, "kit": {"expired": True}})
    assert not expired.ready
    assert any("past its date" in m for m in expired.missing)
    assert expired.confidence == "low"


def test_confidence_grows_with_number_spacing_and_resolution() -> None:
    few = {"net_l": 100, "day_now": 20.2, "readings": [reading(5, 2, 0), reading(20, 0, 0)]}
    many = {**few, "readings": [reading(d, 1, 1) for d in range(2, 21, 2)]}
    coarse = {**many, "kit": {"ammonia_ppm": [0, 1, 4]}}
    levels = ["none", "low", "fair", "good"]
    found = [levels.index(readiness(log).confidence) for log in (few, coarse, many)]
    assert found[0] < found[1] <= found[2]
    assert any("coarse" in w for w in readiness(coarse).confidence_why)


def test_each_group_has_its_own_week() -> None:
    zeros = [reading(d, 0, 0, 5 + d) for d in (3, 5, 7, 9, 11, 13)]
    assert not readiness({**STOCKED, "day_now": 13.1, "readings": zeros}).ready
    assert readiness(
        {**STOCKED, "day_now": 18.3, "readings": [*zeros, reading(15, 0, 0, 20), reading(18.2, 0, 0, 22)]}
    ).ready
