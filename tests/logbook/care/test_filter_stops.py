"""Stops of the filter: what they cost and what is asked for, while they last and after."""

from datetime import timedelta
from typing import Any

import pytest

from reedmace.core.cycle import CycleReadinessQuestion, FilterStopQuestion, cycle_readiness, filter_stop
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.care.filter_stops import stops
from reedmace.logbook.replay.cycle_log import care_log, cycle_log
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import replay
from reedmace.logbook.stages import in_danger, keep_view
from tests.support.lives import NOW, life


def fish(ago: float) -> tuple[float, dict[str, Any]]:
    return ago, {"kind": "stocking", "species_id": "zebra-danio", "count": 8}


def off(ago: float, running: bool = False) -> tuple[float, dict[str, Any]]:
    return ago, {"kind": "outage", "running": running}


def reads(ago: float, ammonia: float, nitrite: float) -> tuple[float, dict[str, Any]]:
    return ago, {"kind": "reading", "ammonia_ppm": ammonia, "nitrite_ppm": nitrite, "ph": 7.6}


def test_half_a_closed_film_is_gone_in_six_hours_and_half_an_open_one_in_a_day() -> None:
    assert filter_stop(FilterStopQuestion(closed=True, hours=6)).lost_share == pytest.approx(0.5)
    assert filter_stop(FilterStopQuestion(closed=False, hours=24)).lost_share == pytest.approx(0.5)
    assert filter_stop(FilterStopQuestion(closed=True, hours=6, film_share=0.4)).lost_share == pytest.approx(0.2)


def test_a_closed_body_that_stood_is_rinsed_before_it_runs() -> None:
    closed = filter_stop(FilterStopQuestion(closed=True, hours=9, standing=True))
    assert closed.urgent
    assert "rinse the media in tank water before it runs" in closed.steps[0]
    opened = filter_stop(FilterStopQuestion(closed=False, hours=9, standing=True))
    assert not any("airless" in s for s in opened.steps)
    assert any("air stone" in s for s in opened.steps)


def test_a_short_stop_that_is_over_asks_for_nothing() -> None:
    answer = filter_stop(FilterStopQuestion(closed=True, hours=0.5, since_days=0.1))
    assert answer.over
    assert not answer.urgent


def test_a_test_made_since_it_ran_again_calms_until_tomorrow() -> None:
    stopped = FilterStopQuestion(closed=True, hours=9, since_days=3)
    assert filter_stop(stopped).urgent
    assert filter_stop(stopped.model_copy(update={"tested_days": 2.0})).urgent
    assert not filter_stop(stopped.model_copy(update={"tested_days": 0.5})).urgent
    # One made before the stop says nothing of it.
    just = FilterStopQuestion(closed=True, hours=9, since_days=0.2, tested_days=0.5)
    assert filter_stop(just).urgent


@pytest.mark.parametrize("hours", [9, 21 * 24])
def test_a_stop_in_a_settled_tank_without_a_cycle_plan_is_never_silent(hours: float) -> None:
    standing = replay(life(fish(700), off(hours / 24)))
    assert stops(standing, NOW)[0].urgent
    assert "has stood still" in keep_view(standing, NOW).verdict
    over = replay(life(fish(700), off(hours / 24 + 2), off(2, running=True)))
    assert stops(over, NOW)[0].urgent
    assert replay(life(fish(700))).filter_running
    assert stops(replay(life(fish(700), off(hours / 24 + 9), off(9, running=True))), NOW) == []


def test_without_animals_a_stop_is_told_but_is_not_urgent() -> None:
    found = stops(replay(life(off(1))), NOW)
    assert found
    assert not found[0].urgent


