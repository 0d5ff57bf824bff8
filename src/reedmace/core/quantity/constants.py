"""Physical constants used in several packages."""

G = 9.80665
"""Standard gravity, m/s² (exact, by definition)."""
WATER_KG_M3 = 998.0
"""Density of fresh water near 20 °C."""
AIR_KG_M3, AIR_NU = 1.2, 1.5e-5
"""Density and kinematic viscosity (m²/s) of air near 20 °C."""
DAYS_PER_YEAR = 365.25
DAYS_PER_MONTH = DAYS_PER_YEAR / 12
"""Means of the Julian calendar."""
KWH_PER_WATT_YEAR = 24 * DAYS_PER_YEAR / 1000
"""Energy one watt uses in a year, kWh."""
