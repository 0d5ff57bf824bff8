"""Hard limits: what keeps a filter off this tank, each with its reason and its remedy."""

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from reedmace.core.filter.room import Room
from reedmace.core.filter.table import Bools, FilterTable, Floats
from reedmace.core.stock.species import Sizing

RIM_GAP_CM = 6.0
OVER_CANISTER_CM, OVER_SUMP_CM, UNDER_SURFACE_CM = 8.0, 10.0, 3.0
ENOUGH_SHARE = 0.7
MOST_OF_ONE = 4
MESSY: tuple[Sizing, ...] = ("messy", "cichlid", "turtle", "goldfish")


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


def _wall(t: FilterTable, room: Room) -> list[Limit]:
    hang, canister, sump = t.is_kind("hang-on"), t.is_kind("canister"), t.is_kind("sump")
    over = np.where(sump, OVER_SUMP_CM, OVER_CANISTER_CM)
    tall = t.height_cm + over
    return [
        Limit(
            hang & (room.behind_cm < t.behind_cm),
            lambda i: f"needs {t.behind_cm[i]:g} cm behind the tank, you have {room.behind_cm:g}",
            lambda i: f"move the tank {t.behind_cm[i] - room.behind_cm:g} cm further off the wall",
            "behind_cm",
            t.behind_cm,
        ),
        Limit(
            hang & (room.rim_to_water_cm > RIM_GAP_CM),
            lambda _: f"wants the water near the rim, yours is {room.rim_to_water_cm:g} cm below",
            lambda _: f"fill the tank {room.rim_to_water_cm - RIM_GAP_CM:g} cm higher",
            "rim_to_water_cm",
            np.full(len(t), RIM_GAP_CM),
        ),
        Limit(
            hang & (t.width_cm > room.length_cm),
            lambda i: f"is {t.width_cm[i]:g} cm wide, the tank {room.length_cm:g}",
            lambda _: "choose a smaller one",
        ),
        Limit(
            (canister | sump) & (room.beneath_cm < tall),
            lambda i: (
                f"stands {t.height_cm[i]:g} cm high and wants {over[i]:g} cm over it for the hoses; there are {room.beneath_cm:g} cm under the tank"
            ),
            lambda i: f"find {tall[i] - room.beneath_cm:g} cm more height below or beside the tank",
            "beneath_cm",
            tall,
        ),
        Limit(
            sump & (t.width_cm > room.length_cm),
            lambda i: f"is {t.width_cm[i]:g} cm long, the tank above it {room.length_cm:g}",
            lambda _: "choose a shorter one",
        ),
        Limit(
            sump & (not room.drilled and not room.overflow_box),
            lambda _: "needs a drilled tank or an overflow box, and the tank has neither",
            lambda _: "hang an overflow box, or have the tank drilled by someone who does it for a living",
            "overflow_box",
            np.ones(len(t)),
        ),
    ]


def _water(t: FilterTable, room: Room) -> list[Limit]:
    inside = t.is_kind("sponge", "box", "internal")
    sheet, plate = t.is_kind("sheet"), t.is_kind("under-gravel")
    tall = t.height_cm + UNDER_SURFACE_CM
    return [
        Limit(
            ~t.salt & (room.water != "fresh"),
            lambda _: "is not made for salt water",
            lambda _: "choose one that is",
        ),
        Limit(
            inside & (room.water_depth_cm < tall),
            lambda i: (
                f"stands {t.height_cm[i]:g} cm high and its outlet must stay under water; yours is {room.water_depth_cm:.0f} cm deep"
            ),
            lambda i: f"raise the water by {tall[i] - room.water_depth_cm:.0f} cm",
            "water_depth_cm",
            tall,
        ),
        Limit(
            sheet & ((t.width_cm > max(room.width_cm, room.length_cm)) | (room.water_depth_cm < 12)),
            lambda i: f"is {t.width_cm[i]:g} cm wide and spans no side of this tank",
            lambda _: "cut it down, or choose a smaller one",
        ),
        Limit(
            plate & ((t.width_cm > room.length_cm) | (t.depth_cm > room.width_cm)),
            lambda i: f"covers {t.width_cm[i]:g} × {t.depth_cm[i]:g} cm, more than the floor of this tank",
            lambda _: "choose a smaller plate",
        ),
    ]


def _animals(t: FilterTable, room: Room, sizing: Sizing) -> list[Limit]:
    small, plate, air = t.is_kind("internal", "box"), t.is_kind("under-gravel"), t.air
    who = {"goldfish": "goldfish", "turtle": "turtles", "cichlid": "African cichlids"}.get(sizing, "large messy fish")
    return [
        Limit(
            plate & (sizing in MESSY),
            lambda _: f"clogs under {who} and cannot be cleaned without stripping the tank",
            lambda _: "keep it for small, light stock",
        ),
        Limit(
            (small | air) & ~plate & (sizing in MESSY),
            lambda _: f"clogs within days under {who}",
            lambda _: "use it as a second filter beside a hang-on or a canister",
        ),
        Limit(
            np.full(len(t), room.sockets < 1),
            lambda _: "there is no socket near the tank",
            lambda _: "have a socket fitted by a licensed electrician",
            "sockets",
            np.ones(len(t)),
        ),
        Limit(
            ~t.restarts & room.often_away,
            lambda _: "does not restart by itself after a power cut, and you asked for that",
            lambda _: "choose one that does, or a second filter beside it",
        ),
    ]


def limits_of(t: FilterTable, room: Room, sizing: Sizing, clean: Floats, dirty: Floats, low_lph: float) -> list[Limit]:
    """Every hard limit over the table.

    t: n filters; room: the tank's; sizing: the most demanding animal's class; clean, dirty: flows (n,), L/h;
    low_lph: the least flow the followed school asks, L/h. Source: common practice; 70 % of the asked flow is let pass.
    """

    def several(i: int) -> str:
        fewer = math.ceil(low_lph / max(dirty[i], 1e-9))
        return f"fit {fewer} of them" if fewer <= MOST_OF_ONE else "choose a larger one"

    return [
        *_wall(t, room),
        *_water(t, room),
        *_animals(t, room, sizing),
        Limit(clean <= 0, lambda _: "its pump cannot reach the outlet", lambda _: "bring the outlet down to the water"),
        Limit(
            (clean > 0) & (dirty < ENOUGH_SHARE * low_lph),
            lambda i: f"moves only {dirty[i]:.0f} L/h in service where {low_lph:.0f} is asked",
            several,
        ),
    ]
