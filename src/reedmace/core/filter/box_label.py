"""What a filter's box prints, and the whole box it may be: what it does not say is as it is usually made."""

import math
import re
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Name, Question, Watts, number
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kind_parts.traits import KindName, KindTraits, kind_traits
from reedmace.core.filter.typical import LEAST_LPH, MOST_LPH, typical_box
from reedmace.core.quantity.units import L_PER_US_GAL

WHEEL_M2_PER_LPH = 0.25 / 500
"""Film of a turning wheel per flow: about a quarter of a square metre at 500 L/h (memory)."""
FLOWS_AGREE = 0.04
"""Share by which two units of one flow may differ by rounding (a stated judgement)."""
FAR_OFF = 5.0
"""Spreads between makes beyond which a figure speaks against a kind (a stated judgement)."""
SIZES_BEYOND = 1.3
"""Multiple of the largest and smallest size sold up to which a box may still be of a kind (a stated judgement)."""


class BoxLabel(Question):
    """The figures on a box; what is not printed is left out."""

    box_lph: Annotated[float, number("L/h", 1, 1e6)] | None = None
    box_us_gal_per_hour: Annotated[float, number("US gal/h", 0.2, 3e5)] | None = None
    max_head_m: Annotated[float, number("m", 0.05, 30)] | None = None
    watts: Watts | None = None
    tank_up_to_l: Annotated[float, number("L", 1, 1e6)] | None = None
    kind: KindName | None = None
    name: Name = "From the shop"
    price: Annotated[float, number("money", 0, 1e5)] | None = None
    turning_wheel: bool = Field(default=False, description="A wheel in its box that the water turns")
    mid_strainer: bool = Field(default=False, description="A second inlet half-way up the intake")
    pump_in_water: bool | None = Field(default=None, description="Where its motor stands, if the box or a look says")
    noise_db: Annotated[float, number("dB", 5, 80, "At a metre, as its box or a meter says")] | None = None
    media_l: Annotated[float, number("L", 0.02, 500, "Litres its baskets hold")] | None = None
    front_to_back: bool = Field(default=False, description="Media stand behind each other, not above each other")


def flow_of_label(label: BoxLabel) -> float | None:
    """Flow to take from a label, L/h: the smaller of two that differ; None where it says nothing to take one from.

    A kind sold by the tank it is for gives its flow by that. label: as printed.
    """
    us = None if label.box_us_gal_per_hour is None else label.box_us_gal_per_hour * L_PER_US_GAL
    if label.box_lph is not None:
        return label.box_lph if us is None or abs(us / label.box_lph - 1) <= FLOWS_AGREE else min(us, label.box_lph)
    if us is not None:
        return us
    boxes = kind_traits()[label.kind].typical if label.kind else None
    relation = boxes.figures.get("tank_up_to_l") if boxes and boxes.counted else None
    if relation is None or label.tank_up_to_l is None or boxes is None:
        return None
    return boxes.size_of("tank_up_to_l", label.tank_up_to_l)


def possible_kinds(label: BoxLabel, lph: float) -> list[KindTraits]:
    """The kinds a box may be, the likeliest first: its own where it says one. label: as printed; lph: its flow, L/h."""
    if label.kind is not None:
        return [kind_traits()[label.kind]]
    # What air drives prints no flow of its own, so a box that prints one is none of those.
    sold = [
        kind for kind in kind_traits().values() if kind.typical is not None and "max_head_m" in kind.typical.figures
    ]
    scored = sorted(((_distance(kind, label, lph), kind.order, kind) for kind in sold), key=lambda one: one[:2])
    able = [kind for off, _, kind in scored if off <= FAR_OFF]
    return able or [scored[0][2]]


def _distance(kind: KindTraits, label: BoxLabel, lph: float) -> float:
    """How far a label is from a kind, in spreads between makes: of the figure that is furthest off."""
    boxes = kind.typical
    if boxes is None:
        return math.inf
    if not boxes.smallest_lph / SIZES_BEYOND <= lph <= boxes.largest_lph * SIZES_BEYOND:
        return math.inf
    if label.turning_wheel and not kind.on_rim:
        return math.inf
    off = [
        abs(boxes.spreads_off(name, lph, value))
        for name, value in (("max_head_m", label.max_head_m), ("watts", label.watts))
        if value
    ]
    return max(off, default=1.0)


def box_of_label(label: BoxLabel, lph: float, kind: KindTraits) -> Filter:
    """The whole box of a label as one kind: what it does not say is as usual for that kind and size.

    label: as printed; lph: its flow, L/h; kind: one it may be.
    """
    size = min(max(lph, LEAST_LPH), MOST_LPH)
    known = {
        "id": "own-" + (re.sub(r"[^a-z0-9]+", "-", label.name.lower()).strip("-")[:60] or "box"),
        "name": label.name,
        "box_lph": size,
        "price": label.price,
        "price_known": label.price is not None,
        "tank_up_to_l": label.tank_up_to_l and min(label.tank_up_to_l, 1e5),
        "max_head_m": label.max_head_m,
        "watts": label.watts and min(max(label.watts, 0.1), 2000),
        "wheel_m2": min(WHEEL_M2_PER_LPH * size, 10) if label.turning_wheel else 0,
        "bar_tilts": label.turning_wheel,
        "mid_strainer": label.mid_strainer,
        "pump_in_water": label.pump_in_water,
        "restarts_alone": label.pump_in_water,
        "noise_db": label.noise_db,
        "media_l": label.media_l,
        "media_path": "front-to-back" if label.front_to_back else None,
    }
    usual = typical_box(kind, size).model_dump()
    return Filter.model_validate(usual | {k: v for k, v in known.items() if v is not None})
