"""Simulated devices, which use the same device interface as real ones."""

from reedmace.standins.devices import FlowMeter, Sender, SmartPlug
from reedmace.standins.other_tank import OtherTank
from reedmace.standins.water import ColourKit, PhProbe, SimulatedTank, Thermometer, usual_tank

__all__ = [
    "ColourKit",
    "FlowMeter",
    "OtherTank",
    "PhProbe",
    "Sender",
    "SimulatedTank",
    "SmartPlug",
    "Thermometer",
    "usual_tank",
]
