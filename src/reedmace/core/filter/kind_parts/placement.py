"""Placement of a filter's parts in the front view: layout, hose runs, marks and their faults."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Issue, Part, number
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.flow.airlift import uplift_cut_cm
from reedmace.core.tank.evaporation import TANK_DROP_CM

OVER_RIM_CM = 6.0
FROM_BED_CM = 5.0
APART_SHARE = 0.3
AIR_LOOP_CM = 15.0
"""Clearances of a usual fitting (common practice)."""

RunRole = Literal["intake-hose", "return-hose", "drain", "air-line"]
PartRole = Literal["intake", "outlet", "tap", "body", "sump", "overflow", "filter", "air-pump", "socket"]


class Place(Part):
    """A point of the front view."""

    x_cm: Annotated[float, number("cm", -500, 2000)]
    y_cm: Annotated[float, number("cm", -100, 1000)]


class Layout(Part):
    """Positions set by the keeper; a field left out uses the default position."""

    intake_x_cm: Annotated[float, number("cm", 0, 1000)] | None = None
    outlet_x_cm: Annotated[float, number("cm", 0, 1000)] | None = None
    body_x_cm: Annotated[float, number("cm", -200, 1200)] | None = None
    intake_depth_cm: Annotated[float, number("cm", 0, 300, "Strainer below the water line")] | None = None
    outlet_depth_cm: Annotated[float, number("cm", -100, 300, "Outlet below the water line; under 0 above it")] = 2
    tap_above_water_cm: Annotated[float, number("cm", -200, 200, "Flow tap or valve of the outlet")] = 6
    air_pump_above_water_cm: Annotated[float, number("cm", -200, 200)] = 10
    check_valve: bool = True
    drip_loop: bool = True
    socket_x_cm: Annotated[float, number("cm", -500, 1500)] | None = None
    socket_height_cm: Annotated[float, number("cm", 0, 300)] = 30
    hose: Literal["plain", "ribbed"] = "plain"
    outlet_to_glass: bool = Field(default=False, description="Turned against the glass, to take its force")
    siphon_break: bool = Field(default=False, description="A small hole in the return just under the surface")


@dataclass(frozen=True)
class ResolvedLayout:
    """A filter on its tank with all layout defaults resolved; lengths in cm, y from the floor."""

    filter: Filter
    site: Site
    plumbing: Plumbing
    lay: Layout
    bottom: float
    rim: float
    water: float
    bed: float
    outlet_x: float
    body_x: float
    intake_x: float
    intake_depth: float
    socket_x: float
    foot: float
    top: float
    bend: float
    run_back_l: float
    sump_free_l: float

    @property
    def length(self) -> float:
        """Inside length of the tank, cm."""
        return self.site.length_cm

    @property
    def uplift_cm(self) -> float:
        """Longest uplift from the bed whose outlet stays under water after evaporation, cm."""
        return max(uplift_cut_cm(self.water - self.bed, TANK_DROP_CM), 1.0)

    @property
    def returned_cm(self) -> float:
        """Fall of the water through a return before air gets in, cm: to the siphon break, if there is one."""
        return 1.0 if self.lay.siphon_break else max(self.lay.outlet_depth_cm, 0.0)


@dataclass(frozen=True)
class RunDraft:
    """One hose or line by its corners, cm; bend: its tightest radius, cm."""

    role: RunRole
    name: str
    points: list[tuple[float, float]]
    bend: float


@dataclass(frozen=True)
class PartMark:
    """One part in the front view."""

    role: PartRole
    name: str
    x: float
    y: float


class PlacedIssue(Issue):
    """A fault of a plan. `where` names the part or run, `at` is its place."""

    where: PartRole | RunRole
    at: Place


def issue_at(where: PartRole | RunRole, x: float, y: float, what: str, remedy: str) -> PlacedIssue:
    """A fault of a plan. where: part or run; x, y: its place, cm; what: is wrong; remedy: what solves it."""
    return PlacedIssue(where=where, at=Place(x_cm=x, y_cm=y), what=what, remedy=remedy)
