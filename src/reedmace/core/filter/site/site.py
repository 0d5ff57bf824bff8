"""Site of a filter: the tank and its surroundings, the plumbing, the keeper's priorities."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import NetLitres, Part, number, whole
from reedmace.core.flow.materials import BAR_HOLE_MM
from reedmace.core.flow.operating_point_schemas import Fitting
from reedmace.core.stock.species import Water

RoomKind = Literal["bedroom", "living", "workshop", "shop", "fish-room"]


Co2 = Literal["none", "by-day", "day-and-night"]


class Site(Part):
    """The tank and its surroundings."""

    net_l: NetLitres
    water_depth_cm: Annotated[float, number("cm", 1, 300)]
    length_cm: Annotated[float, number("cm", 5, 1000)]
    width_cm: Annotated[float, number("cm", 5, 500)]
    rim_to_water_cm: Annotated[float, number("cm", 0, 100)] = 3
    behind_cm: Annotated[float, number("cm", 0, 300, "From the back glass to the wall")] = 10
    beneath_cm: Annotated[float, number("cm", 0, 300, "Free height under the tank")] = 60
    sockets: Annotated[int, whole(0, 40)] = 2
    water: Water = "fresh"
    kind: RoomKind = "living"
    drilled: bool = False
    overflow_box: bool = Field(
        default=False, description="A box that siphons over the rim, for a tank that is not drilled"
    )
    lid: bool = Field(default=False, description="Closed to the edges")
    cabinet_shut: bool = Field(default=False, description="The stand has doors, and they are shut")
    planted: bool = False
    co2: Co2 = Field(default="none", description="Whether CO2 is bubbled in, and whether through the night")
    surface_film: bool = Field(default=False, description="A film like oil lies on the surface")
    filled: bool = Field(default=False, description="Full of water already: it is not moved")
    often_away: bool = Field(default=False, description="Owner away or frequent power cuts: it must restart by itself")
    tanks_here_count: Annotated[int, whole(1, 200, "Tanks in this place that one air pump could feed")] = 1
    air_own: bool = Field(
        default=False, description="This tank's air comes from a pump of its own whatever the room has"
    )
    air_stones: bool = Field(default=False, description="Air stones in the lift tubes: finer, quieter bubbles")
    sump_level_cm: (
        Annotated[
            float, number("cm", 1, 200, "Water over the sump's foot in its return chamber; left out, a usual one")
        ]
        | None
    ) = None
    film_here_m2: Annotated[float, number("m²", 0, 1e5, "Glass, gravel and decor that carry film already")] = 0

    @property
    def air_shared(self) -> bool:
        """Whether the air comes from a pump shared by the tanks of the room."""
        return self.tanks_here_count > 1 and not self.air_own


class Plumbing(Part):
    """Hoses of a canister or sump, as planned. A bore left out is each filter's own."""

    hose_bore_mm: Annotated[float, number("mm", 6, 110)] | None = None
    hose_length_m: Annotated[float, number("m", 0.2, 50, "Both hoses together")] = 2.8
    intake_share: Annotated[float, number("share", 0, 1, "Of both hoses, what leads to the filter; drawn later")] = 0.5
    outlet_above_water_cm: Annotated[
        float, number("cm", -100, 1000, "Under 0 it lies under water, and then the height costs nothing")
    ] = -2
    speed_share: Annotated[float, number("share", 0.2, 1, "Of full speed, where the pump can be turned down")] = 1
    bar_holes_count: (
        Annotated[int, whole(1, 200, "Of a spray bar; left out, as many as its hose usually has")] | None
    ) = None
    bar_hole_mm: Annotated[float, number("mm", 0.5, 20)] = BAR_HOLE_MM
    fittings: Annotated[list[Fitting], Field(max_length=30)] = Field(
        default_factory=lambda: [
            Fitting(kind="strainer"),
            Fitting(kind="entrance"),
            Fitting(kind="u-bend", count=2),
            Fitting(kind="quick-valve"),
            Fitting(kind="spray-bar"),
            Fitting(kind="exit"),
        ]
    )


Weight = Annotated[int, whole(0, 5, "0 does not matter, 5 matters most")]


class Priorities(Part):
    """Weight of each priority, 0 to 5."""

    price: Weight = 3
    running_cost: Weight = 1
    quiet: Weight = 3
    easy_clean: Weight = 3
    clear_water: Weight = 2
    hidden: Weight = 2
    room_in_tank: Weight = 1
    flood_safety: Weight = 2
    power_cut: Weight = 2
    chemical: Weight = 0
    expandable: Weight = 0
    redundant: Weight = 1
    young_safe: Weight = 0


SOME_TANKS, MANY_TANKS = 4, 20
"""Tanks from which a room is run for ease, and from which it is run on air (common practice)."""
SUMP_FROM_L = 380.0
"""Volume from which a sump comes into its own (common practice)."""
YOUNG_SAFE = 5
"""Weight of safety for young and shrimp where the stock holds any (a stated judgement)."""


_BY_ROOM: dict[RoomKind, dict[str, int]] = {
    "bedroom": {"quiet": 5, "hidden": 2, "flood_safety": 3},
    "shop": {"quiet": 1, "clear_water": 4, "easy_clean": 4, "hidden": 1},
    "fish-room": {"quiet": 0, "hidden": 0, "price": 4, "running_cost": 3, "easy_clean": 4},
    "workshop": {"quiet": 2, "hidden": 1},
}


def default_priorities(site: Site, *, has_young: bool = False) -> Priorities:
    """Default priorities for a site.

    site: the tank's; has_young: whether young or shrimp live there. Source: common practice: quiet and out of sight
    where people sit or sleep; cheap, safe to leave and one air pump for all where many tanks stand; a sump's room where
    a large tank is drilled for one.
    """
    p = Priorities().model_dump() | _BY_ROOM.get(site.kind, {})
    if site.water == "salt":
        # Space for a skimmer, a heater, a top-off and later additions weighs most (common practice of salt-water
        # keepers).
        p |= {"expandable": 5, "clear_water": 3, "price": 2, "quiet": 2}
    if site.co2 != "none":
        p |= {"hidden": max(p["hidden"], 4)}
    if site.drilled and site.net_l >= SUMP_FROM_L:
        p |= {"expandable": 4, "clear_water": 3}
    if site.tanks_here_count >= MANY_TANKS:
        p |= {"running_cost": 4, "price": 5}
    elif site.tanks_here_count >= SOME_TANKS:
        # A handful is kept by hand: what is cleaned in a minute saves most.
        p |= {"easy_clean": 5}
    if has_young:
        p |= {"young_safe": YOUNG_SAFE}
    if site.often_away:
        p |= {"power_cut": 5, "redundant": 3}
    return Priorities(**p)
