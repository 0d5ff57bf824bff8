"""The plan nothing supersedes."""

import peewee

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.store.current_plan import current_plan, filter_names
from tests.store.conftest import NOW

BOX = SAMPLE_BOXES[0]


def test_the_newest_that_was_not_replaced_stands(database: peewee.Database, tanks, write) -> None:
    mine = tanks()
    tank, other = mine.make("Plans", NOW).id, mine.make("Other", NOW).id
    assert current_plan(database, tank, "filter-plan") is None
    assert filter_names(database, tank) == {}
    plan = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BOX.model_dump(mode="json")}]}
    first = write(mine, tank, {"kind": "filter-plan", "filters": []})
    second = write(mine, tank, plan, supersedes=first, based_on=first)
    found = current_plan(database, tank, "filter-plan")
    assert found is not None
    assert found.id == second
    assert filter_names(database, tank) == {"f1": BOX.name}
    assert current_plan(database, other, "filter-plan") is None
    assert current_plan(database, tank, "stock-plan") is None
