"""The cycle: kinetics, forecast, advice, readiness and the jotted line."""

from typing import Any

import numpy as np
import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle.model.inputs import still_conditions
from reedmace.core.cycle.model.nitrogen_kernel import (
    ADD_FILM,
    ADD_TAN,
    CHANGE_WATER,
    KA,
    LAG,
    STEPS_PER_DAY,
    THETA,
    simulate,
)
from reedmace.core.cycle.model.prior import PRIOR_MEDIAN
from reedmace.core.quantity.units import NITROGEN_SHARE
from tests.support.cycling import proving

A, NI, NA = NITROGEN_SHARE["NH4"], NITROGEN_SHARE["NO2"], NITROGEN_SHARE["NO3"]
TWO_PPM: dict[str, Any] = {
    "net_l": 130,
    "day_now": 0,
    "planned_load_mg_n_l_day": 2 * A / 1.2,
    "doses": [{"day": 0, "raise_mg_n_l": 2 * A}],
}


def reading(day: float, ammonia: float, nitrite: float, nitrate: float | None = None, **more) -> dict:
    return {
        "day": day,
        "ammonia_mg_n_l": ammonia * A,
        "nitrite_mg_n_l": nitrite * NI,
        "nitrate_mg_n_l": None if nitrate is None else nitrate * NA,
        **more,
    }


STALLED = {
    "net_l": 242,
    "day_now": 16.1,
    "start_kh_dkh": 2.4,
    "start_ph": 7.2,
    "readings": [
        reading(0, 2, 0, 0, kh_dkh=2.4, ph=7.2),
        reading(6, 1, 0.5, 0, kh_dkh=2.2, ph=7.2),
        reading(8, 0.5, 2, 2, kh_dkh=1.8, ph=7.1),
        reading(10, 0.5, 5, 5, kh_dkh=1.4, ph=7.0, off_scale=["nitrite"]),
        reading(14, 0.5, 5, 5, kh_dkh=0.8, ph=6.7, off_scale=["nitrite"]),
        reading(16, 1, 5, 10, kh_dkh=0.6, ph=6.5, off_scale=["nitrite"]),
    ],
    "doses": [{"day": d, "raise_mg_n_l": p * A} for d, p in ((0, 2), (7, 1.5), (9.3, 1.5), (12.1, 1.5), (14.1, 1.5))],
}


def run(parameters=None, *, days=40, start=(1.5, 0, 0, 100), events=(), dose=0.0, today=10**6, hold=0.0, theta=1.0):
    rows = np.array([PRIOR_MEDIAN if parameters is None else parameters])
    steps, kinds, values = (
        np.array([e[i] for e in events], dtype=t) for i, t in ((0, np.int64), (1, np.int64), (2, float))
    )
    conditions = still_conditions(days, 25)
    conditions[:, THETA], conditions[:, KA] = theta, 5.7e-10
    aim = np.array([dose, 0.1, 1.5, hold, 0, 0, 0, 0.04, 0])
    return simulate(
        rows,
        np.array(start, float),
        conditions,
        steps,
        kinds,
        values,
        np.zeros(4),
        today,
        days,
        aim,
        np.zeros((0, 2), np.int64),
    )


def test_nitrogen_is_conserved() -> None:
    daily, *_ = run(events=[(5 * STEPS_PER_DAY, ADD_TAN, 1.0)])
    total = daily[0, :, :3].sum(axis=1)
    assert total[:5] == pytest.approx(1.5, abs=1e-9)
    assert total[6:] == pytest.approx(2.5, abs=1e-9)


def test_alkalinity_falls_by_714_for_each_mg_nitrified() -> None:
    daily, *_ = run()
    used = 100 - daily[0, :, 3]
    nitrified = daily[0, :, 1] + daily[0, :, 2]
    assert used == pytest.approx(7.14 * nitrified, abs=1e-9)


def test_a_starved_film_decays_first_order() -> None:
    parameters = PRIOR_MEDIAN.copy()
    parameters[0], parameters[2], parameters[LAG] = (
        3.0,
        0.0,
        -10.0,
    )  # awake from the first; a film that does not grow, so that only its decay shows
    # Fed after 20 starved days, the first hours' removal shows how much film is left.
    early, *_ = run(parameters, days=1, start=(20, 0, 0, 900))
    late, *_ = run(parameters, days=21, start=(0, 0, 0, 900), events=[(20 * STEPS_PER_DAY, ADD_TAN, 20.0)])
    ratio = (20 - late[0, 21, 0]) / (20 - early[0, 1, 0])
    assert ratio == pytest.approx(np.exp(-parameters[6] * 20), rel=0.02)


