"""Fitting steps of a filter and the sizes they mention, with the cautions they repeat."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.filter.kind_parts.media_path import MediaPath, Priming
from reedmace.core.quantity import formatting

UNPLUG = "Unplug before hands go in or a lid comes off."
WIRING = (
    "Drip loop in the cable, plug above any spill, residual-current protection. Local codes and a licensed electrician"
    " decide for wiring."
)
WASH = "Wash hands before and after."


class StepFacts(Part):
    """Sizes the fitting steps mention, as planned."""

    filter_height_cm: Annotated[float, number("cm", 1, 200)] = 20
    body_l: Annotated[float, number("L", 0.05, 2000, "What the body holds at the most")] = 100
    water_depth_cm: Annotated[float, number("cm", 1, 300)] = 35
    rim_to_water_cm: Annotated[float, number("cm", 0, 100)] = 3
    media_l: Annotated[float, number("L", 0, 500)] = 1
    media_path: MediaPath = "bottom-up"
    priming: Priming = "fill"
    hose_bore_mm: Annotated[float, number("mm", 3, 110)] | None = None
    hose_length_m: Annotated[float, number("m", 0.2, 50)] | None = None
    intake_depth_cm: Annotated[float, number("cm", 0, 300)] | None = None
    outlet_depth_cm: Annotated[float, number("cm", -100, 300)] = 2
    uplift_cm: Annotated[float, number("cm", 0, 300, "Longest uplift from the bed that stays under")] | None = None
    turning_wheel: bool = False
    bar_tilts: bool = False
    mid_strainer: bool = False
    pump_wet: bool = True
    needs_guard: bool = False
    behind_cm: Annotated[float, number("cm", 0, 300)] = 10
    check_valve: bool = True

    def filling_l(self, share_of_media: float) -> float:
        """Water that fills the body, L: a multiple of its media, at most its volume. share_of_media: the multiple."""
        return min(self.media_l * share_of_media, self.body_l)

    @property
    def hose_plan(self) -> str:
        """Words for the hose that is planned; empty when none is."""
        if not (self.hose_length_m and self.hose_bore_mm):
            return ""
        return f"{formatting.metres(self.hose_length_m)} of {formatting.mm(self.hose_bore_mm)} hose is planned; "

    @property
    def reach_cm(self) -> float:
        """Depth of the strainer, cm: as drawn, or three fifths of the water (common practice)."""
        return self.intake_depth_cm if self.intake_depth_cm is not None else self.water_depth_cm * 0.6


class Step(Part):
    """One step. `id` is stable, so a tick keeps its meaning when the plan changes."""

    id: Name
    title: str
    detail: str
    caution: str | None = None
    normal: str | None = None
    fault: str | None = None
    wait_minutes: Annotated[int, whole(0, 3000, "Wait before the next step")] = 0
    look_at: Name | None = Field(
        default=None, description="Role of a part of the fitting plan to find on the drawing and confirm"
    )
    after: list[Name] = Field(default_factory=list, description="Steps that must be done before this one")
