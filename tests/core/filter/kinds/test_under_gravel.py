"""The under-gravel plate: before the gravel, no larger than the floor."""

import numpy as np

from reedmace.core.contract import Working
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.steps import StepFacts
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

KIND = kind_of("under-gravel")


def test_a_plate_larger_than_the_floor_is_refused() -> None:
    table = table_of(f for f in SAMPLE_BOXES if f.kind == "under-gravel")
    mine = np.ones(len(table), dtype=bool)
    for length, broken in ((float(table.width_cm[0]), False), (float(table.width_cm[0]) - 1, True)):
        site = Site.model_validate(ROOM | {"length_cm": length, "width_cm": 100})
        assert bool(KIND.limits(table, mine, site)[0].broken[0]) is broken


def test_it_lies_under_everything_and_is_never_cleaned_as_media() -> None:
    ids = [s.id for s in KIND.steps(StepFacts(), Working())]
    assert ids[0] == "gravel-plate"
    assert ids.index("gravel-cover") < ids.index("gravel-risers")
    assert ids[-1] == "gravel-habit"
