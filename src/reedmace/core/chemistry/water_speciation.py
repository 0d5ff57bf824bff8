"""What stands in the water as which species, how surely, and the same at other pH; with an input file for PHREEQC."""

import math
from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.ammonia import un_ionised_share
from reedmace.core.chemistry.carbonate import CO2_MG_PER_MMOL, LEAST_KH_DKH, Carbonate, constants
from reedmace.core.contract import PH, Answer, Celsius, MgNPerL, Part, Question, Share, Working, computation, number
from reedmace.core.quantity import CACO3_PER_DKH, celsius_to_kelvin

HCO3_MG_PER_MMOL, CO3_MG_PER_MMOL = 61.017, 60.009
CHLORINITY_PER_SALINITY = 1 / 1.80655
"""Chloride by salinity in sea water (UNESCO 1966)."""
PH_GRID = tuple(6.0 + 0.25 * n for n in range(13))
Family = Literal["ammonia", "nitrite", "carbonate"]
Known = Literal["the ammonia test", "the pH test", "the KH test", "the thermometer"]
MgPerL = Annotated[float, number("mg/L", 0, 1e6)]


class WaterSpeciationQuestion(Question):
    """A water by its tests, and half the step each is read to, by usual kits where not given (memory)."""

    ammonia_mg_n_l: MgNPerL = 0
    nitrite_mg_n_l: MgNPerL = 0
    nitrate_mg_n_l: Annotated[float, number("mg N/L", 0, 500)] = 0
    ph: PH = 7.4
    kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    temperature_c: Celsius = 25
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    ammonia_half_mg_n_l: Annotated[float, number("mg N/L", 0, 20)] = 0.1
    half_ph: Annotated[float, number("pH", 0, 1)] = 0.1
    kh_half_dkh: Annotated[float, number("dKH", 0, 5)] = 0.5
    temperature_half_c: Annotated[float, number("°C", 0, 5)] = 0.5


class WaterSpecies(Part):
    """One species. share: of its family, all ammonia or nitrite as N, all inorganic carbon."""

    formula: str
    family: Family
    name: str
    mg_l: Annotated[float, number("mg/L", 0, 1e6, "Nitrogen species as N, the others as themselves")]
    share: Share


class AtPh(Part):
    """The same ammonia, nitrite and KH at another pH."""

    ph: PH
    nh3_mg_n_l: MgPerL
    hno2_mg_n_l: MgPerL
    co2_mg_l: MgPerL


class WaterSpeciationAnswer(Answer):
    """Species, the range of the toxic share and of CO2, what each is least sure by, and the water for PHREEQC."""

    species: list[WaterSpecies]
    nh3_low_mg_n_l: MgPerL
    nh3_high_mg_n_l: MgPerL
    nh3_doubt_by: Known = Field(description="What most of its range comes from")
    co2_low_mg_l: MgPerL
    co2_high_mg_l: MgPerL
    co2_doubt_by: Known
    at_ph: list[AtPh]
    phreeqc: str = Field(description="Input file; ammonia is Amm, as in phreeqc.dat")


def hno2_share(ph: float, temperature_c: float) -> float:
    """Share of nitrite present as nitrous acid, 0 to 1.

    ph: 4 to 10; temperature_c: 0 to 40 °C. Source: Anthonisen et al. 1976, Ka = exp(−2300/T).

    >>> round(hno2_share(7.0, 25.0) * 1e4, 2)
    2.24
    """
    ka = math.exp(-2300 / celsius_to_kelvin(temperature_c))
    return float(1 / (1 + ka * 10**ph))


def _nh3(q: WaterSpeciationQuestion, ammonia_mg_n_l: float, ph: float, temperature_c: float) -> float:
    return ammonia_mg_n_l * un_ionised_share(ph, temperature_c, q.salinity_g_kg)


def _co2(q: WaterSpeciationQuestion, kh_dkh: float, ph: float, temperature_c: float) -> float:
    return Carbonate.of(ph, kh_dkh, temperature_c, q.salinity_g_kg).co2_mmol() * CO2_MG_PER_MMOL


