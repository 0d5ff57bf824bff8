"""What this installation's keepers taught: learned once a day, of those who take part."""

from datetime import timedelta

import peewee

from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.shelf_box import ShelfBox
from reedmace.core.filter.typical import typical_box
from reedmace.store.learned import LEARNED_EVERY, contributes, learned_boxes, set_contributes
from reedmace.store.models import LearnedRow
from reedmace.store.shelf import Shelf
from tests.store.conftest import NAIVE, NOW


def outdate(database: peewee.Database) -> None:
    """So that whoever asks next learns anew."""
    LearnedRow.update(made_at=NAIVE - 10 * LEARNED_EVERY).bind(database).execute()


def type_boxes(database: peewee.Database, account: int, watts_times: float, count: int = 12) -> None:
    boxes = []
    for n in range(count):
        lph = 300.0 + 50 * n
        watts = typical_box(kind_of("hang-on"), lph).watts * watts_times
        label = {"name": f"Box {n}", "kind": "hang-on", "box_lph": lph, "watts": watts}
        boxes.append((f"learned-{account}-{n:03d}", ShelfBox.model_validate({"label": label})))
    Shelf(database, account).put(boxes, NOW)


def watts_shift(database: peewee.Database, now=NOW) -> float:
    found = learned_boxes(database, now)
    return next((r.shift_share for r in found if (r.kind, r.figure) == ("hang-on", "watts")), 0.0)


def test_an_account_takes_part_until_it_opts_out(database: peewee.Database, account) -> None:
    who = account()
    assert contributes(database, who)
    set_contributes(database, who, may=False)
    assert not contributes(database, who)
    assert not contributes(database, 10**12)


def test_boxes_that_draw_more_move_the_watts_and_nobodys_do_not(database: peewee.Database, account) -> None:
    outdate(database)
    before = watts_shift(database)
    who = account()
    type_boxes(database, who, watts_times=1.8)
    outdate(database)
    with_them = watts_shift(database)
    assert with_them > before
    set_contributes(database, who, may=False)
    outdate(database)
    assert abs(watts_shift(database) - before) < 1e-9


def test_it_is_learned_once_a_day_and_the_same_for_all_meanwhile(database: peewee.Database, account) -> None:
    outdate(database)
    first = learned_boxes(database, NOW)
    type_boxes(database, account(), watts_times=1.8)
    assert learned_boxes(database, NOW + LEARNED_EVERY - timedelta(minutes=1)) == first
    assert learned_boxes(database, NOW + LEARNED_EVERY + timedelta(minutes=1)) != first


def test_a_row_another_version_wrote_is_nothing_until_it_is_learned_anew(database: peewee.Database) -> None:
    learned_boxes(database, NOW)
    LearnedRow.update(body=[{"kind": "kettle"}]).bind(database).execute()
    assert learned_boxes(database, NOW) == []
    outdate(database)
