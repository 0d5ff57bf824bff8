"""The carbonate system: pH of a water, and its change by mixing, baking soda and gas exchange.

One home for it: changes, soda, emergency and their checks all take pH from here. Concentrations are mmol/L; KH is total
alkalinity, which in salt water counts borate too.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache

from reedmace.core.quantity import CACO3_PER_DKH, celsius_to_kelvin

MMOL_PER_DKH = CACO3_PER_DKH / 50.043
"""Alkalinity of one German degree, mmol/L."""
LEAST_KH_DKH = 0.02
"""Lowest KH used for a measured zero: pH is undefined at zero alkalinity."""
CO2_MG_PER_MMOL = 44.01
IN_AIR_MG_L, IN_AIR_SPREAD = 0.97, 0.35
"""CO2 of water in balance with the air of a room, mg/L, and its log spread.

Henry's law at 25 °C, 0.034 mol/(L atm), and 450 to 1,200 ppm in a room people live in (memory).
"""
GAS_PER_HOUR = 0.25
"""Share of the CO2 difference to equilibrium exchanged in an hour with a moving surface (memory)."""


@lru_cache(maxsize=256)
def constants(temperature_c: float, salinity_g_kg: float) -> tuple[float, float, float, float, float]:
    """(pK1, pK2, pKB, pKW, borate mmol/L) of carbonic acid, boric acid and water.

    temperature_c: 0 to 50 °C; salinity_g_kg: 0 to 45 g/kg. At 25 °C: fresh 6.35 and 10.33; 35 g/kg 5.84 and 8.94.
    Source: Millero et al. 2006 for carbonic acid (coefficients from memory, held against PyCO2SYS by a test); Dickson
    1990 for borate and the usual 13.995 at 25 °C for water, both likewise.
    """
    kelvin = celsius_to_kelvin(temperature_c)
    root, log_t = math.sqrt(salinity_g_kg), math.log(kelvin)
    pk1 = -126.34048 + 6320.813 / kelvin + 19.568224 * log_t
    pk1 += 13.4191 * root + 0.0331 * salinity_g_kg - 5.33e-5 * salinity_g_kg**2
    pk1 += (-530.123 * root - 6.103 * salinity_g_kg) / kelvin - 2.0695 * root * log_t
    pk2 = -90.18333 + 5143.692 / kelvin + 14.613358 * log_t
    pk2 += 21.0894 * root + 0.1248 * salinity_g_kg - 3.687e-4 * salinity_g_kg**2
    pk2 += (-772.483 * root - 20.051 * salinity_g_kg) / kelvin - 3.3336 * root * log_t
    ln_kb = (
        (-8966.90 - 2890.53 * root - 77.942 * salinity_g_kg + 1.728 * salinity_g_kg**1.5 - 0.0996 * salinity_g_kg**2)
        / kelvin
        + (148.0248 + 137.1942 * root + 1.62142 * salinity_g_kg)
        + (-24.4344 - 25.085 * root - 0.2474 * salinity_g_kg) * log_t
        + 0.053105 * root * kelvin
    )
    pkw = 13.995 - 0.0335 * (temperature_c - 25) - 0.78 * min(root / math.sqrt(35), 1.0)
    return pk1, pk2, -ln_kb / math.log(10), pkw, 0.4157 * salinity_g_kg / 35


@dataclass(frozen=True)
class Carbonate:
    """A water: alkalinity and total inorganic carbon, mmol/L, at °C and g/kg."""

    alkalinity_mmol: float
    carbon_mmol: float
    temperature_c: float = 25.0
    salinity_g_kg: float = 0.0

    @classmethod
    def of(cls, ph: float, kh_dkh: float, temperature_c: float = 25.0, salinity_g_kg: float = 0.0) -> "Carbonate":
        """The water with these readings. ph: 4 to 10; kh_dkh: dKH; temperature_c: °C; salinity_g_kg: g/kg."""
        alkalinity = max(kh_dkh, LEAST_KH_DKH) * MMOL_PER_DKH
        pk1, pk2, *_ = constants(temperature_c, salinity_g_kg)
        h, k1, k2 = 10.0**-ph, 10.0**-pk1, 10.0**-pk2
        bicarbonate = max(alkalinity - _others(ph, temperature_c, salinity_g_kg), 1e-3 * alkalinity) / (1 + 2 * k2 / h)
        return cls(alkalinity, bicarbonate * (h / k1 + 1 + k2 / h), temperature_c, salinity_g_kg)

    def ph(self) -> float:
        """pH, 3 to 11."""
        pk1, pk2, *_ = constants(self.temperature_c, self.salinity_g_kg)

        def short(ph: float) -> float:
            up, over = 10.0 ** (ph - pk1), 10.0 ** (ph - pk2)
            held = self.carbon_mmol * (up + 2 * up * over) / (1 + up + up * over)
            return float(held + _others(ph, self.temperature_c, self.salinity_g_kg) - self.alkalinity_mmol)

        return _root(short)

    def kh_dkh(self) -> float:
        """KH, dKH."""
        return self.alkalinity_mmol / MMOL_PER_DKH

    def co2_mmol(self) -> float:
        """Dissolved CO2, mmol/L."""
        pk1, pk2, *_ = constants(self.temperature_c, self.salinity_g_kg)
        ph = self.ph()
        return float(self.carbon_mmol / (1 + 10 ** (ph - pk1) + 10 ** (2 * ph - pk1 - pk2)))

    def mixed(self, other: "Carbonate", share: float) -> "Carbonate":
        """The mixture after a share was replaced, before gas exchange. other: poured in; share: 0 to 1."""
        return replace(
            self,
            alkalinity_mmol=self.alkalinity_mmol * (1 - share) + other.alkalinity_mmol * share,
            carbon_mmol=self.carbon_mmol * (1 - share) + other.carbon_mmol * share,
        )

    def with_soda(self, raise_dkh: float) -> "Carbonate":
        """The water after adding baking soda: equal amounts of carbon and alkalinity. raise_dkh: dKH."""
        more = raise_dkh * MMOL_PER_DKH
        return replace(self, alkalinity_mmol=self.alkalinity_mmol + more, carbon_mmol=self.carbon_mmol + more)

    def breathing(self, co2_mmol: float, hours: float) -> "Carbonate":
        """The water after gas exchange towards the tank's usual CO2. co2_mmol: the usual CO2; hours: elapsed."""
        now = self.co2_mmol()
        then = co2_mmol + (now - co2_mmol) * (1 - GAS_PER_HOUR) ** hours
        pk1, pk2, *_ = constants(self.temperature_c, self.salinity_g_kg)

        def short(ph: float) -> float:
            bicarbonate = then * 10.0 ** (ph - pk1)
            held = bicarbonate * (1 + 2 * 10.0 ** (ph - pk2))
            return float(held + _others(ph, self.temperature_c, self.salinity_g_kg) - self.alkalinity_mmol)

        ph = _root(short)
        return replace(self, carbon_mmol=then * (1 + 10.0 ** (ph - pk1) + 10.0 ** (2 * ph - pk1 - pk2)))


