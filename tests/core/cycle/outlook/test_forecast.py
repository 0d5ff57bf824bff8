"""Forecast of the day a cycle passes, as a range, with the range of each concentration by day."""

from typing import Any

import pytest

from reedmace.core.computations import compute
from tests.support.cycle_logs import STALLED, TWO_PPM, reading, ready
from tests.support.cycling import NA, A, proving


def forecast(log: dict, **more):
    return compute("cycle-forecast", {"log": log, "draws": 600, **more})


def test_nitrate_of_the_baseline_test_is_what_the_forecasts_books_begin_with() -> None:
    # Tap water of 20 ppm, tested: neither a film that never was nor figures that fit no course.
    there = 20 * NA
    readings = [reading(d, 2, 0, 20) for d in (0, 3, 6, 9)]
    log = {**TWO_PPM, "day_now": 9.1, "readings": readings}
    answer = forecast(log)
    assert answer.bands[0].nitrate_mg_n_l.p50 == pytest.approx(there, rel=0.3)
    assert answer.bands[9].nitrate_mg_n_l.p50 == pytest.approx(there, rel=0.3)
    assert not any("fit no usual course" in line for line in answer.rests_on)
    # Nothing has happened yet, and the date says so as it does with water that began without any.
    clean = forecast({**log, "readings": [reading(d, 2, 0, 0) for d in (0, 3, 6, 9)]})
    assert answer.pass_day_p50 == pytest.approx(clean.pass_day_p50, abs=2.5)


def test_an_unseeded_warm_tank_passes_in_four_to_six_weeks() -> None:
    # Common practice: 4 to 6 weeks at 25 to 27 °C; ammonia first falls to nothing in one to three.
    answer = forecast({**TWO_PPM, "temperature_c": 26})
    # The range leaves room for what the model does not hold; six weeks to three months are quoted too.
    assert 22 <= answer.pass_day_p10 < answer.pass_day_p90 <= 75
    assert 28 <= answer.pass_day_p50 <= 42
    first_zero = next(b.day for b in answer.bands if b.day > 1 and b.ammonia_mg_n_l.p50 < 0.25)
    assert 7 <= first_zero <= 21


def test_a_moved_filter_on_a_light_stock_passes_inside_a_week() -> None:
    answer = forecast(
        {
            "net_l": 130,
            "day_now": 0,
            "method": "seeded-filter",
            "planned_load_mg_n_l_day": 0.3,
            "doses": [{"day": 0, "raise_mg_n_l": 0.5}],
        }
    )
    assert answer.pass_day_p50 <= 7


def test_a_moved_filter_asked_for_two_ppm_takes_about_a_week() -> None:
    answer = forecast({**TWO_PPM, "method": "seeded-filter"})
    assert 3 <= answer.pass_day_p50 <= 10


def test_cold_water_is_slower() -> None:
    assert (
        forecast({**TWO_PPM, "temperature_c": 20}).pass_day_p50
        > forecast({**TWO_PPM, "temperature_c": 26}).pass_day_p50 + 5
    )


def test_the_same_question_has_the_same_answer() -> None:
    assert forecast(STALLED) == forecast(STALLED)


def test_soft_water_left_alone_has_no_date_and_held_has_one() -> None:
    alone, held = forecast(STALLED, hold_kh_dkh=0), forecast(STALLED)
    assert alone.outcome == "no-date"
    assert "No date" in alone.verdict
    assert alone.alkalinity_gone_day < 20
    assert held.outcome == "range"
    assert 18 < held.pass_day_p50 < 45


def test_readings_narrow_the_forecast() -> None:
    log = {**TWO_PPM, "day_now": 20, "planned_load_mg_n_l_day": 0.3}
    blind = forecast({**log, "doses": [*TWO_PPM["doses"], {"day": 14, "raise_mg_n_l": A}]})
    seen = forecast(
        {
            **log,
            "doses": [*TWO_PPM["doses"], {"day": 14, "raise_mg_n_l": A}],
            "readings": [reading(5, 2, 0), reading(10, 1, 1), reading(14, 0, 3), reading(17, 0, 5), reading(20, 0, 2)],
        }
    )
    assert seen.pass_day_p90 - seen.pass_day_p10 < blind.pass_day_p90 - blind.pass_day_p10


def test_bands_are_ordered_and_start_at_the_first_dose() -> None:
    answer = forecast(TWO_PPM)
    first = answer.bands[0].ammonia_mg_n_l
    # As dosed, with room for a label that is not quite true.
    assert first.p50 == pytest.approx(2 * A, rel=0.03)
    assert 0.8 < first.p10 / (2 * A) < 0.95
    assert 1.05 < first.p90 / (2 * A) < 1.2
    for b in answer.bands:
        for line in (b.ammonia_mg_n_l, b.nitrite_mg_n_l, b.nitrate_mg_n_l, b.kh_dkh):
            assert line.p10 <= line.p50 <= line.p90


def test_a_moved_filter_is_also_proved_by_two_doses_gone_in_a_day() -> None:
    log: dict[str, Any] = {
        "net_l": 100,
        "day_now": 2.2,
        "method": "seeded-filter",
        **proving(0.1, 1.1, nitrate=5),
    }
    answer = ready(log)
    assert answer.ready
    assert [s.standard for s in answer.standards if s.followed] == ["load-matched"]
    assert not ready({**log, "doses": log["doses"][:1]}).ready
    # And that is what its forecast counts to.
    scenario = compute("cycle-forecast", {"log": {**log, "day_now": 0.2, "doses": log["doses"][:1], "readings": []}})
    assert scenario.pass_day_p10 <= 3 < 7
