"""The newest tests of a log as the question of `water-speciation`."""

from reedmace.core.chemistry.water_speciation import WaterSpeciationQuestion
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.suspect_readings import HIGHEST, read_interval

READ_HALF_C, UNREAD_HALF_C = 0.5, 2.0
"""How well a temperature is known that was read, and one that is only usual, °C (memory)."""


def speciation_question(log: CycleLog) -> WaterSpeciationQuestion | None:
    """What the newest tests say of the water; None while pH was never read. log: the cycle's."""
    ph = log.latest("ph")
    if ph is None:
        return None
    found = {name: log.latest(name) for name in ("ammonia_mg_n_l", "nitrite_mg_n_l", "nitrate_mg_n_l", "kh_dkh")}
    newest = {name: pair[1] for name, pair in found.items() if pair is not None}
    return WaterSpeciationQuestion(
        **{"kh_dkh": log.start_kh_dkh, **newest},
        ph=ph[1],
        temperature_c=log.temperature_now_c(),
        salinity_g_kg=log.salinity_g_kg,
        ammonia_half_mg_n_l=_half_step_mg_n_l(log),
        kh_half_dkh=log.kit.kh_step_dkh / 2,
        temperature_half_c=READ_HALF_C if log.warmth_measured() else UNREAD_HALF_C,
    )


def _half_step_mg_n_l(log: CycleLog) -> float:
    """Half of what the newest ammonia test may stand for, mg N/L."""
    read = [r for r in log.readings if r.ammonia_mg_n_l is not None]
    interval = read_interval(log, max(read, key=lambda r: r.day), "ammonia") if read else None
    if interval is None:
        return log.kit.zero_mg_n_l("ammonia")
    low, high, first = interval
    # A top step has no end of its own: it is taken to reach as far as the step below it.
    return min((high - max(low, 0.0)) / 2, 20.0) if high < HIGHEST else first