def test_a_film_new_to_the_tank_does_nothing_before_its_lag_is_over_and_brought_film_is_awake() -> None:
    parameters = PRIOR_MEDIAN.copy()
    parameters[0], parameters[2], parameters[LAG] = 1.0, 0.0, 6.0
    eaten = 1.5 - run(parameters, days=12)[0][0, :, 0]
    assert eaten[3] < 0.03
    assert eaten[6] < 0.5 < 0.9 < eaten[9]
    # However long it is drawn, nothing runs away.
    parameters[LAG] = 5000.0
    assert run(parameters, days=12, events=[(STEPS_PER_DAY, ADD_FILM, 3.0)])[0][0, -1, 0] < 0.1
    assert run(parameters, days=12)[0][0, -1, 0] == pytest.approx(1.5)
    parameters[LAG] = 6.0
    # A mature sponge put in meanwhile does not wait for the rest: its own pace, from the first hour.
    brought = 1.5 - run(parameters, days=12, events=[(STEPS_PER_DAY, ADD_FILM, 3.0)])[0][0, :, 0]
    assert brought[1] < 0.01
    assert brought[2] > 1.2


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


def test_a_water_change_dilutes_everything_at_once() -> None:
    parameters = PRIOR_MEDIAN.copy()
    parameters[:2] = 0
    daily, *_ = run(parameters, start=(4, 2, 1, 100), events=[(STEPS_PER_DAY, CHANGE_WATER, 0.25)])
    assert daily[0, 2] == pytest.approx([3, 1.5, 0.75, 75])


def test_without_alkalinity_the_film_stops() -> None:
    daily, *_ = run(start=(20, 0, 0, 20), days=60)
    assert daily[0, -1, 0] > 15


def forecast(log: dict, **more):
    return compute("cycle-forecast", {"log": log, "draws": 600, **more})


def test_an_unseeded_warm_tank_passes_in_four_to_six_weeks() -> None:
    # Common practice: 4 to 6 weeks at 25 to 27 °C; ammonia first falls to nothing in one to three.
    answer = forecast({**TWO_PPM, "temperature_c": 26})
    # The range leaves room for what the model does not hold; six weeks to three months are quoted too.
    assert 22 <= answer.pass_day_p10 < answer.pass_day_p90 <= 60
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


def advice(log: dict):
    return compute("cycle-advice", {"log": log})


def test_a_stalled_soft_tank_is_told_to_add_bicarbonate_in_grams() -> None:
    answer = advice(STALLED)
    assert answer.stalled
    assert answer.first.do == "raise-kh"
    # Half of (4 − 0.6) dKH now × 242 L × 0.02996 g.
    assert answer.first.amount == pytest.approx(1.7 * 242 * 17.85 * 84.007 / 50.043 / 1000, rel=1e-6)
    assert answer.first.raise_dkh == pytest.approx(1.7)
    assert "to 4 dKH, twelve hours on" in answer.first.detail
    assert any("Alkalinity" in c.title for c in answer.causes)
    assert any("Warmth" in c.title for c in answer.ruled_out)
    assert [a.do for a in answer.then] == ["wait", "dilute-test", "test"]


def test_the_second_half_of_the_bicarbonate_is_asked_for_when_its_time_comes() -> None:
    begun: dict[str, Any] = {**STALLED, "alkalinity": [{"day": 16.05, "raise_dkh": 1.7}]}
    now = next(a for a in advice(begun).then if a.do == "raise-kh")
    assert now.when == "tonight"
    assert now.raise_dkh == pytest.approx(1.7, abs=0.1)
    later = advice({**begun, "day_now": 16.6})
    assert next(a for a in [later.first, *later.then] if a.do == "raise-kh").when == "now"
    done = {**begun, "day_now": 16.7, "alkalinity": [*begun["alkalinity"], {"day": 16.6, "raise_dkh": 1.75}]}
    assert all(a.do != "raise-kh" for a in [advice(done).first, *advice(done).then])


def test_bicarbonate_just_added_is_not_asked_for_again() -> None:
    answer = advice({**STALLED, "alkalinity": [{"day": 16.05, "raise_dkh": 3.4}]})
    assert answer.first.do != "raise-kh"
    assert all(a.do != "raise-kh" for a in answer.then)


@pytest.mark.parametrize(
    ("change", "does"),
    [
        ({"day_now": 0, "readings": [], "doses": []}, "test"),
        ({"day_now": 5, "readings": [reading(4.9, 0.5, 0.5, kh_dkh=5, ph=7.5)]}, "dose-ammonia"),
        ({"day_now": 8, "readings": [reading(4, 1, 0.5, kh_dkh=5)]}, "test"),
        ({"day_now": 9, "readings": [reading(8.9, 8, 0, kh_dkh=6, ph=7.5)]}, "change-water"),
        ({"day_now": 9, "readings": [reading(8.9, 1, 0, kh_dkh=6, ph=7.5, temperature_c=18)]}, "warm"),
        ({"day_now": 9, "readings": [reading(8.9, 0, 5, kh_dkh=6, ph=7.5)]}, "stop-dosing"),
        ({"day_now": 9, "filter_running": False, "readings": [reading(8.9, 1, 1, kh_dkh=6)]}, "start-filter"),
    ],
    ids=["nothing known", "ammonia used up", "old test", "too much ammonia", "cold", "nitrite high", "filter off"],
)
def test_the_first_action_fits_the_state(change: dict, does: str) -> None:
    assert advice({**TWO_PPM, **change}).first.do == does


