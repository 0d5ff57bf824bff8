"""Chemistry against PHREEQC, PyCO2SYS and published tables."""

import gsw
import numpy as np
import pint
import PyCO2SYS
import pytest
from phreeqpython import PhreeqPython
from PyCO2SYS.equilibria.p1atm import kNH3_TOT_CW95

from reedmace.core.chemistry import (
    ALKALINITY_PER_N,
    BASE_PER_N,
    acute_criterion_mg_n_l,
    chronic_criterion_mg_n_l,
    oxygen_saturation_mg_l,
    pka_fresh,
    un_ionised_share,
)
from reedmace.core.chemistry.ammonia import pka_sea
from reedmace.core.computations import compute
from reedmace.core.quantity import formatting


@pytest.fixture(scope="module")
def phreeqc() -> PhreeqPython:
    """PHREEQC with its own database, where ammonia is a species of its own (Amm)."""
    return PhreeqPython()


@pytest.mark.parametrize("temperature", [10, 18, 25, 30])
@pytest.mark.parametrize("ph", [6.5, 7.5, 8.2, 9.0])
def test_the_poison_share_is_phreeqcs_within_six_percent(phreeqc: PhreeqPython, ph: float, temperature: float) -> None:
    solution = phreeqc.add_solution({"units": "mmol/kgw", "temp": temperature, "pH": f"{ph}", "Amm": 0.05})
    free, bound = (
        solution.species["NH3"] if "NH3" in solution.species else solution.species["Amm"],
        solution.species.get("NH4+", solution.species.get("AmmH+")),
    )
    assert un_ionised_share(ph, temperature) == pytest.approx(free / (free + bound), rel=0.06)
    solution.forget()


@pytest.mark.parametrize(
    ("ph", "temperature", "percent"),
    [
        (7.0, 20, 0.396),
        (8.0, 20, 3.82),
        (9.0, 20, 28.4),
        (7.0, 25, 0.566),
        (8.0, 25, 5.38),
        (8.0, 10, 1.83),
        (7.5, 30, 2.48),
    ],
)
def test_emersons_own_table(ph: float, temperature: float, percent: float) -> None:
    # Emerson et al. 1975, J. Fish. Res. Board Can. 32, table of percent NH3 (values from memory).
    assert 100 * un_ionised_share(ph, temperature) == pytest.approx(percent, rel=0.015)


def test_emersons_constant_at_25_degrees() -> None:
    assert pka_fresh(25) == pytest.approx(9.2465, abs=0.001)


@pytest.mark.parametrize("temperature", [5, 15, 25])
@pytest.mark.parametrize("salinity", [10, 25, 35])
def test_sea_water_is_clegg_and_whitfield_as_pyco2sys_has_it(salinity: float, temperature: float) -> None:
    # Total scale. PyCO2SYS goes on to mol/kg of sea water, which is taken out again here.
    per_kg_sea_water = float(kNH3_TOT_CW95(temperature + 273.15, salinity))
    assert pka_sea(temperature, salinity) == pytest.approx(
        -np.log10(per_kg_sea_water / (1 - 0.001005 * salinity)), abs=1e-6
    )


def test_ammonia_in_a_whole_sea_water_is_shared_out_as_pyco2sys_does() -> None:
    result = PyCO2SYS.sys(
        par1=2300, par2=8.1, par1_type=1, par2_type=3, salinity=35, temperature=25, total_ammonia=10, opt_pH_scale=1
    )
    assert un_ionised_share(8.1, 25, 35) == pytest.approx(result["alkalinity_ammonia"] / 10, rel=0.04)


@pytest.mark.parametrize(
    ("ph", "temperature", "chronic"),
    [(7.0, 20, 1.9), (6.5, 7, 4.9), (7.0, 30, 0.99), (8.0, 20, 0.78), (8.0, 25, 0.57), (7.5, 14, 2.1)],
)
def test_the_chronic_criteria_of_epa_2013(ph: float, temperature: float, chronic: float) -> None:
    # EPA 822-R-13-001, table 6, to two figures; the row at pH 7 and 20 °C is the document's own reference, the rest
    # from memory.
    assert chronic_criterion_mg_n_l(ph, temperature) == pytest.approx(chronic, rel=0.05)


