"""Safe portions of new water or baking soda with animals in the tank.

While it is poured the water passes through every mixture in between, and in the hours after it CO2 goes back to where
this tank keeps it. So a portion is safe only when pH and ammonia are within bounds all along both ways.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from reedmace.core.chemistry.ammonia import un_ionised_share
from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.tolerance import NH3_LIMIT_MG_N_L, ammonia_reach

PH_SHIFT_ANIMALS, PH_SHIFT_EMPTY = 0.5, 1.0
"""Largest pH shift in an hour, with animals in and without (common practice for the first, memory for the second)."""
LEAST_SHARE = 0.02
"""Smallest share worth changing at once: below it tank and tap are too far apart to mix (memory)."""
_ON_THE_WAY = 5


@dataclass(frozen=True)
class Water:
    """A water with its nitrogen, mg N/L."""

    carbonate: Carbonate
    ammonia: float = 0.0
    nitrite: float = 0.0
    nitrate: float = 0.0

    def changed(self, other: "Water", share: float) -> "Water":
        """The water after a change. other: what is poured in; share: 0 to 1."""
        return Water(
            self.carbonate.mixed(other.carbonate, share),
            *(
                mine * (1 - share) + theirs * share
                for mine, theirs in (
                    (self.ammonia, other.ammonia),
                    (self.nitrite, other.nitrite),
                    (self.nitrate, other.nitrate),
                )
            ),
        )

    def with_soda(self, raise_dkh: float) -> "Water":
        """The water after adding baking soda. raise_dkh: dKH."""
        return replace(self, carbonate=self.carbonate.with_soda(raise_dkh))

    def later(self, hours: float, co2_mmol: float, made_mg_n_l_day: float) -> "Water":
        """The water hours later, without nitrification.

        hours: h; co2_mmol: the tank's usual; made_mg_n_l_day: by the animals.
        """
        return replace(
            self,
            carbonate=self.carbonate.breathing(co2_mmol, hours),
            ammonia=self.ammonia + made_mg_n_l_day * hours / 24,
        )

    def reach(self) -> float:
        """Ammonia as a share of its limit; over 1 is harmful."""
        c = self.carbonate
        return ammonia_reach(self.ammonia, c.ph(), c.temperature_c, c.salinity_g_kg)

    def free_ammonia(self) -> float:
        """Un-ionised ammonia, mg N/L."""
        c = self.carbonate
        return self.ammonia * un_ionised_share(min(max(c.ph(), 4.0), 10.0), c.temperature_c, c.salinity_g_kg)


@dataclass(frozen=True)
class Bounds:
    """Limits for a portion. Where ammonia is already harmful it must not get worse."""

    ph_shift: float
    co2_mmol: float
    animals_in: bool = True

    def holds(self, before: Water, on_the_way: Iterator[Water]) -> bool:
        """Whether all waters on the way are within the limits.

        before: the start; on_the_way: up to the end of the portion.
        """
        ph = before.carbonate.ph()
        # Two limits: much ammonia may be harmless at an acid pH, and must not turn toxic although its amount falls.
        most, most_free = max(1.0, before.reach()) * 1.001, max(NH3_LIMIT_MG_N_L, before.free_ammonia()) * 1.001

        def bearable(w: Water) -> bool:
            return not self.animals_in or (w.reach() <= most and w.free_ammonia() <= most_free)

        last = before
        for last in on_the_way:
            if abs(last.carbonate.ph() - ph) > self.ph_shift:
                return False
            if not bearable(last):
                return False
        # The hour after the portion counts towards the same hour's pH shift; later CO2 returns slowly, so only ammonia
        # matters.
        settling = [last.later(hours, self.co2_mmol, 0.0) for hours in (1.0, 4.0, 12.0)]
        if abs(settling[0].carbonate.ph() - ph) > self.ph_shift:
            return False
        return all(bearable(w) for w in settling)


def largest_change(tank: Water, tap: Water, most_share: float, bounds: Bounds) -> float:
    """Largest share that may be changed at once, 0 where none may.

    tank, tap: the waters; most_share: asked for; bounds: to be kept.
    """
    return _largest(tank, most_share, bounds, lambda share: tank.changed(tap, share))


def largest_soda_dkh(tank: Water, most_dkh: float, bounds: Bounds) -> float:
    """Largest rise of KH by baking soda that may be given at once, dKH, 0 where none may.

    tank: the water; most_dkh: asked for; bounds: to be kept.
    """
    return _largest(tank, most_dkh, bounds, tank.with_soda)


def _largest(tank: Water, most: float, bounds: Bounds, give: Callable[[float], Water]) -> float:
    def holds(amount: float) -> bool:
        return bounds.holds(tank, (give(amount * (i + 1) / _ON_THE_WAY) for i in range(_ON_THE_WAY)))

    if holds(most):
        return most
    low, high = 0.0, most
    for _ in range(9):
        middle = (low + high) / 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low
