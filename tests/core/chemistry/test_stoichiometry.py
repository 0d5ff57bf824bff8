"""Alkalinity and nitrogen by equivalent masses."""

import pytest

from reedmace.core.chemistry.stoichiometry import ALKALINITY_PER_N, BASE_PER_N, N_IN_NH4CL

N, CACO3 = 14.007, 100.086


def test_nitrifying_a_mole_takes_two_equivalents_and_ammonia_brings_one() -> None:
    # 2 HCO3- for each NH4+ oxidised, one equivalent being half a mole of CaCO3.
    assert pytest.approx(2 * CACO3 / 2 / N, rel=2e-3) == ALKALINITY_PER_N
    assert pytest.approx(CACO3 / 2 / N, rel=1e-3) == BASE_PER_N


def test_ammonium_chloride_is_a_quarter_nitrogen() -> None:
    assert pytest.approx(14.007 / 53.49, rel=1e-3) == N_IN_NH4CL
