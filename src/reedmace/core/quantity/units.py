"""Exact conversion factors. Internal units: SI, and nitrogen as mg N/L."""

from typing import Literal

L_PER_US_GAL = 3.785411784
L_PER_IMP_GAL = 4.54609
CM_PER_INCH = 2.54
M_PER_FT = 0.3048
KG_PER_LB = 0.45359237
CACO3_PER_DKH = 17.85
"""mg/L CaCO3 in one German degree (10 mg/L CaO; 17.848 from atomic masses, 17.85 in the trade)."""

_N, _H, _O = 14.007, 1.008, 15.999

Basis = Literal["N", "ion"]
Analyte = Literal["ammonia", "nitrite", "nitrate"]

NITROGEN_SHARE: dict[str, float] = {
    "NH3": _N / (_N + 3 * _H),
    "NH4": _N / (_N + 4 * _H),
    "NO2": _N / (_N + 2 * _O),
    "NO3": _N / (_N + 3 * _O),
}
"""Mass share of nitrogen in each form: one mg/L of the form times this is mg N/L."""

_ION_OF: dict[str, str] = {"ammonia": "NH4", "nitrite": "NO2", "nitrate": "NO3"}


def as_nitrogen(value_ppm: float, what: Analyte, basis: Basis) -> float:
    """mg N/L of a reading.

    value_ppm: the reading, mg/L on its own basis, 0 or more.
    what: which test.
    basis: "N" if the kit reads nitrogen already, "ion" if it reads the ion (NH4, NO2, NO3).
    Source: IUPAC atomic masses.
    """
    return value_ppm if basis == "N" else value_ppm * NITROGEN_SHARE[_ION_OF[what]]


def as_ppm(value_mg_n_l: float, what: Analyte, basis: Basis) -> float:
    """Reading of a kit on that basis, ppm: the inverse of `as_nitrogen`.

    value_mg_n_l: mg N/L, 0 or more; what, basis: as there.
    """
    return value_mg_n_l if basis == "N" else value_mg_n_l / NITROGEN_SHARE[_ION_OF[what]]


def ppm_words(value_mg_n_l: float, what: Analyte, basis: Basis) -> str:
    """The same in words as read off the kit: "0.5 ppm", or "0.39 ppm as N".

    value_mg_n_l: mg N/L, 0 or more; what, basis: as in `as_nitrogen`.
    """
    ppm = as_ppm(value_mg_n_l, what, basis)
    figure = f"{ppm:.0f}" if ppm >= 9.95 else f"{ppm:.2g}"
    return f"{figure} ppm{' as N' if basis == 'N' else ''}"


def lph_to_m3s(flow_lph: float) -> float:
    """Flow in m³/s. flow_lph: L/h.

    >>> round(lph_to_m3s(360.0), 7)
    0.0001
    """
    return flow_lph / 3.6e6


def m3s_to_lph(flow_m3s: float) -> float:
    """Flow in L/h. flow_m3s: m³/s.

    >>> round(m3s_to_lph(1e-4), 1)
    360.0
    """
    return flow_m3s * 3.6e6


def us_gallons(volume_l: float) -> float:
    """Volume in US gallons, exact. volume_l: L.

    >>> round(us_gallons(100.0), 2)
    26.42
    """
    return volume_l / L_PER_US_GAL


def celsius_to_kelvin(temperature_c: float) -> float:
    """Temperature in kelvin. temperature_c: °C.

    >>> round(celsius_to_kelvin(25.0), 2)
    298.15
    """
    return temperature_c + 273.15