CLEARED: dict[str, Any] = {
    "net_l": 100,
    "day_now": 40.1,
    "planned_load_mg_n_l_day": 0.4,
    **proving(38, 39, kh_dkh=5),
}


def ready(log: dict, standard: str | None = "load-matched"):
    return compute("cycle-readiness", {"log": log, "standard": standard})


def test_two_doses_gone_in_a_day_are_ready() -> None:
    answer = ready(CLEARED)
    assert answer.ready
    assert answer.verdict.startswith("Ready, by the load-matched standard")
    first = advice(CLEARED)
    assert first.first.do == "change-water"
    assert first.then[0].do == "add-animals"
    # The large change is sized to bring nitrate from 45 to 20 ppm, and never under 60 %.
    assert first.first.amount == pytest.approx(60)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"readings": []}, "no ammonia test"),
        ({"readings": [{**r, "nitrite_mg_n_l": None} for r in CLEARED["readings"]]}, "no nitrite test"),
        ({"readings": CLEARED["readings"][:2], "day_now": 39.2, "doses": CLEARED["doses"][:-1]}, "one more dose"),
        ({"day_now": 47}, "7 days old"),
        ({"readings": [*CLEARED["readings"][:3], reading(40, 0, 0.5)]}, "nitrite still reads"),
        (
            {"readings": [*CLEARED["readings"][:3], {**CLEARED["readings"][3], "off_scale": ["nitrate", "nitrite"]}]},
            "one more dose",
        ),
        ({"planned_load_mg_n_l_day": 2.0}, "two doses of 3.1 ppm"),
    ],
    ids=[
        "no tests",
        "no nitrite",
        "one zero is not enough",
        "stale",
        "nitrite left",
        "off the scale never counts",
        "a heavier stock asks more",
    ],
)
def test_not_yet_says_why(change: dict, words: str) -> None:
    answer = ready({**CLEARED, **change})
    assert not answer.ready
    assert answer.verdict.startswith("Not yet, because ")
    assert any(words in m for m in answer.missing)


@pytest.mark.parametrize(
    ("changes", "nitrate", "does", "share"),
    [
        ([], 40, "change-water", 0.6),
        ([0.3], 40, "change-water", 1 - 0.4 / 0.7),
        ([0.6], 40, "add-animals", None),
        ([0.3, 0.43], 40, "add-animals", None),
        ([0.6], 200, "change-water", 0.75),
    ],
    ids=["none yet", "half of it", "all at once", "in two", "still too much nitrate"],
)
def test_the_final_change_is_asked_for_once_and_what_is_left_of_it(
    changes: list[float], nitrate: float, does: str, share: float | None
) -> None:
    when = max(d["day"] for d in CLEARED["doses"]) + 1.05
    readings = [{**r, "nitrate_mg_n_l": nitrate * NA} if "nitrate_mg_n_l" in r else r for r in CLEARED["readings"]]
    log = {
        **CLEARED,
        "readings": readings,
        "changes": [{"day": when + n / 100, "share": s} for n, s in enumerate(changes)],
    }
    first = compute("cycle-advice", {"log": {**log, "day_now": when + 0.1}}).first
    assert first.do == does
    assert first.when == "now"
    if share is not None:
        assert first.amount == pytest.approx(share * CLEARED["net_l"], rel=0.02)


def test_standards_disagree_side_by_side() -> None:
    standards = {s.standard: s for s in ready(CLEARED).standards}
    assert standards["load-matched"].passes
    assert not standards["two-ppm"].passes
    assert standards["load-matched"].followed


def test_a_moved_filter_needs_seven_days_of_zeros_with_nitrate_rising() -> None:
    log: dict[str, Any] = {
        "net_l": 100,
        "day_now": 8.1,
        "method": "seeded-filter",
        "readings": [reading(d, 0, 0, 5 if d < 5 else 10) for d in range(1, 9)],
    }
    assert ready(log, "seeded").ready
    assert not ready({**log, "readings": log["readings"][3:]}, "seeded").ready
    # One dose that was never cleared in a day takes nothing from a week of zeros.
    assert ready({**log, "doses": [{"day": 0.2, "raise_mg_n_l": 0.3}]}, None).standards[-1].followed


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
