"""The Filter stage of a tank."""

import pytest

from reedmace.core.filter.shelf_box import ShelfBox, ShelfItem
from reedmace.core.filter.typical import is_typical
from reedmace.logbook.stages import filter_view
from tests.support.fitting import CHOSEN, ONE, state_of

TANK = (40, {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}})
STOCK = (35, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 12}]})
SHELF = [
    ShelfItem(id=1, box=ShelfBox.model_validate({"label": {"name": "Reed 900", "kind": "canister", "box_lph": 900}}))
]


def test_before_anything_hangs_the_kind_and_size_recommended_is_looked_at() -> None:
    found = filter_view(state_of(TANK, STOCK))
    best = next(row for row in found.types.kinds if row.fits)
    assert found.hanging is None
    assert [f.installed.filter.id for f in found.shown.filters] == [best.typical_id] * best.count
    assert is_typical(best.typical_id)
    assert found.differences == []


def test_what_was_not_entered_is_told() -> None:
    assert len(filter_view(state_of()).assumed) == 2
    assert filter_view(state_of(TANK, STOCK)).assumed == []


def test_what_hangs_there_is_shown_and_another_is_held_against_it() -> None:
    hangs = filter_view(state_of(TANK, STOCK, CHOSEN))
    assert hangs.shown == hangs.hanging
    looked = filter_view(state_of(TANK, STOCK, CHOSEN), [ONE["sponge"].id], SHELF)
    assert looked.hanging.delivered_lph == pytest.approx(hangs.hanging.delivered_lph)
    own = filter_view(state_of(TANK, STOCK, CHOSEN), ["sweetflag-800"])
    assert own.shown == own.hanging
    assert own.differences == []


def test_a_box_of_the_shelf_is_looked_at_on_the_tank() -> None:
    state = state_of(TANK, STOCK, CHOSEN)
    row = filter_view(state, shelf=SHELF).shelf.rows[0]
    looked = filter_view(state, [row.as_kinds[0].filter_id], SHELF)
    assert looked.shown.name == "Reed 900"
    assert looked.differences
    # An id nobody knows is looked at as nothing: what hangs there stays.
    assert filter_view(state, ["gone-since"], SHELF).shown.name == looked.hanging.name


def test_too_many_animals_are_said_before_any_filter() -> None:
    crowd = (35, {"kind": "stock-plan", "animals": [{"species_id": "oscar", "count": 8}]})
    found = filter_view(state_of(TANK, crowd, CHOSEN))
    assert found.enough is False
    assert found.verdict.startswith(found.ranking.too_many)


def test_one_requirement_everywhere() -> None:
    found = filter_view(state_of(TANK, STOCK, CHOSEN))
    followed = next(rule for rule in found.requirement.sizing_rules if rule.followed)
    assert found.asked_low_lph == pytest.approx(followed.low_lph) == pytest.approx(found.types.asked_low_lph)
