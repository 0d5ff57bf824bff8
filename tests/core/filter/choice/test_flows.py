"""Flows of boxes on a tank: what hangs there has its own plumbing."""

import numpy as np
import pytest

from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.filter_table import table_of
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM, SHOAL

CANISTERS = [f for f in SAMPLE_BOXES if f.kind == "canister"]


def question(**changes: object) -> RankFiltersQuestion:
    return RankFiltersQuestion.model_validate({"site": ROOM, "animals": SHOAL, **changes})


def test_only_the_one_that_hangs_there_is_worked_out_by_its_own_hoses() -> None:
    table = table_of(CANISTERS)
    usual = flows_here(question(), table, 1.0)
    long_hose = {"hose_bore_mm": 12, "hose_length_m": 12}
    installed = [{"filter_id": CANISTERS[1].id, "plumbing": long_hose}]
    own = flows_here(question(installed=installed), table, 1.0)
    assert own.clean_lph[1] < 0.8 * usual.clean_lph[1]
    others = np.arange(len(table)) != 1
    assert own.clean_lph[others] == pytest.approx(usual.clean_lph[others])


def test_what_hangs_there_and_is_not_listed_changes_nothing() -> None:
    table = table_of(CANISTERS)
    asked = question(installed=[{"filter_id": "not-listed", "plumbing": {}}])
    assert flows_here(asked, table, 1.0).service_lph == pytest.approx(flows_here(question(), table, 1.0).service_lph)
