"""What may be poured with animals in: random waters, each plan replayed hour by hour by the test's own reckoning."""

import numpy as np
import pytest

from reedmace.core.chemistry import un_ionised_share
from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.shock_limits import PH_SHIFT_ANIMALS
from reedmace.core.chemistry.tolerance import NH3_LIMIT_MG_N_L, ammonia_limit_mg_n_l
from reedmace.core.computations import compute

AIR_CO2_MMOL = 0.014
"""In balance with the air near 25 °C: 420 ppm by Henry's constant, 0.034 mol/(L atm)."""


def test_ph_and_kh_come_back_and_a_whole_change_is_the_tap() -> None:
    for ph, kh, salt in ((6.2, 0.5, 0), (7.0, 3, 0), (8.2, 12, 0), (8.1, 8, 35)):
        water = Carbonate.of(ph, kh, 25, salt)
        assert water.ph() == pytest.approx(ph, abs=0.01)
        assert water.kh_dkh() == pytest.approx(kh)
        assert water.mixed(Carbonate.of(7.5, 5, 25, salt), 1).ph() == pytest.approx(7.5, abs=0.01)


def test_water_that_stands_goes_to_where_the_air_keeps_it() -> None:
    foul = Carbonate.of(6.4, 3)
    stood = foul.breathing(AIR_CO2_MMOL, 500)
    assert stood.co2_mmol() == pytest.approx(AIR_CO2_MMOL, rel=0.01)
    assert stood.kh_dkh() == pytest.approx(3)
    assert foul.ph() < foul.breathing(AIR_CO2_MMOL, 1).ph() < stood.ph()


def asked(rng: np.random.Generator) -> dict:
    salt = 35.0 if rng.uniform() < 0.15 else 0.0
    return {
        "net_l": float(rng.choice([20, 60, 300])),
        "ammonia_mg_n_l": float(np.exp(rng.uniform(-3, 2.5))),
        "nitrite_mg_n_l": float(np.exp(rng.uniform(-4, 1.5))),
        "nitrate_mg_n_l": float(rng.uniform(0, 40)),
        "ph": float(rng.uniform(5.8, 8.6)) if not salt else 8.1,
        "kh_dkh": float(rng.uniform(0, 8)) if not salt else 8.0,
        "temperature_c": float(rng.uniform(16, 31)),
        "salinity_g_kg": salt,
        "load_mg_n_l_day": float(rng.uniform(0, 1)),
        "tap": {
            "ph": float(rng.uniform(6.5, 8.6)),
            "kh_dkh": float(rng.uniform(0.5, 15)),
            "ammonia_mg_n_l": float(rng.choice([0, 0, 0.2, 1])),
            "chlorine": str(rng.choice(["chloramine", "none"])),
        },
    }


