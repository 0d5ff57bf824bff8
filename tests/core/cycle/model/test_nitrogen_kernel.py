"""The model over every method: nitrogen kept, limits and die-offs, what each starts with, and the trade's own times."""

import numpy as np
import pytest
from scipy.stats import norm

from reedmace.core.chemistry import oxygen_saturation_mg_l
from reedmace.core.computations import compute
from reedmace.core.cycle.model.chance_kernel import above
from reedmace.core.cycle.model.draw_weights import percentiles
from reedmace.core.cycle.model.ensemble import condition, project
from reedmace.core.cycle.model.inputs import (
    LEAST_NITRATE_MG_N_L,
    Scenario,
    aim_of,
    growth_factor,
    model_input_of,
    oxygen_factor,
    still_conditions,
)
from reedmace.core.cycle.model.nitrogen_kernel import (
    ADD_FILM,
    ADD_TAN,
    AIMS,
    CHANGE_WATER,
    DOSE,
    DOSE_WORTH,
    FIRST_NITRATE,
    HOLD_ALKALINITY,
    HOLD_NITRITE,
    KA,
    LAG,
    PARAMETERS,
    STEPS_PER_DAY,
    THETA,
    ZERO,
    ZERO_NITRITE,
)
from reedmace.core.cycle.model.prior import PRIOR_MEDIAN, PRIOR_SPREAD, bottle_window, prior_median, start_factor
from reedmace.core.cycle.model.simulation_kernel import simulate
from reedmace.core.cycle.record.log import (
    BottleWindow,
    CycleLog,
    KitSteps,
    LoggedDose,
    LoggedMedia,
    LoggedOutage,
    LoggedReading,
    TapWater,
)
from reedmace.core.cycle.record.suspect_readings import HIGHEST, interval_of, kh_interval, suspect_readings
from reedmace.standins import SimulatedTank
from tests.support.cycling import METHODS, NA, NI, A, busy_log, random_log


def courses(log: CycleLog, *, days: int = 60, draws: int = 24, aim: bool = True, to_the_letter: bool = False):
    """Courses drawn from the prior; to_the_letter: doses as written down, and the water as it was tested."""
    rng = np.random.default_rng(3)
    rows = np.exp(np.log(prior_median(log)) + PRIOR_SPREAD * rng.standard_normal((draws, PARAMETERS)))
    if to_the_letter:
        rows[:, [DOSE_WORTH, FIRST_NITRATE]] = 1.0
    c = model_input_of(log, days)
    wanted = aim_of(log, Scenario()) if aim else np.zeros(AIMS)
    return simulate(
        rows,
        c.start,
        c.conditions,
        c.steps,
        c.kinds,
        c.values,
        c.tap,
        int(log.day_now * 12),
        days,
        wanted,
        np.zeros((0, 2), np.int64),
    )


@pytest.mark.parametrize("method", METHODS)
def test_nitrogen_is_kept_to_a_billionth_in_every_method(method: str) -> None:
    daily, _, _, drift = courses(busy_log(method))
    assert drift.max() < 1e-9
    # And it is not kept by nothing happening.
    assert daily[:, :, :3].sum(axis=2).max() > 0.5


def test_nitrogen_is_kept_in_any_log() -> None:
    rng = np.random.default_rng(5)
    for _ in range(150):
        log = random_log(rng)
        _, _, _, drift = courses(log, days=int(log.day_now) + 20, draws=8)
        assert drift.max() < 1e-9 * max(1.0, sum(d.raise_mg_n_l for d in log.doses))


def test_a_hole_in_the_books_would_show() -> None:
    # The same books kept by hand for one run: doses and tap in, changes out, plants.
    log = busy_log("measured-ammonia").model_copy(update={"readings": []})
    daily, *_ = courses(log, aim=False, to_the_letter=True)
    total = daily[0, :, :3].sum(axis=1)
    assert total[11] == pytest.approx(2 * A + 1.1, abs=1e-9)
    assert total[13] == pytest.approx(2 * A + 1.1 + 1.0, abs=1e-9)
    assert total[21] == pytest.approx((2 * A + 2.1) * 0.6 + 1.1 * 0.4, abs=1e-9)


