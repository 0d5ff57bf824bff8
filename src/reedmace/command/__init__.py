"""The command line, run by ./reedmace."""

STANDINS = ("flow-meter", "smart-plug", "test-kit", "thermometer", "ph-probe")
"""Devices that `standin` can simulate."""
