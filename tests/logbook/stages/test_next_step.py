"""What comes next on the way to animals: the first thing not done, and what is left of it; fitting before cycling."""

from datetime import timedelta

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.stages import next_step, rows_or_fault
from reedmace.logbook.stages.stage_rows import DISAGREE, Stage
from reedmace.logbook.stages.today import today_view
from tests.support.tanks import AT, state_of

TANK = {"kind": "tank-plan", "tank": {"length_cm": 80, "width_cm": 35, "height_cm": 40}}
STOCK = {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 6}]}
FILTER = {"kind": "filter-plan", "filters": [{"key": "f1", "filter": SAMPLE_BOXES[0].model_dump()}]}
CYCLE = {"kind": "cycle-plan", "started_at": (AT - timedelta(hours=2)).isoformat()}


def after(*bodies: dict):
    return next_step(rows_or_fault(state_of(*bodies), AT)[0])


def test_each_thing_done_moves_it_on() -> None:
    asked = [
        (after(*done).stage, len(after(*done).left)) for done in ((), (TANK,), (TANK, STOCK), (TANK, STOCK, FILTER))
    ]
    assert asked == [("tank", 4), ("stock", 3), ("filter", 2), ("fit", 1)]


def test_figures_that_do_not_agree_have_no_next_step() -> None:
    assert next_step([Stage(stage="tank", state="begun", words=DISAGREE)]) is None


def test_a_filter_is_fitted_before_its_cycle_begins_until_something_was_dosed_tested_or_lives() -> None:
    def stage(*more: dict) -> str:
        return today_view(state_of(TANK, STOCK, FILTER, CYCLE, *more), AT)[0].stage

    assert stage() == "fit"
    assert stage({"kind": "dose", "raise_mg_n_l": 1.5}) == "cycle"
    assert stage({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0}) == "cycle"
    assert stage({"kind": "stocking", "species_id": "guppy", "count": 3}) != "fit"
    assert stage({"kind": "situation", "stands": "cycling", "since": (AT - timedelta(days=9)).isoformat()}) == "cycle"


def test_what_was_begun_is_gone_on_with() -> None:
    done = ({"kind": "step-done", "filter_key": "f1", "step_id": "sponge-height", "done": True},)
    assert after(TANK, STOCK, FILTER).words == "fit it"
    begun = after(TANK, STOCK, FILTER, CYCLE, *done)
    assert (begun.words, begun.left) == ("go on fitting", ["go on with its cycle"])


def test_a_tank_with_animals_is_never_told_to_fit_first_nor_how_far_it_is_to_animals() -> None:
    lived = {**CYCLE, "method": "animals-in"}
    view = today_view(state_of(TANK, STOCK, FILTER, lived), AT)[0]
    assert (view.stage != "fit", view.way) == (True, "")
    untreated = {"kind": "water-change", "share": 0.5, "treated": False}
    assert today_view(state_of(TANK, STOCK, FILTER, lived, untreated), AT)[0].stage != "fit"
    running = {"kind": "situation", "stands": "running", "since": (AT - timedelta(days=300)).isoformat()}
    assert today_view(state_of(TANK, running), AT)[0].way == ""
    assert today_view(state_of(TANK, STOCK), AT)[0].way == "To the first animals: choose its filter, fit it, cycle it."
