"""Film in mg N a day: the worth of a donor's sponge in any water, and of a falling curve."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle import CycleLog, cycle_forecast
from reedmace.core.cycle.outlook.forecast import CycleForecastQuestion
from reedmace.core.film import FULL_DAYS, IDLE_HALF_DAYS, USABLE_DAYS
from reedmace.core.quantity.units import NITROGEN_SHARE

PPM, NO2 = NITROGEN_SHARE["NH4"], NITROGEN_SHARE["NO2"]


def film(**more):
    return compute("film-capacity", more)


def test_a_sponge_is_worth_its_share_of_what_its_donor_is_fed_and_not_more_in_more_water() -> None:
    # A gram of food of 42 % protein is 38.6 mg N by Timmons and Ebeling: P = F x PC x 0.092.
    whole = film(donor_food_g_day=1, share=1)
    assert whole.film_mg_n_day == pytest.approx(38.6, rel=0.01)
    assert film(donor_food_g_day=1, share=0.25).film_mg_n_day == pytest.approx(whole.film_mg_n_day / 4)
    for litres in (20, 200):
        there = film(donor_food_g_day=1, share=1, net_l=litres)
        assert there.film_mg_n_day == pytest.approx(whole.film_mg_n_day)
        assert there.film_mg_n_l_day == pytest.approx(whole.film_mg_n_day / litres)


def test_it_is_of_use_at_fifteen_days_and_full_after_a_month() -> None:
    shares = [film(age_days=d).grown_share for d in (0, USABLE_DAYS, FULL_DAYS, 365)]
    assert shares == pytest.approx([0, 0.5, 1, 1])
    assert "young" in film(age_days=5).verdict
    assert "young" not in film(age_days=USABLE_DAYS).verdict


def test_surface_idleness_and_the_way_take_their_part() -> None:
    assert film(donor_mg_n_day=1000, share=1, area_m2=2).film_mg_n_day == pytest.approx(100)
    assert film(idle_days=IDLE_HALF_DAYS).film_mg_n_day == pytest.approx(film().film_mg_n_day / 2)
    assert film(minutes_out=15, travels="dry").alive_share == pytest.approx(0.5)
    assert film(temperature_c=40).alive_share == pytest.approx(0.1)


def test_a_year_in_a_busy_forty_litres_clears_two_ppm_in_about_a_week_with_hardly_any_nitrite() -> None:
    # Common practice: moved to 38 L and dosed once to 2 ppm, seven days to zero ammonia, nitrite never seen by the kit.
    log = CycleLog(
        net_l=38,
        day_now=0.1,
        method="seeded-filter",
        temperature_c=26,
        start_kh_dkh=6,
        start_ph=7.6,
        donor={"food_g_day": 0.3, "age_days": 365},
        seed_share=0.4,
        planned_load_mg_n_l_day=0.1,
        doses=[{"day": 0, "raise_mg_n_l": 2 * PPM}],
    )
    bands = cycle_forecast(CycleForecastQuestion(log=log, draws=600)).bands
    zero = next(b.day for b in bands if b.day > 0.5 and b.ammonia_mg_n_l.p50 < 0.15 * PPM)
    assert 4 <= zero <= 9
    # Half of the likely courses stay within what the usual kit cannot tell from its first steps.
    assert max(b.nitrite_mg_n_l.p50 for b in bands if b.day <= zero) < NO2
    # And two live-bearers of 5 cm from the first day.
    made = compute("waste-load", {"net_l": 38, "animals": [{"species_id": "guppy", "count": 2, "length_cm": 5}]})
    brought = film(donor_food_g_day=0.3, share=0.4, net_l=38)
    assert made.today_mg_n_day < brought.film_mg_n_day


def test_the_same_sponge_takes_longer_in_more_water() -> None:
    def days(litres: float) -> float:
        log = {
            "net_l": litres,
            "day_now": 0,
            "method": "seeded-filter",
            "donor": {"food_g_day": 0.5},
            "seed_share": 0.5,
            "start_kh_dkh": 8,
            "planned_load_mg_n_l_day": 0.8,
        }
        return compute("cycle-forecast", {"log": log, "draws": 300}).pass_day_p50

    assert days(40) < days(120) < days(400)


def readiness(readings, **more):
    log = {"net_l": 100, "day_now": readings[-1]["day"] + 0.1, "readings": readings, "start_kh_dkh": 6, **more}
    return compute("cycle-readiness", {"log": log})


def row(day: float, ammonia: float, nitrite: float, **more):
    return {"day": day, "ammonia_mg_n_l": ammonia * PPM, "nitrite_mg_n_l": nitrite * NO2, **more}


DOSED = {"doses": [{"day": 10, "raise_mg_n_l": 2 * PPM}]}


def test_two_readings_after_a_dose_say_what_it_clears_a_day_and_what_that_carries() -> None:
    answer = readiness([row(10.1, 2, 0), row(13.1, 1, 0)], **DOSED)
    assert answer.clears_mg_n_l_day == pytest.approx(PPM / 3)
    assert "neon tetra" in answer.clears
    assert "0.33 ppm a day" in answer.clears
    assert not answer.ready


@pytest.mark.parametrize(
    ("rows", "more"),
    [
        # Half of it only became nitrite: nothing was cleared to the end.
        ([row(10.1, 2, 0), row(12.1, 0.5, 3.5)], DOSED),
        ([row(10.1, 2, 0), row(13.1, 1, 0)], {**DOSED, "changes": [{"day": 12, "share": 0.5}]}),
        ([row(10.1, 2, 0), row(13.1, 1, 0, off_scale=["nitrite"])], DOSED),
        ([row(10.1, 2, 0), row(13.1, 1.9, 0)], DOSED),
        ([row(10.1, 2, 0), row(13.1, 1, 0)], {**DOSED, "media": [{"day": 13.15, "what": "replaced", "share": 1}]}),
    ],
    ids=["into nitrite", "a change between", "off the scale", "within the kit's step", "film lost since"],
)
def test_no_fall_no_figure(rows, more) -> None:
    assert readiness(rows, **more).clears_mg_n_l_day == 0
    assert readiness(rows, **more).clears == ""


def test_rock_counts_by_its_kilos_and_half_a_kilo_starts_a_tank() -> None:
    """About half a kilo of mature rock starts one (common practice): inside about three weeks, more of it sooner."""
    base = {
        "net_l": 200,
        "day_now": 0,
        "method": "mature-rock",
        "salinity_g_kg": 35,
        "start_ph": 8.1,
        "start_kh_dkh": 8,
        "planned_load_mg_n_l_day": 0.4,
    }
    days = [
        compute("cycle-forecast", {"log": {**base, "rock_kg": kg}, "draws": 400, "horizon_days": 90}).pass_day_p50
        for kg in (0.5, 5, 30)
    ]
    assert 8 < days[0] < 24
    assert days[0] > days[1] > days[2]
    assert days[2] < 8
    assert compute("film-capacity", {"rock_kg": 2, "share": 1}).film_mg_n_day == pytest.approx(80)
