"""What a kind of filter is: one record a kind, holding every rule that differs by kind, so that no other module names one.

A kind's file fills a `Kind` in. The parts a record is made of (steps, limits, places, mishaps, purchases) stand here; the
drivers that turn them into answers stand in `filter` and `fit`.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.contract import Issue, Name, Part, number, whole

if TYPE_CHECKING:
    from reedmace.core.contract import Working
    from reedmace.core.filter.catalogue import Filter
    from reedmace.core.filter.room import Plumbing, Room
    from reedmace.core.filter.table import FilterTable

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

MediaPath = Literal["bottom-up", "top-down", "ring-then-down", "columns", "front-to-back", "through-foam", "chambers"]
PATH_WORDS: dict[MediaPath, str] = {
    "bottom-up": "Water rises: the first medium lies lowest.",
    "top-down": "Water falls: the first medium lies on top.",
    "ring-then-down": "Water goes through the outer foam ring first, then down through the middle.",
    "columns": "Water goes down one column and up the other: the first medium heads the first column.",
    "front-to-back": "Water goes from front to back: the first medium stands in front.",
    "through-foam": "Water enters through the foam from all sides.",
    "chambers": "Water goes from chamber to chamber: the first medium is where the drain comes down.",
}
COARSE_PLACE: dict[MediaPath, str] = {
    "bottom-up": "lowest",
    "top-down": "on top",
    "ring-then-down": "in the outer ring",
    "columns": "at the head of the first column",
    "front-to-back": "in front",
    "through-foam": "outermost",
    "chambers": "where the drain comes down",
}
"""Where the coarse foam goes in each path: where the water comes in."""
Priming = Literal["fill", "button", "self"]

EVAPORATION_CM = 2.0
"""How far the water may fall between top-ups (common practice)."""
UPLIFT_SPARE_CM = 1.0
"""And an uplift's outlet stays so far under even then (common practice)."""
OVER_RIM_CM = 6.0
FROM_BED_CM = 5.0
APART_SHARE = 0.3
AIR_LOOP_CM = 15.0
"""Clearances of a usual fitting (common practice)."""
UNPLUG = "Unplug before hands go in or a lid comes off."
WIRING = "Drip loop in the cable, plug above any spill, residual-current protection. Local codes and a licensed electrician decide for wiring."
WASH = "Wash hands before and after."


class Place(Part):
    """A point of the front view."""

    x_cm: Annotated[float, number("cm", -500, 2000)]
    y_cm: Annotated[float, number("cm", -100, 1000)]


class Layout(Part):
    """Where the keeper puts the parts. What is left out goes where it usually does."""

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


class StepFacts(Part):
    """The sizes the fitting steps speak of, as the plan has them."""

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
        """Water that fills the body, L: so many times its media, and never more than it holds. share_of_media: times."""
        return min(self.media_l * share_of_media, self.body_l)


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


class PowerCut(Part):
    """What a power cut does to this kind of filter."""

    minute: str
    hour: str
    night: str
    on_return: str


@dataclass(frozen=True)
class Limit:
    """One limit over n filters: which break it, what it says of one, what mends it, and which single input would."""

    broken: Bools
    reason: Callable[[int], str]
    remedy: Callable[[int], str]
    key: str | None = None
    """The input of the room that mends it alone, None where no single one does."""
    need: Floats | None = None
    """The value of that input each filter needs (n,)."""


@dataclass(frozen=True)
class Ground:
    """A filter on its tank with every default of its layout worked out; lengths in cm, y from the floor."""

    filter: Filter
    room: Room
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
        return self.room.length_cm

    @property
    def uplift_cm(self) -> float:
        """Longest uplift from the bed whose outlet stays under after evaporation, cm."""
        return max(self.water - EVAPORATION_CM - UPLIFT_SPARE_CM - self.bed, 1.0)

    @property
    def returned_cm(self) -> float:
        """How far the water falls back through a return before air gets in, cm: to the siphon break, if there is one."""
        return 1.0 if self.lay.siphon_break else max(self.lay.outlet_depth_cm, 0.0)


RunRole = Literal["intake-hose", "return-hose", "drain", "air-line"]
PartRole = Literal["intake", "outlet", "tap", "body", "sump", "overflow", "filter", "air-pump", "socket"]


@dataclass(frozen=True)
class RunDraft:
    """One hose or line by its corners, cm; bend: its tightest radius, cm."""

    role: RunRole
    name: str
    points: list[tuple[float, float]]
    bend: float


@dataclass(frozen=True)
class Mark:
    """One part on the section."""

    role: PartRole
    name: str
    x: float
    y: float


class PlacedIssue(Issue):
    """One thing wrong with a plan. `where` names the part or run, `at` is its place."""

    where: PartRole | RunRole
    at: Place


def issue_at(where: PartRole | RunRole, x: float, y: float, what: str, remedy: str) -> PlacedIssue:
    """An issue of a plan. where: part or run; x, y: its place, cm; what: is wrong; remedy: what mends it."""
    return PlacedIssue(where=where, at=Place(x_cm=x, y_cm=y), what=what, remedy=remedy)


