"""Air-driven filters are looked at, not timed; a full tank is not moved; soft-water animals get no soda."""

from datetime import timedelta

from reedmace.core.computations import compute
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.care.due import due
from reedmace.logbook.care.upkeep_log import care
from reedmace.logbook.replay.equipment import tank_site
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.stages import keep_view, today_view
from tests.support.lives import NOW, SIZES, Row, lived, read, tank

SPONGE = next(f for f in SAMPLE_BOXES if f.air)
HANGING: Row = (190, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": SPONGE.model_dump()}]})


def test_an_air_driven_filter_is_looked_at_and_a_look_puts_the_next_off() -> None:
    state = lived(*tank(200), HANGING)
    plan = care(state, NOW)
    assert plan is not None
    assert "flow-test" not in {task.what for task in plan.tasks}
    assert next(task.in_days for task in plan.tasks if task.what == "look") == 0
    assert "time its flow" not in today_view(state, NOW)[0].verdict
    assert all("Time the flow" not in row.title for row in due(state, NOW))
    row = next(row for row in keep_view(state, NOW).rows if row.task.what == "look")
    assert row.done is not None
    seen = lived(*tank(200), HANGING, (0.2, row.done.model_dump()))
    later = care(seen, NOW)
    assert later is not None
    assert next(task.in_days for task in later.tasks if task.what == "look") > 6


def test_timing_or_hanging_an_air_driven_filter_is_a_look_as_well() -> None:
    def next_look(*rows: Row) -> float:
        plan = care(lived(*tank(200), HANGING, *rows), NOW)
        assert plan is not None
        return next(task.in_days for task in plan.tasks if task.what == "look" and task.filter_key == "f2")

    both = [{"key": key, "filter": SPONGE.model_dump()} for key in ("f1", "f2")]
    squeezed: Row = (22, {"kind": "media-work", "what": "rinsed", "share": 1})
    # Hung after the squeeze of all that hung then: looked at on the day it was hung.
    assert next_look(squeezed, (3, {"kind": "filter-plan", "filters": both})) > 3
    hung: Row = (100, {"kind": "filter-plan", "filters": both})
    timed: Row = (1, {"kind": "flow-test", "filter_key": "f2", "container_l": 0.5, "times_s": [15.0, 15.2]})
    assert next_look(hung) <= 0
    assert next_look(hung, timed) > 5


def test_a_pumped_filter_is_timed() -> None:
    pumped = next(f for f in SAMPLE_BOXES if not f.air)
    state = lived(*tank(200), (190, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": pumped.model_dump()}]}))
    plan = care(state, NOW)
    assert plan is not None
    assert {"flow-test"} == {task.what for task in plan.tasks} & {"flow-test", "look"}


def test_nobody_is_told_to_move_a_full_tank() -> None:
    narrow = SIZES | {"surroundings": {"behind_cm": 1}}
    empty, full = lived((30, narrow)), lived((30, narrow), read(1, ph=7))
    assert not tank_site(empty).filled
    assert tank_site(full).filled
    said = {}
    for name, state in (("empty", empty), ("full", full)):
        answer = compute("rank-filters", rank_question(state).model_dump())
        said[name] = " ".join([c.text for c in answer.changes] + [e.remedy for e in answer.excluded])
    assert "off the wall" in said["empty"]
    assert "off the wall" not in said["full"]
    assert "a full tank is not moved" in said["full"]


def test_soft_water_animals_get_no_soda_in_any_computation() -> None:
    dose = {"net_l": 40, "current_dkh": 0.5, "target_dkh": 4, "animals_in": True, "ph": 6.0}
    none = compute("alkalinity-dose", {**dose, "animals_ph_high": 6.8})
    assert none.sodium_bicarbonate_g == none.hold_g == 0
    assert "No soda" in none.verdict
    assert compute("alkalinity-dose", dose).sodium_bicarbonate_g > 0
    soft = lived(*tank(200, "crystal-shrimp", 20), read(30, ph=6.4, kh_dkh=1), read(ph=6.2, kh_dkh=0.5))
    plan = care(soft, NOW + timedelta(days=1))
    assert plan is not None
    assert "soda" not in {task.what for task in plan.tasks}
