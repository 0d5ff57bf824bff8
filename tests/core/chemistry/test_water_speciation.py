"""Species of a water: balances, ranges that hold, and what a doubt mostly comes from."""

import itertools
import math

import numpy as np
import pytest

from reedmace.core.chemistry import WaterSpeciationQuestion, un_ionised_share, water_speciation
from reedmace.core.chemistry.water_speciation import PH_GRID, hno2_share, phreeqc_input
from reedmace.core.cycle import CycleLog
from reedmace.core.cycle.record.speciation_question import speciation_question

TESTED = {"ammonia_mg_n_l": 1.0, "nitrite_mg_n_l": 0.5, "ph": 7.8, "kh_dkh": 5.0, "temperature_c": 26.0}


def answer(**more: float):
    return water_speciation(WaterSpeciationQuestion.model_validate(TESTED | more))


def test_each_family_adds_up_to_what_was_tested() -> None:
    species = answer().species
    for family, whole in (("ammonia", 1.0), ("nitrite", 0.5)):
        assert sum(s.mg_l for s in species if s.family == family) == pytest.approx(whole)
    for family in ("ammonia", "nitrite", "carbonate"):
        assert sum(s.share for s in species if s.family == family) == pytest.approx(1)


def test_bicarbonate_and_carbonate_hold_the_alkalinity_tested() -> None:
    by = {s.formula: s.mg_l for s in answer().species}
    held = by["HCO3⁻"] / 61.017 + 2 * by["CO3²⁻"] / 60.009
    assert held == pytest.approx(5.0 * 17.848 / 50.043, rel=0.01)


def test_without_ammonia_or_nitrite_nothing_is_shared_out() -> None:
    species = answer(ammonia_mg_n_l=0, nitrite_mg_n_l=0).species
    assert all(s.mg_l == s.share == 0 for s in species if s.family != "carbonate")


def test_a_range_holds_what_its_tests_may_have_been() -> None:
    rng = np.random.default_rng(3)
    told = answer(ammonia_half_mg_n_l=0.2, half_ph=0.15, temperature_half_c=0.5)
    tan, ph, t = rng.uniform(0.8, 1.2, 1000), rng.uniform(7.65, 7.95, 1000), rng.uniform(25.5, 26.5, 1000)
    true = np.array([a * un_ionised_share(p, c) for a, p, c in zip(tan, ph, t, strict=True)])
    held = np.mean((true >= told.nh3_low_mg_n_l) & (true <= told.nh3_high_mg_n_l))
    assert held >= 0.9


@pytest.mark.parametrize(
    ("halves", "by"),
    [
        ({"ammonia_half_mg_n_l": 0.6, "half_ph": 0.05}, "the ammonia test"),
        ({"ammonia_half_mg_n_l": 0.02, "half_ph": 0.3}, "the pH test"),
        ({"ammonia_half_mg_n_l": 0, "half_ph": 0, "temperature_half_c": 2}, "the thermometer"),
    ],
)
def test_the_widest_doubt_is_named(halves: dict, by: str) -> None:
    assert answer(**halves).nh3_doubt_by == by
    assert by in answer(**halves).verdict


def test_ammonia_turns_to_poison_and_co2_goes_as_ph_rises() -> None:
    rows = answer().at_ph
    assert [row.ph for row in rows] == list(PH_GRID)
    assert all(a.nh3_mg_n_l < b.nh3_mg_n_l for a, b in itertools.pairwise(rows))
    assert all(a.co2_mg_l > b.co2_mg_l for a, b in itertools.pairwise(rows))
    assert all(a.hno2_mg_n_l > b.hno2_mg_n_l for a, b in itertools.pairwise(rows))


def test_nitrous_acid_is_anthonisens() -> None:
    # FNA = 46/14 x NO2-N / (Ka 10^pH), Ka = exp(-2300/T): of 100 mg N/L at pH 6.5 and 20 C, 0.27 mg/L.
    acid_mg_l = 100 * hno2_share(6.5, 20) * 46 / 14
    assert acid_mg_l == pytest.approx(46 / 14 * 100 / (math.exp(-2300 / 293.15) * 10**6.5), rel=0.001)
    assert acid_mg_l == pytest.approx(0.27, abs=0.01)


def test_salt_stands_in_the_file_only_where_there_is_some() -> None:
    assert "Cl " not in phreeqc_input(WaterSpeciationQuestion())
    assert "Cl          19374" in phreeqc_input(WaterSpeciationQuestion(salinity_g_kg=35))


def test_the_question_of_a_log_is_its_newest_tests_and_its_kits_steps() -> None:
    read = [
        {"day": 1, "ammonia_mg_n_l": 2.0, "ph": 7.2, "kh_dkh": 6},
        {"day": 4, "ammonia_mg_n_l": 0.7765, "temperature_c": 24.0},
    ]
    log = CycleLog.model_validate({"net_l": 100, "day_now": 5, "readings": read})
    question = speciation_question(log)
    assert (question.ammonia_mg_n_l, question.ph, question.kh_dkh, question.temperature_c) == (0.7765, 7.2, 6, 24)
    # One ppm stands for anything from 0.75 to 1.5.
    assert question.ammonia_half_mg_n_l == pytest.approx(0.7765 * 0.75 / 2, rel=0.01)
    assert speciation_question(CycleLog.model_validate({"net_l": 100, "day_now": 5})) is None