SALT, SOLUTION = {"form": "ammonium-chloride"}, {"form": "ammonia-solution", "strength_percent_w_v": 10}


def test_each_way_nitrogen_comes_leaves_its_own_alkalinity() -> None:
    # Two doses of 2 mg N/L and no changes. By the end all of it is nitrate: 7.14 mg CaCO3 a mg N, less the base.
    def left(**more) -> float:
        log = {"net_l": 100, "day_now": 40, "start_kh_dkh": 12, "seed_share": 1, **more}
        daily, *_ = courses(CycleLog.model_validate(log), days=40, aim=False, to_the_letter=True)
        assert daily[:, -1, :2].max() < 0.02
        return float(np.median(12 * 17.85 - daily[:, -1, 3]))

    doses = [{"day": 0, "raise_mg_n_l": 2}, {"day": 10, "raise_mg_n_l": 2}]
    seeded = {"method": "seeded-filter", "doses": doses}
    assert left(**seeded, product=SALT) == pytest.approx(7.14 * 4, abs=0.1)
    assert left(**seeded, product=SOLUTION) == pytest.approx((7.14 - 50.043 / 14.007) * 4, abs=0.1)
    unknown = {
        "form": "label",
        "amount": 1,
        "amount_unit": "mL",
        "water": 10,
        "water_unit": "L",
        "raises_ppm": 1,
        "basis": "ion",
    }
    assert left(**seeded, product=unknown) == pytest.approx(7.14 * 4, abs=0.1)


def test_plants_give_back_with_nitrate_the_alkalinity_they_took_with_ammonium() -> None:
    log = CycleLog.model_validate(
        {
            "net_l": 100,
            "day_now": 30,
            "method": "planted",
            "plants": "many",
            "plants_growing_day": 0,
            "start_kh_dkh": 6,
            "tap": {"nitrate_mg_n_l": 10},
        }
    )
    daily, *_ = courses(log, days=30, aim=False)
    taken = daily[0, 0, 2] - daily[0, -1, 2]
    assert taken > 5
    assert daily[0, -1, 3] - daily[0, 0, 3] == pytest.approx(taken * 50.043 / 14.007, rel=1e-3)
    # Ammonium first, with hardly a film: what they take costs half of what nitrifying it would.
    fed = log.model_copy(update={"tap": TapWater(), "doses": [LoggedDose(day=0, raise_mg_n_l=1)]})
    daily, *_ = courses(fed, days=4, aim=False, to_the_letter=True)
    there = LEAST_NITRATE_MG_N_L
    nitrified, taken = daily[0, -1, 1:3].sum() - there, 1 + there - daily[0, -1, :3].sum()
    assert taken > 0.8 > 0.2 > nitrified
    assert daily[0, 0, 3] - daily[0, -1, 3] == pytest.approx(taken * 50.043 / 14.007 + nitrified * 7.14, rel=0.1)


def test_a_test_and_a_dose_within_the_hour_keep_their_order() -> None:
    log = CycleLog.model_validate({"net_l": 100, "day_now": 6, "doses": [{"day": 5.02, "raise_mg_n_l": 1.5}]})
    model_input = model_input_of(log, 8)
    rows = np.exp(np.log(prior_median(log)))[None, :]
    # All of these share one step of two hours; the last stands a moment later than the dose.
    kept = simulate(
        rows,
        model_input.start,
        model_input.conditions,
        model_input.steps,
        model_input.kinds,
        model_input.values,
        model_input.tap,
        10**6,
        8,
        np.zeros(AIMS),
        model_input.sample_steps([5.0, 5.01, 5.02, 5.03]),
    )[1][0]
    assert kept[:, 0] == pytest.approx([0, 0, 1.5, 1.5], abs=1e-9)


