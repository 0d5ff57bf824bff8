"""What a label may be: kinds by their figures, the flow of two, and the box with what it does not say."""

import pytest

from reedmace.core.filter.box_label import BoxLabel, box_of_label, flow_of_label, possible_kinds
from reedmace.core.filter.kinds import KINDS, kind_of
from reedmace.core.filter.typical import typical_box
from reedmace.core.quantity.units import L_PER_US_GAL


def kinds(**figures: object) -> list[str]:
    label = BoxLabel(**figures)
    return [k.name for k in possible_kinds(label, flow_of_label(label))]


def test_the_smaller_of_two_flows_that_differ_is_taken() -> None:
    assert flow_of_label(BoxLabel(box_lph=1000, box_us_gal_per_hour=264)) == 1000
    assert flow_of_label(BoxLabel(box_lph=1000, box_us_gal_per_hour=200)) == pytest.approx(200 * L_PER_US_GAL)
    assert flow_of_label(BoxLabel(watts=5)) is None


def test_a_sponge_gives_its_flow_by_the_tank_it_is_sold_for_and_a_pumped_box_does_not() -> None:
    small, large = (flow_of_label(BoxLabel(kind="sponge", tank_up_to_l=litres)) for litres in (40, 150))
    assert 60 <= small < large <= 600
    assert flow_of_label(BoxLabel(kind="canister", tank_up_to_l=150)) is None


def test_a_kind_that_is_said_is_the_only_one_it_may_be() -> None:
    assert kinds(box_lph=300, kind="box") == ["box"]


def test_what_air_drives_prints_no_flow_of_its_own() -> None:
    assert not {"sponge", "box", "under-gravel", "sheet"} & set(kinds(box_lph=300))


def test_a_high_lift_rules_out_what_lifts_little() -> None:
    assert kinds(box_lph=1200, max_head_m=2.5, watts=30)[0] == "canister"
    assert "hang-on" not in kinds(box_lph=1200, max_head_m=2.5, watts=30)
    assert kinds(box_lph=350, turning_wheel=True) == ["hang-on"]


@pytest.mark.parametrize("kind", [k for k in KINDS if "max_head_m" in k.typical.figures], ids=lambda k: k.name)
def test_a_usual_box_of_each_pumped_kind_may_be_of_that_kind(kind) -> None:
    for lph in (kind.typical.smallest_lph * 1.1, kind.typical.largest_lph * 0.9):
        box = typical_box(kind, lph)
        assert kind.name in kinds(box_lph=box.box_lph, max_head_m=box.max_head_m, watts=box.watts)


def test_what_a_box_says_stands_and_the_rest_is_as_usual() -> None:
    label = BoxLabel(name="Weir 9!", box_lph=640, watts=9, kind="hang-on", price=31)
    box, usual = box_of_label(label, 640, kind_of("hang-on")), typical_box(kind_of("hang-on"), 640)
    assert (box.id, box.name, box.watts, box.price, box.price_known) == ("own-weir-9", "Weir 9!", 9, 31, True)
    assert (box.media_l, box.behind_cm, box.max_head_m) == (usual.media_l, usual.behind_cm, usual.max_head_m)
    assert not box_of_label(label.model_copy(update={"price": None}), 640, kind_of("hang-on")).price_known


@pytest.mark.parametrize("lph", [1.0, 10.0, 300.0, 99_000.0, 1e6])
@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.name)
def test_a_box_of_any_flow_is_a_whole_box_of_any_kind(kind, lph: float) -> None:
    box = box_of_label(BoxLabel(box_lph=lph), lph, kind)
    assert 10 <= box.box_lph <= 1e5
    assert box.kind == kind.name
