"""Animals' tolerance of un-ionised ammonia, nitrite, nitrate, heat and cold."""

from dataclasses import dataclass

from reedmace.core.chemistry.ammonia import chronic_criterion_mg_n_l, in_criterion_range, un_ionised_share
from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.quantity.units import NITROGEN_SHARE

NH3_LIMIT_MG_N_L = 0.02
"""Un-ionised ammonia that keepers hold a tank under from day to day (common practice)."""
NITRITE_LIMIT_MG_N_L = {"fresh": 0.5 * NITROGEN_SHARE["NO2"], "salt": 5 * NITROGEN_SHARE["NO2"]}
"""Half a ppm in fresh water; chloride blocks it at the gills, so ten times that in salt (common practice)."""
NITRATE_LIMIT_MG_N_L = 40 * NITROGEN_SHARE["NO3"]
COLD_MARGIN_C, HEAT_MARGIN_C = 3.0, 3.0
"""Distance outside their temperature range at which animals are in danger (memory)."""
ANY_LOW_C, ANY_HIGH_C = 10.0, 33.0
"""Temperatures outside which any aquarium animal of unknown kind is in danger (memory, cautious)."""
ANY_PH_LOW, ANY_PH_HIGH, PH_MARGIN = 5.0, 9.0, 0.5
"""pH outside which any animal is in danger, and the distance outside its own range (memory, cautious)."""
SOFT_PH = 7.0
"""Highest tolerated pH at or below which animals want soft, acid water, so that soda is wrong (common practice)."""
UNTESTED_PH = 8.0
"""pH assumed where none was tested: cautious, since it frees ammonia (a stated judgement)."""
UNTESTED_TAP_PH, UNTESTED_TAP_KH_DKH, UNTESTED_KH_DKH = 7.8, 6.0, 4.0
"""pH and KH of an untested tap, hard and alkaline, and KH of an untested tank (memory, cautious)."""
SOUR_FALL_PH, SOUR_KH_DKH = 0.5, 1.0
"""Fall of pH, and KH below which it shows that alkalinity is used up and pH goes on falling (common practice)."""


def ammonia_limit_mg_n_l(ph: float, temperature_c: float, salinity_g_kg: float) -> tuple[float, str]:
    """(mg TAN-N/L, rule) allowed from day to day: the stricter of un-ionised ammonia and the 30-day criterion.

    ph: 4 to 10; temperature_c: 0.5 to 40 °C; salinity_g_kg: 0 to 45 g/kg. Source: common practice for 0.02 mg/L of free
    ammonia; US EPA 2013 in fresh water, within pH 6.5 to 9 and 0 to 30 °C.

    >>> round(ammonia_limit_mg_n_l(7.0, 25.0, 0.0)[0], 3)
    1.367
    """
    by_share = NH3_LIMIT_MG_N_L / un_ionised_share(ph, temperature_c, salinity_g_kg)
    if not is_fresh(salinity_g_kg):
        return by_share, "0.02 mg/L of free ammonia, as N"
    published = chronic_criterion_mg_n_l(*in_criterion_range(ph, temperature_c))
    return min((by_share, "0.02 mg/L of free ammonia, as N"), (published, "the 30-day criterion of US EPA 2013"))


def nitrite_limit_mg_n_l(salinity_g_kg: float) -> float:
    """Nitrite that may stand from day to day, mg N/L. salinity_g_kg: g/kg. Source: common practice.

    >>> round(nitrite_limit_mg_n_l(35.0), 3)
    1.522
    """
    return NITRITE_LIMIT_MG_N_L["fresh" if is_fresh(salinity_g_kg) else "salt"]


def ammonia_reach(ammonia_mg_n_l: float, ph: float, temperature_c: float, salinity_g_kg: float) -> float:
    """Ammonia as a share of its limit at this pH: over 1 is harmful.

    ammonia_mg_n_l: mg N/L; ph: any, taken within 4 to 10; temperature_c: °C; salinity_g_kg: g/kg.

    >>> round(ammonia_reach(0.5, 8.2, 26.0, 0.0), 3)
    2.199
    """
    return ammonia_mg_n_l / ammonia_limit_mg_n_l(min(max(ph, 4.0), 10.0), temperature_c, salinity_g_kg)[0]


@dataclass(frozen=True)
class Tolerance:
    """Temperature and pH ranges of the animals in the tank: °C and pH, None where unknown."""

    low_c: float | None = None
    high_c: float | None = None
    ph_low: float | None = None
    ph_high: float | None = None

    def too_cold(self, temperature_c: float) -> bool:
        """Whether the water is dangerously cold for them. temperature_c: °C."""
        return temperature_c < (ANY_LOW_C if self.low_c is None else self.low_c - COLD_MARGIN_C)

    def too_hot(self, temperature_c: float) -> bool:
        """Whether the water is dangerously warm for them. temperature_c: °C."""
        return temperature_c > (ANY_HIGH_C if self.high_c is None else self.high_c + HEAT_MARGIN_C)

    def too_acid(self, ph: float) -> bool:
        """Whether pH is dangerously low for them. ph: pH."""
        return ph < (ANY_PH_LOW if self.ph_low is None else min(ANY_PH_LOW, self.ph_low - PH_MARGIN))

    def too_alkaline(self, ph: float) -> bool:
        """Whether pH is dangerously high for them. ph: pH."""
        return ph > (ANY_PH_HIGH if self.ph_high is None else max(ANY_PH_HIGH, self.ph_high + PH_MARGIN))

    def turns_sour(self, ph: float, ph_was: float, kh_dkh: float) -> bool:
        """Whether alkalinity is used up and pH has fallen, so that it falls further.

        ph, ph_was: now and before; kh_dkh: dKH. Animals of soft water live without alkalinity.
        """
        soft = self.ph_high is not None and self.ph_high <= SOFT_PH
        return not soft and kh_dkh < SOUR_KH_DKH and ph_was - ph >= SOUR_FALL_PH
