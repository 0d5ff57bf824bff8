"""Tanks: shapes, volumes, levels, sumps, heating, evaporation."""

from reedmace.core.tank.evaporation import EvaporationAnswer, EvaporationQuestion, evaporation
from reedmace.core.tank.heater import HeaterAnswer, HeaterQuestion, StandsIn, heater_size
from reedmace.core.tank.sump import Drain, Sump, sump_of_body
from reedmace.core.tank.volume import TankVolumeAnswer, TankVolumeQuestion, tank_volume

__all__ = [
    "Drain",
    "EvaporationAnswer",
    "EvaporationQuestion",
    "HeaterAnswer",
    "HeaterQuestion",
    "StandsIn",
    "Sump",
    "TankVolumeAnswer",
    "TankVolumeQuestion",
    "evaporation",
    "heater_size",
    "sump_of_body",
    "tank_volume",
]