def test_no_plan_of_three_hundred_lifts_free_ammonia_over_its_limit_or_shocks_or_mixes_up_its_order() -> None:
    rng, moved = np.random.default_rng(11), 0
    for _ in range(300):
        q = asked(rng)
        plan = compute("emergency-plan", q)
        here = (q["temperature_c"], q["salinity_g_kg"])
        water, tap = Carbonate.of(q["ph"], q["kh_dkh"], *here), Carbonate.of(q["tap"]["ph"], q["tap"]["kh_dkh"], *here)
        co2, tan, hour = water.co2_mmol(), q["ammonia_mg_n_l"], 0.0

        def free(tan: float, water: Carbonate, here=here) -> float:
            return tan * un_ionised_share(min(max(water.ph(), 4), 10), *here)

        bound = max(NH3_LIMIT_MG_N_L, free(tan, water)) * 1.02
        made = q["load_mg_n_l_day"] * (plan.feed_share or 0.25)
        last_change = max([s.after_hours for s in plan.steps if s.do == "change"], default=-1.0)
        for step in plan.steps:
            while hour < step.after_hours:
                water, tan, hour = water.breathing(co2, 1), tan + made / 24, hour + 1
            before = water.ph()
            # What the animals make in between is theirs, not the plan's.
            bound = max(bound, free(tan, water) * 1.02)
            if step.do == "change":
                share = step.litres / q["net_l"]
                water, tan = water.mixed(tap, share), tan * (1 - share) + q["tap"]["ammonia_mg_n_l"] * share
            elif step.do == "soda":
                assert step.after_hours > last_change
                water = water.with_soda(step.raise_dkh)
            else:
                continue
            moved += 1
            assert abs(water.ph() - before) <= PH_SHIFT_ANIMALS + 0.02, (q, step)
            assert free(tan, water) <= bound, (q, step)
            assert step.after_ph == pytest.approx(water.ph(), abs=0.02)
        assert [s.after_hours for s in plan.steps] == sorted(s.after_hours for s in plan.steps)
        limit, _ = ammonia_limit_mg_n_l(q["ph"], *here)
        assert plan.limits[0].over == (q["ammonia_mg_n_l"] > limit)
        # Nitrate harms over weeks: it asks for a change and is no alarm.
        poisoned = any(one.over and one.what != "nitrate" for one in plan.limits)
        assert plan.in_danger == (poisoned or plan.warmth != "fine" or plan.acidity != "fine")
        # Never silent: over a limit there is always something to do now.
        assert not (plan.in_danger or any(one.over for one in plan.limits)) or plan.steps
    assert moved > 200


def emergency(**more):
    return compute("emergency-plan", {"net_l": 60, "ammonia_mg_n_l": 0.02, "nitrite_mg_n_l": 0.0, **more})


def test_heat_and_cold_past_what_they_bear_are_an_emergency_of_their_own() -> None:
    axolotl = {"animals_low_c": 14, "animals_high_c": 20}
    hot, cold, fine = (emergency(temperature_c=t, **axolotl) for t in (25, 9, 18))
    assert (hot.warmth, cold.warmth, fine.warmth) == ("hot", "cold", "fine")
    assert hot.in_danger
    assert cold.in_danger
    assert not fine.in_danger
    assert [s.do for s in hot.steps][:2] == ["aerate", "cool"]
    assert cold.steps[0].do == "warm"


def test_soft_water_animals_get_no_soda_past_their_ph_and_hear_why() -> None:
    soft = emergency(ph=6.2, kh_dkh=0.3, animals_ph_low=5.8, animals_ph_high=6.4)
    hard = emergency(ph=6.2, kh_dkh=0.3, animals_ph_low=7.0, animals_ph_high=8.4)
    assert all(s.after_ph <= 6.45 for s in soft.steps if s.do == "soda")
    assert sum(s.raise_dkh for s in hard.steps) > 3 * sum(s.raise_dkh for s in soft.steps) + 1
    none = emergency(ph=6.4, kh_dkh=0.3, animals_ph_low=5.8, animals_ph_high=6.4)
    assert not any(s.do == "soda" for s in none.steps)
    assert any("soft water" in c for c in none.cautions)


def test_an_unmeasured_tank_gets_shares_and_no_grams() -> None:
    plan = emergency(ammonia_mg_n_l=2, ph=7.6, kh_dkh=1, litres_known=False, tap={"ph": 7.6, "kh_dkh": 1})
    assert "of the water" in plan.verdict
    assert " L" not in plan.verdict
    assert all(" L " not in (s.title + s.how) and s.grams == 0 for s in plan.steps)


def test_salt_water_speaks_of_salt_and_a_tap_that_cannot_be_mixed_is_said() -> None:
    salt = emergency(ammonia_mg_n_l=1, ph=8.1, kh_dkh=8, salinity_g_kg=35)
    change = next(s for s in salt.steps if s.do == "change")
    assert "salted to 35 g/kg" in change.how
    # About 38 g of mix a litre.
    assert f"{38 * change.litres:.0f} g of sea salt" in change.how
    assert any("salinity" in c for c in salt.cautions)
    cool = emergency(ammonia_mg_n_l=2, ph=7.8, temperature_c=16, tap={"ph": 7.8, "kh_dkh": 4, "cold_c": 20})
    assert any("let it stand cold" in (s.title + s.how) for s in cool.steps)