def test_poison_in_a_tank_without_a_plan_or_with_a_very_old_one_is_seen() -> None:
    plan = (800, {"kind": "cycle-plan", "started_at": (NOW - timedelta(days=800)).isoformat()})
    for rows in ([fish(600)], [plan, fish(600)]):
        clear, bad = replay(life(*rows, reads(0.1, 0, 0))), replay(life(*rows, reads(0.1, 0, 2)))
        assert in_danger(clear, NOW) is None
        danger = in_danger(bad, NOW)
        assert danger is not None
        assert danger.first.do == "change-water"
        assert danger.first.title in keep_view(bad, NOW).verdict


def test_salt_water_is_judged_as_salt_water_without_a_plan() -> None:
    tank = (
        650,
        {
            "kind": "tank-plan",
            "surroundings": {"water": "salt"},
            "tank": {"length_cm": 80, "width_cm": 35, "height_cm": 40},
        },
    )
    log = care_log(replay(life(tank, fish(600))), NOW)
    assert log is not None
    assert log.salinity_g_kg == 35
    assert log.start_ph == pytest.approx(8.1)


def test_a_tank_without_animals_has_no_care_log() -> None:
    assert care_log(replay(life(off(3))), NOW) is None


def installed(ago: float, *keys: str) -> tuple[float, dict[str, Any]]:
    rows = [{"key": key, "filter": SAMPLE_BOXES["ab".index(key)].model_dump()} for key in keys]
    return ago, {"kind": "filter-plan", "filters": rows}


def proven(*more: tuple[float, dict[str, Any]]) -> list[Entry]:
    """Two doses, each seen in the water and gone a day later."""
    rows: list[tuple[float, dict[str, Any]]] = [
        (40, {"kind": "cycle-plan", "started_at": (NOW - timedelta(days=40)).isoformat(), "start_kh_dkh": 8}),
        installed(39.9, "a"),
        *[(40 - d, reads(0, a, n)[1]) for d, a, n in ((1, 2, 0), (12, 0.5, 1), (20, 0, 4), (30, 0, 1))],
        (16, {"kind": "dose", "raise_mg_n_l": 1.0}),
        (2.1, {"kind": "dose", "raise_mg_n_l": 0.6}),
        (2.05, {"kind": "reading", "ammonia_ppm": 0.75}),
        (1.1, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 40}),
        (1.09, {"kind": "dose", "raise_mg_n_l": 0.6}),
        (1.05, {"kind": "reading", "ammonia_ppm": 0.75}),
        (0.2, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 45}),
        *more,
    ]
    return life(*rows)


def is_ready(entries: list[Entry]) -> bool:
    log = cycle_log(replay(entries), NOW)
    assert log is not None
    return cycle_readiness(CycleReadinessQuestion(log=log)).ready


def test_a_proof_goes_with_the_filter_that_made_it() -> None:
    assert is_ready(proven())
    assert is_ready(proven(installed(0.1, "a", "b"))), "one more beside it takes nothing away"
    assert not is_ready(proven(installed(0.1, "b")))
    assert not is_ready(proven(installed(0.1)))
    # Another filter under the same key, as 0.1 wrote every exchange.
    other = {"kind": "filter-plan", "filters": [{"key": "a", "filter": SAMPLE_BOXES[5].model_dump()}]}
    assert not is_ready(proven((0.1, other)))


def test_a_filter_taken_off_a_stocked_tank_is_watched_for_a_week() -> None:
    state = replay(life(installed(300, "a", "b"), fish(200), installed(2, "b")))
    found = stops(state, NOW)
    assert [s.urgent for s in found] == [True]
    assert "was taken off" in found[0].verdict
    assert stops(replay(life(installed(300, "a", "b"), fish(200), installed(20, "b"))), NOW) == []
    assert stops(replay(life(installed(300, "a", "b"), installed(2, "b"), fish(1))), NOW) == []


def test_a_filter_that_stood_and_was_taken_off_stands_no_longer() -> None:
    one = {"kind": "outage", "running": False, "filter_key": "a"}
    state = replay(life(installed(300, "a", "b"), fish(200), (30, one), installed(29, "b")))
    assert state.filter_running
    assert stops(state, NOW) == []
