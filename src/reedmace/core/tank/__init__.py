"""Tanks: shapes, volumes, levels, sumps, skimmers, heating, evaporation."""

from reedmace.core.tank.evaporation import EvaporationAnswer, EvaporationQuestion, evaporation
from reedmace.core.tank.heater import HeaterAnswer, HeaterQuestion, StandsIn, heater_size
from reedmace.core.tank.skimmer import SkimmerSizeAnswer, SkimmerSizeQuestion, skimmer_size
from reedmace.core.tank.sump import Drain, Sump, sump_of_body
from reedmace.core.tank.usual_tank import UsualTankAnswer, UsualTankQuestion, usual_tank
from reedmace.core.tank.volume import TankVolumeAnswer, TankVolumeQuestion, tank_volume

__all__ = [
    "Drain",
    "EvaporationAnswer",
    "EvaporationQuestion",
    "HeaterAnswer",
    "HeaterQuestion",
    "SkimmerSizeAnswer",
    "SkimmerSizeQuestion",
    "StandsIn",
    "Sump",
    "TankVolumeAnswer",
    "TankVolumeQuestion",
    "UsualTankAnswer",
    "UsualTankQuestion",
    "evaporation",
    "heater_size",
    "skimmer_size",
    "sump_of_body",
    "tank_volume",
    "usual_tank",
]
