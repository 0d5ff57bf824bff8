"""Water chemistry: ammonia and its toxic share, doses, alkalinity, water changes."""

from reedmace.core.chemistry.alkalinity_dose import AlkalinityDoseAnswer, AlkalinityDoseQuestion, alkalinity_dose
from reedmace.core.chemistry.ammonia import (
    UnIonisedAnswer,
    UnIonisedQuestion,
    acute_criterion_mg_n_l,
    chronic_criterion_mg_n_l,
    pka_fresh,
    un_ionised_ammonia,
    un_ionised_share,
)
from reedmace.core.chemistry.ammonia_dose import AmmoniaDoseAnswer, AmmoniaDoseQuestion, AmmoniaProduct, ammonia_dose
from reedmace.core.chemistry.dissolved_co2 import DissolvedCo2Answer, DissolvedCo2Question, dissolved_co2
from reedmace.core.chemistry.kh_titration import kh_titration
from reedmace.core.chemistry.oxygen import (
    OxygenSaturationAnswer,
    OxygenSaturationQuestion,
    oxygen_saturation,
    oxygen_saturation_mg_l,
)
from reedmace.core.chemistry.salinity_scales import SalinityScalesAnswer, SalinityScalesQuestion, salinity_scales
from reedmace.core.chemistry.stoichiometry import ALKALINITY_PER_N, BASE_PER_N
from reedmace.core.chemistry.tap_fit import tap_fit
from reedmace.core.chemistry.water_change import WaterChangeAnswer, WaterChangeQuestion, water_change
from reedmace.core.chemistry.water_speciation import (
    WaterSpeciationAnswer,
    WaterSpeciationQuestion,
    water_speciation,
)

__all__ = [
    "ALKALINITY_PER_N",
    "BASE_PER_N",
    "AlkalinityDoseAnswer",
    "AlkalinityDoseQuestion",
    "AmmoniaDoseAnswer",
    "AmmoniaDoseQuestion",
    "AmmoniaProduct",
    "DissolvedCo2Answer",
    "DissolvedCo2Question",
    "OxygenSaturationAnswer",
    "OxygenSaturationQuestion",
    "SalinityScalesAnswer",
    "SalinityScalesQuestion",
    "UnIonisedAnswer",
    "UnIonisedQuestion",
    "WaterChangeAnswer",
    "WaterChangeQuestion",
    "WaterSpeciationAnswer",
    "WaterSpeciationQuestion",
    "acute_criterion_mg_n_l",
    "alkalinity_dose",
    "ammonia_dose",
    "chronic_criterion_mg_n_l",
    "dissolved_co2",
    "kh_titration",
    "oxygen_saturation",
    "oxygen_saturation_mg_l",
    "pka_fresh",
    "salinity_scales",
    "tap_fit",
    "un_ionised_ammonia",
    "un_ionised_share",
    "water_change",
    "water_speciation",
]