def _range(middle: float, moved: dict[Known, tuple[float, float]]) -> tuple[float, float, Known]:
    """(low, high, what it comes from most) of a figure whose inputs each move it alone.

    middle: the figure; moved: the figure with each input at its lower and upper end. Deviations add by squares.
    """
    down = math.hypot(*(middle - min(ends) for ends in moved.values()))
    up = math.hypot(*(max(ends) - middle for ends in moved.values()))
    return max(middle - down, 0.0), middle + up, max(moved, key=lambda one: max(moved[one]) - min(moved[one]))


@computation("water-speciation", "What stands in the water as which species, and how surely")
def water_speciation(question: WaterSpeciationQuestion) -> WaterSpeciationAnswer:
    """Species of ammonia, nitrite and carbonate.

    question: mg N/L, pH, dKH, °C, g/kg. KH is taken as alkalinity by carbonate and borate alone. Source: Emerson et al.
    1975 and Clegg and Whitfield 1995; Anthonisen et al. 1976; Millero et al. 2006. Ranges by squares of what half a
    step of each test does alone.
    """
    q, w = question, Working()
    t = q.temperature_c
    free = w.sum(
        "NH3",
        "ammonia × share",
        {"ammonia": q.ammonia_mg_n_l, "share": un_ionised_share(q.ph, t, q.salinity_g_kg)},
        "mg N/L",
        "emerson1975",
    )
    acid_share = hno2_share(q.ph, t)
    acid = w.sum(
        "HNO2", "nitrite × share", {"nitrite": q.nitrite_mg_n_l, "share": acid_share}, "mg N/L", "anthonisen1976"
    )
    water = Carbonate.of(q.ph, q.kh_dkh, t, q.salinity_g_kg)
    pk1, pk2, *_ = constants(t, q.salinity_g_kg)
    gas = water.co2_mmol()
    bicarbonate, carbonate = gas * 10 ** (q.ph - pk1), gas * 10 ** (2 * q.ph - pk1 - pk2)
    co2 = w.line(
        "CO2",
        "KH · 10^(pK1 − pH) · 44.01",
        f"{q.kh_dkh:g} dKH, pH {q.ph:g}, pK1 {pk1:.2f}",
        gas * CO2_MG_PER_MMOL,
        "mg/L",
        "carbonate",
    )
    nh3_low, nh3_high, nh3_by = _range(free, _nh3_moved(q))
    co2_low, co2_high, co2_by = _range(co2, _co2_moved(q))
    carbon = gas + bicarbonate + carbonate
    return WaterSpeciationAnswer(
        verdict=(
            f"Of {q.ammonia_mg_n_l:.3g} mg N/L of ammonia {free:.2g} are NH3, the poison: {nh3_low:.2g} to"
            f" {nh3_high:.2g}, mostly by {nh3_by}. CO2 is {co2:.2g} mg/L, {co2_low:.2g} to {co2_high:.2g}."
        ),
        working=w.lines,
        species=[
            *_pair("NH3", "free ammonia", "NH4⁺", "ammonium", "ammonia", free, q.ammonia_mg_n_l),
            *_pair("HNO2", "nitrous acid", "NO2⁻", "nitrite", "nitrite", acid, q.nitrite_mg_n_l),
            _carbon("CO2", "carbon dioxide", gas, CO2_MG_PER_MMOL, carbon),
            _carbon("HCO3⁻", "bicarbonate", bicarbonate, HCO3_MG_PER_MMOL, carbon),
            _carbon("CO3²⁻", "carbonate", carbonate, CO3_MG_PER_MMOL, carbon),
        ],
        nh3_low_mg_n_l=nh3_low,
        nh3_high_mg_n_l=nh3_high,
        nh3_doubt_by=nh3_by,
        co2_low_mg_l=co2_low,
        co2_high_mg_l=co2_high,
        co2_doubt_by=co2_by,
        at_ph=[_at_ph(q, ph) for ph in PH_GRID],
        phreeqc=phreeqc_input(q),
    )


