"""Fitting steps of a kind in order, with inspections before power and dependencies."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.filter.kinds import BY_NAME
from tests.support.fitting import KINDS


def steps_of(kind: str, **more):
    return compute("fitting-steps", {"kind": kind, **more}).steps


def everything_before(steps, target: str) -> set[str]:
    by_id = {s.id: s for s in steps}
    found: set[str] = set()
    queue = [target]
    while queue:
        for a in by_id[queue.pop()].after:
            if a not in found:
                found.add(a)
                queue.append(a)
    return found


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("guard", [False, True], ids=["bare", "guarded"])
def test_the_order_shown_keeps_every_lock(kind: str, guard: bool) -> None:
    steps = steps_of(kind, needs_guard=guard)
    seen: set[str] = set()
    for s in steps:
        assert set(s.after) <= seen, f"{s.id} is shown before {set(s.after) - seen}"
        seen.add(s.id)


@pytest.mark.parametrize("priming", ["fill", "button", "self"])
@pytest.mark.parametrize("path", ["bottom-up", "top-down", "ring-then-down", "columns"])
def test_each_canister_variant_says_its_own_priming_and_path(priming: str, path: str) -> None:
    steps = {s.id: s for s in steps_of("canister", priming=priming, media_path=path, media_l=6, body_l=18)}
    own = {"fill": "with a jug", "button": "press the primer", "self": "draws the rest itself"}
    assert own[priming] in steps["canister-prime"].detail
    assert "12 L" in steps["canister-prime"].detail
    words = {"bottom-up": "rises", "top-down": "falls", "ring-then-down": "outer foam ring", "columns": "column"}
    assert words[path] in steps["canister-media"].detail
    assert ("stops, starts" in steps["canister-power"].normal) == (priming == "self")


def test_no_priming_is_more_than_the_body_holds() -> None:
    steps = {s.id: s for s in steps_of("canister", media_l=6, body_l=9)}
    assert "9 L" in steps["canister-prime"].detail


@pytest.mark.parametrize(("path", "where"), [("bottom-up", "lowest"), ("front-to-back", "in front")])
def test_coarse_foam_goes_where_this_hang_ons_water_comes_in(path: str, where: str) -> None:
    steps = {s.id: s for s in steps_of("hang-on", media_path=path)}
    assert f"coarse foam goes {where}" in steps["hangon-media"].detail


@pytest.mark.parametrize(
    ("kind", "power", "before"),
    [
        (
            "canister",
            "canister-power",
            {
                "canister-prime",
                "canister-clamps",
                "canister-hose",
                "canister-media",
                "canister-valves",
                "canister-ends",
            },
        ),
        ("hang-on", "hangon-power", {"hangon-prime", "hangon-level", "hangon-media", "hangon-intake"}),
        ("internal", "internal-power", {"internal-place", "internal-media"}),
        ("sump", "sump-power", {"sump-fill", "sump-pipes", "sump-drill"}),
        ("sponge", "sponge-start", {"sponge-check-valve", "sponge-place"}),
        ("sheet", "sheet-start", {"sheet-check-valve", "sheet-lift"}),
        ("box", "box-start", {"box-check-valve", "box-ballast"}),
        ("under-gravel", "gravel-start", {"gravel-check-valve", "gravel-cover"}),
    ],
)
@given(seed=st.integers(0, 10_000))
def test_no_order_the_locks_allow_lets_power_come_before_water(kind, power, before, seed) -> None:
    # Tick anything that is not locked, at random, and see what stands done when power is reached.
    rng = np.random.default_rng(seed)
    steps = steps_of(kind, needs_guard=True)
    done: set[str] = set()
    while power not in done:
        free = [s.id for s in steps if s.id not in done and set(s.after) <= done]
        done.add(str(rng.choice(free)))
    assert before <= done
    assert before <= everything_before(steps, power)


def test_small_animals_lock_power_behind_the_guard() -> None:
    assert "canister-guard" in everything_before(steps_of("canister", needs_guard=True), "canister-power")


def order(kind: str, **more) -> list[str]:
    return [s.id for s in compute("fitting-steps", {"kind": kind, **more}).steps]


@pytest.mark.parametrize("kind", tuple(BY_NAME))
def test_steps_have_stable_unique_ids_and_say_their_cautions(kind: str) -> None:
    steps = compute("fitting-steps", {"kind": kind}).steps
    assert len({s.id for s in steps}) == len(steps) >= 4
    assert any("electrician" in (s.caution or "") for s in steps)


def test_a_canister_is_placed_before_hose_is_cut_and_primed_before_power() -> None:
    ids = order("canister")
    for first, second in (
        ("canister-place", "canister-hose"),
        ("canister-ends", "canister-hose"),
        ("canister-clamps", "canister-prime"),
        ("canister-prime", "canister-power"),
        ("canister-power", "canister-leak-5"),
    ):
        assert ids.index(first) < ids.index(second)


def test_a_hang_on_is_filled_before_it_is_powered() -> None:
    ids = order("hang-on")
    assert ids.index("hangon-body") == 0
    assert ids.index("hangon-prime") < ids.index("hangon-power")


def test_a_sponge_has_its_check_valve_before_air() -> None:
    ids = order("sponge")
    assert ids.index("sponge-check-valve") < ids.index("sponge-start")


def test_small_animals_bring_a_guard() -> None:
    assert "canister-guard" in order("canister", needs_guard=True)
    assert "canister-guard" not in order("canister")
