"""The years after: nitrate's saw-tooth, growth, a filter that stays off on trial."""

import math
from typing import Any

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from reedmace.core.cycle import StandbyTrialQuestion, Trial, standby_trial
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.stock import SPECIES, Animals, OutgrowQuestion, outgrow
from reedmace.core.stock.growth import GROWTH_PER_YEAR, length_at
from reedmace.core.upkeep import NitrateRhythmQuestion, nitrate_rhythm

PPM = NITROGEN_SHARE["NO3"]


def test_the_saw_tooth_settles_where_its_closed_form_says() -> None:
    answer = nitrate_rhythm(
        NitrateRhythmQuestion(net_l=100, made_mg_n_day=40, change_share=0.3, every_days=7, tap_mg_n_l=1)
    )
    assert answer.rise_mg_n_l_day == pytest.approx(0.4)
    at = 0.0
    for _ in range(400):
        peak = at + 0.4 * 7
        at = peak + (1 - peak) * 0.3
    assert answer.peak_mg_n_l == pytest.approx(peak)
    assert answer.trough_mg_n_l == pytest.approx(at)
    assert answer.skipped_mg_n_l == pytest.approx(peak + 0.4 * 7)


@pytest.mark.parametrize("share", [0.1, 0.25, 0.5])
@pytest.mark.parametrize("every", [3.0, 7.0, 14.0])
def test_the_rhythm_it_names_holds_the_target_exactly(share: float, every: float) -> None:
    base = {"net_l": 120, "made_mg_n_day": 60, "target_ppm_ion": 40, "tap_mg_n_l": 1.5}
    answer = nitrate_rhythm(NitrateRhythmQuestion(**base, change_share=share, every_days=every))
    again = nitrate_rhythm(NitrateRhythmQuestion(**base, change_share=share, every_days=answer.holds_every_days))
    assert again.peak_mg_n_l == pytest.approx(40 * PPM)
    if answer.holds_share is not None:
        third = nitrate_rhythm(NitrateRhythmQuestion(**base, change_share=answer.holds_share, every_days=every))
        assert third.peak_mg_n_l == pytest.approx(40 * PPM)


def test_alkalinity_falls_between_changes_as_its_own_saw_tooth_says() -> None:
    base = {"net_l": 100, "made_mg_n_day": 40, "change_share": 0.3, "every_days": 7, "tap_mg_n_l": 1}
    answer = nitrate_rhythm(NitrateRhythmQuestion(**base, tap_kh_dkh=6))
    kh = 6.0
    for _ in range(400):
        # Half of what nitrifying takes came in with the animals' ammonia.
        low = kh - 0.4 * 7 * (7.14 - 50.043 / 14.007) / 17.85
        kh = low + (6 - low) * 0.3
    assert answer.kh_low_dkh == pytest.approx(low, rel=1e-3)
    assert answer.kh_words is None
    soft = nitrate_rhythm(NitrateRhythmQuestion(**base, tap_kh_dkh=1.8))
    assert soft.kh_low_dkh == pytest.approx(0, abs=0.1)
    assert "Alkalinity runs out" in (soft.kh_words or "")
    # A tap without any is soft on purpose, and is not told to be otherwise.
    assert nitrate_rhythm(NitrateRhythmQuestion(**base, tap_kh_dkh=0.5)).kh_words is None
    assert nitrate_rhythm(NitrateRhythmQuestion(**base)).kh_low_dkh is None


def test_a_tap_over_the_target_is_said_and_not_reckoned_with() -> None:
    with pytest.raises(CannotAnswer, match="tap itself"):
        nitrate_rhythm(NitrateRhythmQuestion(net_l=100, made_mg_n_day=1, tap_mg_n_l=12, target_ppm_ion=40))


def test_own_tests_decide_before_the_sum_and_plants_take_their_part() -> None:
    made = {"net_l": 100, "made_mg_n_day": 40}
    plain = nitrate_rhythm(NitrateRhythmQuestion(**made)).rise_mg_n_l_day
    assert nitrate_rhythm(NitrateRhythmQuestion(**made, planted=True)).rise_mg_n_l_day < plain
    assert nitrate_rhythm(NitrateRhythmQuestion(**made, measured_rise_mg_n_l_day=0.9)).rise_mg_n_l_day == 0.9


@pytest.mark.parametrize("species", ["neon-tetra", "oscar", "slider", "common-goldfish"])
def test_growth_follows_von_bertalanffy_as_solved_independently(species: str) -> None:
    s = SPECIES[species]
    k, grown, start = GROWTH_PER_YEAR[s.group], s.adult_length_cm, 0.3 * s.adult_length_cm
    days = np.array([0.0, 90.0, 365.0, 1500.0])
    ode = solve_ivp(lambda _, y: k / 365.25 * (grown - y), (0, 1500), [start], t_eval=days, rtol=1e-9, atol=1e-9)
    assert [length_at(s, start, float(d)) for d in days] == pytest.approx(ode.y[0], rel=1e-6)


def test_a_young_oscar_outgrows_length_first_and_a_shoal_of_grown_tetras_nothing() -> None:
    young = OutgrowQuestion(
        net_l=200, animals=[Animals(species_id="oscar", count=2, length_cm=6)], tank_length_cm=100, carries_mg_n_day=200
    )
    answer = outgrow(young)
    k = GROWTH_PER_YEAR["large cichlid"]
    assert answer.length_does_days == pytest.approx(365.25 / k * math.log(24 / 5))
    assert answer.filter_does_days is not None
    assert answer.filter_does_days > 0
    loads = [p.load_mg_n_day for p in answer.course]
    assert loads == sorted(loads)
    done = outgrow(OutgrowQuestion(net_l=100, animals=[Animals(species_id="neon-tetra", count=10)], tank_length_cm=80))
    assert (done.filter_does_days, done.water_does_days, done.length_does_days) == (None, None, None)
    assert "as well" in done.verdict


def test_a_trial_goes_from_hours_to_a_week_and_ends_at_the_first_trace() -> None:
    held: list[Any] = []
    for hours in (6.0, 24.0, 72.0, 168.0):
        answer = standby_trial(StandbyTrialQuestion(carried_times_count=5, oxygen_enough=True, trials=held))
        assert answer.next_h == hours
        held.append(Trial(hours=hours))
    proved = standby_trial(StandbyTrialQuestion(carried_times_count=5, oxygen_enough=True, trials=held))
    assert proved.proved
    failed = [*held[:2], Trial(hours=72, trace=True)]
    over = standby_trial(StandbyTrialQuestion(carried_times_count=5, oxygen_enough=True, trials=failed))
    assert not over.may_try
    assert "Leave it running" in over.verdict


@pytest.mark.parametrize(
    "bar", [{"carried_times_count": 1.2}, {"oxygen_enough": False}, {"animals_settled": False}], ids=str
)
def test_no_trial_where_what_stays_on_would_not_do(bar: dict) -> None:
    question = StandbyTrialQuestion(**{"carried_times_count": 5, "oxygen_enough": True, **bar})
    assert not standby_trial(question).may_try


def test_an_untested_stop_proves_nothing() -> None:
    trials = [Trial(hours=200, tested=False)]
    answer = standby_trial(StandbyTrialQuestion(carried_times_count=5, oxygen_enough=True, trials=trials))
    assert not answer.proved
    assert answer.next_h == 6