def _nh3_moved(q: WaterSpeciationQuestion) -> dict[Known, tuple[float, float]]:
    """Free ammonia with each test at its lower and upper end, mg N/L."""
    tan, ph, t = q.ammonia_mg_n_l, q.ph, q.temperature_c
    return {
        "the ammonia test": _ends(lambda x: _nh3(q, x, ph, t), tan, q.ammonia_half_mg_n_l),
        "the pH test": _ends(lambda x: _nh3(q, tan, x, t), ph, q.half_ph),
        "the thermometer": _ends(lambda x: _nh3(q, tan, ph, x), t, q.temperature_half_c),
    }


def _co2_moved(q: WaterSpeciationQuestion) -> dict[Known, tuple[float, float]]:
    """CO2 with each test at its lower and upper end, mg/L."""
    kh, ph, t = q.kh_dkh, q.ph, q.temperature_c
    return {
        "the KH test": _ends(lambda x: _co2(q, x, ph, t), kh, q.kh_half_dkh),
        "the pH test": _ends(lambda x: _co2(q, kh, x, t), ph, q.half_ph),
        "the thermometer": _ends(lambda x: _co2(q, kh, ph, x), t, q.temperature_half_c),
    }


def _at_ph(q: WaterSpeciationQuestion, ph: float) -> AtPh:
    return AtPh(
        ph=ph,
        nh3_mg_n_l=_nh3(q, q.ammonia_mg_n_l, ph, q.temperature_c),
        hno2_mg_n_l=q.nitrite_mg_n_l * hno2_share(ph, q.temperature_c),
        co2_mg_l=_co2(q, q.kh_dkh, ph, q.temperature_c),
    )


def _ends(figure: Callable[[float], float], at: float, half: float) -> tuple[float, float]:
    """A figure with one input at both ends of its range. at, half: middle of the input and half its step."""
    return figure(max(at - half, 0.0)), figure(at + half)


def _pair(
    formula: str, name: str, other: str, other_name: str, family: Family, part_mg_l: float, all_mg_l: float
) -> list[WaterSpecies]:
    """A species and what is left of its family. part_mg_l, all_mg_l: as N."""
    share = part_mg_l / all_mg_l if all_mg_l else 0.0
    rest = 1 - share if all_mg_l else 0.0
    return [
        WaterSpecies(formula=formula, family=family, name=name, mg_l=part_mg_l, share=share),
        WaterSpecies(formula=other, family=family, name=other_name, mg_l=all_mg_l - part_mg_l, share=rest),
    ]


def _carbon(formula: str, name: str, mmol: float, mg_per_mmol: float, all_mmol: float) -> WaterSpecies:
    return WaterSpecies(formula=formula, family="carbonate", name=name, mg_l=mmol * mg_per_mmol, share=mmol / all_mmol)


def phreeqc_input(q: WaterSpeciationQuestion) -> str:
    """The water as an input file of PHREEQC. q: its tests.

    Salt stands in it as sodium chloride by chlorinity, which holds the ionic strength and not the borate.
    """
    chloride = q.salinity_g_kg * CHLORINITY_PER_SALINITY * 1000
    caco3 = max(q.kh_dkh, LEAST_KH_DKH) * CACO3_PER_DKH
    return "\n".join(
        [
            "SOLUTION 1  A tank as tested",
            "    units       mg/L",
            f"    temp        {q.temperature_c:g}",
            f"    pH          {q.ph:g}",
            f"    Alkalinity  {caco3:.4g} as CaCO3",
            f"    Amm         {q.ammonia_mg_n_l:.4g} as N",
            f"    N(3)        {q.nitrite_mg_n_l:.4g} as N",
            f"    N(5)        {q.nitrate_mg_n_l:.4g} as N",
            *([f"    Cl          {chloride:.5g}"] if chloride else []),
            "    Na          1 charge",
            "END",
            "",
        ]
    )
