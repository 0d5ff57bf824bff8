"""One filter as its box and a ruler describe it."""

from itertools import pairwise
from typing import Annotated

from pydantic import Field, model_validator

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.filter.kind_parts.media_path import MediaPath, Priming
from reedmace.core.filter.kind_parts.traits import KindName, kind_traits
from reedmace.core.filter.site.noise import step_of
from reedmace.core.flow.operating_point_schemas import CurvePoint


class Filter(Part):
    """One filter as its box and a ruler describe it. What does not apply to its kind is null."""

    id: Name
    name: Name
    kind: KindName
    box_lph: Annotated[float, number("L/h", 10, 1e5)]
    pumps_share: Annotated[float, number("share", 0.3, 2, "Of its box's flow that its pump moves without any lift")] = 1
    max_head_m: Annotated[float, number("m", 0.05, 30)] | None = None
    curve: Annotated[
        list[CurvePoint],
        Field(max_length=8, description="Points the maker gives; then they decide, not the two box figures"),
    ] = Field(default_factory=list)
    air_l_min: Annotated[float, number("L/min", 0.05, 60)] | None = None
    tube_bore_mm: Annotated[float, number("mm", 6, 110, "Lift tube or intake stem")] | None = None
    hose_bore_mm: Annotated[float, number("mm", 6, 110)] | None = None
    face_cm2: Annotated[float, number("cm²", 10, 50000, "Face of the first medium")]
    foam_depth_cm: Annotated[float, number("cm", 0.5, 60)] = 5
    media_l: Annotated[float, number("L", 0, 500)]
    media_path: MediaPath = "bottom-up"
    height_cm: Annotated[float, number("cm", 1, 200)]
    width_cm: Annotated[float, number("cm", 1, 300)]
    depth_cm: Annotated[float, number("cm", 1, 200)]
    priming: Priming = Field(default="fill", description="How a canister gets its first water")
    behind_cm: Annotated[float, number("cm", 0, 100, "Room a hang-on needs behind the tank")] = 0
    lip_cm: Annotated[float, number("cm", 0, 30, "Height of a hang-on's spill lip above a full water line")] = 0
    wheel_m2: Annotated[
        float, number("m²", 0, 10, "Film on a turning wheel in the box, which no change of media takes away")
    ] = 0
    mid_strainer: bool = Field(default=False, description="A second inlet half-way up the intake that can be opened")
    bar_tilts: bool = Field(default=False, description="The bar over the wheel is turned up while the box fills")
    pump_in_water: bool | None = Field(
        default=None, description="Whether the motor stands in the water; left out, as is usual for its kind"
    )
    skimmer: bool = Field(default=False, description="A foam column for salt water built in")
    watts: Annotated[float, number("W", 0.1, 2000)]
    noise: Annotated[int, whole(1, 5, "1 hardly heard, 5 loud")]
    noise_db: Annotated[float, number("dB", 5, 80, "At a metre, as its box or a meter says: it decides")] | None = None
    price: Annotated[float, number("money", 0, 1e5)]
    price_known: bool = Field(default=True, description="False where nobody has named one: then it only compares")
    tank_up_to_l: Annotated[float, number("L", 1, 1e5)]
    restarts_alone: bool = True
    salt_water: bool = True
    chemical_media: bool = True

    @property
    def noise_step(self) -> float:
        """Step of its sound, 1 and up: by its level in dB where one is known."""
        return float(self.noise) if self.noise_db is None else step_of(self.noise_db)

    @property
    def air(self) -> bool:
        """Whether it is driven by air."""
        return self.air_l_min is not None

    @property
    def pump_wet(self) -> bool:
        """Whether its motor stands in the water (quieter, never runs dry); by its kind where the box does not say."""
        if self.pump_in_water is not None:
            return self.pump_in_water
        usual = kind_traits()[self.kind].pump_in_water
        return usual == "yes" or (usual == "as-built" and self.restarts_alone)

    @property
    def body_l(self) -> float:
        """Largest volume its body can hold, L, by its outside."""
        return self.height_cm * self.width_cm * self.depth_cm / 1000

    @model_validator(mode="after")
    def _has_an_engine(self) -> "Filter":
        if self.air_l_min is not None and self.tube_bore_mm is None:
            raise ValueError("an air-driven filter needs tube_bore_mm; give the lift tube's bore")
        if kind_traits()[self.kind].needs_air and self.air_l_min is None:
            raise ValueError(
                f"a {kind_traits()[self.kind].title.lower()} filter needs air_l_min and tube_bore_mm; give the air"
                " pump's flow and the lift tube's bore"
            )
        if self.air_l_min is None and self.max_head_m is None:
            raise ValueError("a pumped filter needs max_head_m, the highest lift on its box")
        points = self.curve
        if points and (
            len(points) < 3
            or points[0].flow_lph != 0
            or points[-1].head_m != 0
            or any(a.flow_lph >= b.flow_lph or a.head_m <= b.head_m for a, b in pairwise(points))
        ):
            raise ValueError(
                "the curve needs three points or more, from no flow to no head, flow rising and head falling"
            )
        return self
