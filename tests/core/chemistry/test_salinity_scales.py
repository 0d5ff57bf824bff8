"""Salinity on every scale, beside TEOS-10 and PSS-78 of gsw, there and back."""

import gsw
import pytest

from reedmace.core.chemistry.salinity_scales import (
    conductivity_ms_cm,
    practical_salinity,
    salinity_of_gravity,
    sea_density_kg_m3,
    specific_gravity,
)
from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer

WATERS = [(s, t) for s in (5.0, 18.0, 30.0, 35.0, 40.0) for t in (10.0, 20.0, 25.0, 30.0)]


@pytest.mark.parametrize(("salinity", "warmth"), WATERS)
def test_conductivity_is_that_of_gsw_both_ways(salinity: float, warmth: float) -> None:
    theirs = gsw.C_from_SP(salinity, warmth, 0)
    # gsw takes ITS-90, PSS-78 was written for IPTS-68, two parts in ten thousand apart.
    assert conductivity_ms_cm(salinity, warmth) == pytest.approx(theirs, rel=3e-4)
    assert practical_salinity(theirs, warmth) == pytest.approx(salinity, rel=5e-4)


@pytest.mark.parametrize(("salinity", "warmth"), WATERS)
def test_density_is_that_of_gsw(salinity: float, warmth: float) -> None:
    absolute = gsw.SA_from_SP(salinity, 0, 0, 45)
    assert sea_density_kg_m3(salinity, warmth) == pytest.approx(gsw.rho_t_exact(absolute, warmth, 0), abs=0.06)


@pytest.mark.parametrize(("salinity", "warmth"), WATERS)
def test_a_hydrometer_is_read_back(salinity: float, warmth: float) -> None:
    gravity = specific_gravity(salinity, warmth)
    assert salinity_of_gravity(gravity, warmth) == pytest.approx(salinity, abs=1e-6)


def test_the_sea_is_the_sea_on_every_scale() -> None:
    for read, scale in ((35.0, "g/kg"), (1.02637, "specific gravity"), (53.065, "mS/cm")):
        answer = compute("salinity-scales", {"read_on_scale": read, "scale": scale})
        assert answer.salinity_g_kg == pytest.approx(35, abs=0.05)
        assert answer.specific_gravity_ratio == pytest.approx(1.0264, abs=1e-4)
        assert answer.conductivity_ms_cm == pytest.approx(53.07, abs=0.1)
        assert answer.water == "marine"


def test_fresh_water_is_nothing_on_every_scale() -> None:
    answer = compute("salinity-scales", {"read_on_scale": 0})
    assert (answer.water, answer.conductivity_ms_cm) == ("fresh", 0)
    assert salinity_of_gravity(0.9995, 25) == 0


@pytest.mark.parametrize(
    "question",
    [
        {"read_on_scale": 1.2, "scale": "specific gravity"},
        {"read_on_scale": 0.9, "scale": "specific gravity"},
        {"read_on_scale": 100},
        {"read_on_scale": 110, "scale": "mS/cm"},
    ],
)
def test_what_no_tank_holds_is_refused(question: dict) -> None:
    with pytest.raises(CannotAnswer):
        compute("salinity-scales", question)