def test_a_test_made_now_is_not_read_as_if_the_advice_had_been_followed_already() -> None:
    # Zero by the kit at this very hour: the forecast doses from now on, and weighs the test as it was.
    log = CycleLog.model_validate(
        {
            "net_l": 100,
            "day_now": 30.01,
            "start_kh_dkh": 12,
            "doses": [{"day": 0, "raise_mg_n_l": 1.5}],
            "readings": [{"day": d, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0} for d in (26, 28, 30)],
        }
    )
    assert condition(log, 300).misfits == 0


def test_soft_water_lasts_longer_on_ammonia_solution_than_on_its_salt() -> None:
    def gone(product: dict) -> float:
        log = {
            "net_l": 100,
            "day_now": 0,
            "start_kh_dkh": 3,
            "product": product,
            "doses": [{"day": 0, "raise_mg_n_l": 2}],
        }
        day = compute("cycle-forecast", {"log": log, "hold_kh_dkh": 0}).alkalinity_gone_day
        return 999.0 if day is None else day

    assert gone(SALT) < 40
    assert gone(SOLUTION) > gone(SALT) + 2


def median_day(**more) -> float:
    log = {"net_l": 130, "day_now": 0, "doses": [{"day": 0, "raise_mg_n_l": 2 * A}], **more}
    day = compute("cycle-forecast", {"log": log, "draws": 500, "horizon_days": 150}).pass_day_p50
    return float("inf") if day is None else day


# Common practice, by method; the bare tank, the seeded filter and the cold one are in test_cycle.py.
def test_mature_rock_in_salt_water_takes_about_two_weeks() -> None:
    assert 10 <= median_day(method="mature-rock", salinity_g_kg=35, start_ph=8.1, start_kh_dkh=8) <= 19


def test_a_bottle_saves_one_to_two_weeks_at_best_and_outside_its_window_little() -> None:
    inside = median_day(start_ph=7.6) - median_day(start_ph=7.6, helpers=["bottled-culture"])
    outside = median_day(start_ph=7.1) - median_day(start_ph=7.1, helpers=["bottled-culture"])
    assert 5 <= inside <= 14
    assert 0 <= outside <= 3.5


def test_plants_without_ammonia_take_four_to_five_weeks_of_growth() -> None:
    log = {"net_l": 60, "day_now": 0, "method": "planted", "plants": "many", "plants_growing_day": 8}
    answer = compute("cycle-forecast", {"log": log, "draws": 200})
    assert 28 <= answer.pass_day_p50 - 8 <= 35


def test_seed_sponges_in_a_light_new_tank_leave_no_ammonia_peak() -> None:
    log = CycleLog(
        net_l=60,
        day_now=0,
        method="animals-in",
        animals_in_mg_n_l_day=0.1,
        helpers=["seed-media"],
        seed_share=0.5,
        plants="none",
    )
    daily, *_ = courses(log, days=30, draws=200)
    assert np.median(daily[:, :, 0].max(axis=1)) < 0.13


def test_feeding_the_empty_tank_is_slower_than_dosing() -> None:
    assert median_day(method="fish-food", food_g_day=1, doses=[]) > median_day() + 2


def film_after(log: CycleLog) -> float:
    """Ammonia left a day after a large dose on day 11: the less film, the more is left."""
    with_dose = log.model_copy(update={"doses": [*log.doses, LoggedDose(day=11, raise_mg_n_l=3)], "day_now": 12})
    daily, *_ = courses(with_dose, days=14, aim=False)
    return float(np.median(daily[:, 12, 0]))


MATURE = CycleLog(net_l=100, day_now=10, method="seeded-filter", seed_share=0.5, start_kh_dkh=10)


