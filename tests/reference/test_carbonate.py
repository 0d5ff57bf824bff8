"""The carbonate system against PHREEQC and PyCO2SYS, and every change and soda of a sample of emergency plans judged by
PHREEQC.
"""

import numpy as np
import PyCO2SYS as pyco2  # noqa: N813 - its own documentation calls it so
import pytest
from phreeqpython import PhreeqPython

from reedmace.core.chemistry.carbonate import MMOL_PER_DKH, Carbonate, constants
from reedmace.core.chemistry.shock_limits import PH_SHIFT_ANIMALS
from reedmace.core.chemistry.tolerance import NH3_LIMIT_MG_N_L
from reedmace.core.computations import compute


@pytest.fixture(scope="module")
def phreeqc() -> PhreeqPython:
    """PHREEQC with its own database."""
    return PhreeqPython()


@pytest.mark.parametrize("temperature", [5, 15, 25, 30])
@pytest.mark.parametrize("salinity", [0.001, 1, 5, 15, 35, 40])
def test_the_constants_are_pyco2syss(temperature: float, salinity: float) -> None:
    # Millero et al. 2006 on the seawater scale; Dickson 1990; Uppström 1974.
    theirs = pyco2.sys(
        par1=2000, par1_type=1, par2=8, par2_type=3, salinity=salinity, temperature=temperature,
        opt_k_carbonic=13, opt_pH_scale=2, opt_total_borate=1,
    )  # fmt: skip
    pk1, pk2, pkb, _, boron = constants(temperature, salinity)
    assert pk1 == pytest.approx(-np.log10(theirs["k_carbonic_1"]), abs=0.01)
    assert pk2 == pytest.approx(-np.log10(theirs["k_carbonic_2"]), abs=0.01)
    assert pkb == pytest.approx(-np.log10(theirs["k_borate"]), abs=0.02)
    assert boron == pytest.approx(theirs["total_borate"] / 1000, rel=0.01, abs=1e-4)


@pytest.mark.parametrize(("ph", "alkalinity", "salinity"), [(8.1, 2.8, 35), (7.6, 3.5, 30), (8.4, 2.2, 20)])
def test_the_carbon_of_salt_water_is_pyco2syss(ph: float, alkalinity: float, salinity: float) -> None:
    theirs = pyco2.sys(
        par1=1000 * alkalinity, par1_type=1, par2=ph, par2_type=3, salinity=salinity, temperature=25,
        opt_k_carbonic=13, opt_pH_scale=2, opt_total_borate=1,
    )  # fmt: skip
    ours = Carbonate.of(ph, alkalinity / MMOL_PER_DKH, 25, salinity)
    assert ours.carbon_mmol == pytest.approx(theirs["dic"] / 1000, rel=0.01)
    assert ours.ph() == pytest.approx(ph, abs=0.01)


def solution(phreeqc: PhreeqPython, ph: float, kh_dkh: float, nitrogen_mg_l: float = 0.0):
    """A fresh water of that pH and alkalinity, as PHREEQC makes it: bicarbonate, and CO2 until the pH is met."""
    made = phreeqc.add_solution_simple({"NaHCO3": kh_dkh * MMOL_PER_DKH, "AmmHCl": nitrogen_mg_l / 14.007})
    if made.pH > ph:
        made.change_ph(ph, with_chemical="CO2")
    else:
        made.remove("CO2", 0.0)
        made.change_ph(ph, with_chemical="NaOH")
    return made


@pytest.mark.parametrize("tank", [(6.2, 0.5), (6.6, 1.5), (7.0, 3), (7.6, 6)])
@pytest.mark.parametrize("tap", [(7.2, 2), (7.8, 6), (8.0, 12)])
@pytest.mark.parametrize("share", [0.1, 0.25, 0.5])
def test_mixed_water_has_phreeqcs_ph(phreeqc: PhreeqPython, tank, tap, share: float) -> None:
    one, other = solution(phreeqc, *tank), solution(phreeqc, *tap)
    mixed = phreeqc.mix_solutions({one: 1 - share, other: share})
    ours = Carbonate.of(*tank).mixed(Carbonate.of(*tap), share).ph()
    assert ours == pytest.approx(mixed.pH, abs=0.06)
    for s in (one, other, mixed):
        s.forget()


@pytest.mark.parametrize(("ph", "kh", "rise"), [(6.3, 0.4, 1), (6.6, 1, 2), (7.0, 2, 2), (7.4, 1, 3)])
def test_soda_has_phreeqcs_ph(phreeqc: PhreeqPython, ph: float, kh: float, rise: float) -> None:
    water = solution(phreeqc, ph, kh)
    water.add("NaHCO3", rise * MMOL_PER_DKH)
    assert Carbonate.of(ph, kh).with_soda(rise).ph() == pytest.approx(water.pH, abs=0.06)
    water.forget()


def test_phreeqc_finds_no_step_of_forty_plans_that_frees_ammonia_or_shocks(phreeqc: PhreeqPython) -> None:
    rng, judged = np.random.default_rng(4), 0
    for _ in range(40):
        tank = (rng.uniform(6.0, 7.6), rng.uniform(0.3, 5))
        tap = (rng.uniform(6.8, 8.2), rng.uniform(1, 12))
        ammonia = float(rng.choice([0.3, 1, 3, 8]))
        plan = compute(
            "emergency-plan",
            {"net_l": 60, "ammonia_mg_n_l": ammonia, "nitrite_mg_n_l": 0.5, "ph": tank[0], "kh_dkh": tank[1],
             "tap": {"ph": tap[0], "kh_dkh": tap[1]}},
        )  # fmt: skip
        now = solution(phreeqc, *tank, ammonia)
        free0 = 14.007 * now.species["Amm"] * 1000
        assert free0 > 0
        # Each step straight after the last: no hours for the CO2 to come back, which is the harder case for the first.
        for step in plan.steps[:2]:
            before = now.pH
            if step.do == "change":
                share = step.litres / 60
                after = phreeqc.mix_solutions({now: 1 - share, (other := solution(phreeqc, *tap)): share})
                other.forget()
            elif step.do == "soda":
                after = now.copy()
                after.add("NaHCO3", step.raise_dkh * MMOL_PER_DKH)
            else:
                continue
            judged += 1
            free = 14.007 * after.species["Amm"] * 1000
            assert abs(after.pH - before) <= PH_SHIFT_ANIMALS + 0.1, (tank, tap, ammonia, step)
            # PHREEQC's own ammonia constant is a few percent off Emerson's.
            assert free <= max(NH3_LIMIT_MG_N_L, free0) * 1.2, (tank, tap, ammonia, step)
            now.forget()
            now = after
        now.forget()
    assert judged >= 40
