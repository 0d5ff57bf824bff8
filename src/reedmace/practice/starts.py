"""Starts that lessons share: a tank of usual sizes, a filter that runs, plans, and weeks kept by a usual keeper."""

from collections.abc import Sequence
from typing import Any

from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.filter import Filter
from reedmace.core.filter.kinds import KINDS
from reedmace.core.filter.typical import typical_box
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.tank import TankVolumeQuestion, tank_volume
from reedmace.practice.kit import read_kit
from reedmace.practice.lesson import DAY, Written
from reedmace.standins.practice_run import Act
from reedmace.standins.practice_tank import PracticeTank

SIZES = {"length_cm": 80, "width_cm": 35, "height_cm": 40, "substrate_depth_cm": 4}
NET_L = tank_volume(TankVolumeQuestion.model_validate(SIZES)).net_l
"""Water in that tank, L."""
FILTER_KEY = "f1"


def tank_plan(**more: Any) -> Written:
    """The tank: 80 x 35 x 40 cm. more: other fields of the plan."""
    return Written(0, {"kind": "tank-plan", "tank": SIZES, **more})


def stock_plan(**counts: int) -> Written:
    """Animals that are planned. counts: by species, with _ for - in their names."""
    animals = [{"species_id": name.replace("_", "-"), "count": n} for name, n in counts.items()]
    return Written(0, {"kind": "stock-plan", "animals": animals})


def usual_box(kind: str, lph: float) -> Filter:
    """A box as they are usually made. kind: its name; lph: on its label, L/h."""
    return typical_box(next(k for k in KINDS if k.name == kind), lph)


def filter_plan(kind: str = "hang-on", lph: float = 500) -> Written:
    """A filter as they are usually made, hung and running. kind, lph: which."""
    body = usual_box(kind, lph).model_dump(mode="json")
    return Written(0, {"kind": "filter-plan", "filters": [{"key": FILTER_KEY, "filter": body}]})


def cycle_plan(**more: Any) -> Written:
    """How it is cycled, from the start. more: fields of the plan."""
    return Written(0, {"kind": "cycle-plan", **more})


def kept_days(given_tank: PracticeTank, before: Sequence[Act], days: int, *, soda: bool = False) -> list[Written]:
    """A logbook of days kept by a usual keeper, who tests every second evening.

    It doses to 2 ppm when ammonia reads under half a ppm and nitrite under 5. given_tank: with its seed; before: acts
    not in the logbook; soda: whether it raises KH in time.
    """
    written: list[Written] = []
    acts = list(before)
    target = 2 * NITROGEN_SHARE["NH4"]
    for day in range(0, days, 2):
        minute = minutes(day, 10)
        seen = read_kit(given_tank.run(acts, minute).samples[-1], KitSteps(), given_tank.seed, minute)
        written.append(Written(minute, {"kind": "reading", **seen}))
        if day == 0 or (seen["ammonia_ppm"] < 0.5 and seen["nitrite_ppm"] < 5):
            rise = round(max(target - seen["ammonia_ppm"] * NITROGEN_SHARE["NH4"], 0.1), 2)
            written.append(Written(minute + 5, {"kind": "dose", "raise_mg_n_l": rise}))
            acts.append(Act(minute + 5, "dose", rise * given_tank.dose_strength()))
        if soda and seen["kh_dkh"] < 3:
            written.append(Written(minute + 8, {"kind": "alkalinity", "raise_dkh": 3}))
            acts.append(Act(minute + 8, "soda", 3))
    return written


def tests_of(given_tank: PracticeTank, acts: Sequence[Act], days: Sequence[float]) -> list[Written]:
    """Tests on some days. given_tank: with its seed; acts: all that was done; days: since the start."""
    found = []
    for day in days:
        minute = minutes(day, 10)
        seen = read_kit(given_tank.run(acts, minute).samples[-1], KitSteps(), given_tank.seed, minute)
        found.append(Written(minute, {"kind": "reading", **seen}))
    return found


def minutes(day: float, hour: float = 0.0) -> float:
    """Minutes on the clock. day: since the start; hour: of that day."""
    return day * DAY + hour * 60


def power_cut(minute: float, hours: float) -> tuple[Act, ...]:
    """The filter stands still, and runs again. minute: from when; hours: how long."""
    return (Act(minute, "run", 0.0), Act(minute + hours * 60, "run", 1.0))


def merged(*parts: Sequence[Written]) -> list[Written]:
    """Entries of several parts in the order of time."""
    return sorted((one for part in parts for one in part), key=lambda one: one.minute)