@pytest.mark.parametrize(
    "harm",
    [
        {"outages": [LoggedOutage(day=9, hours=20)], "filter_closed": True},
        {"media": [LoggedMedia(day=9, what="rinsed-tap", share=0.8)]},
        {"media": [LoggedMedia(day=9, what="replaced", share=0.8)]},
        {"media": [LoggedMedia(day=9, what="dried", share=0.8)]},
        {"changes": [{"day": 9, "share": 0.6, "treated": False}]},
        {"readings": [LoggedReading(day=5, temperature_c=26), LoggedReading(day=9, temperature_c=38)]},
        {"readings": [LoggedReading(day=5, temperature_c=26), LoggedReading(day=9, temperature_c=14)]},
    ],
    ids=["airless", "tap", "replaced", "dried", "untreated", "hot", "cold shock"],
)
def test_what_kills_film_leaves_less_of_it(harm: dict) -> None:
    hurt = CycleLog.model_validate({**MATURE.model_dump(), **harm})
    assert film_after(hurt) > film_after(MATURE) + 0.1


def test_seeded_media_put_in_add_film() -> None:
    bare = MATURE.model_copy(update={"method": "measured-ammonia"})
    helped = bare.model_copy(update={"media": [LoggedMedia(day=9, what="seed-added", share=0.3)]})
    assert film_after(helped) < film_after(bare) - 0.3


def test_an_open_filter_stands_a_stop_better_than_a_closed_one() -> None:
    stop = {"outages": [LoggedOutage(day=9, hours=8)]}
    closed = CycleLog.model_validate({**MATURE.model_dump(), **stop, "filter_closed": True})
    assert film_after(CycleLog.model_validate({**MATURE.model_dump(), **stop})) < film_after(closed)


def test_without_phosphate_nothing_grows() -> None:
    assert growth_factor(0) == 0
    assert growth_factor(0.5) > 0.95
    assert median_day(readings=[{"day": 0, "phosphate_ppm": 0}]) == float("inf")


def test_oxygen_limits_a_little_when_warm_and_salt() -> None:
    assert oxygen_factor(25, 0) == pytest.approx(1)
    assert 0.95 < oxygen_factor(30, 35) < oxygen_factor(30, 0) < 1 < oxygen_factor(15, 0)
    assert oxygen_saturation_mg_l(25) == pytest.approx(8.26, abs=0.01)


def test_plants_take_ammonia_first() -> None:
    log = CycleLog(
        net_l=60, day_now=0, plants="many", plants_growing_day=0, doses=[LoggedDose(day=0, raise_mg_n_l=0.4)]
    )
    daily, *_ = courses(log, days=2, aim=False)
    assert daily[0, 1, 0] < 0.12
    assert abs(daily[0, 1, 2] - daily[0, 0, 2]) < 0.05


def test_the_bottles_window_names_what_is_wanting() -> None:
    log = CycleLog(
        net_l=60, day_now=0, temperature_c=20, start_ph=6.8, start_kh_dkh=1, bottle=BottleWindow(in_date=False)
    )
    assert bottle_window(log) == ["25 to 30 °C", "pH 7.3 to 8.0", "some KH", "a bottle in date"]
    assert bottle_window(CycleLog(net_l=60, day_now=0, start_ph=7.6)) == []


def test_a_method_and_its_helpers_add_up() -> None:
    bare = CycleLog(net_l=60, day_now=0, start_ph=7.6)
    factors = [
        start_factor(bare.model_copy(update=change))
        for change in (
            {},
            {"helpers": ["plants"]},
            {"helpers": ["bottled-culture"]},
            {"helpers": ["plants", "bottled-culture"]},
            {"helpers": ["seed-media"], "seed_share": 0.1},
            {"method": "seeded-filter", "seed_share": 1.0},
        )
    ]
    assert factors == sorted(factors)
    assert factors[0] == 1


KIT = KitSteps().steps_mg_n_l("ammonia")


