"""Filters of different age: who holds how much film, when the old one may go, and what its going costs."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.care.filter_stops import stops
from reedmace.logbook.care.takeover import takeover
from reedmace.logbook.replay.cycle_log import cycle_log
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.film_shares import film_shares
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.logbook.stages import fit_view, keep_view

NOW = datetime(2026, 6, 1, 9, tzinfo=UTC)
OLD, NEW = (f.model_dump() for f in [f for f in SAMPLE_BOXES if f.kind == "canister"][:2])


def life(*rows: tuple[float, dict[str, Any]]) -> LogbookState:
    """The state of one tank from (days ago, body)."""
    return replay(
        Entry.model_validate(
            {"id": i, "at": NOW - timedelta(days=ago), "written_at": NOW, "key": f"k{i}", "body": body}
        )
        for i, (ago, body) in enumerate(rows, 1)
    )


def plan(*filters: tuple[str, dict[str, Any]], **more: Any) -> dict[str, Any]:
    return {"kind": "filter-plan", "filters": [{"key": key, "filter": f} for key, f in filters], **more}


def fish(ago: float) -> tuple[float, dict[str, Any]]:
    return ago, {"kind": "stocking", "species_id": "zebra-danio", "count": 8}


def beside(days: float) -> LogbookState:
    return life((200, plan(("old", OLD))), fish(190), (days, plan(("old", OLD), ("new", NEW))))


def test_a_filter_hung_yesterday_holds_next_to_no_film_and_in_a_month_its_room() -> None:
    young, grown = film_shares(beside(1), NOW), film_shares(beside(30), NOW)
    assert young["old"] > 0.9
    rooms = OLD["media_l"], NEW["media_l"]
    assert grown["new"] == pytest.approx(rooms[1] / sum(rooms))
    assert sum(young.values()) == pytest.approx(1)


def test_filters_hung_together_share_by_their_room_from_the_first_day() -> None:
    both = life((3, plan(("old", OLD), ("new", NEW))))
    assert film_shares(both, NOW)["old"] == pytest.approx(OLD["media_l"] / (OLD["media_l"] + NEW["media_l"]))


def test_taking_the_old_one_off_too_soon_costs_nearly_all_the_film_and_is_said() -> None:
    soon = life((200, plan(("old", OLD))), fish(190), (4, plan(("old", OLD), ("new", NEW))), (1, plan(("new", NEW))))
    (stop,) = stops(soon, NOW)
    assert stop.lost_share > 0.7
    assert stop.urgent
    late = life((200, plan(("old", OLD))), fish(190), (60, plan(("old", OLD), ("new", NEW))), (1, plan(("new", NEW))))
    assert stops(late, NOW)[0].lost_share < stop.lost_share


@pytest.mark.parametrize(("days", "may"), [(3, False), (15, False), (24, True), (45, True)])
def test_when_the_old_one_may_go_has_one_answer_on_every_stage(days: float, may: bool) -> None:
    state = beside(days)
    answer = takeover(state, NOW)
    assert answer is not None
    assert (answer.answer.retire_after_days is None) is may
    assert fit_view(state, NOW).takeover == keep_view(state, NOW).takeover == answer
    if not may:
        # What it says is left is what is left: that many days on, it may.
        on = takeover(state, NOW + timedelta(days=answer.answer.retire_after_days + 0.01))
        assert on.answer.retire_after_days is None


def test_nothing_is_taken_over_where_filters_are_of_an_age_alone_or_long_settled() -> None:
    assert takeover(life((200, plan(("old", OLD))), fish(190)), NOW) is None
    assert takeover(life((200, plan(("old", OLD), ("new", NEW))), fish(190)), NOW) is None
    assert takeover(beside(90), NOW) is None
    # Hung in the first week of a cycle, a second one grows up with the first.
    begun = {"kind": "cycle-plan", "started_at": (NOW - timedelta(days=10)).isoformat()}
    young = (10, plan(("old", OLD))), (10, begun), (5, plan(("old", OLD), ("new", NEW)))
    assert takeover(life(*young), NOW) is None
    assert takeover(life((200, plan(("old", OLD))), (3, plan(("old", OLD), ("new", NEW)))), NOW) is None


def test_ten_short_stops_in_a_day_cost_what_one_long_one_does() -> None:
    def off(ago: float, running: bool = False) -> tuple[float, dict[str, Any]]:
        return ago, {"kind": "outage", "running": running}

    base = (200, plan(("old", OLD))), fish(190)
    short = life(*base, *(row for i in range(10) for row in (off(1 - i * 0.08), off(1 - i * 0.08 - 0.05, True))))
    long = life(*base, off(1), off(0.5, True))
    (many,), (one,) = stops(short, NOW), stops(long, NOW)
    assert many.lost_share == pytest.approx(one.lost_share, rel=0.01)


def test_a_stop_in_salt_water_speaks_of_salinity() -> None:
    salt = {
        "kind": "tank-plan",
        "tank": {"length_cm": 100, "width_cm": 50, "height_cm": 50},
        "surroundings": {"water": "salt"},
    }
    for first, spoken in (((), False), (((210, salt),), True)):
        state = life(*first, (200, plan(("old", OLD))), fish(190), (1, {"kind": "outage", "running": False}))
        assert any("salinity" in step for step in stops(state, NOW)[0].steps) is spoken


def test_a_cycle_plan_left_as_offered_says_nothing_of_the_tap() -> None:
    def log(**figures: float):
        body = {"kind": "cycle-plan", "started_at": (NOW - timedelta(days=3)).isoformat(), **figures}
        return cycle_log(life((3, body)), NOW)

    assert log().tap.ph is None
    assert log().tap.kh_dkh is None
    told = log(start_ph=6.6, start_kh_dkh=2)
    assert (told.tap.ph, told.tap.kh_dkh) == (6.6, 2)
    # What is offered to a salt tank is another water, and says as little when left.
    salt = {
        "kind": "tank-plan",
        "tank": {"length_cm": 100, "width_cm": 50, "height_cm": 50},
        "surroundings": {"water": "salt"},
    }
    body = {
        "kind": "cycle-plan",
        "started_at": (NOW - timedelta(days=3)).isoformat(),
        "start_ph": 8.1,
        "start_kh_dkh": 8,
    }
    assert cycle_log(life((4, salt), (3, {**body, "salinity_g_kg": 35})), NOW).tap.ph is None
    assert cycle_log(life((3, body)), NOW).tap.ph == 8.1
