"""Constants against one another."""

import pytest

from reedmace.core.quantity.constants import AIR_KG_M3, AIR_NU, DAYS_PER_MONTH, KWH_PER_WATT_YEAR, G


def test_a_watt_makes_nearly_nine_kilowatt_hours_a_year() -> None:
    assert pytest.approx(8.766) == KWH_PER_WATT_YEAR
    assert 12 * DAYS_PER_MONTH == 365.25


def test_gravity_and_air_are_in_si() -> None:
    assert G == 9.80665
    # Dynamic viscosity of air near 20 °C is 1.8e-5 Pa s.
    assert pytest.approx(1.8e-5, rel=0.02) == AIR_KG_M3 * AIR_NU