@pytest.mark.parametrize(
    ("value", "low", "high"),
    [(0, -HIGHEST, 0.125), (1, 0.75, 1.5), (8, 6, HIGHEST), (0.75, 0.5, 1), (12, 12 / 2**0.5, 12 * 2**0.5)],
    ids=["zero", "a step", "the top step", "between steps", "read diluted"],
)
def test_a_colour_stands_for_an_interval(value: float, low: float, high: float) -> None:
    found = interval_of(value * A, KIT, off_scale=False)
    for got, wanted in zip(found[:2], (low, high), strict=True):
        assert got == pytest.approx(wanted if abs(wanted) == HIGHEST else wanted * A, rel=1e-6)


@pytest.mark.parametrize(
    ("read", "drop", "low", "high"),
    [(4, 1, 3, 4), (4, 0.5, 3.5, 4), (0.6, 1, 0.1, 1.1), (0, 1, -0.5, 0.5), (3.7, 1, 3.2, 4.2)],
    ids=["four drops", "eight half drops", "read finer", "none", "between counts"],
)
def test_a_count_of_drops_stands_for_anything_up_to_one_drop_less(
    read: float, drop: float, low: float, high: float
) -> None:
    assert kh_interval(read, drop) == pytest.approx((low, high))


def test_off_the_scale_is_a_bound() -> None:
    low, high, _ = interval_of(5 * NI, KitSteps().steps_mg_n_l("nitrite"), off_scale=True)
    assert low < 5 * NI
    assert high == HIGHEST


def logged(*rows: tuple[float, float, float], **more) -> CycleLog:
    return CycleLog(
        net_l=100,
        day_now=max(r[0] for r in rows),
        readings=[LoggedReading(day=d, ammonia_mg_n_l=a * A, nitrite_mg_n_l=n * NI) for d, a, n in rows],
        **more,
    )


def test_a_zero_between_two_high_tests_is_doubted_and_moves_little() -> None:
    doses = [LoggedDose(day=0, raise_mg_n_l=2 * A)]
    rows = [(2, 2, 0), (4, 2, 0), (5, 2, 0), (6, 2, 0.25), (8, 1, 1)]
    slip = [(d, 0, n) if d == 5 else (d, a, n) for d, a, n in rows]
    found = suspect_readings(logged(*slip, doses=doses))
    assert [(d.day, d.what) for d in found] == [(5, "ammonia")]
    assert suspect_readings(logged(*rows, doses=doses)) == []
    middle = [
        percentiles(project(log, e, 90, Scenario()).late, e.weights)[1]
        for log in (logged(*rows, doses=doses), logged(*slip, doses=doses))
        for e in [condition(log, 800)]
    ]
    assert abs(middle[0] - middle[1]) < 2.5


def test_more_than_was_put_in_is_doubted() -> None:
    log = CycleLog(
        net_l=100,
        day_now=8,
        doses=[LoggedDose(day=0, raise_mg_n_l=1.5)],
        readings=[LoggedReading(day=8, ammonia_mg_n_l=6, nitrite_mg_n_l=0.2, nitrate_mg_n_l=80 * NA)],
    )
    assert {d.what for d in suspect_readings(log)} == {"ammonia", "nitrate"}
    answer = compute("cycle-forecast", {"log": log.model_dump(), "draws": 100})
    assert len(answer.doubtful) == 2
    assert any("in doubt" in r for r in answer.rests_on)


def test_an_hour_later_the_same_log_has_the_same_forecast() -> None:
    rows = [(2, 2, 0), (6, 1, 0.5), (10, 0.5, 2), (13, 0, 5)]
    log = logged(*rows, doses=[LoggedDose(day=0, raise_mg_n_l=2 * A)])
    first, later = (
        compute("cycle-forecast", {"log": {**log.model_dump(), "day_now": day}}).pass_day_p50 for day in (14.0, 14.05)
    )
    assert abs(first - later) < 0.5