def test_help_comes_in_the_order_it_works_and_a_bottle_is_held_to_its_window() -> None:
    plan = emergency(ammonia_mg_n_l=2, ph=7.6, temperature_c=26)
    assert [h.split()[0] for h in plan.help] == ["Seeded", "Floating", "A", "Little"]
    assert "at the most its label allows" in plan.help[2]
    assert "does little" in emergency(ph=6.6, temperature_c=26).help[2]


def soda(**more):
    return compute("alkalinity-dose", {"net_l": 100, "current_dkh": 0.5, "target_dkh": 4, **more})


def test_soda_asks_about_animals_and_ammonia() -> None:
    empty, kept = soda(ph=6.3), soda(ph=6.3, animals_in=True)
    assert kept.portions_count > empty.portions_count >= 1
    assert kept.portions_count * kept.portion_g == pytest.approx(kept.sodium_bicarbonate_g)
    foul = soda(ph=6.3, animals_in=True, ammonia_mg_n_l=8)
    assert foul.harms
    assert foul.portions_count == 0
    assert "Change water first" in foul.verdict


def test_soda_to_hold_is_reckoned_beside_soda_to_raise() -> None:
    answer = compute("alkalinity-dose", {"net_l": 100, "current_dkh": 4, "target_dkh": 4, "planned_mg_n_l": 10})
    assert answer.sodium_bicarbonate_g == 0
    # 10 mg N/L burn 4.0 dKH, and a dKH in 100 L is 3.0 g.
    assert answer.hold_g == pytest.approx(12, rel=0.02)


def change(**more):
    question = {
        "net_l": 100,
        "solutes": [{"what": "nitrate", "now_ppm": 80, "target_ppm": 20}],
        "tank_kh_dkh": 0.5,
        "tank_ph": 6.2,
        "tap_ph": 7.8,
        "tap_kh_dkh": 6,
    }
    return compute("water-change", {**question, **more})


def test_a_change_asks_about_animals_and_ammonia_too() -> None:
    assert change(ammonia_mg_n_l=8).harms
    assert "free the ammonia" in change(ammonia_mg_n_l=8, tank_kh_dkh=3, tap_kh_dkh=6, tank_ph=6.6).verdict
    assert not change(ammonia_mg_n_l=8, animals_in=False, tank_ph=7.4, tank_kh_dkh=4).harms
    salt = change(salinity_g_kg=35, tank_ph=8.1, tank_kh_dkh=8, tap_ph=8.1, tap_kh_dkh=8)
    assert salt.salt_g == pytest.approx(38 * salt.change_l)


def test_a_salt_tanks_salinity_is_read_kept_and_spoken_of_in_every_change() -> None:
    line = compute("read-test-line", {"text": "a 0 n 0 sal 33.5"})
    assert line.salinity_g_kg == 33.5
    log = {
        "net_l": 100,
        "day_now": 3,
        "salinity_g_kg": 34,
        "start_kh_dkh": 8,
        "start_ph": 8.1,
        "method": "mature-rock",
        "doses": [{"day": 0, "raise_mg_n_l": 7}],
        "readings": [
            {"day": 2.9, "ammonia_mg_n_l": 6.5, "nitrite_mg_n_l": 0, "nitrate_mg_n_l": 0, "kh_dkh": 8, "ph": 8.1}
        ],
    }
    advice = compute("cycle-advice", {"log": log})
    change = next(a for a in [advice.first, *advice.then] if a.do == "change-water")
    assert "salted to 34 g/kg" in change.detail
