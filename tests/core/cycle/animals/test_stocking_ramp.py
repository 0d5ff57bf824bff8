"""Stocking ramp: how many of which animals on which day, so that the load never exceeds proven capacity."""

from itertools import pairwise

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer
from tests.support.cycle_logs import STOCKED


def ramp(proven: float, *animals: tuple[str, int], **more):
    rows = [{"species_id": s, "count": c} for s, c in animals]
    return compute("stocking-ramp", {"net_l": 242, "proven_mg_n_l_day": proven, "animals": rows, **more})


def test_load_never_outruns_what_is_proven_or_carried() -> None:
    for proven in (0.25, 0.3, 0.54, 2.0):
        answer = ramp(proven, ("rosy-barb", 12), ("weather-loach", 4))
        loads = [s.load_mg_n_l_day for s in answer.steps]
        assert loads[0] <= proven / 1.2 + 1e-9
        for before, after, step in zip(loads, loads[1:], answer.steps[1:], strict=False):
            ceiling = max(1.5 * before, proven / 1.2 if step.day <= 14 else 0)
            assert after <= ceiling + 1e-9 or "half rations" in step.before
        counts: dict[str, int] = {}
        for s in answer.steps:
            for a in s.add:
                counts[a.species_id] = counts.get(a.species_id, 0) + a.count
        assert counts == {"rosy-barb": 12, "weather-loach": 4}
        assert answer.steps[-1].plan_share == pytest.approx(1)


def test_more_proven_means_fewer_steps_and_nothing_proven_none() -> None:
    assert len(ramp(0.54, ("rosy-barb", 12)).steps) <= len(ramp(0.25, ("rosy-barb", 12)).steps)
    nothing = ramp(0.05, ("rosy-barb", 12))
    assert nothing.steps == []
    assert nothing.verdict.startswith("Nothing yet")
    with pytest.raises(CannotAnswer):
        ramp(0.5, ("no-such-fish", 3))


def test_the_ramp_goes_on_from_what_is_in() -> None:
    rows = STOCKED["animals"]
    answer = compute(
        "stocking-ramp", {"net_l": 242, "proven_mg_n_l_day": 0, "animals": rows, "present": STOCKED["present"]}
    )
    loads = [s.load_mg_n_l_day for s in answer.steps]
    assert loads[0] <= 1.5 * 0.181 + 1e-3
    assert answer.verdict.startswith("Next")
    done = compute("stocking-ramp", {"net_l": 242, "proven_mg_n_l_day": 0, "animals": rows, "present": rows})
    assert done.steps == []
    assert done.verdict == "All the planned animals are in."


def test_a_proof_too_small_for_one_group_adds_nothing_and_says_what_to_prove() -> None:
    answer = ramp(0.001, ("rosy-barb", 12))
    assert answer.steps == []
    assert answer.verdict.startswith("Nothing yet: even 6 × rosy barb")
    assert "ppm of ammonia in a day first" in answer.verdict


def test_single_large_animals_come_one_at_a_time_and_on_half_rations() -> None:
    # A small proven film and large animals: each one alone is more than half as much again.
    answer = compute(
        "stocking-ramp",
        {
            "net_l": 60,
            "proven_mg_n_l_day": 0.05,
            "animals": [{"species_id": "cherry-shrimp", "count": 10}, {"species_id": "fancy-goldfish", "count": 2}],
        },
    )
    assert answer.steps[0].add[0].species_id == "cherry-shrimp"
    later = answer.steps[1:]
    assert [a.count for s in later for a in s.add if a.species_id == "fancy-goldfish"] == [1, 1]
    assert any("half rations" in s.before for s in later)
    loads = [s.load_mg_n_l_day for s in answer.steps]
    assert loads == sorted(loads)
    assert answer.steps[-1].plan_share == pytest.approx(1)


def test_even_thousands_come_in_a_few_dozen_steps() -> None:
    answer = compute(
        "stocking-ramp",
        {
            "net_l": 30,
            "proven_mg_n_l_day": 0.01,
            "animals": [{"species_id": "cherry-shrimp", "count": 1}, {"species_id": "fancy-goldfish", "count": 1900}],
        },
    )
    assert 5 < len(answer.steps) < 40
    assert sum(a.count for s in answer.steps for a in s.add) == 1901
    for before, after in pairwise([s.load_mg_n_l_day for s in answer.steps]):
        one = answer.full_load_mg_n_l_day / 1900
        assert after <= 1.5 * before + 1.01 * one


def test_with_some_in_the_next_group_is_reckoned_from_what_is_carried() -> None:
    question = {
        "net_l": 130,
        "proven_mg_n_l_day": 0.0,
        "animals": [{"species_id": "zebra-danio", "count": 24}],
        "present": [{"species_id": "zebra-danio", "count": 8}],
    }
    answer = compute("stocking-ramp", question)
    assert answer.verdict.startswith("Next ")
    assert answer.steps[0].add[0].count == 4
    assert answer.steps[0].before.startswith("After a week of zeros")
    done = compute("stocking-ramp", {**question, "present": [{"species_id": "zebra-danio", "count": 24}]})
    assert (done.steps, done.verdict) == ([], "All the planned animals are in.")
