"""The sump of a tank: its water, level, drains, and free volume for the run-back."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from reedmace.core.contract import Part, number, whole
from reedmace.core.quantity import formatting

USUAL_LEVEL_CM = 20.0
"""Water level of a running sump over its foot, where unknown (memory)."""
BELOW_RIM_CM = 2.0
"""Smallest distance of the water from a sump's rim (common practice)."""
Chamber = Literal["socks", "foam", "media", "heater", "skimmer", "return"]
USUAL_CHAMBERS: tuple[Chamber, ...] = ("socks", "foam", "media", "heater", "return")


class Drain(Part):
    """One pipe down to the sump. An emergency drain is dry until the others fail."""

    bore_mm: Annotated[float, number("mm", 8, 110)] = 28
    emergency: bool = False


class Sump(Part):
    """A second tank below the first; inside sizes."""

    length_cm: Annotated[float, number("cm", 5, 500)]
    width_cm: Annotated[float, number("cm", 5, 300)]
    height_cm: Annotated[float, number("cm", 5, 200)]
    level_cm: Annotated[float, number("cm", 1, 200, "Water over its foot while it runs")] = USUAL_LEVEL_CM
    chambers: Annotated[list[Chamber], Field(max_length=8, description="In the order the water meets them")] = Field(
        default_factory=lambda: list(USUAL_CHAMBERS)
    )
    drains: Annotated[list[Drain], Field(min_length=1, max_length=6)] = Field(default_factory=lambda: [Drain()])
    weir_cm: Annotated[float, number("cm", 2, 500, "Length of edge the water falls over")] = 30
    socks_count: Annotated[int, whole(1, 12, "Where a chamber holds socks")] = 1
    sock_width_cm: Annotated[float, number("cm", 4, 40, "Across its ring")] = 18
    sock_length_cm: Annotated[float, number("cm", 5, 120)] = 40

    @model_validator(mode="after")
    def _holds_its_level(self) -> "Sump":
        if self.level_cm > self.height_cm - BELOW_RIM_CM:
            raise ValueError(
                f"the level of {formatting.cm(self.level_cm, 'g')} stands within {formatting.cm(BELOW_RIM_CM)} of"
                f" a sump {formatting.cm(self.height_cm, 'g')} high; give at most"
                f" {formatting.cm.bare(self.height_cm - BELOW_RIM_CM, 'g')}"
            )
        if all(d.emergency for d in self.drains):
            raise ValueError("a sump needs one drain that is not the emergency drain")
        return self

    @property
    def held_l(self) -> float:
        """Water while it runs, L."""
        return self.length_cm * self.width_cm * self.level_cm / 1000

    @property
    def open_m2(self) -> float:
        """Open water, m²."""
        return self.length_cm * self.width_cm / 1e4

    @property
    def last_chamber_m2(self) -> float:
        """Open water of the chamber with the pump, m²: equal chambers where unknown (memory)."""
        return self.open_m2 / max(len(self.chambers), 1)

    @property
    def free_l(self) -> float:
        """Free volume above that level, L."""
        return self.length_cm * self.width_cm * max(self.height_cm - BELOW_RIM_CM - self.level_cm, 0.0) / 1000


def sump_of_body(length_cm: float, width_cm: float, height_cm: float) -> Sump:
    """A sump of these sizes at the usual level, for a tank whose sump was never measured.

    length_cm, width_cm, height_cm: of its body.
    """
    level = min(USUAL_LEVEL_CM, max(height_cm * 0.5, 1.0))
    return Sump(
        length_cm=min(max(length_cm, 5), 500),
        width_cm=min(max(width_cm, 5), 300),
        height_cm=min(max(height_cm, 5), 200),
        level_cm=level,
    )
