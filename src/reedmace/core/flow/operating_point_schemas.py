"""What an operating point is asked for, and what it answers."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import (
    Answer,
    Celsius,
    Lph,
    NetLitres,
    Part,
    Question,
    Share,
    number,
    whole,
)
from reedmace.core.flow.materials import (
    FittingKind,
    MediaKind,
    fitting_k,
)


class CurvePoint(Part):
    """One point of a pump or plumbing curve."""

    flow_lph: Annotated[float, number("L/h", 0, 1e5)]
    head_m: Annotated[float, number("m", 0, 1e4)]


class Pump(Part):
    """A pump by two rated figures, or by the points of its curve if given (then they decide)."""

    max_flow_lph: Annotated[float, number("L/h", 10, 1e5, "Free flow: the figure on the box")]
    max_head_m: Annotated[float, number("m", 0.05, 30, "Head at which the flow stops")]
    curve: Annotated[
        list[CurvePoint], Field(max_length=20, description="At least three points, flow rising, head falling to 0")
    ] = Field(default_factory=list)
    speed_share: Annotated[float, number("share", 0.2, 1, "Of full speed")] = 1


class Hose(Part):
    """One length of hose."""

    bore_mm: Annotated[float, number("mm", 3, 110)]
    length_m: Annotated[float, number("m", 0, 50)]
    roughness_mm: Annotated[float, number("mm", 0, 1)] = 0.0015
    intake_share: Annotated[float, number("share", 0, 1, "Of its length that the water meets before the pump")] = 0


class Fitting(Part):
    """A number of equal fittings. Bore: the hose's unless given."""

    kind: FittingKind
    count: Annotated[int, whole(1, 50)] = 1
    bore_mm: Annotated[float, number("mm", 3, 110)] | None = None
    k: Annotated[float, number("K", 0, 1000, "Own resistance coefficient, instead of the table's")] | None = None
    holes_count: Annotated[int, whole(1, 200, "Of a spray bar; left out, as many as its bore usually has")] | None = (
        None
    )
    hole_mm: Annotated[float, number("mm", 0.5, 20, "Of a spray bar")] | None = None

    def k_on(self, bore_mm: float) -> float:
        """Loss coefficient of one such fitting on a bore, dimensionless. bore_mm: its hose's."""
        return fitting_k(self.kind, self.bore_mm or bore_mm, self.k, self.holes_count, self.hole_mm)


class Layer(Part):
    """One layer of media across the flow."""

    media: MediaKind
    area_cm2: Annotated[float, number("cm²", 1, 50000)]
    depth_cm: Annotated[float, number("cm", 0.1, 200)]


class OperatingPointQuestion(Question):
    """A pump and everything between it and the open water."""

    pump: Pump
    hoses: Annotated[list[Hose], Field(max_length=10)] = Field(default_factory=list)
    fittings: Annotated[list[Fitting], Field(max_length=30)] = Field(default_factory=list)
    media: Annotated[list[Layer], Field(max_length=12)] = Field(default_factory=list)
    rise_to_open_air_m: Annotated[
        float,
        number("m", 0, 30, "How far above the water line the water falls free. Zero when both ends are under water"),
    ] = 0
    temperature_c: Celsius = 25
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Food whose dirt the media catches")] = 3
    days_since_cleaning: Annotated[float, number("days", 0, 1000, "For the dirty figure")] = 60
    net_l: NetLitres | None = None


class HeadPart(Part):
    """Head lost in one part of the path at the clean flow."""

    role: Literal["rise", "hose", "fitting", "media"]
    part: str
    head_m: Annotated[float, number("m", 0, 1e4)]


class IntervalPoint(Part):
    """Flow a number of days after a cleaning."""

    day: Annotated[float, number("days", 0, 4000)]
    flow_lph: Annotated[float, number("L/h", 0, 1e5)]


class OperatingPointAnswer(Answer):
    """Clean and dirty flow, where the head goes, and the curves to draw."""

    status: Literal["delivers", "cannot-reach"]
    delivered_lph: Annotated[float, number("L/h", 0, 1e5, "Clean")]
    dirty_lph: Annotated[float, number("L/h", 0, 1e5)]
    box_lph: Lph
    lost_share: Share
    head_m: Annotated[float, number("m", 0, 1e4)]
    short_by_m: Annotated[float, number("m", 0, 30, "How much more head the pump would need to reach the outlet")]
    turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)] | None
    dirty_turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)] | None
    head_budget: list[HeadPart]
    interval: list[IntervalPoint]
    pump_curve: list[CurvePoint]
    plumbing_clean: list[CurvePoint]
    plumbing_dirty: list[CurvePoint]
