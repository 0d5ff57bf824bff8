"""What kinds on hoses share."""

import numpy as np
import pytest

from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.hosed import foot_most_cm, stands_beneath
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

CANISTERS = [f for f in SAMPLE_BOXES if f.kind == "canister"]


def test_a_body_and_its_hoses_fit_under_the_tank_to_the_centimetre() -> None:
    table, mine = table_of(CANISTERS), np.ones(len(CANISTERS), dtype=bool)
    fits = float(table.height_cm[0]) + 8
    for beneath, broken in ((fits, False), (fits - 0.1, True)):
        limit = stands_beneath(table, mine, Site.model_validate(ROOM | {"beneath_cm": beneath}), 8.0)
        assert bool(limit.broken[0]) is broken
    assert not stands_beneath(table, ~mine, Site.model_validate(ROOM | {"beneath_cm": 0}), 8.0).broken.any()


def test_the_tallest_body_decides_how_high_feet_may_stand() -> None:
    tall = max(CANISTERS, key=lambda f: f.height_cm)
    assert foot_most_cm(CANISTERS, 120.0) == pytest.approx(120.0 - tall.height_cm - 8)
    assert foot_most_cm([tall], tall.height_cm) == 0
    # A sponge stands in the tank and takes nothing from the stand.
    assert foot_most_cm([f for f in SAMPLE_BOXES if f.kind == "sponge"], 70.0) == 70
