"""Filters as columns."""

import numpy as np
import pytest

from reedmace.core.filter.filter_table import film_m2, film_of_m2, table_of, usual_days
from reedmace.core.filter.kinds import kind_of
from reedmace.demo.sample_boxes import SAMPLE_BOXES

TABLE = table_of(SAMPLE_BOXES)


def test_each_row_is_its_filter_in_si() -> None:
    assert len(TABLE) == len(SAMPLE_BOXES)
    for i, f in enumerate(SAMPLE_BOXES):
        assert TABLE.air_m3s[i] == pytest.approx((f.air_l_min or 0) / 60000)
        assert TABLE.face_m2[i] == pytest.approx(f.face_cm2 / 1e4)
        assert bool(TABLE.air[i]) == f.air
        assert film_m2(TABLE)[i] == pytest.approx(film_of_m2(f))
        assert usual_days(TABLE)[i] == kind_of(f.kind).service_days


def test_a_curve_decides_where_the_maker_gives_one() -> None:
    points = [{"flow_lph": q, "head_m": h} for q, h in ((0, 1.5), (500, 0.8), (900, 0))]
    plain = next(f for f in SAMPLE_BOXES if f.kind == "canister" and not f.curve)
    curved = plain.model_validate(plain.model_dump() | {"curve": points})
    table = table_of([plain, curved])
    assert table.points.tolist() == [2, 3]
    assert table.curve_m3s[1, :3] == pytest.approx([0, 500 / 3.6e6, 900 / 3.6e6])
    assert table.curve_m[0, :2] == pytest.approx([plain.max_head_m, 0])


def test_rows_are_taken_and_tables_joined_in_order() -> None:
    some = TABLE.taken(np.array([3, 1]))
    assert [f.id for f in some.filters] == [SAMPLE_BOXES[3].id, SAMPLE_BOXES[1].id]
    both = some.joined(TABLE.taken(np.array([0])))
    assert [f.id for f in both.filters] == [SAMPLE_BOXES[i].id for i in (3, 1, 0)]
    assert both.box_lph == pytest.approx([SAMPLE_BOXES[i].box_lph for i in (3, 1, 0)])
    assert len(table_of([])) == 0


def test_a_trait_of_the_kind_becomes_a_column() -> None:
    assert TABLE.where(lambda k: k.needs_air).tolist() == [kind_of(f.kind).needs_air for f in SAMPLE_BOXES]
