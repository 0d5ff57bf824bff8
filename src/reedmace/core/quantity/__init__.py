"""Quantities: exact conversion factors, parsing of typed text, formatting in sentences."""

from reedmace.core.quantity.parsing import ReadQuantityAnswer, ReadQuantityQuestion, read_quantity
from reedmace.core.quantity.units import (
    CACO3_PER_DKH,
    CM_PER_INCH,
    L_PER_IMP_GAL,
    L_PER_US_GAL,
    NITROGEN_SHARE,
    as_nitrogen,
    as_ppm,
    celsius_to_kelvin,
    lph_to_m3s,
    m3s_to_lph,
    ppm_words,
    us_gallons,
)

__all__ = [
    "CACO3_PER_DKH",
    "CM_PER_INCH",
    "L_PER_IMP_GAL",
    "L_PER_US_GAL",
    "NITROGEN_SHARE",
    "ReadQuantityAnswer",
    "ReadQuantityQuestion",
    "as_nitrogen",
    "as_ppm",
    "celsius_to_kelvin",
    "lph_to_m3s",
    "m3s_to_lph",
    "ppm_words",
    "read_quantity",
    "us_gallons",
]
