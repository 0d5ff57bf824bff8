"""A set of filters on a tank: its figures are the sum of its parts, and its verdict is true of them."""

import pytest

from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.stages.filter_set import (
    MUCH_SHARE,
    Together,
    differences_of,
    set_verdict,
    together,
    together_name,
)
from tests.support.fitting import BY_ID, state_of

TANK = {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}}
SHOAL = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 12}]}


def a_set(*boxes: str, animals: dict = SHOAL, chosen: bool = True, tank: dict = TANK, **more: object) -> Together:
    filters = [{"key": f"f{n}", "filter": BY_ID[b].model_dump(), **more} for n, b in enumerate(boxes, start=1)]
    state = state_of((50, tank), (49, animals), (48, {"kind": "filter-plan", "filters": filters}))
    return together(state, installed_filters(state), chosen=chosen)


def test_several_are_named_in_a_few_words() -> None:
    a, b = BY_ID["sweetflag-800"], BY_ID["burreed-20"]
    assert together_name([a]) == a.name
    assert together_name([a, a]) == f"2 × {a.name}"
    assert together_name([a, b]) == f"{a.name} with {b.name}"
    assert together_name([a, b, b]) == f"{a.name}, {b.name} with {b.name}"


def test_flow_of_a_set_is_that_of_its_filters() -> None:
    found = a_set("sweetflag-800", "burreed-20")
    assert found.delivered_lph == pytest.approx(sum(f.installed.flow.delivered_lph for f in found.filters))
    assert found.service_lph == pytest.approx(sum(f.installed.flow.service_lph for f in found.filters))
    assert found.box_lph == sum(f.installed.filter.box_lph for f in found.filters)
    net = found.filters[0].installed.plan_question.site.net_l
    assert found.turnovers_per_hour == pytest.approx(found.delivered_lph / net)
    assert {m.about for m in found.margins} == {"biology", "clarity", "movement"}


def test_what_is_in_hand_costs_nothing() -> None:
    bought, owned = a_set("sweetflag-800"), a_set("sweetflag-800", owned=True)
    assert bought.price == BY_ID["sweetflag-800"].price > 0
    assert owned.price == 0
    assert owned.cost.kwh_year == pytest.approx(bought.cost.kwh_year)


def test_a_set_looked_at_says_would() -> None:
    here, looked = a_set("sweetflag-800"), a_set("sweetflag-800", chosen=False)
    (words, enough), (would, also) = set_verdict(here), set_verdict(looked)
    assert enough == also
    assert "would" not in words.split(":")[0].lower()
    assert "would" in would.split(":")[0].lower()


@pytest.mark.parametrize("boxes", [("sweetflag-800",), ("burreed-8",), ("burreed-20",), ("sweetflag-800",) * 3])
@pytest.mark.parametrize("count", [2, 12, 60])
def test_the_verdict_is_true_of_the_figures(boxes: tuple[str, ...], count: int) -> None:
    animals = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": count}]}
    found = a_set(*boxes, animals=animals)
    words, enough = set_verdict(found)
    biology = next(m for m in found.margins if m.about == "biology")
    if words.startswith("Too little oxygen"):
        assert not found.oxygen.enough
    elif words.startswith("Too little film"):
        assert biology.level == "short"
    elif words.startswith("More than enough"):
        assert found.service_lph >= MUCH_SHARE * found.asked_lph
    elif words.startswith("Enough by its film"):
        assert found.service_lph < found.asked_lph
    elif words.startswith("Enough"):
        assert found.service_lph >= 0.9 * found.asked_lph
    else:
        assert words.startswith(("A little short", "Too little", "Too strong"))
        assert not enough
    if enough:
        assert biology.level != "short"
        assert found.oxygen.enough


def test_the_smallest_that_would_do_alone_is_named_where_there_is_far_too_much() -> None:
    found = a_set("sweetflag-800", "sweetflag-800", "burreed-20", animals={"kind": "stock-plan", "animals": []})
    words, enough = set_verdict(found)
    assert enough
    assert words.startswith("More than enough, even if one stops")
    assert "alone would do" in words


def test_only_figures_that_read_differently_are_told_apart() -> None:
    canister, sponge = a_set("sweetflag-800"), a_set("burreed-20", chosen=False)
    assert differences_of(canister, canister) == []
    rows = {row.name: (row.now, row.then) for row in differences_of(canister, sponge)}
    assert rows["Hose"][1] == "none"
    assert rows["Hose"][0] != "none"
    assert rows["Fitting"][0] != rows["Fitting"][1]
    assert all(now != then for now, then in rows.values())