def _root(short: Callable[[float], float]) -> float:
    """Root in pH of a rising function, 3 to 11, to 1e-5 (Illinois method).

    The nearer end if there is no root inside.
    """
    low, high = 3.0, 11.0
    below, above = short(low), short(high)
    if below >= 0 or above <= 0:
        return low if below >= 0 else high
    side = 0
    for _ in range(60):
        middle = (
            (low + high) / 2
            if above > 1e3 * -below or -below > 1e3 * above
            else high - above * (high - low) / (above - below)
        )
        here = short(middle)
        if abs(here) < 1e-7 or high - low < 1e-5:
            return middle
        if here < 0:
            low, below = middle, here
            above = above / 2 if side == -1 else above
            side = -1
        else:
            high, above = middle, here
            below = below / 2 if side == 1 else below
            side = 1
    return (low + high) / 2


def _others(ph: float, temperature_c: float, salinity_g_kg: float) -> float:
    """Non-carbonate alkalinity, mmol/L: borate and hydroxide less hydrogen ions."""
    _, _, pkb, pkw, boron = constants(temperature_c, salinity_g_kg)
    borate = boron / (1 + 10.0 ** (pkb - ph)) if boron else 0.0
    return float(borate + 1000 * (10.0 ** (ph - pkw) - 10.0**-ph))