def test_enough_draws_carry_the_weight_of_a_hard_log() -> None:
    rows = [(0, 2, 0), (3, 2, 0), (6, 1, 0.5), (8, 0.5, 2), (10, 0.5, 5), (12, 0.5, 5), (14, 0.5, 5)]
    doses = [LoggedDose(day=d, raise_mg_n_l=r * A) for d, r in ((0, 2), (7, 1.5), (9.3, 1.5), (12.1, 1.5))]
    assert condition(logged(*rows, doses=doses, start_kh_dkh=8), 1000).effective > 150


def test_the_ph_band_follows_the_kh_band() -> None:
    log = {"net_l": 130, "day_now": 0, "start_kh_dkh": 2, "start_ph": 7.2, "doses": [{"day": 0, "raise_mg_n_l": 3}]}
    bands = compute("cycle-forecast", {"log": log, "draws": 200, "hold_kh_dkh": 0}).bands
    assert bands[0].ph.p50 == pytest.approx(7.2, abs=0.15)
    assert bands[60].kh_dkh.p50 < bands[0].kh_dkh.p50
    assert bands[60].ph.p50 < bands[0].ph.p50 - 0.2


def test_the_chance_over_a_figure_is_the_normal_tail() -> None:
    for z in np.linspace(-9, 9, 181):
        assert above(float(z)) == pytest.approx(float(norm.sf(z)), abs=1e-7)


def test_a_kit_that_leans_and_a_dose_that_is_not_quite_one_still_leave_the_range_over_the_truth() -> None:
    # The same tank read by a kit a fifth high and one a fifth low: the dates agree within their ranges.
    def range_of(lean: float) -> tuple[float, float, float]:
        tank = SimulatedTank(CycleLog(net_l=100, day_now=0, start_kh_dkh=8), 4)
        tank.dose(0.05, 1.6)
        readings = []
        for day in range(0, 17, 2):
            water = tank.water(day)
            readings.append(
                LoggedReading(
                    day=day,
                    ammonia_mg_n_l=water["ammonia_mg_n_l"] * lean,
                    nitrite_mg_n_l=water["nitrite_mg_n_l"] * lean,
                )
            )
        log = tank.log.model_copy(update={"day_now": 16.2, "doses": tank.doses, "readings": readings})
        answer = compute("cycle-forecast", {"log": log.model_dump(), "draws": 500})
        return answer.pass_day_p10, answer.pass_day_p50, answer.pass_day_p90

    high, low = range_of(1.2), range_of(0.8)
    assert high[0] < low[1] < high[2]
    assert low[0] < high[1] < low[2]


def run(parameters=None, *, days=40, start=(1.5, 0, 0, 100), events=(), dose=0.0, today=10**6, hold=0.0, theta=1.0):
    rows = np.array([PRIOR_MEDIAN if parameters is None else parameters])
    steps, kinds, values = (
        np.array([e[i] for e in events], dtype=t) for i, t in ((0, np.int64), (1, np.int64), (2, float))
    )
    conditions = still_conditions(days, 25)
    conditions[:, THETA], conditions[:, KA] = theta, 5.7e-10
    aim = np.zeros(AIMS)
    aim[[DOSE, ZERO, HOLD_NITRITE, HOLD_ALKALINITY, ZERO_NITRITE]] = dose, 0.1, 1.5, hold, 0.04
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


def test_no_film_changes_nothing() -> None:
    parameters = PRIOR_MEDIAN.copy()
    parameters[:2] = 0
    daily, _, passed, _ = run(parameters)
    assert daily[0, -1] == pytest.approx([1.5, 0, 0, 100])
    assert np.isnan(passed[0])


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


def test_a_water_change_dilutes_everything_at_once() -> None:
    parameters = PRIOR_MEDIAN.copy()
    parameters[:2] = 0
    daily, *_ = run(parameters, start=(4, 2, 1, 100), events=[(STEPS_PER_DAY, CHANGE_WATER, 0.25)])
    assert daily[0, 2] == pytest.approx([3, 1.5, 0.75, 75])


def test_without_alkalinity_the_film_stops() -> None:
    daily, *_ = run(start=(20, 0, 0, 20), days=60)
    assert daily[0, -1, 0] > 15