@pytest.mark.parametrize(
    ("ph", "temperature", "acute"), [(7.0, 20, 17), (6.5, 10, 51), (8.0, 20, 3.9), (9.0, 20, 0.63)]
)
def test_the_acute_criteria_of_epa_2013_without_trout(ph: float, temperature: float, acute: float) -> None:
    # EPA 822-R-13-001, table 5b; the row at pH 7 and 20 °C is the document's own reference, the rest from memory.
    assert acute_criterion_mg_n_l(ph, temperature) == pytest.approx(acute, rel=0.08)


@pytest.mark.parametrize(
    ("temperature", "salinity", "oxygen"),
    [(0, 0, 14.62), (5, 0, 12.77), (10, 0, 11.29), (15, 0, 10.08), (20, 0, 9.09), (25, 0, 8.26), (30, 0, 7.56),
     (35, 0, 6.95), (25, 35, 6.75), (10, 35, 9.02)],
)  # fmt: skip
def test_oxygen_is_benson_and_krauses_table(temperature: float, salinity: float, oxygen: float) -> None:
    # Benson and Krause 1984 as tabled by USGS and APHA 4500-O, 1 atm; 8.26 at 25 °C is given, the other rows from
    # memory.
    assert oxygen_saturation_mg_l(temperature, salinity) == pytest.approx(oxygen, abs=0.025)


@pytest.mark.parametrize("temperature", [2, 12, 22, 32])
@pytest.mark.parametrize("salinity", [0, 10, 35])
def test_oxygen_is_gsws(temperature: float, salinity: float) -> None:
    # gsw gives umol per kg of sea water, after Garcia and Gordon 1992, who fitted the same measurements.
    per_kg = float(gsw.O2sol_SP_pt(salinity, temperature))
    density = float(gsw.rho(gsw.SA_from_SP(salinity, 0, 0, 0), temperature, 0)) / 1000
    assert oxygen_saturation_mg_l(temperature, salinity) == pytest.approx(per_kg * density * 31.998 / 1000, rel=0.004)


def test_oxygen_thins_with_height_as_the_standard_atmosphere() -> None:
    # ISO 2533: 89.87 kPa at 1000 m. The share of saturation left follows the pressure less the vapour.
    high = compute("oxygen-saturation", {"temperature_c": 20, "altitude_m": 1000}).saturation_mg_l
    low = compute("oxygen-saturation", {"temperature_c": 20}).saturation_mg_l
    assert high / low == pytest.approx((89.87 - 2.34) / (101.325 - 2.34), rel=0.002)


def test_nitrifying_stoichiometry_is_the_reactions() -> None:
    # NH4+ + 2 O2 -> NO3- + 2 H+ + H2O: two equivalents of alkalinity and two of O2 to each N, without cell growth.
    assert pytest.approx(7.14, rel=0.002) == 2 * 50.043 / 14.007
    assert pytest.approx(4.57, rel=0.002) == 2 * 31.998 / 14.007
    answer = compute("oxygen-saturation", {"net_l": 10, "ammonia_mg_n_day": 100})
    assert answer.film_mg_l_day == pytest.approx(10 * 2 * 31.998 / 14.007, rel=0.002)


