"""The sump: an overflow, room beneath, and a run-back that is tried out."""

import numpy as np

from reedmace.core.contract import Working
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.steps import StepFacts
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

KIND = kind_of("sump")
TABLE = table_of(f for f in SAMPLE_BOXES if f.kind == "sump")
MINE = np.ones(len(TABLE), dtype=bool)
ROOMY = ROOM | {"beneath_cm": 200, "length_cm": 300}


def test_the_pump_lifts_the_whole_height() -> None:
    assert KIND.loop_words is not None
    assert "lifts the whole 1.20 m" in KIND.loop_words(1.2, 0)


def test_it_asks_for_a_way_down_for_the_water() -> None:
    for site, broken in (({}, True), ({"overflow_box": True}, False), ({"drilled": True}, False)):
        found = KIND.limits(TABLE, MINE, Site.model_validate(ROOMY | {"overflow_box": False} | site))
        assert bool(found[2].broken.all()) is broken


def test_it_is_switched_off_and_watched_before_it_is_trusted() -> None:
    found = KIND.steps(StepFacts(), Working())
    ids = [s.id for s in found]
    assert ids.index("sump-power") < ids.index("sump-tune") < ids.index("sump-off") < ids.index("sump-leak-5")
    assert found[ids.index("sump-off")].wait_minutes == 5
