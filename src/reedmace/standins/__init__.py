"""Simulated devices that ship with Reedmace: they speak the device interface as real ones would."""

from reedmace.standins.devices import FlowMeter, Sender, SmartPlug

__all__ = ["FlowMeter", "Sender", "SmartPlug"]