def test_what_each_ammonia_does_to_alkalinity_is_what_phreeqc_titrates(phreeqc: PhreeqPython) -> None:
    """Acid down to pH 4.5, as a KH kit does it, in 2 mmol/L of bicarbonate with 0.2 mmol/L of nitrogen put in."""

    def titrated(**added: float) -> float:
        solution = phreeqc.add_solution_simple({"NaHCO3": 2.0})
        for what, mmol in added.items():
            solution.add(what, mmol)
        low, high = 0.0, 5.0
        for _ in range(25):
            middle = (low + high) / 2
            trial = solution.copy()
            trial.add("HCl", middle)
            low, high = (low, middle) if trial.pH < 4.5 else (middle, high)
            trial.forget()
        solution.forget()
        return low

    bare, per_mmol = titrated(), 50.043 / 14.007 / 0.2
    # Put in as NH3 and as its chloride; then nitrified: NH3 has become HNO3, NH4Cl has become HNO3 and HCl.
    assert (titrated(Amm=0.2) - bare) * per_mmol == pytest.approx(BASE_PER_N, rel=0.01)
    assert titrated(AmmHCl=0.2) == pytest.approx(bare, abs=0.002)
    as_base = (bare - titrated(HNO3=0.2)) * per_mmol
    as_salt = (bare - titrated(HNO3=0.2, HCl=0.2)) * per_mmol
    assert as_base == pytest.approx(ALKALINITY_PER_N - BASE_PER_N, rel=0.01)
    assert as_salt == pytest.approx(ALKALINITY_PER_N, rel=0.01)
    # And that is what a dose is said to use.
    for product, eaten in (
        ({"form": "ammonia-solution", "strength_percent_w_v": 10}, as_base),
        ({"form": "ammonium-chloride"}, as_salt),
    ):
        dose = compute("ammonia-dose", {"net_l": 100, "target_ppm": 1, "basis": "N", "product": product})
        assert dose.alkalinity_used_dkh * 17.85 == pytest.approx(eaten, rel=0.01)


_PINT = {
    "cm": "cm",
    "in": "inch",
    "L": "L",
    "US gal": "gallon",
    "imp gal": "imperial_gallon",
    "imp gal/h": "imperial_gallon/hour",
    "L/h": "L/hour",
    "US gal/h": "gallon/hour",
    "m": "m",
    "ft": "foot",
    "kg": "kg",
    "lb": "pound",
    "°C": "degC",
    "°F": "degF",
}


@pytest.mark.parametrize("home", [unit for unit in formatting.BY_HOME_UNIT if unit in _PINT])
@pytest.mark.parametrize(
    "chosen", [formatting.Units("US gal", "in", "°F"), formatting.Units("imp gal", "in", "°F")], ids=str
)
def test_every_unit_converts_as_pint_does(home: str, chosen: formatting.Units) -> None:
    registry: pint.UnitRegistry[float] = pint.UnitRegistry()
    with formatting.in_units(chosen):
        unit = formatting.BY_HOME_UNIT[home].unit()
    for value in (0.5, 25.0, 1000.0):
        assert value * unit.factor + unit.offset == pytest.approx(
            registry.Quantity(value, _PINT[home]).to(_PINT[unit.name]).magnitude, rel=1e-9
        )


@pytest.mark.parametrize("ph", [6.6, 7.4, 8.2])
@pytest.mark.parametrize("temperature", [18, 25])
def test_species_are_phreeqcs_on_the_file_given_for_it(phreeqc: PhreeqPython, ph: float, temperature: float) -> None:
    tested = {"ammonia_mg_n_l": 1, "nitrite_mg_n_l": 0.5, "nitrate_mg_n_l": 5, "ph": ph, "kh_dkh": 5}
    answer = compute("water-speciation", {**tested, "temperature_c": temperature})
    phreeqc.ip.run_string(answer.phreeqc)
    found = phreeqc.get_solution(1).species
    ours = {s.formula: s.mg_l for s in answer.species}
    theirs = {"NH3": (("NH3", "Amm"), 14.007), "CO2": (("CO2",), 44.01), "HCO3⁻": (("HCO3-",), 61.017)}
    for formula, (names, mg_per_mmol) in theirs.items():
        mol = next(found[name] for name in names if name in found)
        assert ours[formula] == pytest.approx(mol * 1000 * mg_per_mmol, rel=0.06), formula
