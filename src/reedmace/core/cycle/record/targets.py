"""Target water of a tank: its animals' tolerance, and the KH held for the filter bacteria."""

from dataclasses import dataclass

from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.chemistry.tolerance import SOFT_PH, Tolerance
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.film import FILM_SLOWS_PH
from reedmace.core.stock import SPECIES

FRESH_KH_DKH, SALT_KH_DKH = (2.0, 4.0), (6.0, 8.0)
"""KH below which baking soda is asked for and up to which it is given, dKH (common practice)."""
LEAST_PH = 5.2
"""pH below which even a film grown in acid water nearly stops (common practice)."""


@dataclass(frozen=True)
class WaterTargets:
    """KH in dKH and pH: under `kh_low_dkh` soda is asked for, up to `kh_target_dkh`; under `ph_low` it is too acid."""

    kh_low_dkh: float
    kh_target_dkh: float
    ph_low: float
    soft: bool


def held_kh_dkh(salinity_g_kg: float) -> tuple[float, float]:
    """(least, target) KH for the bacteria, dKH, where animals want nothing else.

    salinity_g_kg: g/kg. Source: common practice.

    >>> [round(x, 4) for x in held_kh_dkh(35.0)]
    [6.0, 8.0]
    """
    return FRESH_KH_DKH if is_fresh(salinity_g_kg) else SALT_KH_DKH


def tolerance_of(log: CycleLog) -> Tolerance:
    """Tolerance of the animals in the tank, or of those planned where unrecorded; °C and pH. log: the cycle's."""
    known = SPECIES | {one.id: one for one in log.own_species}
    kept = [known[a.species_id] for a in log.present or log.animals if a.species_id in known]
    if not kept:
        return Tolerance()
    return Tolerance(
        low_c=max(s.temperature_low_c for s in kept),
        high_c=min(s.temperature_high_c for s in kept),
        ph_low=max(s.ph_low for s in kept),
        ph_high=min(s.ph_high for s in kept),
    )


def breathe_water_share(log: CycleLog) -> float:
    """Most of its oxygen that any animal in the tank takes from the water, 0 to 1; 1 where nobody is named.

    log: the cycle's.
    """
    known = SPECIES | {one.id: one for one in log.own_species}
    kept = [known[a.species_id].water_breathing_share for a in log.present or log.animals if a.species_id in known]
    return max(kept, default=1.0)


def targets_of(log: CycleLog) -> WaterTargets:
    """Target water. log: the cycle's. Source: common practice."""
    if not is_fresh(log.salinity_g_kg):
        return WaterTargets(*held_kh_dkh(log.salinity_g_kg), FILM_SLOWS_PH, soft=False)
    bearing = tolerance_of(log)
    if bearing.ph_high is not None and bearing.ph_high <= SOFT_PH:
        return WaterTargets(0.0, 0.0, max(LEAST_PH, (bearing.ph_low or FILM_SLOWS_PH) - 0.5), soft=True)
    return WaterTargets(*held_kh_dkh(log.salinity_g_kg), FILM_SLOWS_PH, soft=False)
