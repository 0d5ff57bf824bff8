"""Tanks: shapes, volumes, levels."""

from reedmace.core.tank.volume import TankVolumeAnswer, TankVolumeQuestion, tank_volume

__all__ = ["TankVolumeAnswer", "TankVolumeQuestion", "tank_volume"]
