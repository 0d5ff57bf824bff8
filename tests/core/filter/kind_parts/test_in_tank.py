"""A body whose outlet must stay under water."""

import numpy as np

from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.in_tank import UNDER_SURFACE_CM, stands_under
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM


def test_a_body_taller_than_the_water_breaks_it_until_the_water_is_raised() -> None:
    table = table_of(f for f in SAMPLE_BOXES if f.kind == "internal")
    mine = np.ones(len(table), dtype=bool)
    mine[-1] = False
    lowest = float(table.height_cm.min())
    site = Site.model_validate(ROOM | {"water_depth_cm": lowest + UNDER_SURFACE_CM - 1})
    (limit,) = stands_under(table, mine, site)
    assert limit.broken[:-1].all()
    assert not limit.broken[-1]
    at = int(np.argmin(table.height_cm[:-1]))
    assert limit.need is not None
    raised = site.model_copy(update={limit.key: float(limit.need[at])})
    assert not stands_under(table, mine, raised)[0].broken[at]
