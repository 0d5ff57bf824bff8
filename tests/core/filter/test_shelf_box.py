"""A box on a shelf: the boxes it may be, their ids, and what cannot be judged."""

import pytest
from pydantic import ValidationError

from reedmace.core.filter.box_label import BoxLabel
from reedmace.core.filter.shelf_box import ShelfBox, ShelfItem, box_of_filter, boxes_of, number_of
from reedmace.demo.sample_boxes import SAMPLE_BOXES


def test_each_kind_it_may_be_has_an_id_of_its_own_from_the_number_on_the_shelf() -> None:
    item = ShelfItem(id=12, box=ShelfBox(label=BoxLabel(box_lph=400)))
    boxes = boxes_of(item)
    assert len(boxes) > 1
    assert [f.id for f in boxes] == [f"shelf-12-{f.kind}" for f in boxes]
    assert {number_of(f.id) for f in boxes} == {12}
    (one,) = boxes_of(ShelfItem(id=7, box=ShelfBox(label=BoxLabel(box_lph=400, kind="canister"))))
    assert (one.id, number_of(one.id)) == ("shelf-7", 7)


@pytest.mark.parametrize("name", ["sweetflag-800", "shelf-", "shelf-x", "shelf-²", "typical-sponge-100", "given-3"])
def test_an_id_from_elsewhere_has_no_number(name: str) -> None:
    assert number_of(name) is None


def test_figures_of_a_file_are_kept_whole_under_the_shelfs_own_id() -> None:
    for f in SAMPLE_BOXES:
        (back,) = boxes_of(ShelfItem(id=3, box=box_of_filter(f)))
        assert back == f.model_copy(update={"id": "shelf-3"})


def test_a_price_named_on_the_label_is_the_price() -> None:
    box = box_of_filter(SAMPLE_BOXES[0])
    dearer = box.model_copy(update={"label": box.label.model_copy(update={"price": 99.0})})
    assert boxes_of(ShelfItem(id=3, box=dearer))[0].price == 99


def test_sound_and_media_on_the_label_are_the_boxes() -> None:
    said = {"noise_db": 31.0, "media_l": 4.2}
    whole = box_of_filter(SAMPLE_BOXES[0])
    for box in (
        ShelfBox(label=BoxLabel(box_lph=400, kind="canister", **said)),
        whole.model_copy(update={"label": whole.label.model_copy(update=said)}),
    ):
        (f,) = boxes_of(ShelfItem(id=3, box=box))
        assert (f.noise_db, f.media_l, f.noise_step) == (31.0, 4.2, pytest.approx(1 + 11 / 6))


def test_a_box_an_operator_gives_is_told_apart() -> None:
    (one,) = boxes_of(ShelfItem(id=-2, box=box_of_filter(SAMPLE_BOXES[0])))
    assert one.id == "given-2"


def test_a_box_without_a_flow_is_refused_with_the_remedy() -> None:
    with pytest.raises(ValidationError, match="give it in L/h or US gal/h"):
        ShelfBox(label=BoxLabel(watts=5))
