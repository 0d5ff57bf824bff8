"""Animals: species, body mass, ration and the waste they make."""

from reedmace.core.stock.brood import BroodAnswer, BroodQuestion, brood
from reedmace.core.stock.growth import OutgrowAnswer, OutgrowQuestion, outgrow
from reedmace.core.stock.species import SPECIES, Species, body_mass_g
from reedmace.core.stock.waste_load import Animals, WasteLoadAnswer, WasteLoadQuestion, waste_load

__all__ = [
    "SPECIES",
    "Animals",
    "BroodAnswer",
    "BroodQuestion",
    "OutgrowAnswer",
    "OutgrowQuestion",
    "Species",
    "WasteLoadAnswer",
    "WasteLoadQuestion",
    "body_mass_g",
    "brood",
    "outgrow",
    "waste_load",
]