@dataclass(frozen=True)
class Purchase:
    """One thing a fitting takes. `unit` "cm" is cut to size; whole lengths are bought."""

    item: str
    amount: float
    unit: Literal["piece", "cm"]
    how: str
    need: Literal["needed", "wise", "spare"] = "needed"


@dataclass(frozen=True)
class MishapDraft:
    """One thing that can happen: how far the level falls (cm), through what bore (mm), and how much is caught (L)."""

    code: str
    what: str
    depth_cm: float
    why: str
    prevention: str
    bore_mm: float | None = None
    keeps_l: float = 0.0


@dataclass(frozen=True)
class Judgements:
    """Where nothing can be computed: stated judgements from 0 to 1 (common practice)."""

    easy_clean: float
    clear_water: float
    hidden: float
    flood_safety: float
    expandable: float


@dataclass(frozen=True)
class Worn:
    """A part that wears: what it is, how long it usually lasts in days (memory), how its end shows."""

    part: str
    days: float
    shows: str


@dataclass(frozen=True)
class Care:
    """How a kind is cleaned: each step in its order, the film one cleaning touches, the minutes it takes (memory)."""

    title: str
    share: float
    """Of its own film, the most that is touched at one time (common practice)."""
    minutes: float
    steps: tuple[Step, ...]
    worn: tuple[Worn, ...] = ()
    holds_film: bool = True
    """Whether what is cleaned is the film's home, so that it rests a fortnight from the next."""


def care_steps(prefix: str, *steps: tuple[str, str, str] | tuple[str, str, str, str]) -> tuple[Step, ...]:
    """Cleaning steps one after the other, each locked until the one before is done.

    prefix: of their ids; steps: (id, title, detail) or with a caution as the fourth.
    """
    found: list[Step] = []
    for one in steps:
        found.append(
            Step(
                id=f"{prefix}-care-{one[0]}",
                title=one[1],
                detail=one[2],
                caution=one[3] if len(one) > 3 else None,
                after=[found[-1].id] if found else [],
            )
        )
    return tuple(found)


def _none(*_: object) -> list[str]:
    return []


@dataclass(frozen=True)
class Kind:
    """One kind of filter. Callables take the filter or the ground they judge."""

    name: str
    title: str
    order: int
    prefix: str
    """Of its step ids."""
    service_days: float
    """Usual days between cleanings (common practice)."""
    rise: Literal["none", "lip", "outlet", "return"]
    """Where the water is lifted to open air: nowhere, a lip above the water, an outlet held above it, a return from below."""
    loop_words: Callable[[float, float], str]
    """What that means, from the rise (m) and the outlet's height above the water (cm)."""
    hosed: bool
    """Whether hoses and the keeper's fittings make its path."""
    own_k: float
    """Resistance of its own strainer, stem or grate where it is not hosed (memory)."""
    stemmed: bool
    """Whether its intake is a stem down from the rim."""
    media_in_path: bool
    """Whether the pump pushes through the media; a sump's water falls through them."""
    outlet: Literal["bar-or-nozzle", "lip", "nozzle", "bubbles"]
    needs_air: bool
    closed: bool
    """Whether it is a closed body, airless within hours when it stands."""
    in_tank: bool
    """Whether it takes room in the water."""
    pump_in_water: Literal["yes", "no", "as-built"]
    """As built: where it restarts by itself, its pump stands in the water."""
    may_pair: bool
    on_rim: bool
    fill_most: float
    """Most of its media room that may be filled (common practice)."""
    judged: Judgements
    power_cut: PowerCut
    proofs: tuple[tuple[str, str], ...]
    """Ways its flow is proved, best first: (method, what the keeper sees)."""
    causes: tuple[str, ...]
    """What a flow short of the sums usually comes from, likeliest first."""
    limits: Callable[[FilterTable, Bools, Room], list[Limit]]
    """Its own hard limits. table: all filters; mine: which are of this kind; room."""
    steps: Callable[[StepFacts, Working], list[Step]]
    after: dict[str, tuple[str, ...]]
    """What must be done before each step."""
    looks: dict[str, tuple[tuple[str, str, str, PartRole], ...]]
    """Before power: points found on the drawing and confirmed."""
    marks: Callable[[Ground], list[Mark]]
    runs: Callable[[Ground], list[RunDraft]]
    faults: Callable[[Ground], list[PlacedIssue]]
    fittings: Callable[[Ground], list[Purchase]]
    """What the plan takes besides hoses and lines, each once."""
    mishaps: Callable[[Ground], list[MishapDraft]]
    care: Care
    """How it is cleaned."""
    messy: tuple[str, str] | None = None
    """Why it is barred for large messy animals ("{who}" is filled in), and the remedy; None where it is not."""
    messy_only_air: bool = False
    usual_box: bool = False
    """What a box with figures on it is taken for until its kind is said: one kind has this (common practice)."""
    caveats: Callable[[Filter, Room], list[str]] = field(default=_none)
    body_x_share: float = 0.72
    """Where it stands along the tank unless the keeper says otherwise."""

    def air(self, f: Filter) -> bool:
        """Whether air drives one of this kind. f: the filter."""
        return f.air_l_min is not None
