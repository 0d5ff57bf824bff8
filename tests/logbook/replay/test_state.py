"""The state of a tank: a fold over its entries."""

from datetime import timedelta

import pytest

from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import replay
from tests.support.entries import NOW, entry
from tests.support.fitting import ONE

SPONGE, CANISTER = ONE["sponge"].model_dump(mode="json"), ONE["canister"].model_dump(mode="json")


def plan(*filters: tuple[str, dict]) -> dict:
    return {"kind": "filter-plan", "filters": [{"key": key, "filter": f} for key, f in filters]}


def days(n: float):
    return NOW + timedelta(days=n)


def withdrawn(n: int, of: int) -> Entry:
    return entry(n, {"kind": "withdrawal"}).model_copy(update={"supersedes": of})


def test_no_entries_are_an_empty_tank_that_runs() -> None:
    state = replay([])
    assert (state.filters(), state.events, state.taken_off) == ([], [], [])
    assert state.filter_running


def test_the_order_in_which_entries_come_does_not_matter() -> None:
    entries = [
        entry(1, {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}}, days(0)),
        entry(2, plan(("f1", SPONGE)), days(1)),
        entry(3, {"kind": "reading", "ammonia_ppm": 1}, days(5)),
        entry(4, {"kind": "reading", "ammonia_ppm": 2}, days(3)),
        entry(5, plan(("f1", CANISTER)), days(6)),
        withdrawn(6, 3),
    ]
    straight = replay(entries)
    for mixed in (entries[::-1], entries[3:] + entries[:3], entries[1::2] + entries[::2]):
        assert replay(mixed) == straight
    assert [e.id for e in straight.readings] == [4]


def test_a_correction_stands_for_what_it_corrects_and_events_go_by_their_time() -> None:
    corrected = entry(3, {"kind": "reading", "ammonia_ppm": 0.5}, days(1)).model_copy(update={"supersedes": 1})
    later = entry(2, {"kind": "reading", "ammonia_ppm": 4}, days(0.5))
    state = replay([entry(1, {"kind": "reading", "ammonia_ppm": 9}, days(1)), later, corrected])
    assert [e.body.ammonia_ppm for e in state.readings] == [4, 0.5]


def test_a_filter_no_plan_has_any_more_was_taken_off_with_its_film() -> None:
    both = entry(1, plan(("f1", SPONGE), ("f2", CANISTER)), days(0))
    one = replay([both, entry(2, plan(("f2", CANISTER)), days(60))])
    assert [(t.key, t.name) for t in one.taken_off] == [("f1", SPONGE["name"])]
    assert 0 < one.taken_off[0].share < 1
    assert one.hung_since == {"f2": days(0)}
    # Another box under the same key is another filter.
    changed = replay([both, entry(2, plan(("f1", CANISTER), ("f2", CANISTER)), days(60))])
    assert [t.key for t in changed.taken_off] == ["f1"]
    assert changed.hung_since == {"f1": days(60), "f2": days(0)}
    assert changed.first_hung == days(0)


@pytest.mark.parametrize(
    ("outages", "runs"),
    [
        ([(None, False)], set()),
        ([("f1", False)], {"f2"}),
        ([(None, False), ("f1", True)], {"f1"}),
        ([(None, False), (None, True)], {"f1", "f2"}),
        ([("f1", False), ("f2", False)], set()),
    ],
)
def test_filters_stop_and_start_alone_or_together(outages: list, runs: set) -> None:
    entries = [entry(1, plan(("f1", SPONGE), ("f2", CANISTER)), days(0))]
    for n, (key, running) in enumerate(outages, 2):
        entries.append(entry(n, {"kind": "outage", "filter_key": key, "running": running}, days(n)))
    state = replay(entries)
    assert {key for key in ("f1", "f2") if state.runs(key)} == runs
    assert state.filter_running == bool(runs)


def test_a_step_is_ticked_until_it_is_unticked() -> None:
    tick = {"kind": "step-done", "filter_key": "f1", "step_id": "sponge-line", "done": True}
    state = replay([entry(1, tick)])
    assert list(state.ticked("f1")) == ["sponge-line"]
    assert state.ticked("f2") == {}
    assert replay([entry(1, tick), entry(2, {**tick, "done": False})]).ticked("f1") == {}


def test_the_stock_planned_when_the_first_animals_came_is_kept() -> None:
    stock = [{"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": n}]} for n in (5, 30)]
    came = {"kind": "stocking", "species_id": "guppy", "count": 5}
    state = replay([entry(1, stock[0]), entry(2, came), entry(3, stock[1])])
    assert (state.stock_before.id, state.stock_plan.id) == (1, 3)
    assert replay([entry(1, stock[0]), entry(3, stock[1])]).stock_before.id == 3
