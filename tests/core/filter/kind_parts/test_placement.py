"""Where a filter's parts stand in the front view."""

import pytest
from pydantic import ValidationError

from reedmace.core.filter.kind_parts.placement import Layout, issue_at
from reedmace.core.fit import FittingPlanQuestion
from reedmace.core.fit.layout import resolve_layout
from tests.support.fitting import AT, ONE, ROOM


def resolved(kind: str = "canister", **layout):
    question = {"filter": ONE[kind].model_dump(), "site": ROOM, **AT, "layout": layout}
    return resolve_layout(FittingPlanQuestion.model_validate(question))


def test_heights_stand_in_their_order_from_the_floor() -> None:
    for kind in ONE:
        g = resolved(kind)
        assert g.bottom < g.bed < g.water < g.rim
        assert g.length == ROOM["length_cm"]


def test_what_the_keeper_set_is_taken_and_the_rest_is_usual() -> None:
    usual, mine = resolved(), resolved(intake_x_cm=20, outlet_x_cm=70)
    assert (mine.intake_x, mine.outlet_x) == (20, 70)
    assert mine.body_x == usual.body_x


def test_a_siphon_breaks_at_its_hole_or_at_the_outlet() -> None:
    assert resolved(outlet_depth_cm=12, siphon_break=True).returned_cm == 1
    assert resolved(outlet_depth_cm=12, siphon_break=False).returned_cm == 12
    # An outlet in the air lets air in at once.
    assert resolved(outlet_depth_cm=-3, siphon_break=False).returned_cm == 0


def test_the_uplift_ends_under_water_even_after_evaporation() -> None:
    g = resolved("sponge")
    assert 1 <= g.uplift_cm < g.water - g.bed


@pytest.mark.parametrize("wrong", [{"outlet_depth_cm": 400}, {"hose": "glass"}, {"socket_height_cm": -1}])
def test_a_layout_outside_its_ranges_is_refused(wrong: dict) -> None:
    with pytest.raises(ValidationError):
        Layout.model_validate(wrong)


def test_a_fault_names_its_part_and_its_place() -> None:
    fault = issue_at("tap", 10, 80, "hangs over the socket.", "Move it.")
    assert (fault.where, fault.at.x_cm, fault.at.y_cm) == ("tap", 10, 80)
