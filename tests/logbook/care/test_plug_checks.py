"""Filters not yet seen running after work in the tank."""

from reedmace.logbook.care.plug_checks import plug_check
from tests.support.fitting import CHOSEN, NOW, state_of

CHANGE = {"kind": "water-change", "share": 0.25}


def test_after_a_change_or_a_rinse_somebody_looks() -> None:
    found = plug_check(state_of(CHOSEN, (0.5, CHANGE)), NOW)
    assert found is not None
    assert (found.after, len(found.filters)) == ("the water change", 1)
    rinsed = plug_check(state_of(CHOSEN, (1, CHANGE), (0.5, {"kind": "media-work", "what": "rinsed"})), NOW)
    assert rinsed is not None
    assert rinsed.after == "the work on the filter"


def test_seen_timed_or_written_as_a_stop_it_is_asked_no_more() -> None:
    looks = (
        {"kind": "care", "what": "plugs"},
        {"kind": "flow-test", "container_l": 2, "times_s": [10]},
        {"kind": "outage", "running": False},
    )
    for look in looks:
        assert plug_check(state_of(CHOSEN, (0.5, CHANGE), (0.4, look)), NOW) is None
        assert plug_check(state_of(CHOSEN, (0.4, look), (0.3, CHANGE)), NOW) is not None


def test_days_later_or_without_a_filter_nobody_asks() -> None:
    assert plug_check(state_of(CHOSEN, (2.1, CHANGE)), NOW) is None
    assert plug_check(state_of((0.5, CHANGE)), NOW) is None
    assert plug_check(state_of(CHOSEN, (0.5, {"kind": "media-work", "what": "seeding-started"})), NOW) is None
