"""Species data, read once from the table beside this file."""

import json
from collections.abc import Iterable
from importlib import resources
from typing import Annotated, Literal

from pydantic import Field, model_validator

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.errors import CannotAnswer

BodyForm = Literal[
    "eel", "elongated", "slender", "fusiform", "short", "globe", "shrimp", "snail", "tall snail", "axolotl", "turtle"
]
Water = Literal["fresh", "brackish", "salt"]
Company = Literal["any", "alone", "pair", "group"]
Temper = Literal["peaceful", "nips", "hunts"]
Sizing = Literal["gentle", "community", "messy", "cichlid", "turtle", "goldfish"]

_FORM: dict[str, tuple[float, float, str]] = {
    # a, b of W[g] = a L^b, L in cm. Fishes: Froese, Thorson and Reyes 2014 (from memory). The rest: memory.
    "eel": (0.00102, 3.06, "froese2014"),
    "elongated": (0.00389, 3.12, "froese2014"),
    # Danios, guppies, pencilfish: between elongated and fusiform; a 4 cm danio weighs 0.6 g (memory).
    "slender": (0.0085, 3.06, "memory"),
    "fusiform": (0.0112, 3.04, "froese2014"),
    "short": (0.0190, 3.01, "froese2014"),
    # Egg-shaped goldfish and puffers (memory).
    "globe": (0.0280, 3.0, "memory"),
    "shrimp": (0.0120, 3.0, "memory"),
    "snail": (0.15, 3.0, "memory"),
    # Trumpet-shaped shells, measured from tip to mouth (memory).
    "tall snail": (0.045, 3.0, "memory"),
    "axolotl": (0.0090, 3.0, "memory"),
    "turtle": (0.14, 2.95, "memory"),
}


class Species(Part):
    """One species or group. `figures` names the source of its figures."""

    id: Name
    common_name: Name
    scientific_name: Name
    group: Name
    adult_length_cm: Annotated[float, number("cm", 0.5, 200)]
    body_form: BodyForm
    ration_percent_day: Annotated[float, number("% of body mass per day", 0, 20)]
    protein_percent: Annotated[float, number("%", 0, 90)]
    temperature_low_c: Annotated[float, number("°C", 0, 40)]
    temperature_high_c: Annotated[float, number("°C", 0, 40)]
    ph_low: Annotated[float, number("pH", 4, 10)]
    ph_high: Annotated[float, number("pH", 4, 10)]
    hardness_low_dgh: Annotated[float, number("dGH", 0, 60)] = 0
    hardness_high_dgh: Annotated[float, number("dGH", 0, 60)] = 60
    swims: Literal["top", "middle", "bottom"]
    current: Literal["gentle", "moderate", "strong"]
    needs_guard: bool
    sizing: Sizing
    company: Company = "any"
    together: Annotated[int, whole(1, 100, "The fewest kept together: 1 alone, 2 a pair, more in a group")] = 1
    temper: Temper = "peaceful"
    long_fins: bool = False
    known_as: Annotated[list[Name], Field(max_length=8)] = Field(default_factory=list)
    water: Water = "fresh"
    water_breathing_share: Annotated[
        float, number("share", 0, 1, "Of its oxygen from the water; the rest is breathed as air (memory)")
    ] = 1.0
    figures: Annotated[str, Field(max_length=300)] = "your own figures"

    @model_validator(mode="after")
    def _ranges_rise(self) -> "Species":
        if any(
            low > high
            for low, high in (
                (self.temperature_low_c, self.temperature_high_c),
                (self.ph_low, self.ph_high),
                (self.hardness_low_dgh, self.hardness_high_dgh),
            )
        ):
            raise ValueError("the lower end of a range stands above its upper end; swap them")
        return self


def _read() -> dict[str, Species]:
    text = resources.files(__package__).joinpath("species.json").read_text(encoding="utf-8")
    return {row["id"]: Species(**row) for row in json.loads(text)}


SPECIES: dict[str, Species] = _read()


def find_species(species_id: str, where: str, own: Iterable[Species] = ()) -> Species:
    """The species of that id.

    species_id: an id of the table or of `own`; where: the field to name in the error; own: the keeper's own species,
    which stand before the table's.
    Raises CannotAnswer when there is none.
    """
    found = next((s for s in own if s.id == species_id), None) or SPECIES.get(species_id)
    if found is None:
        raise CannotAnswer(
            where, f'there is no species "{species_id}".', "GET /api/compute lists them, or describe it in own_species."
        )
    return found


def body_mass_g(length_cm: float, body_form: BodyForm) -> float:
    """Body mass in g of one animal.

    length_cm: total length, 0.5 to 200 cm (a turtle's shell, a snail's shell).
    body_form: which coefficients.
    A 10 cm fusiform fish: 12.3 g. Source: Froese, Thorson and Reyes 2014; non-fishes from memory.
    """
    a, b, _ = _FORM[body_form]
    return float(a * length_cm**b)


def mass_source(body_form: BodyForm) -> str:
    """Key of the source behind the coefficients of `body_form`."""
    return _FORM[body_form][2]
