"""Animals of a practice tank: what harms them, how fast, and from when it shows. All of it memory."""

from dataclasses import dataclass
from typing import NamedTuple

DISTRESS_AT, DIES_AT, SURVIVORS_AT = 0.3, 1.0, 0.8
"""Harm at which distress shows, at which a quarter die, and at which the rest go on."""
DIES_SHARE = 0.25
FREE_SAFE, FREE_HARM = 0.02, 0.08
"""Free ammonia animals bear, and the excess that is as much as they bear in a day, mg N/L."""
NITRITE_FRESH, NITRITE_SALT, NITRITE_HARM = 0.25, 4.0, 8.0
"""Nitrite animals bear in fresh and in salt water, mg N/L, and the multiple over it that is as much as they bear in a
day: chloride keeps it out of their blood."""
OXYGEN_SAFE, OXYGEN_HARM = 3.2, 2.5
"""Oxygen animals bear, mg/L, and harm a day for each mg/L under it."""
COLD_BEARS_C, COLD_HARM_C, HEAT_BEARS_C, HEAT_HARM_C = 3.0, 8.0, 2.0, 6.0
"""Degrees outside their range that animals bear, and degrees beyond that are as much as they bear in a day."""
ACID_SAFE, ACID_HARM = 5.6, 0.4
"""pH animals bear, and harm a day for each unit under it."""
RECOVERS = 0.2
"""Harm that passes in a day without any."""
ROTS_DAYS = 3.0
"""What dead animals release, in days of what they gave off alive."""


@dataclass
class Group:
    """Animals of one kind that came together."""

    species_id: str
    count: int
    load: float
    sensitivity: float
    low_c: float
    high_c: float
    breathes: float
    harm: float = 0.0


class Water(NamedTuple):
    """What harms animals: free ammonia and nitrite in mg N/L, oxygen in mg/L, °C, pH."""

    free: float
    no2: float
    oxygen: float
    warmth_c: float
    ph: float


def harms(water: Water, group: Group, *, salt: bool) -> dict[str, float]:
    """Harm a day to a group of animals, by cause. group: which; salt: whether it is salt water."""
    nitrite_safe = NITRITE_SALT if salt else NITRITE_FRESH
    return {
        "ammonia": max(water.free - FREE_SAFE, 0.0) / FREE_HARM,
        "nitrite": max(water.no2 - nitrite_safe, 0.0) / (NITRITE_HARM * nitrite_safe),
        "want of oxygen": group.breathes * max(OXYGEN_SAFE - water.oxygen, 0.0) * OXYGEN_HARM,
        "cold": max(group.low_c - COLD_BEARS_C - water.warmth_c, 0.0) / COLD_HARM_C,
        "heat": max(water.warmth_c - group.high_c - HEAT_BEARS_C, 0.0) / HEAT_HARM_C,
        "acid water": max(ACID_SAFE - water.ph, 0.0) * ACID_HARM,
    }
