"""Amounts of single actions: ammonia, soda, a change, a thermostat."""

import math
from typing import Any

import pytest

from reedmace.core.chemistry.shock_limits import PH_SHIFT_EMPTY
from reedmace.core.chemistry.water_change import Solute
from reedmace.core.contract import Working
from reedmace.core.cycle.advice.action import (
    ONE_PORTION_PH,
    PORTION_APART_DAYS,
    WARMING_C_DAY,
    WHEN,
    Action,
    change_for,
    cool_down,
    next_dose,
    raise_alkalinity,
    water_preparation,
)
from reedmace.core.cycle.record.dose_to_prove import dose_to_prove_mg_n_l
from reedmace.core.cycle.record.log import HIGH_AMMONIA_MG_N_L, CycleLog
from reedmace.core.cycle.record.water_now import water_now
from reedmace.core.quantity.units import NITROGEN_SHARE


def a_log(**known: Any) -> CycleLog:
    return CycleLog.model_validate({"net_l": 100, "day_now": 20, "start_kh_dkh": 5, **known})


def done(act: Any, log: CycleLog) -> Any:
    return act(log, water_now(log), Working())


def read(day: float = 19.9, **more: float) -> dict[str, float]:
    return {"day": day, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, **more}


def test_the_first_dose_is_the_plans_in_grams_that_bring_it() -> None:
    first = done(next_dose, a_log(day_now=0, plan_target_ppm=3))
    assert first.raise_mg_n_l == pytest.approx(3 * NITROGEN_SHARE["NH4"])
    # Ammonium chloride: 53.49 g carry 14.007 g of nitrogen (atomic masses); powder is about 99 % pure.
    assert first.amount == pytest.approx(first.raise_mg_n_l * 100 / 1000 * 53.49 / 14.007 / 0.99, rel=0.002)
    assert first.amount_unit == "g"
    assert first.caution is not None
    assert "household cleaner" in first.caution


def test_later_doses_are_what_the_load_must_prove_and_are_topped_up_only() -> None:
    fed = a_log(doses=[{"day": 2, "raise_mg_n_l": 1.5}], readings=[read(nitrate_mg_n_l=4)], planned_load_mg_n_l_day=0.8)
    dose = done(next_dose, fed)
    assert dose.raise_mg_n_l == pytest.approx(dose_to_prove_mg_n_l(fed))
    full = a_log(doses=[{"day": 2, "raise_mg_n_l": 1.5}], readings=[read(ammonia_mg_n_l=4.0)])
    assert done(next_dose, full) is None


def test_no_dose_aims_over_five_ppm() -> None:
    most = done(next_dose, a_log(day_now=0, plan_target_ppm=8))
    assert most.raise_mg_n_l == pytest.approx(HIGH_AMMONIA_MG_N_L)


def test_soda_is_weighed_for_the_rise_it_makes() -> None:
    soda = done(raise_alkalinity, a_log(readings=[read(kh_dkh=1.0)]))
    # 84.007 g of bicarbonate per mole of alkalinity; a dKH is 0.3566 mmol/L.
    assert soda.amount == pytest.approx(soda.raise_dkh * 0.3566 * 84.007 / 1000 * 100, rel=0.01)
    assert soda.ph_shift == pytest.approx(math.log10(1 + soda.raise_dkh), abs=0.01)
    assert soda.ph_shift <= PH_SHIFT_EMPTY + 1e-6
    assert "twelve hours on" in soda.detail


def test_a_small_rise_is_one_portion() -> None:
    log = a_log(readings=[read(kh_dkh=3.0)])
    goal = water_now(log).wanted.kh_target_dkh
    assert goal <= 3.0 * 10**ONE_PORTION_PH
    soda = done(raise_alkalinity, log)
    assert soda.raise_dkh == pytest.approx(goal - 3.0)
    assert "twelve hours on" not in soda.detail


@pytest.mark.parametrize(("ago", "when"), [(0.2, "tonight"), (PORTION_APART_DAYS + 0.05, "now")])
def test_the_next_portion_waits_half_a_day(ago: float, when: str) -> None:
    log = a_log(readings=[read(kh_dkh=0.5)], alkalinity=[{"day": 20 - ago, "raise_dkh": 1}])
    assert done(raise_alkalinity, log).when == when


def test_a_change_takes_the_share_that_dilutes_to_the_target() -> None:
    log, w = a_log(), Working()
    litres, parts, shift = change_for(log, water_now(log), Solute(what="nitrite", now_ppm=8, target_ppm=4), 0.1, 0.9, w)
    assert litres == pytest.approx(50, abs=0.5)
    assert (parts, shift) == (1, None)
    least, _, _ = change_for(log, water_now(log), Solute(what="nitrite", now_ppm=8, target_ppm=7.9), 0.25, 0.9, w)
    assert least == pytest.approx(25)
    most, _, _ = change_for(log, water_now(log), Solute(what="nitrite", now_ppm=8, target_ppm=0.1), 0.1, 0.5, w)
    assert most == pytest.approx(50)


def test_a_change_of_far_other_water_is_parted() -> None:
    log = a_log(
        readings=[read(ph=6.2, kh_dkh=0.5)],
        tap={"ph": 8.3, "kh_dkh": 14},
        method="animals-in",
        animals_in_mg_n_l_day=0.2,
    )
    solute = Solute(what="nitrite", now_ppm=8, target_ppm=4)
    litres, parts, shift = change_for(log, water_now(log), solute, 0.1, 0.9, Working())
    assert parts > 1
    assert litres < 50
    assert shift is not None


def test_the_heater_comes_down_to_the_middle_of_what_they_like() -> None:
    danios = [{"species_id": "zebra-danio", "count": 6}]
    cooler = cool_down(warm := a_log(temperature_c=30, animals=danios), water_now(warm))
    assert cooler is not None
    assert 18 < cooler.to_c < 27
    assert cooler.step_c == WARMING_C_DAY
    fine = a_log(temperature_c=23, animals=danios)
    assert cool_down(fine, water_now(fine)) is None


def test_new_water_is_mixed_to_a_warmth_only_where_it_is_known() -> None:
    known = a_log(temperature_c=25)
    guessed = a_log(temperature_c=25, temperature_known=False)
    assert "25 °C" in water_preparation(known, water_now(known))
    assert "25 °C" not in water_preparation(guessed, water_now(guessed))


def test_a_title_reads_inside_a_sentence_and_soonest_comes_first() -> None:
    action = Action(do="wait", title="Wait for the film", detail="", reason="", when="now")
    assert action.inside == "wait for the film"
    assert WHEN[0] == "now"
    assert WHEN[-1] == "later"
