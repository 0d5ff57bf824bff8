"""Why a filter stands where it stands, and what to know before buying it."""

from typing import Any

import numpy as np
import pytest

from reedmace.core.filter.choice.reasons import caveats_of, reason_of
from reedmace.core.filter.choice.scores import NAMES
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

AT = {name: k for k, name in enumerate(NAMES)}
CANISTER = next(f for f in SAMPLE_BOXES if f.kind == "canister")
SPONGE = next(f for f in SAMPLE_BOXES if f.kind == "sponge")


def reason(**scores: float) -> str:
    parts, weights = np.full(len(NAMES), 0.5), np.zeros(len(NAMES))
    for name, score in scores.items():
        parts[AT[name]], weights[AT[name]] = score, 3.0
    return reason_of(weights, parts)


def test_strengths_and_weaknesses_among_what_matters_are_named_two_of_each() -> None:
    assert reason(price=0.9, quiet=0.1) == "cheap to buy; heard in the room"
    assert reason(price=0.9, quiet=0.8, hidden=0.7) == "cheap to buy, quiet"
    assert reason(price=0.5) == "middling in everything you asked for"
    # A single filter has no twin: that is told of none.
    assert reason(redundant=0.0) == "middling in everything you asked for"


def test_what_nobody_asked_for_is_not_named_but_a_poor_flow_always_is() -> None:
    parts, weights = np.full(len(NAMES), 0.1), np.zeros(len(NAMES))
    weights[AT["flow"]] = 5.0
    assert reason_of(weights, parts) == "flow fits poorly"


def caveats(f=CANISTER, **changes: Any) -> str:
    usual: dict[str, Any] = {"guard": [], "low_lph": 400.0, "dirty_lph": 500.0, "days": 90.0, "slow": False}
    return " ".join(caveats_of(f, Site.model_validate(ROOM | changes.pop("site", {})), **{**usual, **changes}))


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"count": 4}, "4 sockets where you have"),
        ({"days": 10.0}, "cleaning about every 10 days"),
        ({"guard": ["Cherry shrimp"]}, "guard sponge on the intake for Cherry shrimp"),
        ({"dirty_lph": 350.0}, "When dirty it falls to 350 L/h"),
        ({"dirty_lph": 350.0, "slow": True}, "Slow by the turnover rules"),
    ],
)
def test_each_thing_worth_knowing_is_said_where_it_holds_and_not_elsewhere(changes: dict, words: str) -> None:
    assert words in caveats(**changes)
    assert words not in caveats()


def test_an_air_driven_filter_wants_neither_sockets_nor_a_guard() -> None:
    said = caveats(SPONGE, count=4, guard=["Cherry shrimp"])
    assert "sockets" not in said
    assert "guard sponge" not in said
    assert "drives the CO2 out" in caveats(SPONGE, site={"co2": "by-day"})
