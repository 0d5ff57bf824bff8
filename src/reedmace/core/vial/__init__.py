"""Test vials read from a picture beside the kit's own card."""

from reedmace.core.vial.vial_reading import CardStep, Pixel, VialAnswer, VialQuestion, vial_reading

__all__ = ["CardStep", "Pixel", "VialAnswer", "VialQuestion", "vial_reading"]
