"""Boxes as usually made: every size and make is a whole box, and an id opens the box it was written for."""

import pytest

from reedmace.core.filter.kinds import KINDS
from reedmace.core.filter.typical import (
    MAKES,
    SIZES,
    is_typical,
    sizes_of,
    typical_box,
    typical_id,
    typical_medians,
    typical_named,
    typical_table,
)
from reedmace.core.quantity import formatting


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.name)
def test_sizes_rise_and_none_is_there_twice(kind) -> None:
    sizes = sizes_of(kind.typical)
    assert len(sizes) == SIZES
    assert list(sizes) == sorted(set(sizes))
    assert kind.typical.smallest_lph * 0.97 <= sizes[0]
    assert sizes[-1] <= kind.typical.largest_lph * 1.03


def test_the_table_has_every_size_and_make_of_every_kind_the_median_first() -> None:
    t = typical_table()
    assert len(t.table) == len(KINDS) * SIZES * MAKES
    rows = t.rows_of(2, 5)
    assert len(rows) == MAKES
    assert t.make[rows[0]] == 0
    assert t.table.filters[rows[0]].box_lph == t.sizes_lph[2][5]


def test_the_same_makes_are_drawn_each_time() -> None:
    first = [f.model_dump() for f in typical_table().table.filters[:200]]
    typical_table.cache_clear()
    assert [f.model_dump() for f in typical_table().table.filters[:200]] == first


def test_an_id_opens_its_box_in_the_keepers_units_and_others_open_nothing() -> None:
    for f in typical_medians().filters:
        assert is_typical(f.id)
        assert typical_named(f.id) == f
    with formatting.in_units(formatting.Units("US gal", "in", "°F")):
        assert "US gal/h" in typical_named(typical_id(KINDS[0], 200)).name
    for name in (
        "typical-teapot-200",
        "typical-sponge-",
        "typical-sponge-²",
        "typical-sponge-0",
        "shelf-3",
        "typical-",
    ):
        assert typical_named(name) is None
    assert typical_named("typical-sponge-99999999999") is None


def test_nobody_named_a_price_for_it() -> None:
    assert not any(f.price_known for f in typical_medians().filters)


def test_larger_boxes_hold_more_and_draw_more() -> None:
    for kind in KINDS:
        small, large = typical_box(kind, kind.typical.smallest_lph), typical_box(kind, kind.typical.largest_lph)
        assert small.media_l <= large.media_l
        assert small.watts <= large.watts
