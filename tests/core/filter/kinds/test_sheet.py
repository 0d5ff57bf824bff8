"""The sheet of foam across the tank: it spans a side, in water deep enough."""

import numpy as np

from reedmace.core.contract import Working
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.steps import StepFacts
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.kinds.sheet import SHALLOWEST_CM
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

KIND = kind_of("sheet")


def test_it_spans_a_side_of_the_tank_in_water_that_is_deep_enough() -> None:
    table = table_of(f for f in SAMPLE_BOXES if f.kind == "sheet")
    mine = np.ones(len(table), dtype=bool)
    wide = float(table.width_cm[0])

    def broken(**site: float) -> bool:
        found = KIND.limits(table, mine, Site.model_validate(ROOM | {"width_cm": wide, "length_cm": 6} | site))
        return bool(found[0].broken[0])

    assert not broken()
    assert broken(width_cm=wide - 1)
    assert not broken(width_cm=6, length_cm=wide)
    assert broken(water_depth_cm=SHALLOWEST_CM - 0.1)


def test_foam_stands_before_the_lift_goes_behind_it() -> None:
    ids = [s.id for s in KIND.steps(StepFacts(), Working())]
    assert ids[:3] == ["sheet-cut", "sheet-rinse", "sheet-lift"]
