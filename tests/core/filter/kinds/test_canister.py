"""The canister: its loop, its priming, its steps."""

from itertools import pairwise

import pytest

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts.steps import Step, StepFacts
from reedmace.core.filter.kinds import kind_of

KIND = kind_of("canister")


def steps(**facts: object) -> dict[str, Step]:
    return {s.id: s for s in KIND.steps(StepFacts.model_validate(facts), Working())}


def test_its_height_costs_nothing_unless_the_outlet_stands_in_the_air() -> None:
    assert KIND.loop_words is not None
    assert "the height costs nothing" in KIND.loop_words(0.7, 0)
    assert "stands 5 cm above the water" in KIND.loop_words(0.7, 5)


@pytest.mark.parametrize(
    ("priming", "words"),
    [("fill", "before the lid goes on"), ("button", "press the primer"), ("self", "draws the rest")],
)
def test_it_is_primed_as_it_is_built_with_twice_its_media_at_most_its_body(priming: str, words: str) -> None:
    prime = steps(priming=priming, media_l=3, body_l=20)["canister-prime"]
    assert words in prime.detail
    assert "6 L" in prime.detail
    assert "4 L" in steps(media_l=3, body_l=4)["canister-prime"].detail
    assert prime.caution == "Never start a siphon by mouth."


def test_hoses_are_cut_after_everything_stands_and_power_comes_after_priming() -> None:
    order = list(steps())
    for one, later in zip(
        ("canister-place", "canister-hose", "canister-clamps", "canister-prime", "canister-power"),
        ("canister-hose", "canister-clamps", "canister-prime", "canister-power", "canister-leak-5"),
        strict=True,
    ):
        assert order.index(one) < order.index(later)
    assert set(KIND.after["canister-prime"]) >= {"canister-valves"}


def test_planned_hose_and_guard_are_told_where_there_are_any() -> None:
    assert steps()["canister-hose"].detail.startswith("place first")
    assert steps(hose_length_m=2.8, hose_bore_mm=16)["canister-hose"].detail.startswith("2.8 m of 16 mm hose")
    assert "canister-guard" not in steps()
    assert "canister-guard" in steps(needs_guard=True)


def test_a_stopped_one_turns_foul_and_is_rinsed_before_it_runs() -> None:
    assert KIND.closed
    assert "open, rinse in tank water" in KIND.power_cut.on_return
    for before, one in pairwise(KIND.care.steps):
        assert one.after == [before.id]
