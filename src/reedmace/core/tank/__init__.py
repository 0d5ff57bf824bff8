"""Tanks: shapes, volumes, levels, sumps."""

from reedmace.core.tank.sump import Drain, Sump, sump_of_body
from reedmace.core.tank.volume import TankVolumeAnswer, TankVolumeQuestion, tank_volume

__all__ = ["Drain", "Sump", "TankVolumeAnswer", "TankVolumeQuestion", "sump_of_body", "tank_volume"]
